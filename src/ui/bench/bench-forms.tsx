"use client";
import { type AdhesionMethod, crossCutFromSquares, isoOfXCut, xCutGrade } from "@/core/bench";
import { fieldsOf, type Options } from "../fields/in-form";
import { Tick } from "../fields/tick";
import { Entry } from "../forms/entry";
import { type EntryForm, useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { failureText } from "../words/failures";
import { DoneOn, doneOn, doneOnBegun } from "./done-on";
import { type Earlier, useReplaces } from "./replaces";
import { TestGuide } from "./test-guide";

const rubGrades: Options = [
  ["", "choose"],
  ["5", "5 no effect"],
  ["4", "4 slight dulling"],
  ["3", "3 marked dulling"],
  ["2", "2 colour on cloth"],
  ["1", "1 film softens"],
  ["0", "0 through to metal"],
];
type OfATest = { readonly rack: string; readonly panels: readonly string[]; readonly earlier: readonly Earlier[] };
const on = (held: unknown) => held as EntryForm<{ on: string }>;

/** Cross-cut: squares lost are tapped on a drawn lattice or typed; both scales are worked out at once. */
export function CrossCutForm({
  rack,
  lattice,
  why,
  worstIso,
  panels,
  earlier,
}: OfATest & {
  readonly lattice: Extract<AdhesionMethod, { method: "cross-cut" }>;
  /** What the method was chosen by. */
  readonly why: string;
  readonly worstIso: number;
}) {
  const replaces = useReplaces(earlier, "cut", rack);
  const begun = { lost: new Set() as ReadonlySet<number>, none: false, ...doneOnBegun(panels) };
  const held = useEntryForm(`cross-cut ${rack}`, begun);
  const recorder = useRecorder(held);
  const [lost, setLost] = held.field("lost");
  const [none, setNone] = held.field("none");
  const { squares, spacingMm, cuts } = lattice;
  const side = Math.sqrt(squares);
  const looked = none || lost.size > 0;
  const grade = crossCutFromSquares(lost.size, squares);
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
        const { supersedes } = replaces;
        const counted = { squaresLost: lost.size, squares, spacingMm };
        const kept = await recorder.send({
          kind: "cross-cut",
          rack,
          ...counted,
          ...doneOn(held.values.on),
          supersedes,
        });
        if (kept) replaces.done();
        return kept;
      }}
    >
      <h2>
        Cross-cut with tape, {cuts} cuts {spacingMm} mm apart <span className="soft font-normal">{why}</span>
      </h2>
      <TestGuide test="cross-cut" lattice={lattice} />
      <div className="mt-2 flex flex-wrap gap-6">
        <fieldset
          className="grid w-[240px] gap-0.5 border-0 p-0"
          style={{ gridTemplateColumns: `repeat(${side}, minmax(0, 1fr))`, ...(side > 5 ? { width: 470 } : {}) }}
        >
          <legend className="small soft mb-1">Mark each square that came away</legend>
          {Array.from({ length: squares }, (_, i) => i).map((i) => (
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
            <span className="text-[14px]"> of {squares}</span>
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
          <DoneOn held={on(held)} panels={panels} />
        </div>
      </div>
      {replaces.fields}
    </Entry>
  );
}

/** The X-cut, where the film is too thick for a lattice: what came off along the cuts. */
export function XCutForm({
  rack,
  why,
  worstIso,
  panels,
  earlier,
}: OfATest & { readonly why: string; readonly worstIso: number }) {
  const replaces = useReplaces(earlier, "x-cut", rack);
  const held = useEntryForm(`x-cut ${rack}`, {
    off: null as "none" | "trace" | "tear" | "most" | "beyond" | null,
    tear: "",
    ...doneOnBegun(panels),
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { off } = held.values;
  const tear = held.live("tear");
  const grade =
    off === null
      ? null
      : off === "tear"
        ? tear === null
          ? null
          : xCutGrade({ off: "tear", mm: tear })
        : xCutGrade({ off });
  return (
    <Entry
      held={held}
      id="x-cut"
      sending={recorder}
      button="Record X-cut"
      primary
      begin={["off", "tear"]}
      send={async (read) => {
        if (off === null) return read.refuse("off", "Choose what came off.");
        const tearMm = off === "tear" ? read.number("tear") : null;
        const { supersedes } = replaces;
        const kept = await recorder.send({ kind: "x-cut", rack, off, tearMm, ...doneOn(held.values.on), supersedes });
        if (kept) replaces.done();
        return kept;
      }}
    >
      <h2>
        X-cut with tape <span className="soft font-normal">{why}</span>
      </h2>
      <TestGuide test="x-cut" />
      <F.Ask
        name="off"
        label="What came off"
        of={[
          ["none", "Nothing"],
          ["trace", "A trace along the cuts"],
          ["tear", "A jagged strip"],
          ["most", "Most of the X"],
          ["beyond", "Past the X"],
        ]}
      />
      <div className="flex flex-wrap items-end gap-3">
        {off === "tear" && <F.Num name="tear" label="Widest to one side, mm" className="w-[170px]" />}
        <DoneOn held={on(held)} panels={panels} />
        {grade?.ok && (
          <span className="pb-2">
            <Verdict result={isoOfXCut(grade.value) > worstIso ? "out" : "in"}>
              {grade.value}, worth grade {isoOfXCut(grade.value)}
            </Verdict>{" "}
            <span className="small soft">grade {worstIso} or better asked for</span>
          </span>
        )}
        {grade && !grade.ok && <span className="text-watch">{failureText(grade.error)}</span>}
      </div>
      {replaces.fields}
    </Entry>
  );
}

export function SolventRubForm({
  rack,
  knownCuredGrade,
  panels,
  earlier,
}: OfATest & { readonly knownCuredGrade: number }) {
  const replaces = useReplaces(earlier, "rub", rack);
  const held = useEntryForm(`rub ${rack}`, { rubs: "50", limit: "50", grade: "", ...doneOnBegun(panels) });
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
        const { grade } = held.values;
        const [doubleRubs, limit] = [read.number("rubs"), read.number("limit")];
        if (grade === "") read.refuse("grade", "Choose the grade: what the rubbed place looks like.");
        const { supersedes } = replaces;
        const rubbed = { doubleRubs, limit, grade: Number(grade), ...doneOn(held.values.on) };
        const kept = await recorder.send({ kind: "solvent-rub", rack, ...rubbed, supersedes });
        if (kept) replaces.done();
        return kept;
      }}
    >
      <h2>Solvent rub, against this powder's known-cured panel (grade {knownCuredGrade})</h2>
      <TestGuide test="solvent-rub" />
      <div className="flex flex-wrap items-end gap-3">
        <F.Num name="rubs" label="double rubs" id="rubs" className="w-[110px]" />
        <F.Num name="limit" label="limit" id="limit" className="w-[110px]" />
        <F.Pick name="grade" label="grade 5–0" id="grade" of={rubGrades} required className="w-[180px]" />
        <DoneOn held={on(held)} panels={panels} />
      </div>
      {replaces.fields}
    </Entry>
  );
}
