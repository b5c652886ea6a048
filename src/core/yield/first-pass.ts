import { err, ok, type Result } from "../result";
import { wilsonInterval } from "../statistics";

export type FirstPass = {
  readonly racks: number;
  readonly passed: number;
  /** Of racks decided, passed by their first decision, 0–1. */
  readonly share: number;
  /** 95 % of that share, 0–1. */
  readonly interval: readonly [number, number];
};

/**
 * First-pass yield: racks whose first decision was to accept them, of racks decided. Held, conceded, recoated, stripped and
 * scrapped did not pass. Failures: `no-racks`, `not-so-many`. Source of the interval: Wilson 1927.
 */
export function firstPass(passed: number, racks: number): Result<FirstPass> {
  if (racks === 0) return err({ kind: "no-racks" });
  if (!Number.isInteger(racks) || !Number.isInteger(passed) || passed < 0 || passed > racks)
    return err({ kind: "not-so-many", passed, racks });
  return ok({ racks, passed, share: passed / racks, interval: wilsonInterval(passed, racks) });
}

/** How a group stands to the whole: only where its interval lies wholly on one side of the whole's share is it told apart. */
export const againstWhole = (group: FirstPass, whole: FirstPass): "higher" | "lower" | "not-told-apart" =>
  group.interval[0] > whole.share ? "higher" : group.interval[1] < whole.share ? "lower" : "not-told-apart";
