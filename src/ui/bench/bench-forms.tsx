"use client";
import type { FormEvent } from "react";
import { crossCutFromSquares } from "@/core/bench";
import { Choice } from "../fields/choice";
import { Tick } from "../fields/tick";
import { RecordRow } from "../forms/recorded";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { type Earlier, useReplaces } from "./replaces";

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
  const held = useEntryForm(`cross-cut ${rack}`, {
    lost: new Set() as ReadonlySet<number>,
    none: false,
    onPanel: true,
  });
  const [lost, setLost] = held.field("lost");
  const [none, setNone] = held.field("none");
  const [onPanel, setOnPanel] = held.field("onPanel");
  const { send, message, busy } = useRecorder(held);
  const looked = none || lost.size > 0;
  const grade = crossCutFromSquares(lost.size, 25);
  const toggle = (i: number) => {
    setNone(false);
    setLost((s) => {
      const n = new Set(s);
      if (!n.delete(i)) n.add(i);
      return n;
    });
  };
  return (
    <form
      onSubmit={async (e) => {
        e.preventDefault();
        const { supersedes } = replaces;
        if (
          await send({ kind: "cross-cut", rack, squaresLost: lost.size, squares: 25, spacingMm, onPanel, supersedes })
        ) {
          replaces.done();
          setLost(new Set());
          setNone(false);
        }
      }}
    >
      {held.said}
      <h2>Cross-cut with tape{spacingMm ? `, cuts ${spacingMm} mm apart` : ""}</h2>
      <div className="mt-2 flex flex-wrap gap-6">
        <fieldset className="grid w-[240px] grid-cols-5 gap-0.5 border-0 p-0">
          <legend className="small soft mb-1">Mark each square that came away</legend>
          {Array.from({ length: 25 }, (_, i) => i).map((i) => (
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
            <span className="text-[14px]"> of 25</span>
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
          <label className="mt-3 flex min-h-11 items-center gap-2">
            <Tick checked={onPanel} onChange={setOnPanel} /> on the panel that travelled with it
          </label>
        </div>
      </div>
      <div className="mt-2 grid gap-2">
        {replaces.fields}
        <RecordRow busy={busy} message={message}>
          Record cross-cut
        </RecordRow>
      </div>
    </form>
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
  const { send, message, busy } = useRecorder(held);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const { rubs, limit, grade, onPanel } = held.values;
    void send({
      kind: "solvent-rub",
      rack,
      doubleRubs: Number(rubs),
      limit: Number(limit),
      grade: Number(grade),
      onPanel,
      supersedes: replaces.supersedes,
    }).then((kept) => kept && replaces.done());
  };
  return (
    <form onSubmit={submit}>
      {held.said}
      <h2>Solvent rub, against this powder's known-cured panel (grade {knownCuredGrade})</h2>
      <div className="mt-2 grid max-w-[420px] grid-cols-3 gap-3">
        <div className="field">
          <label htmlFor="rubs">double rubs</label>
          <input id="rubs" {...held.register("rubs")} type="number" min="1" max="1000" className="input num" required />
        </div>
        <div className="field">
          <label htmlFor="limit">limit</label>
          <input
            id="limit"
            {...held.register("limit")}
            type="number"
            min="1"
            max="1000"
            className="input num"
            required
          />
        </div>
        <div className="field">
          <label htmlFor="grade">grade 5–0</label>
          <Choice id="grade" {...held.choice("grade")} className="input" required>
            <option value="">choose</option>
            {[
              "5 no effect",
              "4 slight dulling",
              "3 marked dulling",
              "2 colour on cloth",
              "1 film softens",
              "0 through to metal",
            ].map((w) => (
              <option key={w} value={w[0]}>
                {w}
              </option>
            ))}
          </Choice>
        </div>
      </div>
      <label className="mt-2 flex min-h-11 items-center gap-2">
        <Tick {...held.tick("onPanel")} /> on the panel that travelled with it
      </label>
      <div className="mt-2 grid gap-2">
        {replaces.fields}
        <RecordRow busy={busy} message={message}>
          Record rub
        </RecordRow>
      </div>
    </form>
  );
}
