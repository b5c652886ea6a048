"use client";
import { type FormEvent, useState } from "react";
import {
  type CoatSituation,
  coatSituations,
  judgePreFlight,
  type PreFlightEntry,
  type PreFlightItem,
  type PreFlightLimits,
  preFlightAsked,
  preFlightMeasures,
  preFlightWindow,
} from "@/core/coating";
import { Choice } from "../fields/choice";
import { RecordRow } from "../forms/recorded";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Shape, Verdict } from "../marks/verdict";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { earthSaid, preFlightName, preFlightOff, preFlightUnit, situationName } from "../words/coating";
import { failureText } from "../words/failures";

type Draft = { readonly text: string; readonly good: boolean | null; readonly skip: string | null };
const blank: Draft = { text: "", good: null, skip: null };

/** What is looked at before powder goes on, on one screen: a number or two keys an item, each judged as it is given. */
export function PreFlightForm({
  rack,
  sheet,
  lot,
  recoat,
  limits,
  last,
}: {
  rack: string;
  sheet: string | null;
  lot: string | null;
  recoat: boolean;
  limits: PreFlightLimits;
  /** What was read at the last one in this booth: offered where it changes slowly. */
  last: Readonly<Partial<Record<PreFlightItem, number>>>;
}) {
  const { units } = usePreferences();
  const held = useEntryForm(`pre-flight ${rack}`, {
    situation: (recoat ? "recoat" : "first-coat") as CoatSituation,
    drafts: {} as Partial<Record<PreFlightItem, Draft>>,
  });
  const [situation, setSituation] = held.field("situation");
  const [drafts, setDrafts] = held.field("drafts");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const asked = preFlightAsked(situation === "recoat");
  const of = (item: PreFlightItem) => drafts[item] ?? blank;
  const put = (item: PreFlightItem, over: Partial<Draft>) => {
    setProblem(null);
    setDrafts((d) => ({ ...d, [item]: { ...(d[item] ?? blank), ...over } }));
  };
  const unitOf = (item: PreFlightItem) => preFlightUnit(preFlightMeasures[item]?.unit ?? "", units);
  const entries = asked.flatMap((item): PreFlightEntry[] => {
    const draft = of(item);
    if (draft.skip !== null) return [{ item, how: "skipped", value: null, good: null, note: draft.skip.trim() }];
    if (preFlightMeasures[item]) {
      const read = draft.text.trim() === "" ? null : parseTyped(draft.text);
      return read?.ok ? [{ item, how: "measured", value: unitOf(item).from(read.value), good: null, note: "" }] : [];
    }
    return draft.good === null ? [] : [{ item, how: "by-procedure", value: null, good: draft.good, note: "" }];
  });
  const judged = judgePreFlight(entries, limits, situation === "recoat");
  const resultOf = new Map(judged.items.map((i) => [i.item, i.result]));
  const seen = asked.filter((item) => !preFlightMeasures[item]);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    for (const item of asked) {
      const { text, skip } = of(item);
      if (skip !== null && skip.trim() === "") return setProblem(`${preFlightName[item]}: say why it is skipped.`);
      const read = text.trim() === "" || skip !== null ? null : parseTyped(text);
      if (read && !read.ok) return setProblem(`${preFlightName[item]}: ${failureText(read.error)}`);
    }
    if (entries.length === 0) return setProblem("Nothing is looked at yet: begin with the earth.");
    if (await send({ kind: "pre-flight", rack, situation, sheet, lot, items: entries })) setDrafts({});
  };
  const window = (item: PreFlightItem) => {
    const w = preFlightWindow(item, limits);
    if (!w) return "";
    const show = (value: number) => String(Math.round(unitOf(item).to(value) * 100) / 100);
    if (w[0] === null) return w[1] === null ? "" : `up to ${show(w[1])}`;
    return w[1] === null ? `from ${show(w[0])}` : `${show(w[0])}–${show(w[1])}`;
  };
  return (
    <form onSubmit={submit} noValidate className="grid gap-3">
      {held.said}
      <div className="flex flex-wrap items-end gap-3">
        <div className="field w-[230px]">
          <label htmlFor="flight-situation">Sprayed as</label>
          <Choice
            id="flight-situation"
            className="input"
            value={situation}
            onChange={(value) => setSituation(value as CoatSituation)}
          >
            {coatSituations.map((s) => (
              <option key={s} value={s}>
                {situationName[s]}
              </option>
            ))}
          </Choice>
        </div>
        <button
          type="button"
          className="btn"
          onClick={() =>
            setDrafts((d) => ({
              ...d,
              ...Object.fromEntries(
                seen
                  .filter((i) => (d[i]?.good ?? null) === null && !d[i]?.skip)
                  .map((i) => [i, { ...blank, good: true }]),
              ),
            }))
          }
        >
          All I looked at is in order
        </button>
        <span className="ml-auto">
          {judged.earth && (
            <Verdict result={judged.earth.result}>{earthSaid(judged.earth, limits.earthLimitMohm)}</Verdict>
          )}{" "}
          <span className="small soft">
            {judged.open.length === 0 ? "all looked at" : `${judged.open.length} of ${asked.length} to go`}
          </span>
        </span>
      </div>
      <div className="grid grid-cols-2 gap-x-7 max-[760px]:grid-cols-1">
        {asked.map((item) => {
          const draft = of(item);
          const measure = preFlightMeasures[item];
          const lastValue = last[item];
          return (
            <div key={item} className="row min-h-[48px] grid-cols-[minmax(0,1fr)_auto_18px] items-center gap-x-2">
              <label htmlFor={`pf-${item}`}>
                {preFlightName[item]}
                <span className="small soft block">
                  {window(item)}
                  {measure && lastValue !== undefined && (
                    <span className="faint"> last {Math.round(unitOf(item).to(lastValue) * 100) / 100}</span>
                  )}
                </span>
              </label>
              <span className="flex items-center gap-1.5">
                {draft.skip !== null ? (
                  <>
                    <input
                      id={`pf-${item}`}
                      className="input w-[170px]"
                      placeholder="why it is skipped"
                      maxLength={300}
                      value={draft.skip}
                      onChange={(e) => put(item, { skip: e.target.value })}
                    />
                    <button
                      type="button"
                      className="link small min-h-11 px-1"
                      onClick={() => put(item, { skip: null })}
                    >
                      back
                    </button>
                  </>
                ) : measure ? (
                  <>
                    <input
                      id={`pf-${item}`}
                      className="input num w-[92px]"
                      inputMode="decimal"
                      value={draft.text}
                      onChange={(e) => put(item, { text: e.target.value })}
                    />
                    <span className="small soft w-[34px]">{unitOf(item).unit}</span>
                    <button
                      type="button"
                      className="link small soft min-h-11 px-1"
                      aria-label={`Skip: ${preFlightName[item]}`}
                      onClick={() => put(item, { skip: "" })}
                    >
                      skip
                    </button>
                  </>
                ) : (
                  <>
                    {([true, false] as const).map((good) => (
                      <button
                        key={String(good)}
                        id={good ? `pf-${item}` : undefined}
                        type="button"
                        aria-pressed={draft.good === good}
                        aria-label={`${preFlightName[item]}: ${good ? "in order" : "off"}`}
                        className={`btn ${draft.good === good ? "pri" : ""}`}
                        onClick={() => put(item, { good })}
                      >
                        {good ? "yes" : "no"}
                      </button>
                    ))}
                    <button
                      type="button"
                      className="link small soft min-h-11 px-1"
                      aria-label={`Skip: ${preFlightName[item]}`}
                      onClick={() => put(item, { skip: "" })}
                    >
                      skip
                    </button>
                  </>
                )}
              </span>
              <Shape result={resultOf.get(item) ?? "unknown"} />
            </div>
          );
        })}
      </div>
      {judged.off.length > 0 && (
        <p className="m-0" role="status">
          <Verdict result={judged.result}>Off</Verdict> {judged.off.map((item) => preFlightOff[item]).join("; ")}. Put
          the earth right first, then one thing at a time.
        </p>
      )}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message}>
        Record the pre-flight
      </RecordRow>
    </form>
  );
}
