"use client";
import { crossCutFromSquares } from "@/core/bench";
import { fieldsOf, type Options } from "../fields/in-form";
import { Tick } from "../fields/tick";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { type Earlier, useReplaces } from "./replaces";

const SQUARES = 25 as const;
const rubGrades: Options = [
  ["", "choose"],
  ["5", "5 no effect"],
  ["4", "4 slight dulling"],
  ["3", "3 marked dulling"],
  ["2", "2 colour on cloth"],
  ["1", "1 film softens"],
  ["0", "0 through to metal"],
];

/** Cross-cut: squares lost are tapped on a drawn lattice or typed; both scales are worked out at once. */
export function CrossCutForm({
  rack,
  spacingMm,
  worstIso,
  earlier,
}: {
  rack: string;
  spacingMm: number | null;
  worstIso: number;
  earlier: readonly Earlier[];
}) {
  const replaces = useReplaces(earlier, "cut", rack);
  const begun = { lost: new Set() as ReadonlySet<number>, none: false, onPanel: true };
  const held = useEntryForm(`cross-cut ${rack}`, begun);
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const [lost, setLost] = held.field("lost");
  const [none, setNone] = held.field("none");
  const looked = none || lost.size > 0;
  const grade = crossCutFromSquares(lost.size, SQUARES);
  const toggle = (i: number) => {
    setNone(false);
    setLost((s) => {
      const n = new Set(s);
      if (!n.delete(i)) n.add(i);
      return n;
    });
  };
  return (
    <Entry
      held={held}
      id="cut"
      sending={recorder}
      button="Record cross-cut"
      primary
      begin={["lost", "none"]}
      send={async () => {
        const { onPanel } = held.values;
        const { supersedes } = replaces;
        const counted = { squaresLost: lost.size, squares: SQUARES, spacingMm };
        const kept = await recorder.send({ kind: "cross-cut", rack, ...counted, onPanel, supersedes });
        if (kept) replaces.done();
        return kept;
      }}
    >
      <h2>Cross-cut with tape{spacingMm ? `, cuts ${spacingMm} mm apart` : ""}</h2>
      <div className="mt-2 flex flex-wrap gap-6">
        <fieldset className="grid w-[240px] grid-cols-5 gap-0.5 border-0 p-0">
          <legend className="small soft mb-1">Mark each square that came away</legend>
          {Array.from({ length: SQUARES }, (_, i) => i).map((i) => (
            <button
              key={i}
              type="button"
              aria-pressed={lost.has(i)}
              aria-label={`Square ${i + 1}`}
              onClick={() => toggle(i)}
              className={`h-11 border-[1.5px] ${lost.has(i) ? "border-out bg-[repeating-linear-gradient(45deg,var(--out)_0_3px,transparent_3px_7px)]" : "border-rule-strong bg-raised"}`}
            />
          ))}
        </fieldset>
        <div>
          <div className="small soft">squares lost</div>
          <div className="fig text-[30px] font-bold leading-none">
            {looked ? lost.size : "–"}
            <span className="text-[14px]"> of {SQUARES}</span>
          </div>
          {grade.ok && (
            <p className="mt-3">
              {looked ? (
                <Verdict result={grade.value.iso > worstIso ? "out" : "in"}>
                  Grade {grade.value.iso}, {grade.value.astmB}
                </Verdict>
              ) : (
                <Verdict result="unknown">Not looked at yet</Verdict>
              )}
              <br />
              <span className="small soft">grade {worstIso} or better asked for</span>
            </p>
          )}
          {lost.size === 0 && (
            <label className="mt-3 flex min-h-11 items-center gap-2">
              <Tick required checked={none} onChange={setNone} /> no square came away
            </label>
          )}
          <F.Yes name="onPanel" className="mt-3">
            on the panel that travelled with it
          </F.Yes>
        </div>
      </div>
      {replaces.fields}
    </Entry>
  );
}

export function SolventRubForm({
  rack,
  knownCuredGrade,
  earlier,
}: {
  rack: string;
  knownCuredGrade: number;
  earlier: readonly Earlier[];
}) {
  const replaces = useReplaces(earlier, "rub", rack);
  const held = useEntryForm(`rub ${rack}`, { rubs: "50", limit: "50", grade: "", onPanel: true });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="rub"
      sending={recorder}
      button="Record rub"
      primary
      send={async (read) => {
        const { grade, onPanel } = held.values;
        const [doubleRubs, limit] = [read.number("rubs"), read.number("limit")];
        if (grade === "") read.refuse("grade", "Choose the grade: what the rubbed place looks like.");
        const { supersedes } = replaces;
        const rubbed = { doubleRubs, limit, grade: Number(grade) };
        const kept = await recorder.send({ kind: "solvent-rub", rack, ...rubbed, onPanel, supersedes });
        if (kept) replaces.done();
        return kept;
      }}
    >
      <h2>Solvent rub, against this powder's known-cured panel (grade {knownCuredGrade})</h2>
      <div className="grid max-w-[420px] grid-cols-3 gap-3">
        <F.Num name="rubs" label="double rubs" id="rubs" />
        <F.Num name="limit" label="limit" id="limit" />
        <F.Pick name="grade" label="grade 5–0" id="grade" of={rubGrades} required />
      </div>
      <F.Yes name="onPanel">on the panel that travelled with it</F.Yes>
      {replaces.fields}
    </Entry>
  );
}
