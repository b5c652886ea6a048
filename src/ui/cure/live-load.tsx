"use client";
import { useEffect, useMemo, useRef, useState } from "react";
import {
  adviseLoad,
  type BakeChannel,
  type BakeEvent,
  filmState,
  type PlannedPiece,
  type SetPoint,
  traceFaults,
} from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import { HeatChart, type HeatSeries } from "../charts/heat-chart";
import { clock, withUnit } from "../format";
import { Grade } from "../marks/verdict";
import { type SoundKind, sayReading } from "../thickness/reading-sound";
import { SoundChoice } from "../thickness/sound-choice";
import { filmStateWords, traceFaultWords } from "../words/cure";
import { failureText } from "../words/failures";
import { AdviceLine } from "./advice-line";
import { BakeEventForm } from "./later";
import { type LiveRack, standingOf } from "./load-standing";
import { useOvenRecorder } from "./use-oven-recorder";
import { usePull } from "./use-pull";

/** The stand-in recorder runs by the clock or this many times as fast. */
const FAST = 60;
const TICK_MS = 5000;

/** A load in the oven: each rack's metal now, foretold until a probe says it, and whether to pull. */
export function LiveLoad({
  recordId,
  oven,
  load,
  plugsIn,
  closedAtMs,
  program: steps,
  air,
  timing,
  racks,
  events,
  infrared,
  stored,
  plannedIndex,
  holdToo,
  timeZone,
  units,
  mayLog,
}: {
  recordId: string;
  oven: string;
  load: string;
  /** Plugs and masks that went in, all racks together; null where nobody counted. */
  plugsIn: number | null;
  closedAtMs: number;
  /** What the oven was set to from when, s after the door. */
  program: readonly SetPoint[];
  air: { readonly startC: number; readonly tauS: number };
  timing: string;
  racks: readonly LiveRack[];
  events: readonly BakeEvent[];
  /** The newest relied-on reading of the part, where there is one. */
  infrared: { readonly atS: number; readonly metalC: number } | null;
  /** Channels on record already: a file read in while the load is still in. */
  stored: readonly BakeChannel[];
  plannedIndex: number;
  /** Plans wait for a hold of the sheet as well. */
  holdToo: boolean;
  timeZone: string;
  units: UnitSystem;
  mayLog: boolean;
}) {
  const recorder = useOvenRecorder();
  // Faster than the clock it is a rehearsal: nothing of it may be recorded.
  const [practising, setPractising] = useState(false);
  const [clockS, setClockS] = useState<number | null>(null);
  const pulling = usePull(recordId);
  const [sound, setSound] = useState<SoundKind>("silent");
  const told = useRef<string | null>(null);
  useEffect(() => {
    const tick = () => setClockS(Math.max(0, (Date.now() - closedAtMs) / 1000));
    tick();
    const timer = setInterval(tick, TICK_MS);
    return () => clearInterval(timer);
  }, [closedAtMs]);
  // Probes are asked for in the order of the racks, and bear their names as they are written here.
  const asNamed = (all: readonly BakeChannel[]): BakeChannel[] => {
    let at = 0;
    return all.map((c) => {
      if (c.medium === "air") return c;
      const rack = racks[at++];
      return rack ? { ...c, name: rack.channel || rack.rack } : c;
    });
  };
  const live = asNamed(recorder.channels).filter((c) => c.trace.timeS.length > 1);
  const recorded = live.length > 0 ? live : stored;
  const recordedS = live[0]?.trace.timeS.at(-1) ?? null;
  // While it is practised the recorder's own clock counts, which runs ahead of the wall's.
  const nowS = (practising ? recordedS : null) ?? Math.max(clockS ?? 0, recordedS ?? 0);
  const program = useMemo(() => ({ ...air, program: steps }), [air, steps]);
  const newest = steps.at(-1);
  const setPointC = newest?.airC ?? 205;
  const airTauS = newest?.tauS ?? air.tauS;
  // Hot until it flows, then down: whoever set it so is told as soon as it has flowed.
  const melted = events.some((e) => e.event === "melted");
  const turnDown = timing === "hot-then-down" && melted && steps.length === 1;
  const airChannel = recorded.find((c) => c.medium === "air");
  const standing = useMemo(
    () => racks.map((rack, i) => standingOf(rack, i, nowS, program, recorded, airChannel ?? null, infrared)),
    [racks, nowS, program, recorded, airChannel, infrared],
  );
  const airNowC =
    airChannel?.trace.tempC.findLast((t): t is number => t !== null) ??
    setPointC - (setPointC - air.startC) * Math.exp(-nowS / air.tauS);
  const advised = useMemo(() => {
    const pieces: PlannedPiece[] = standing.map((s) => ({
      id: s.rack.rack,
      section: { tauS: s.tauS },
      schedule: s.rack.schedule,
      startC: s.nowC,
      airOffC: s.airOffC,
      earned: { index: s.index, overbake: s.overbake, heldS: s.heldS },
    }));
    return adviseLoad(
      { startC: airNowC, tauS: airTauS, program: [{ fromS: 0, airC: setPointC }] },
      pieces,
      plannedIndex,
      holdToo,
    );
  }, [standing, airNowC, airTauS, setPointC, plannedIndex, holdToo]);
  const due = advised.ok ? advised.value.advice.kind : null;
  useEffect(() => {
    // Said once as it turns, not at every look: whoever waits at the bench hears it.
    if (due === told.current) return;
    told.current = due;
    if (due === "pull-now" || due === "over-baked")
      sayReading(sound, due === "over-baked" ? "out" : "in", `Load ${load}: pull it now`);
  }, [due, sound, load]);
  const faults = useMemo(() => traceFaults(recorded, racks[0]?.schedule ?? null), [recorded, racks]);
  const at = (inS: number) => clock(new Date(closedAtMs + (nowS + inS) * 1000), timeZone);
  const series: HeatSeries[] = [
    ...recorded.map(
      (c): HeatSeries => ({
        name: c.name,
        kind: c.medium === "air" ? "air" : "measured",
        timeS: c.trace.timeS,
        tempC: c.trace.tempC,
      }),
    ),
    ...(advised.ok
      ? advised.value.plan.pieces.map((p, i): HeatSeries => {
          // What came before now is drawn as well where no probe drew it.
          const before = standing[i]?.before ?? { timeS: [], tempC: [] };
          return {
            name: recorded.some((c) => c.name === p.id) ? `${p.id}, foretold` : p.id,
            kind: "foretold",
            timeS: [...before.timeS, ...p.timeS.map((s) => s + nowS)],
            tempC: [...before.tempC, ...p.metalC],
          };
        })
      : []),
  ];
  const window = advised.ok ? advised.value.plan.windowS : null;
  const lastS = Math.max(2400, Math.ceil((nowS + Math.min(3600, (window?.[0] ?? 0) + 900)) / 600) * 600);
  const pull = async () => {
    const trace = practising || recorder.state === "off" ? [] : asNamed(recorder.snapshot());
    recorder.stop();
    await pulling.pull(trace.length > 0 ? trace.map(({ name, medium, trace: t }) => ({ name, medium, ...t })) : null);
  };
  // Blanks part the words of what is asked for: a probe's own are sent as strokes.
  const probes = racks.map((r) => `${(r.channel || r.rack).replace(/[^\w.]+/g, "_")}-${Math.round(r.tauS)}`).join(" ");
  const follow = (times: number) => {
    setPractising(times > 1);
    recorder.start(`${times} ${setPointC} ${probes}`);
  };
  const endPractice = () => {
    recorder.clear();
    setPractising(false);
  };
  return (
    <div>
      {practising && (
        <p role="status" className="mt-3 border-watch border-l-4 bg-sorrel-tint p-3">
          <b>Practice, {FAST} times the clock.</b> What is drawn and advised here is rehearsed: none of it is recorded,
          and the load itself goes on by the wall’s clock.
        </p>
      )}
      <div className="ruled mt-3" aria-live="polite">
        {advised.ok ? (
          <AdviceLine advice={advised.value.advice} at={at} />
        ) : (
          <p className="text-watch">{failureText(advised.error)}</p>
        )}
        {turnDown && (
          <p role="alert" className="m-0 mt-2 border-watch border-l-4 pl-3">
            <b>Turn the oven down now.</b> It was to run hot only until the powder flowed; set it anew below.
          </p>
        )}
      </div>
      <div className="mt-3 overflow-x-auto">
        <HeatChart
          series={series}
          sheetC={[...new Set(racks.map((r) => Math.min(...r.schedule.points.map((p) => p.metalC))))]}
          windowS={window ? [window[0] + nowS, window[1] === null ? null : window[1] + nowS] : null}
          nowS={nowS}
          lastS={lastS}
          units={units}
          label={`Load ${load}: metal over the minutes since the door`}
        />
      </div>
      <div className="mt-3">
        {standing.map((s) => {
          const own = advised.ok ? advised.value.plan.pieces.find((p) => p.id === s.rack.rack) : undefined;
          return (
            <div
              key={s.rack.rack}
              className="row min-h-[52px] grid-cols-[64px_minmax(0,1fr)_116px_90px_230px] items-center max-[820px]:grid-cols-[64px_minmax(0,1fr)_110px]"
            >
              <b className="fig text-[17px]">{s.rack.rack}</b>
              <span>
                {s.rack.part}{" "}
                <span className="soft small">
                  place {s.rack.place}
                  {Math.abs(s.airOffC) >= 1 &&
                    `, ${withUnit(Math.abs(s.airOffC), "temperatureDifference", units)} ${s.airOffC < 0 ? "colder" : "hotter"}`}
                  ;{" "}
                  {s.rack.gel
                    ? `primer, ${s.index >= 100 ? "gelled" : "to gel only"}`
                    : filmStateWords(filmState(events, nowS, s.index, s.perS), s.index >= 1)}
                </span>
              </span>
              <span className="num">
                <b>{withUnit(s.nowC, "temperature", units)}</b> <Grade grade={s.how} />
                {s.bandC && (
                  <span className="small soft block">
                    {withUnit(s.bandC[0], "temperature", units).split(" ")[0]}–
                    {withUnit(s.bandC[1], "temperature", units)}
                  </span>
                )}
              </span>
              <span className="num max-[820px]:col-start-2">
                index <b>{s.index.toFixed(0)}</b>
              </span>
              <span className="soft">
                {own?.readyS === null || own?.readyS === undefined
                  ? `not ${s.rack.gel ? "gelled" : "cured"} at this heat`
                  : own.readyS <= 0
                    ? s.rack.gel
                      ? "gelled"
                      : "cured"
                    : `${s.rack.gel ? "gelled" : "cured"} ${at(own.readyS)}`}
                {own?.spoilsS !== null && own?.spoilsS !== undefined
                  ? `, ${s.rack.gel ? "past gel" : "over-baked"} ${at(own.spoilsS)}`
                  : ""}
              </span>
            </div>
          );
        })}
      </div>
      {faults.map((f) => (
        <p key={f.kind + ("channel" in f ? f.channel : "")} role="alert" className="mt-2 border-watch border-l-4 pl-3">
          {traceFaultWords(f, units)}
        </p>
      ))}
      {recorder.state === "lost" && (
        <p role="alert" className="mt-2 text-watch">
          The recorder went silent. What came is kept and goes with the pull; start it again to go on from its
          beginning.
        </p>
      )}
      {recorder.passedOver > 0 && (
        <p className="small soft">{recorder.passedOver} lines were no readings: passed over.</p>
      )}
      {mayLog && (
        <div className="no-print mt-4 flex flex-wrap items-center gap-3">
          {practising ? (
            <button type="button" className="btn pri" onClick={endPractice}>
              End the practice
            </button>
          ) : (
            <button type="button" className="btn pri" disabled={pulling.busy} onClick={() => void pull()}>
              {pulling.busy ? "Recording …" : "Pulled now"}
            </button>
          )}
          {practising ? null : recorder.state === "running" ? (
            <button type="button" className="btn" onClick={recorder.stop}>
              Stop the recorder
            </button>
          ) : (
            <>
              <button type="button" className="btn" onClick={() => follow(1)}>
                Follow the recorder
              </button>
              <button type="button" className="btn" onClick={() => follow(FAST)}>
                Follow it {FAST}×, to practise
              </button>
            </>
          )}
          <SoundChoice label="call me" sound={sound} change={setSound} />
          {pulling.text && <output className="text-out">{pulling.text}</output>}
        </div>
      )}
      {mayLog && !practising && (
        <div className="ruled no-print mt-6">
          <h2>What happens to it</h2>
          <div className="mt-2">
            <BakeEventForm oven={oven} load={load} plugsIn={plugsIn} pulled={false} />
          </div>
        </div>
      )}
    </div>
  );
}
