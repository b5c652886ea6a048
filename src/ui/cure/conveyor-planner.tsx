"use client";
import { useMemo, useState } from "react";
import {
  type AffectedStretch,
  affectedStretch,
  type ConveyorPiece,
  type StopEffect,
  speedBand,
  speedChangeEffects,
  stopEffects,
  throughConveyor,
  type Zone,
} from "@/core/cure";
import type { Result } from "@/core/result";
import { HeatChart } from "../charts/heat-chart";
import { StopChart } from "../charts/stop-chart";
import { Choice } from "../fields/choice";
import { Tick } from "../fields/tick";
import { plainly, withUnit } from "../format";
import { TypedNumber } from "../forms/typed-number";
import { Verdict } from "../marks/verdict";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { NoneSetUp } from "../shop/none-set-up";
import { sectionWords } from "../words/cure";
import { failureText } from "../words/failures";

export type ConveyorOven = {
  readonly code: string;
  readonly name: string;
  readonly zones: readonly (Zone & { readonly heat: "infrared" | "convection" })[];
  readonly usualSpeedMPerMin: number;
  readonly pitchM: number;
};
export type ConveyorWork = ConveyorPiece & { readonly what: string; readonly hollow: boolean };
const minutes = (s: number) => (s / 60).toFixed(0);
const M_PER_FT = 0.3048;

/** A conveyor oven by its zones: the band of speeds that cures the heaviest without over-baking the lightest, and what a stop does to what is inside. */
export function ConveyorPlanner({
  ovens,
  work,
  plannedIndex,
}: {
  ovens: readonly ConveyorOven[];
  work: readonly ConveyorWork[];
  plannedIndex: number;
}) {
  const { units } = usePreferences();
  const us = units === "us";
  const [code, setCode] = useState(ovens[0]?.code ?? "");
  const [chosen, setChosen] = useState<readonly string[]>(() => work.slice(0, 2).map((w) => w.id));
  const [speedText, setSpeedText] = useState<string | null>(null);
  const [stopText, setStopText] = useState("10");
  const [changeText, setChangeText] = useState("");
  const oven = ovens.find((o) => o.code === code) ?? ovens[0];
  const zones = oven?.zones ?? [];
  const pieces = work.filter((w) => chosen.includes(w.id));
  const shown = (mPerMin: number) => (us ? mPerMin / M_PER_FT : mPerMin).toFixed(2);
  const typed = parseTyped(speedText ?? "");
  const speed =
    speedText === null || !typed.ok ? (oven?.usualSpeedMPerMin ?? 1) : us ? typed.value * M_PER_FT : typed.value;
  const stopMinutes = parseTyped(stopText);
  const band = useMemo(() => speedBand(zones, pieces, plannedIndex), [zones, pieces, plannedIndex]);
  const runs = useMemo(() => pieces.map((p) => ({ p, run: throughConveyor(zones, p, speed) })), [zones, pieces, speed]);
  const lightest = [...pieces].sort((a, b) => a.sectionMm - b.sectionMm)[0];
  const forS = stopMinutes.ok ? stopMinutes.value * 60 : 0;
  const effects = useMemo(
    () => (lightest && forS > 0 ? stopEffects(zones, lightest, speed, forS) : null),
    [zones, lightest, speed, forS],
  );
  const changeTo = parseTyped(changeText);
  const toSpeed = changeTo.ok && changeTo.value > 0 ? (us ? changeTo.value * M_PER_FT : changeTo.value) : null;
  // Faster leaves the heaviest short, slower over-bakes the lightest: each is looked at.
  const changed = useMemo(
    () =>
      toSpeed === null || toSpeed === speed
        ? []
        : pieces.map((p) => ({ p, effects: speedChangeEffects(zones, p, speed, toSpeed) })),
    [zones, pieces, speed, toSpeed],
  );
  if (!oven) return <NoneSetUp what="conveyor oven" href="/cure/ovens/new/set-up" className="mt-2" />;
  const unit = us ? "ft/min" : "m/min";
  const lengthM = zones.reduce((sum, z) => sum + z.lengthM, 0);
  const inBand =
    band.ok && speed <= band.value.fastestMPerMin && speed >= (band.value.slowestMPerMin ?? 0) && band.value.feasible;
  const dwellS = (lengthM / speed) * 60;
  return (
    <div>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        {ovens.length > 1 && (
          <div className="field w-[130px]">
            <label htmlFor="conveyor">Oven</label>
            <Choice id="conveyor" className="input" value={code} onChange={setCode}>
              {ovens.map((o) => (
                <option key={o.code}>{o.code}</option>
              ))}
            </Choice>
          </div>
        )}
        <div className="w-[130px]">
          <TypedNumber
            id="conveyor-speed"
            label={`Speed, ${unit}`}
            text={speedText ?? shown(speed)}
            change={setSpeedText}
          />
        </div>
        <div className="w-[130px]">
          <TypedNumber id="conveyor-stop" label="A stop of, min" text={stopText} change={setStopText} />
        </div>
        <div className="w-[150px]">
          <TypedNumber
            id="conveyor-change"
            label={`Speed changed to, ${unit}`}
            text={changeText}
            change={setChangeText}
          />
        </div>
      </div>
      <fieldset className="m-0 mt-3 border-0 p-0">
        <legend className="small soft">What goes through together</legend>
        {work.map((w) => (
          <label key={w.id} className="mr-5 inline-flex min-h-11 items-center gap-2">
            <Tick
              checked={chosen.includes(w.id)}
              onChange={(on) => setChosen(on ? [...chosen, w.id] : chosen.filter((c) => c !== w.id))}
            />
            <b>{w.what}</b>{" "}
            <span className="soft">
              {w.metal.replaceAll("-", " ")}, {sectionWords(w, units)}
            </span>
          </label>
        ))}
      </fieldset>
      <div className="ruled mt-3">
        {pieces.length === 0 && <p className="m-0">Tick what goes through, and its band of speeds stands here.</p>}
        {pieces.length > 0 && !band.ok && (
          <p role="alert" className="m-0 text-out">
            {failureText(band.error)}
          </p>
        )}
        {band.ok && (
          <p className="m-0 flex flex-wrap items-baseline gap-3">
            <Verdict result={!band.value.feasible ? "out" : inBand ? "in" : "watch"}>
              {!band.value.feasible ? "No one speed" : inBand ? "In the band" : "Outside"}
            </Verdict>
            {band.value.feasible ? (
              <span>
                Between{" "}
                <b className="fig text-[24px]">
                  {band.value.slowestMPerMin === null ? "any" : shown(band.value.slowestMPerMin)}
                </b>{" "}
                and <b className="fig text-[24px]">{shown(band.value.fastestMPerMin)}</b> {unit}:{" "}
                {nameOf(work, band.value.fastestFor)} decides how fast
                {band.value.slowestFor && <>, {nameOf(work, band.value.slowestFor)} how slow</>}.
              </span>
            ) : (
              <span>
                {nameOf(work, band.value.slowestFor ?? "")} is over-baked at the speed that{" "}
                {nameOf(work, band.value.fastestFor)} needs: run them apart.
              </span>
            )}
          </p>
        )}
        {band.ok && (
          <p className="soft m-0 mt-1">
            At {shown(speed)} {unit}: {minutes(dwellS)} min inside, {((60 * speed) / oven.pitchM).toFixed(0)} hangers an
            hour at {plainly(oven.pitchM, "length", units)} pitch.
          </p>
        )}
      </div>
      {runs.map(({ p, run }) => (
        <div
          key={p.id}
          className="row grid-cols-[minmax(0,1fr)_150px_130px_150px] items-center max-[820px]:grid-cols-2"
        >
          <b>{p.what}</b>
          {run.ok ? (
            <>
              <span className="num">hottest {withUnit(run.value.peakC, "temperature", units)}</span>
              <span className="num">
                index <b>{run.value.index.toFixed(0)}</b>
              </span>
              <Verdict
                result={
                  (run.value.overbake ?? 0) > 100
                    ? "out"
                    : run.value.index >= plannedIndex
                      ? "in"
                      : run.value.index >= 100
                        ? "watch"
                        : "out"
                }
              >
                {(run.value.overbake ?? 0) > 100
                  ? "Over-baked"
                  : run.value.index >= plannedIndex
                    ? "Cured"
                    : run.value.index >= 100
                      ? "Just cured"
                      : "Short"}
              </Verdict>
            </>
          ) : (
            <span className="text-out">{failureText(run.error)}</span>
          )}
        </div>
      ))}
      {runs.some((r) => r.run.ok) && (
        <div className="mt-3 overflow-x-auto">
          <HeatChart
            series={[
              {
                name: "air",
                kind: "air",
                timeS: zones.flatMap((_, i) => {
                  const before = zones.slice(0, i).reduce((sum, z) => sum + z.lengthM, 0);
                  return [before, before + (zones[i]?.lengthM ?? 0)].map((m) => (m / speed) * 60);
                }),
                tempC: zones.flatMap((z) => [z.airC, z.airC]),
              },
              ...runs.flatMap(({ p, run }) =>
                run.ok
                  ? [
                      {
                        name: p.what,
                        kind: "foretold" as const,
                        timeS: run.value.trace.timeS,
                        tempC: run.value.trace.tempC,
                      },
                    ]
                  : [],
              ),
            ]}
            sheetC={[...new Set(pieces.map((p) => Math.min(...p.schedule.points.map((q) => q.metalC))))]}
            windowS={null}
            marks={zones.map((z, i) => ({
              s: (zones.slice(0, i).reduce((sum, y) => sum + y.lengthM, 0) / speed) * 60,
              text: z.name,
            }))}
            lastS={dwellS + 900}
            units={units}
            label="Metal of each piece through the zones"
          />
        </div>
      )}
      {changed.length > 0 && toSpeed !== null && (
        <div className="ruled mt-4">
          <h2>
            If the speed goes from {shown(speed)} to {shown(toSpeed)} {unit} now
          </h2>
          {changed.map(({ p, effects: found }) => (
            <SpeedChanged key={p.id} what={p.what} effects={found} pitchM={oven.pitchM} />
          ))}
        </div>
      )}
      {effects?.ok && lightest && (
        <div className="ruled mt-4">
          <h2>If the line stands for {stopText} min</h2>
          <p className="m-0">
            {(() => {
              const spoilt = affectedStretch(effects.value, oven.pitchM, (e) => (e.overbake ?? 0) > 100);
              return spoilt
                ? `Every ${lightest.what} that stands between ${withUnit(spoilt.fromM, "length", units)} and ${withUnit(spoilt.toM, "length", units)} in is over-baked: about ${spoilt.hangers} hangers. Mark and look at them.`
                : `No ${lightest.what} inside is over-baked by it, wherever it stands.`;
            })()}
          </p>
          <StopChart effects={effects.value} lengthM={lengthM} zones={zones} units={units} />
        </div>
      )}
      {effects && !effects.ok && <p className="text-out">{failureText(effects.error)}</p>}
    </div>
  );
}

/** What a change of speed does to the pieces of one kind that are inside: which stretch to mark, and why. */
function SpeedChanged({
  what,
  effects,
  pitchM,
}: {
  what: string;
  effects: Result<readonly StopEffect[]>;
  pitchM: number;
}) {
  if (!effects.ok) return <p className="m-0 text-out">{failureText(effects.error)}</p>;
  const short = affectedStretch(effects.value, pitchM, (e) => e.index < 100);
  const over = affectedStretch(effects.value, pitchM, (e) => (e.overbake ?? 0) > 100);
  const said = (s: AffectedStretch) =>
    `between ${s.fromM.toFixed(1)} and ${s.toM.toFixed(1)} m in, about ${s.hangers} hangers`;
  return (
    <p className="m-0 mt-1 flex flex-wrap items-baseline gap-x-3">
      <b>{what}</b>
      {!short && !over && <Verdict result="in">None inside is affected</Verdict>}
      {short && (
        <span>
          <Verdict result="out">Short</Verdict> {said(short)}
        </span>
      )}
      {over && (
        <span>
          <Verdict result="out">Over-baked</Verdict> {said(over)}
        </span>
      )}
    </p>
  );
}
const nameOf = (work: readonly ConveyorWork[], id: string) => work.find((w) => w.id === id)?.what ?? id;
