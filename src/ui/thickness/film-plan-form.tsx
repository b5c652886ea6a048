"use client";
import { filmPlan, operatingCurve } from "@/core/sampling";
import type { FilmRule } from "@/core/thickness";
import { Plot } from "../charts/plot/plot";
import { ticksOf } from "../charts/plot/spec";
import { Fold } from "../fields/fold";
import { fieldsOf } from "../fields/in-form";
import { typed, withUnit } from "../format";
import { Entry } from "../forms/entry";
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
    area: typed(areaM2, "area", units),
    lot: String(pieces),
    aql: "2.5",
    rql: "20",
    alpha: "5",
    beta: "10",
    seed: "",
    bySample: pieces >= 20,
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { bySample } = held.values;
  const number = (name: "lot" | "aql" | "rql" | "alpha" | "beta" | "seed") => held.live(name) ?? Number.NaN;
  const area = held.live("area", "area") ?? Number.NaN;
  const risks = bySample
    ? {
        lot: number("lot"),
        aql: number("aql") / 100,
        rql: number("rql") / 100,
        producerRisk: number("alpha") / 100,
        consumerRisk: number("beta") / 100,
      }
    : null;
  const drawn = held.values.seed.trim() === "";
  const seed = drawn ? 1 : number("seed");
  const plan = filmPlan(rule, area, seed, { inFt2: us, risks });
  const curve = plan.ok && plan.value.pieces && risks ? operatingCurve(risks.lot, plan.value.pieces) : [];
  const list = (values: readonly number[]) =>
    values.length > 24 ? `${values.slice(0, 24).join(", ")} …` : values.join(", ");
  return (
    <Entry
      held={held}
      id="plan"
      sending={recorder}
      button="Keep this plan"
      className="grid gap-3"
      send={({ refuse }) => {
        if (!plan.ok) refuse(null, failureText(plan.error));
        // Chance belongs to whoever presses, not to whoever chooses the places: drawn here, and kept with the plan.
        const kept = drawn ? (crypto.getRandomValues(new Uint32Array(1))[0] ?? 1) % 2_000_000_000 : seed;
        return recorder.send({ kind: "film-plan", rack, rule, areaM2: area, inFt2: us, seed: kept, risks });
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        <F.Num name="area" label="Area" quantity="area" className="w-[130px]" />
        <F.Yes name="bySample">pull pieces by risk</F.Yes>
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
                {held.values.seed.trim() === "" && (
                  <span className="soft"> (an example: drawn anew when it is kept)</span>
                )}
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
              <F.Num name="lot" label="Pieces" className="w-[90px]" />
              <F.Num name="aql" label="A good lot: off at most, %" className="w-[190px]" />
              <F.Num name="rql" label="A bad lot: off at least, %" className="w-[190px]" />
              <F.Num name="alpha" label="Good lots turned away at most, %" className="w-[230px]" />
              <F.Num name="beta" label="Bad lots let by at most, %" className="w-[210px]" />
            </>
          )}
          <F.Num name="seed" label="Number the places are drawn by" className="w-[250px]" />
        </div>
        <p className="small soft m-0">
          Left empty it is drawn for you and kept with the plan, so that nobody chooses the places.
        </p>
        {plan.ok && plan.value.pieces && (
          <p className="m-0">
            A lot with {held.values.aql} % off passes {(100 * plan.value.pieces.pAcceptAql).toFixed(1)} times in a
            hundred, one with {held.values.rql} % {(100 * plan.value.pieces.pAcceptRql).toFixed(1)} times.
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
    </Entry>
  );
}
