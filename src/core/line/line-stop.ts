import { err, ok, type Result } from "../result";
import type { VerdictResult } from "../verdict";
import type { PassageBySpeed } from "./passages-from-speed";

export type LineStop = { readonly fromMs: number; readonly toMs: number };
export type StoppedAt =
  | { readonly where: "in-stage"; readonly stage: string }
  | { readonly where: "between"; readonly after: string; readonly before: string };
export type AfterStop = {
  readonly at: StoppedAt;
  /** The rack's passages as the stop left them: what was still to come is later by the stop. */
  readonly passages: readonly PassageBySpeed[];
  /** Time in the stage, or wet between two, with the stop in it, s. */
  readonly seconds: number;
  readonly withoutStopS: number;
};

/** Longest stop that is one stop, h; beyond it the line was shut down. */
export const LONGEST_STOP_HOURS = 24;
/** Wet between two stages this long, s, clean steel begins to rust: a site can set its own. */
export const WET_LIMIT_S = 180;

/**
 * What a stop of the line did to a rack that was in it: its contact in the stage it stood in, or the time it stood wet
 * between two stages, grows by the stop, and everything after comes later. Null where the rack had not entered or had
 * left. Passages as by line speed, in order. Failures: `bad-stop` (end not after start, or over 24 h), `no-stages`.
 */
export function afterStop(passages: readonly PassageBySpeed[], stop: LineStop): Result<AfterStop | null> {
  const lengthMs = stop.toMs - stop.fromMs;
  if (!(lengthMs > 0) || lengthMs > LONGEST_STOP_HOURS * 3_600_000)
    return err({ kind: "bad-stop", minutes: lengthMs / 60_000 });
  const inOrder = [...passages].sort((a, b) => a.enteredMs - b.enteredMs);
  const first = inOrder[0];
  const last = inOrder.at(-1);
  if (!first || !last) return err({ kind: "no-stages" });
  if (stop.fromMs < first.enteredMs || stop.fromMs >= last.leftMs) return ok(null);
  const later = (ms: number) => (ms > stop.fromMs ? ms + lengthMs : ms);
  const shifted = inOrder.map((p) => ({ ...p, enteredMs: later(p.enteredMs), leftMs: later(p.leftMs) }));
  const inside = inOrder.findIndex((p) => p.enteredMs <= stop.fromMs && stop.fromMs < p.leftMs);
  if (inside >= 0) {
    const was = inOrder[inside] as PassageBySpeed;
    const is = shifted[inside] as PassageBySpeed;
    return ok({
      at: { where: "in-stage", stage: was.stage },
      passages: shifted,
      seconds: (is.leftMs - is.enteredMs) / 1000,
      withoutStopS: (was.leftMs - was.enteredMs) / 1000,
    });
  }
  const next = inOrder.findIndex((p) => p.enteredMs > stop.fromMs);
  const before = inOrder[next - 1] as PassageBySpeed;
  const after = inOrder[next] as PassageBySpeed;
  return ok({
    at: { where: "between", after: before.stage, before: after.stage },
    passages: shifted,
    seconds: (after.enteredMs + lengthMs - before.leftMs) / 1000,
    withoutStopS: (after.enteredMs - before.leftMs) / 1000,
  });
}

/** Whether a rack came through a stop: contact against its stage's window, wet standing against the limit; dry stages do no harm. */
export function judgeStop(
  stopped: Pick<AfterStop, "at" | "seconds">,
  limits: {
    readonly contactS: readonly [number, number] | null;
    readonly wetLimitS: number;
    readonly dryStages: readonly string[];
  },
): VerdictResult {
  if (stopped.at.where === "between") {
    // Once it has been through the dryer it is not wet any more.
    if (limits.dryStages.includes(stopped.at.after)) return "in";
    return stopped.seconds > limits.wetLimitS ? "out" : stopped.seconds > 0.8 * limits.wetLimitS ? "watch" : "in";
  }
  if (limits.dryStages.includes(stopped.at.stage)) return "in";
  if (!limits.contactS) return "unknown";
  const [least, most] = limits.contactS;
  return stopped.seconds < least || stopped.seconds > most ? "out" : "in";
}
