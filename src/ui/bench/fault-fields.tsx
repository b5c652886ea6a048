"use client";
import { subKinds } from "@/core/bench";
import { DefectHint } from "../causes/defect-hint";
import { fieldsOf } from "../fields/in-form";
import { OneOf } from "../fields/one-of";
import type { EntryForm } from "../forms/use-entry-form";

/** A fault as it stands in the form of a look, before it is recorded. */
export type TypedFault = {
  readonly id: string;
  readonly face: string;
  /** Null where it was said by key, and nobody tapped where on the face. */
  readonly x: number | null;
  readonly y: number | null;
  readonly defect: string;
  readonly subKind: string | null;
  readonly sizeMm: number | null;
  readonly count: number;
  /** Which pieces show it, by their places on the rack; null where nobody said. */
  readonly pieces: readonly number[] | null;
  readonly note: string;
};
export type DefectName = { readonly id: string; readonly label: string; readonly plain: string };
/** What is typed of the fault that was just tapped. */
export const faultBegun = { kind: "", sub: "", size: "", count: "1", pieces: "", faultNote: "" };

/** “3 7-9” as places on the rack, each once; null where it is none, or names one that does not hang there. */
export function piecesIn(text: string, of: number): readonly number[] | null {
  const found = new Set<number>();
  for (const word of text.split(/[\s,;]+/).filter((w) => w !== "")) {
    const range = /^(\d+)(?:[-–](\d+))?$/.exec(word);
    const [from, to] = [Number(range?.[1]), Number(range?.[2] ?? range?.[1])];
    if (!range || from < 1 || to < from || to > of) return null;
    for (let n = from; n <= to; n++) found.add(n);
  }
  return [...found].sort((a, b) => a - b);
}
export type FaultValues = typeof faultBegun;

/** What the fault is: its kind and closer kind, the largest of them, how many on this face, how many pieces. */
export function FaultFields({
  held,
  defects,
  pieces,
}: {
  held: EntryForm<FaultValues>;
  defects: readonly DefectName[];
  pieces: number;
}) {
  const F = fieldsOf(held);
  const [kind, setKind] = held.field("kind");
  const [sub, setSub] = held.field("sub");
  const subs = subKinds[kind] ?? [];
  return (
    <div className="grid gap-3">
      <F.Pick
        name="kind"
        label="What it is"
        of={[["", "choose"], ...defects.map((d): [string, string] => [d.id, d.label])]}
        changed={(next) => {
          setKind(next);
          setSub("");
        }}
      />
      {kind !== "" && (
        <DefectHint
          id={kind}
          label={defects.find((d) => d.id === kind)?.label ?? ""}
          plain={defects.find((d) => d.id === kind)?.plain ?? ""}
        />
      )}
      {subs.length > 0 && (
        <OneOf
          label="More closely"
          value={sub === "" ? null : sub}
          options={subs.map((s) => ({ value: s.id, label: s.label }))}
          onChange={setSub}
        />
      )}
      <div className="flex flex-wrap items-end gap-3">
        <F.Num name="size" label="Largest, mm" className="w-[110px]" />
        <F.Num name="count" label="How many here" className="w-[120px]" />
        {pieces > 1 && (
          <F.Words
            name="pieces"
            label={`Which pieces, of ${pieces}`}
            most={200}
            placeholder="3 7-9"
            className="w-[150px]"
          />
        )}
        <F.Words name="faultNote" label="Note" most={400} className="min-w-[140px] flex-1" />
      </div>
    </div>
  );
}
