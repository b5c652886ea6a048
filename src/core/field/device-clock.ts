import { err, ok, type Result } from "../result";

/** The server's time and the device's at one moment, when they last spoke. */
export type ClockSeen = { readonly serverMs: number; readonly deviceMs: number };

/** A device's clock may read so much less than when it last spoke to the server before it is taken to be wrong, ms. */
const SLACK_MS = 2 * 60_000;
/** Nobody is without a network for so long, ms: the clock has been moved. */
const LONGEST_AWAY_MS = 120 * 86_400_000;

/**
 * When something happened, ms, told by the device's clock and corrected by how far that was off when the two last spoke.
 * Failures: `clock-off` where the device's clock has gone back since, or on by more than anybody stays away.
 */
export function happenedBy(deviceMs: number, seen: ClockSeen): Result<number> {
  const away = deviceMs - seen.deviceMs;
  if (!(away >= -SLACK_MS && away <= LONGEST_AWAY_MS))
    return err({ kind: "clock-off", deviceMs, seenMs: seen.serverMs });
  return ok(seen.serverMs + Math.max(0, away));
}

/** Whether a device's clock was moved between two times that it spoke to the server: then what was told by it in between may be wrong. */
export const clockMoved = (before: ClockSeen, after: ClockSeen): boolean =>
  Math.abs(after.serverMs - after.deviceMs - (before.serverMs - before.deviceMs)) > 5 * SLACK_MS;
