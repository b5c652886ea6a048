import { atLeast } from "../limits";
import { err, ok, type Result } from "../result";
import { type VerdictResult, worstResult } from "../verdict";
import { cureIndex, type Hold, holdAt } from "./cure-index";
import {
  type CureCurve,
  DEFAULT_ONSET_BELOW_SHEET_C,
  fitCureCurve,
  fitOverbakeCurve,
  requiredMinutes,
  type SchedulePoint,
} from "./schedule";
import { checkTrace, deadFromS, findPullS, GAP_MEDIAN_INTERVALS, type Gap, medianIntervalS, type Trace } from "./trace";

export type BakeChannel = { readonly name: string; readonly medium: "air" | "metal"; readonly trace: Trace };
export type PowderSchedule = {
  readonly points: readonly SchedulePoint[];
  readonly overbake?: readonly SchedulePoint[];
  readonly onsetC?: number | null;
};
export type CureDecider = "index" | "hold";

export type JudgedChannel = {
  readonly name: string;
  readonly medium: "air" | "metal";
  readonly deadFromS: number | null;
  /** Where its samples end before the recorded pull, s; null where they reach it. */
  readonly recordedUntilS: number | null;
  readonly index: number;
  readonly extrapolatedShare: number;
  readonly overbakeIndex: number | null;
  readonly overbakeIndexGapsFilledHot: number | null;
  readonly peakC: number;
  readonly gaps: readonly Gap[];
  readonly holds: readonly (Hold & { readonly neededS: number; readonly met: boolean })[];
  readonly holdMet: boolean;
  readonly result: VerdictResult;
};
export type BakeReason =
  | { readonly kind: "index-short" | "index-met"; readonly channel: string; readonly index: number }
  | {
      readonly kind: "hold-short" | "hold-met";
      readonly channel: string;
      readonly atC: number;
      readonly longestS: number;
      readonly neededS: number;
    }
  | { readonly kind: "only-index-met" | "only-hold-met"; readonly channel: string; readonly index: number }
  | { readonly kind: "overbaked" | "overbake-unknown-in-gap"; readonly channel: string; readonly index: number }
  | { readonly kind: "channel-dead"; readonly channel: string; readonly fromS: number }
  | { readonly kind: "gap"; readonly channel: string; readonly fromS: number; readonly toS: number }
  | { readonly kind: "extrapolated"; readonly channel: string; readonly share: number }
  | { readonly kind: "overbake-unknown-dark"; readonly channel: string }
  | { readonly kind: "recorded-until"; readonly channel: string; readonly untilS: number; readonly pullS: number }
  | { readonly kind: "section-unread"; readonly channel: string }
  | { readonly kind: "assumed-activation-energy" };
export type BakeVerdict = {
  readonly kind: "bake-verdict";
  readonly result: VerdictResult;
  readonly decidedBy: CureDecider;
  /** The live metal channel with the lowest cure index. */
  readonly decidingChannel: string;
  readonly decidingIndex: number;
  readonly channels: readonly JudgedChannel[];
  readonly unknownPlaces: readonly string[];
  readonly pullS: number | null;
  readonly curve: CureCurve;
  readonly onsetC: number;
  readonly reasons: readonly BakeReason[];
};

/**
 * The channels that say how one rack of a load was cured: in a load of several racks its own probe, where one is named for
 * it or bears its number, with the air; else all of them, the slowest deciding.
 */
export function ownChannels(
  channels: readonly BakeChannel[],
  rack: string,
  named: string | null,
  racksInLoad: number,
): readonly BakeChannel[] {
  const own = racksInLoad > 1 ? channels.find((c) => c.medium === "metal" && c.name === (named || rack)) : undefined;
  return own ? channels.filter((c) => c.medium === "air" || c === own) : channels;
}

/** Share of the index beyond which an extrapolation is worth a word. */
const EXTRAPOLATION_WORTH_SAYING = 0.05;

/**
 * Judges a bake: per channel the index, holds and over-bake; the live metal channel with the lowest cure index
 * decides cure, the one with the highest over-bake index decides over-bake; air and dead channels never decide.
 * Where only one of index and hold is met the verdict is `watch`, naming both. The load's verdict is its worst known
 * place; each channel that makes it so gives its reasons. A channel that ends before the recorded pull is never short: what
 * it had not earned by then is unknown. A dark channel may hide an over-bake: with such a limit the load is then `watch` at best. A piece cured section by section names its sections: each is
 * judged by its own readings, and one without them leaves the whole unknown.
 * Failures: those of the curve and the traces (with the channel), `no-live-metal-channel`.
 */
export function judgeBake(
  channels: readonly BakeChannel[],
  schedule: PowderSchedule,
  options: {
    readonly decidedBy?: CureDecider;
    readonly pullS?: number | null;
    readonly sections?: readonly string[] | null;
  } = {},
): Result<BakeVerdict> {
  const decidedBy = options.decidedBy ?? "index";
  const curve = fitCureCurve(schedule.points);
  if (!curve.ok) return curve;
  const overbake = schedule.overbake?.length ? fitOverbakeCurve(schedule.overbake, curve.value) : null;
  if (overbake && !overbake.ok) return overbake;
  const onsetC = schedule.onsetC ?? curve.value.lowestC - DEFAULT_ONSET_BELOW_SHEET_C;
  for (const channel of channels) {
    const checked = checkTrace(channel.trace);
    if (!checked.ok) return err({ ...checked.error, channel: channel.name });
  }
  // Sections are read one after another: that one stands still while another warms says nothing of a probe.
  const dead = options.sections ? channels.map((channel) => deadFromS([channel])[0] ?? null) : deadFromS(channels);
  const metal = channels.flatMap((channel, i) =>
    channel.medium === "metal" && dead[i] === null ? [channel.trace] : [],
  );
  const pullS = options.pullS ?? findPullS(metal);
  const judged: JudgedChannel[] = [];
  for (const [i, channel] of channels.entries()) {
    // Under lamps each section is read in its turn: that its readings end before the whole is off says nothing.
    const endS = options.sections ? null : (options.pullS ?? null);
    const one = judgeChannel(
      channel,
      dead[i] ?? null,
      pullS,
      endS,
      schedule,
      curve.value,
      overbake?.value ?? null,
      onsetC,
    );
    if (!one.ok) return err({ ...one.error, channel: channel.name });
    judged.push(one.value);
  }
  const live = judged.filter((channel) => channel.medium === "metal" && !isDeadBefore(channel, pullS));
  const dark = judged.filter((channel) => channel.medium === "metal" && isDeadBefore(channel, pullS));
  const deciding = live.reduce<JudgedChannel | null>(
    (least, channel) => (!least || channel.index < least.index ? channel : least),
    null,
  );
  if (!deciding) return err({ kind: "no-live-metal-channel", channels: channels.map((channel) => channel.name) });
  const unread = (options.sections ?? []).filter((name) => !live.some((channel) => channel.name === name));
  const known = worstResult(live.map((channel) => channel.result));
  const worst = known === "in" && overbake && dark.length > 0 ? "watch" : known;
  return ok({
    kind: "bake-verdict",
    result: unread.length > 0 && worst !== "out" ? "unknown" : worst,
    decidedBy,
    decidingChannel: deciding.name,
    decidingIndex: deciding.index,
    channels: judged,
    unknownPlaces: [...new Set([...dark.map((channel) => channel.name), ...unread])],
    pullS,
    curve: curve.value,
    onsetC,
    reasons: [
      ...bakeReasons(live, dark, deciding, curve.value, decidedBy, pullS),
      ...(overbake ? dark : []).map(
        (channel): BakeReason => ({ kind: "overbake-unknown-dark", channel: channel.name }),
      ),
      ...unread.map((channel): BakeReason => ({ kind: "section-unread", channel })),
    ],
  });
}

const isDeadBefore = (channel: JudgedChannel, pullS: number | null) =>
  channel.deadFromS !== null && (pullS === null || channel.deadFromS < pullS);

function judgeChannel(
  channel: BakeChannel,
  dead: number | null,
  pullS: number | null,
  recordedPullS: number | null,
  schedule: PowderSchedule,
  curve: CureCurve,
  overbake: CureCurve | null,
  onsetC: number,
): Result<JudgedChannel> {
  const index = cureIndex(channel.trace, curve, onsetC);
  if (!index.ok) return index;
  const over = overbake ? cureIndex(channel.trace, overbake, onsetC) : null;
  if (over && !over.ok) return over;
  const holds: (Hold & { neededS: number; met: boolean })[] = [];
  for (const point of schedule.points) {
    const hold = holdAt(channel.trace, point.metalC);
    if (!hold.ok) return hold;
    const neededS = point.minutes * 60;
    holds.push({ ...hold.value, neededS, met: atLeast(hold.value.longestS, neededS) });
  }
  const holdMet = holds.some((hold) => hold.met);
  const indexMet = atLeast(index.value.index, 100);
  const overbakeIndex = over?.value.index ?? null;
  const overFilled = over?.value.indexGapsFilledHot ?? null;
  let result: VerdictResult = holdMet && indexMet ? "in" : holdMet || indexMet ? "watch" : "out";
  if (overbakeIndex !== null && overbakeIndex > 100) result = "out";
  else if (overFilled !== null && overFilled > 100) result = "unknown";
  const until = recordedPullS === null ? null : endsBeforeS(channel.trace, recordedPullS);
  if (until !== null && result === "out" && (overbakeIndex ?? 0) <= 100) result = "unknown";
  if (until !== null && recordedPullS !== null && result !== "out" && overbake && overbakeIndex !== null) {
    // As hot as it ever was until the pull is the most that can have followed.
    const mostS = 60 * requiredMinutes(overbake, hottestOf(channel.trace));
    if (overbakeIndex + (100 * (recordedPullS - until)) / mostS > 100) result = "unknown";
  }
  if (dead !== null && (pullS === null || dead < pullS)) result = "unknown";
  return ok({
    name: channel.name,
    medium: channel.medium,
    deadFromS: dead,
    recordedUntilS: until,
    index: index.value.index,
    extrapolatedShare: index.value.extrapolatedShare,
    overbakeIndex,
    overbakeIndexGapsFilledHot: overFilled,
    peakC: hottestOf(channel.trace),
    gaps: index.value.gaps,
    holds,
    holdMet,
    result,
  });
}

const hottestOf = (trace: Trace): number =>
  trace.tempC.reduce((most: number, c) => (c === null ? most : Math.max(most, c)), Number.NEGATIVE_INFINITY);

/** The last moment with a number where it is more than a gap before the pull, s; null where the trace reaches the pull. */
function endsBeforeS(trace: Trace, pullS: number): number | null {
  const last = trace.tempC.findLastIndex((c) => c !== null);
  const untilS = trace.timeS[last];
  return untilS !== undefined && pullS - untilS > GAP_MEDIAN_INTERVALS * medianIntervalS(trace.timeS) ? untilS : null;
}

function bakeReasons(
  live: readonly JudgedChannel[],
  dark: readonly JudgedChannel[],
  deciding: JudgedChannel,
  curve: CureCurve,
  decidedBy: CureDecider,
  pullS: number | null,
): BakeReason[] {
  const worse = live.filter((c) => c !== deciding && worstResult([c.result, deciding.result]) !== deciding.result);
  const told = [deciding, ...worse];
  const short = (reason: BakeReason) => reason.kind !== "index-met" && reason.kind !== "hold-met";
  const reasons = [
    ...cureReasons(deciding, decidedBy),
    ...told.flatMap((c): BakeReason[] =>
      c.recordedUntilS === null || pullS === null
        ? []
        : [{ kind: "recorded-until", channel: c.name, untilS: c.recordedUntilS, pullS }],
    ),
    ...worse.flatMap((channel) => cureReasons(channel, decidedBy).filter(short)),
  ];
  for (const { name: channel, overbakeIndex: index, overbakeIndexGapsFilledHot: filled } of live) {
    if (index !== null && index > 100) reasons.push({ kind: "overbaked", channel, index });
    else if (filled !== null && filled > 100) reasons.push({ kind: "overbake-unknown-in-gap", channel, index: filled });
  }
  for (const channel of dark)
    reasons.push({ kind: "channel-dead", channel: channel.name, fromS: channel.deadFromS as number });
  for (const { name: channel, gaps } of told) for (const gap of gaps) reasons.push({ kind: "gap", channel, ...gap });
  for (const { name: channel, extrapolatedShare: share } of told)
    if (share > EXTRAPOLATION_WORTH_SAYING) reasons.push({ kind: "extrapolated", channel, share });
  if (curve.basis === "assumed-activation-energy") reasons.push({ kind: "assumed-activation-energy" });
  return reasons;
}

/** Index and hold of one channel, what decides first, and that only one of them is met where that is so. */
function cureReasons({ name: channel, index, holds, holdMet }: JudgedChannel, decidedBy: CureDecider): BakeReason[] {
  const indexMet = atLeast(index, 100);
  const best = holds.reduce((a, b) => (b.longestS / b.neededS > a.longestS / a.neededS ? b : a));
  const byIndex: BakeReason = { kind: indexMet ? "index-met" : "index-short", channel, index };
  const byHold: BakeReason = {
    kind: holdMet ? "hold-met" : "hold-short",
    channel,
    atC: best.atC,
    longestS: best.longestS,
    neededS: best.neededS,
  };
  const both = decidedBy === "index" ? [byIndex, byHold] : [byHold, byIndex];
  if (indexMet === holdMet) return both;
  return [...both, { kind: indexMet ? "only-index-met" : "only-hold-met", channel, index }];
}
