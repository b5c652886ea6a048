import { holdAt } from "../cure/cure-index";
import type { BakeChannel } from "../cure/judge-bake";
import { checkTrace, deadFromS } from "../cure/trace";
import { err, ok, type Result } from "../result";
import type { VerdictResult } from "../verdict";

/** Held at least this long at metal temperature, s. Source: shop practice, docs/methods.md. */
export const OUTGAS_HOLD_S = 30 * 60;
/** Hotter than the cure that follows by this much, °C: the lower end of what is usual. */
export const OUTGAS_OVER_CURE_C = 15;

export type OutgasVerdict = {
  readonly kind: "outgas-verdict";
  readonly result: VerdictResult;
  /** The metal channel that was held coolest: it decides. */
  readonly channel: string;
  /** The hottest temperature that channel was held at for the time asked in one stretch, °C; null where the trace is too short. */
  readonly heldC: number | null;
  /** Longest stretch of that channel at the temperature asked, s. */
  readonly longestS: number;
  readonly askedC: number;
  readonly askedS: number;
  /** Under the cure itself gas comes out through the film: out. Between the cure and what is asked: watch. */
  readonly cureMetalC: number;
};

/** Longest stretch at or above a temperature, s; the trace has been checked. */
const longestAtS = (trace: BakeChannel["trace"], atC: number): number => {
  const hold = holdAt(trace, atC);
  return hold.ok ? hold.value.longestS : 0;
};

/** The hottest temperature held for so long in one stretch, to 0.1 °C; null where none was. O(samples · log range). */
function heldForC(trace: BakeChannel["trace"], seconds: number): number | null {
  const temps = trace.tempC.filter((t): t is number => t !== null);
  let [low, high] = [Math.min(...temps), Math.max(...temps)];
  if (longestAtS(trace, low) < seconds) return null;
  while (high - low > 0.05) {
    const middle = (low + high) / 2;
    if (longestAtS(trace, middle) >= seconds) low = middle;
    else high = middle;
  }
  return Math.round(low * 10) / 10;
}

/** Half of the step the held temperature is found to, °C: a hold at the limit is at the limit. */
const HELD_SLACK_C = 0.1;
/** What the coolest metal was held at, °C, against the cure that follows: in from 15 °C over it, watch from the cure itself, else out. */
export function outgasResult(heldC: number | null, cureMetalC: number): VerdictResult {
  if (heldC === null || heldC < cureMetalC - HELD_SLACK_C) return "out";
  return heldC >= cureMetalC + OUTGAS_OVER_CURE_C - HELD_SLACK_C ? "in" : "watch";
}

/**
 * An outgassing bake by the metal's own temperature: every live metal channel at `cureMetalC` + 15 °C for 30 min in one
 * stretch is in; all at the cure's temperature so long is watch; else out. Air channels never decide.
 * Failures: those of a trace (with the channel), `no-live-metal-channel`, `bad-input`.
 */
export function judgeOutgas(channels: readonly BakeChannel[], cureMetalC: number): Result<OutgasVerdict> {
  if (!Number.isFinite(cureMetalC)) return err({ kind: "bad-input", name: "cureMetalC", value: cureMetalC });
  for (const { name, trace } of channels) {
    const checked = checkTrace(trace);
    if (!checked.ok) return err({ ...checked.error, channel: name });
  }
  const dead = deadFromS(channels);
  const live = channels.filter((c, i) => c.medium === "metal" && dead[i] === null);
  const askedC = cureMetalC + OUTGAS_OVER_CURE_C;
  const held = live
    .map((c) => ({ channel: c.name, heldC: heldForC(c.trace, OUTGAS_HOLD_S), longestS: longestAtS(c.trace, askedC) }))
    .sort((a, b) => (a.heldC ?? -273) - (b.heldC ?? -273));
  const [coolest] = held;
  if (!coolest) return err({ kind: "no-live-metal-channel" });
  return ok({
    kind: "outgas-verdict",
    result: outgasResult(coolest.heldC, cureMetalC),
    ...coolest,
    askedC,
    askedS: OUTGAS_HOLD_S,
    cureMetalC,
  });
}
