"use client";
import { fieldsOf } from "../fields/in-form";
import type { EntryForm } from "../forms/use-entry-form";

const PIECE = "the piece";
const NO_NUMBER = "a panel";

/** What a test was done on, as it begins: the first panel on record, else a panel that has no number. */
export const doneOnBegun = (panels: readonly string[]): { readonly on: string } => ({ on: panels[0] ?? NO_NUMBER });
/** As it is sent. */
export const doneOn = (on: string): { readonly onPanel: boolean; readonly panel: string | null } => ({
  onPanel: on !== PIECE,
  panel: on === PIECE || on === NO_NUMBER ? null : on,
});

/** The piece itself, or one of the panels that travelled with it. */
export function DoneOn({ held, panels }: { held: EntryForm<{ on: string }>; panels: readonly string[] }) {
  const F = fieldsOf(held);
  return (
    <F.Pick
      name="on"
      label="Done on"
      className="w-[230px]"
      of={[
        ...panels.map((p): [string, string] => [p, `panel ${p}`]),
        [NO_NUMBER, "a panel that travelled with it"],
        [PIECE, "the piece itself"],
      ]}
    />
  );
}
