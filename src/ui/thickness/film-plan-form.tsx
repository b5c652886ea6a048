"use client";
import { type FormEvent, useState } from "react";
import { filmPlan, operatingCurve } from "@/core/sampling";
import type { FilmRule } from "@/core/thickness";
import { parseNumber, quantities } from "@/core/units";
import { Plot } from "../charts/plot/plot";
import { ticksOf } from "../charts/plot/spec";
import { Fold } from "../fields/fold";
import { Tick } from "../fields/tick";
import { withUnit } from "../format";
import { RecordRow } from "../forms/recorded";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

/** Share off that the operating curve is drawn to. */
const MOST_SHARE = 0.3;

/** What to read: how many spots by rule and area and where, by a seed that is kept; for many pieces, which to pull by risk. */
export function FilmPlanForm({
  rack,
  rule,
  areaM2,
  pieces,
  serials,
  spotsOnSketch,
}: {
  rack: string;
  rule: FilmRule;
  areaM2: number | null;
  pieces: number;
  serials: readonly string[];
  spotsOnSketch: number;
}) {
  const { units } = usePreferences();
  const us = units === "us";
  const held = useEntryForm(`film plan ${rack}`, {
    t: {
      area: areaM2 === null ? "" : String(Math.round((us ? quantities.area.toUs(areaM2) : areaM2) * 10) / 10),
      lot: String(pieces),
      aql: "2.5",
      rql: "20",
      producer: "5",
      consumer: "10",
      seed: "",
    },
    bySample: pieces >= 20,
  });
  const [t, setT] = held.field("t");
  const [bySample, setBySample] = held.field("bySample");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const put = (key: keyof typeof t) => (text: string) => setT((before) => ({ ...before, [key]: text }));
  const number = (text: string): number => {
    const read = parseNumber(text);
    return read.ok ? read.value : Number.NaN;
  };
  const area = us ? quantities.area.fromUs(number(t.area)) : number(t.area);
  const risks = bySample
    ? {
        lot: number(t.lot),
        aql: number(t.aql) / 100,
        rql: number(t.rql) / 100,
        producerRisk: number(t.producer) / 100,
        consumerRisk: number(t.consumer) / 100,
      }
    : null;
  const seed = t.seed.trim() === "" ? 1 : number(t.seed);
  const plan = filmPlan(rule, area, seed, { inFt2: us, risks });
  const curve = plan.ok && plan.value.pieces && risks ? operatingCurve(risks.lot, plan.value.pieces) : [];
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (!plan.ok) return setProblem(failureText(plan.error));
    // Chance belongs to whoever presses, not to whoever chooses the places: drawn here, and kept with the plan.
    const kept = t.seed.trim() === "" ? (crypto.getRandomValues(new Uint32Array(1))[0] ?? 1) % 2_000_000_000 : seed;
    await send({ kind: "film-plan", rack, rule, areaM2: area, inFt2: us, seed: kept, risks });
  };
  const list = (values: readonly number[]) =>
    values.length > 24 ? `${values.slice(0, 24).join(", ")} …` : values.join(", ");
  return (
    <form onSubmit={submit} noValidate className="grid gap-3">
      {held.said}
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-[130px]">
          <TypedNumber id="plan-area" label={`Area, ${quantities.area[units]}`} text={t.area} change={put("area")} />
        </div>
        <label className="flex min-h-11 items-center gap-2">
          <Tick checked={bySample} onChange={setBySample} /> pull pieces by risk
        </label>
      </div>
      {!plan.ok && <p className="m-0 text-watch">{failureText(plan.error)}</p>}
      {plan.ok && (
        <div className="flex flex-wrap gap-x-8 gap-y-2">
          <div className="min-w-[260px] flex-1">
            <p className="m-0">
              <b className="fig">{plan.value.spots}</b> spots asked for on {withUnit(area, "area", units)} by this rule
              {spotsOnSketch < plan.value.spots && (
                <span className="text-watch">; the sketch has {spotsOnSketch}, so read more than one piece</span>
              )}
              .
            </p>
            {plan.value.places > plan.value.measured.length && (
              <p className="m-0">
                Places to measure, of {plan.value.places}: <b className="fig">{list(plan.value.measured)}</b>
                {t.seed.trim() === "" && <span className="soft"> (an example: drawn anew when it is kept)</span>}
              </p>
            )}
            {plan.value.pieces && (
              <p className="m-0 mt-1">
                Pull <b className="fig">{plan.value.pieces.n}</b> of the {plan.value.pieces.lot} pieces; the lot passes
                with up to <b className="fig">{plan.value.pieces.c}</b> of them off. Which:{" "}
                <b className="fig">
                  {plan.value.pieces.lot === serials.length && serials.length <= 40
                    ? plan.value.pieces.pull.map((i) => serials[i - 1]).join(", ")
                    : list(plan.value.pieces.pull)}
                </b>
              </p>
            )}
          </div>
        </div>
      )}
      <Fold summary={bySample ? "How many pieces, and what is risked" : "How the places are drawn"}>
        <div className="flex flex-wrap items-end gap-3 pb-2">
          {bySample && (
            <>
              <div className="w-[90px]">
                <TypedNumber id="plan-lot" label="Pieces" text={t.lot} change={put("lot")} />
              </div>
              <div className="w-[190px]">
                <TypedNumber id="plan-aql" label="A good lot: off at most, %" text={t.aql} change={put("aql")} />
              </div>
              <div className="w-[190px]">
                <TypedNumber id="plan-rql" label="A bad lot: off at least, %" text={t.rql} change={put("rql")} />
              </div>
              <div className="w-[210px]">
                <TypedNumber
                  id="plan-alpha"
                  label="Good lots sent back at most, %"
                  text={t.producer}
                  change={put("producer")}
                />
              </div>
              <div className="w-[210px]">
                <TypedNumber
                  id="plan-beta"
                  label="Bad lots let by at most, %"
                  text={t.consumer}
                  change={put("consumer")}
                />
              </div>
            </>
          )}
          <div className="w-[250px]">
            <TypedNumber id="plan-seed" label="Number the places are drawn by" text={t.seed} change={put("seed")} />
          </div>
        </div>
        <p className="small soft m-0">
          Left empty it is drawn for you and kept with the plan, so that nobody chooses the places.
        </p>
        {plan.ok && plan.value.pieces && (
          <p className="m-0">
            A lot with {t.aql} % off passes {(100 * plan.value.pieces.pAcceptAql).toFixed(1)} times in a hundred, one
            with {t.rql} % {(100 * plan.value.pieces.pAcceptRql).toFixed(1)} times.
          </p>
        )}
        {curve.length > 1 && (
          <Plot
            label="Operating curve: how often a lot passes, by its share off"
            width={340}
            height={150}
            spec={{
              x: {
                domain: [0, MOST_SHARE],
                ticks: ticksOf([0, 0.1, 0.2, 0.3], (share) => `${Math.round(100 * share)} %`),
                title: "of it off",
              },
              y: {
                domain: [0, 1],
                ticks: ticksOf([0, 0.5, 1], (p) => `${100 * p} %`),
                title: "of lots pass",
                lines: true,
              },
              layers: [
                {
                  kind: "curve",
                  points: curve.flatMap((p) => (p.share <= MOST_SHARE ? [[p.share, p.pAccept] as const] : [])),
                  tone: "sorrel",
                  width: 2,
                },
              ],
            }}
            readings={curve.map((p) => ({
              x: p.share,
              y: p.pAccept,
              says: `${(100 * p.share).toFixed(1)} % off: passes ${(100 * p.pAccept).toFixed(0)} times in a hundred`,
            }))}
          />
        )}
      </Fold>
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Keep this plan
      </RecordRow>
    </form>
  );
}
