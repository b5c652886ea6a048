import type { BakeChannel } from "@/core/cure";
import type { EntryInput } from "@/core/kinds";
import type { Understood } from "@/core/shorthand";
import type { VerdictResult } from "@/core/verdict";

export type Failure = { readonly kind: string; readonly [detail: string]: unknown };
export type Saved =
  | {
      readonly ok: true;
      readonly recordId: string;
      readonly already: boolean;
      /** What it comes to against what is asked, where something is. */
      readonly answer?: { readonly result: VerdictResult; readonly text: string } | null;
    }
  | { readonly ok: false; readonly failure: Failure };
/** A refusal that asks: what looks like a slip is kept when it is sent once more. */
export const isQuestion = (kind: string): boolean =>
  kind === "value-in-question" || kind === "tank-in-question" || kind === "strange-readings";
export type Place = { readonly href: string; readonly label: string; readonly what: string };

type LiveChannel = Pick<BakeChannel, "name" | "medium"> & BakeChannel["trace"];

/** What the frame may ask of the server; handed down by the layout, since the interface never imports the server. */
export type LineActions = {
  readonly save: (entry: EntryInput) => Promise<Saved>;
  readonly saveShorthand: (understood: Understood, id: string, happenedAt: string, sure: boolean) => Promise<Saved>;
  /** Closes a load; with the recorder's channels it is then measured. */
  readonly pull: (recordId: string, id: string, traced?: readonly LiveChannel[] | null) => Promise<Saved>;
  readonly findPlaces: (word: string) => Promise<readonly Place[]>;
  readonly choose: (name: string, value: string) => Promise<void>;
  readonly tour: (step: number | null) => Promise<void>;
  readonly signOut: () => Promise<void>;
};
