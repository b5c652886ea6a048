import {
  type BakeChannel,
  cureIndex,
  DEFAULT_ONSET_BELOW_SHEET_C,
  fitCureCurve,
  fitOverbakeCurve,
  fitTimeConstant,
  heatThrough,
  heldUntilNow,
  type PowderSchedule,
  requiredMinutes,
  shiftedAir,
  type Trace,
  USUAL_ROOM_C,
} from "@/core/cure";

export type LiveRack = {
  readonly rack: string;
  readonly part: string;
  readonly place: string;
  /** How far the air of its place was off by the newest survey, K. */
  readonly placeOffC: number;
  readonly channel: string | null;
  readonly sectionMm: number;
  readonly tauS: number;
  readonly tauBandS: readonly [number, number];
  readonly learntFrom: number;
  readonly lumpedHolds: boolean;
  readonly schedule: PowderSchedule;
  /** Its primer is only to gel: the schedule is that of the gel. */
  readonly gel: boolean;
};
const STEP_S = 10;
/** A rack in the oven as it stands now. */
export type Standing = {
  readonly rack: LiveRack;
  readonly nowC: number;
  readonly how: "measured" | "assumed";
  readonly index: number;
  readonly overbake: number;
  readonly tauS: number;
  readonly perS: number;
  /** Where the metal may be by what is known of its time constant, °C; null where a probe says it. */
  readonly bandC: readonly [number, number] | null;
  /** Without a break at or over each point of its sheet until now, s. */
  readonly heldS: readonly number[];
  /** How far the air it is foretold in is off the oven's, K: a probe on the rack knows better. */
  readonly airOffC: number;
  /** Foretold from the door, or from the last sample, to now; nothing where a probe says it. */
  readonly before: Trace;
};
/** A sample older than this is carried on by the model, and what it says of now is assumed, s. */
const STALE_S = 90;
const NOTHING: Trace = { timeS: [], tempC: [] };

/** What a trace has earned by a schedule, cure and over-bake. */
function earnedBy(trace: Trace, schedule: PowderSchedule): { index: number; overbake: number } | null {
  const curve = fitCureCurve(schedule.points);
  if (!curve.ok || trace.timeS.length < 2) return null;
  const onsetC = schedule.onsetC ?? curve.value.lowestC - DEFAULT_ONSET_BELOW_SHEET_C;
  const index = cureIndex(trace, curve.value, onsetC);
  const over = schedule.overbake?.length ? fitOverbakeCurve(schedule.overbake, curve.value) : null;
  const overbake = over?.ok ? cureIndex(trace, over.value, onsetC) : null;
  return index.ok ? { index: index.value.index, overbake: overbake?.ok ? overbake.value.index : 0 } : null;
}

const heldBy = (trace: Trace, schedule: PowderSchedule): number[] =>
  schedule.points.map(({ metalC }) => heldUntilNow(trace, metalC));

/**
 * A rack now: by its probe where one says it, carried on by the model where its last sample is old, else foretold from the
 * door, or from the newest infrared reading of the part.
 */
export function standingOf(
  rack: LiveRack,
  i: number,
  nowS: number,
  program: Parameters<typeof heatThrough>[0],
  recorded: readonly BakeChannel[],
  air: BakeChannel | null,
  infrared: { readonly atS: number; readonly metalC: number } | null,
): Standing {
  const metal = recorded.filter((c) => c.medium === "metal");
  const own = metal.find((c) => c.name === (rack.channel || rack.rack)) ?? (metal.length === 1 ? metal[i] : undefined);
  const curve = fitCureCurve(rack.schedule.points);
  const rate = (c: number) => (curve.ok ? 100 / (60 * requiredMinutes(curve.value, c)) : 0);
  if (own) {
    const lastC = own.trace.tempC.findLast((t): t is number => t !== null) ?? USUAL_ROOM_C;
    const lastS = own.trace.timeS.at(-1) ?? 0;
    // The probe tells this rack’s own time constant once it is long enough: before that the climb alone misleads.
    const fit = air ? fitTimeConstant(air.trace, own.trace, nowS) : null;
    const tauS = fit?.ok && fit.value.longEnough && fit.value.rmsC < 4 ? fit.value.tauS : rack.tauS;
    if (nowS - lastS <= STALE_S) {
      const earned = earnedBy(own.trace, rack.schedule) ?? { index: 0, overbake: 0 };
      const heldS = heldBy(own.trace, rack.schedule);
      return {
        rack,
        nowC: lastC,
        how: "measured",
        ...earned,
        tauS,
        perS: rate(lastC),
        heldS,
        bandC: null,
        airOffC: 0,
        before: NOTHING,
      };
    }
    const told = program.program.at(-1) ?? { fromS: 0, airC: 205 };
    const setC = told.airC;
    const airC = air?.trace.tempC.findLast((t): t is number => t !== null) ?? setC;
    const on = heatThrough(
      { startC: airC, tauS: told.tauS ?? program.tauS, program: [{ fromS: 0, airC: setC }] },
      { tauS, startC: lastC },
      Math.max(STEP_S, nowS - lastS),
      STEP_S,
    );
    const before: Trace = on.ok
      ? { timeS: on.value.metal.timeS.map((s) => s + lastS), tempC: on.value.metal.tempC }
      : NOTHING;
    // The gap between the last sample and now is the model's: no gap of the trace, but marked as assumed.
    const [read, carried] = [earnedBy(own.trace, rack.schedule), earnedBy(before, rack.schedule)];
    const nowC = before.tempC.at(-1) ?? lastC;
    return {
      rack,
      nowC,
      how: "assumed",
      index: (read?.index ?? 0) + (carried?.index ?? 0),
      overbake: (read?.overbake ?? 0) + (carried?.overbake ?? 0),
      tauS,
      perS: rate(nowC),
      bandC: null,
      heldS: heldBy(before, rack.schedule).map((s, i) => {
        const point = rack.schedule.points[i]?.metalC ?? 0;
        // Held before the last sample and never under it since: the stretch runs on.
        const whole = before.tempC.every((c) => (c ?? 0) >= point);
        return whole ? s + (heldBy(own.trace, rack.schedule)[i] ?? 0) : s;
      }),
      airOffC: 0,
      before,
    };
  }
  const seen = infrared && infrared.atS <= nowS ? infrared : null;
  const toS = Math.max(STEP_S, seen ? seen.atS : nowS);
  const placed = shiftedAir(program, rack.placeOffC);
  const first = heatThrough(placed, { tauS: rack.tauS, startC: 21 }, toS, STEP_S);
  if (!first.ok)
    return {
      rack,
      nowC: 21,
      how: "assumed",
      index: 0,
      overbake: 0,
      tauS: rack.tauS,
      perS: 0,
      heldS: [],
      bandC: null,
      airOffC: rack.placeOffC,
      before: NOTHING,
    };
  let trace = first.value.metal;
  if (seen && nowS > seen.atS + STEP_S) {
    // From the reading on the metal starts where it was read, in the air as it was then and as the oven was told since.
    const inForce = placed.program.findLast((step) => step.fromS <= seen.atS) ?? { airC: 205 };
    const since = placed.program.filter((step) => step.fromS > seen.atS);
    const rest = heatThrough(
      {
        startC: first.value.air.tempC.at(-1) ?? inForce.airC,
        tauS: placed.tauS,
        program: [{ ...inForce, fromS: 0 }, ...since.map((step) => ({ ...step, fromS: step.fromS - seen.atS }))],
      },
      { tauS: rack.tauS, startC: seen.metalC },
      nowS - seen.atS,
      STEP_S,
    );
    if (rest.ok)
      trace = {
        timeS: [...trace.timeS, ...rest.value.metal.timeS.slice(1).map((s) => s + seen.atS)],
        tempC: [...trace.tempC, ...rest.value.metal.tempC.slice(1)],
      };
  }
  const nowC = trace.tempC.at(-1) ?? USUAL_ROOM_C;
  const earned = earnedBy(trace, rack.schedule) ?? { index: 0, overbake: 0 };
  const ends = rack.tauBandS.map((tauS) => {
    const run = heatThrough(placed, { tauS, startC: 21 }, toS, STEP_S);
    return run.ok ? (run.value.metal.tempC.at(-1) ?? nowC) : nowC;
  });
  const bandC = seen ? null : ([Math.min(...ends), Math.max(...ends)] as const);
  return {
    rack,
    nowC,
    how: "assumed",
    ...earned,
    tauS: rack.tauS,
    perS: rate(nowC),
    heldS: heldBy(trace, rack.schedule),
    bandC,
    airOffC: rack.placeOffC,
    before: trace,
  };
}
