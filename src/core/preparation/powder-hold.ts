import { flashOffMinutesOf } from "./how";

/** What was done to bare metal, and when, ms; null where it was not. */
export type MetalReady = {
  readonly wiped: { readonly atMs: number; readonly solvent: string | null } | null;
  readonly blastedMs: number | null;
  /** Newest cleaning of the bare metal since: sanded, degreased. */
  readonly cleanedMs: number | null;
  /** Out of the conversion bath, where nothing sealed it since. */
  readonly convertedMs: number | null;
};
export type ReadyLimits = {
  readonly flashOffMinutes: number;
  readonly bareHours: number;
  readonly unsealedHours: number;
};
export type MetalHold =
  | { readonly kind: "flash-off"; readonly solvent: string | null; readonly minutes: number; readonly untilMs: number }
  | { readonly kind: "bare-too-long" | "unsealed-too-long"; readonly hours: number; readonly limitHours: number };

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;

/** Minutes a wipe is left to flash off: the shop's, or the solvent's own where that is longer. */
export const flashOffOf = (solvent: string | null, usualMinutes: number): number =>
  Math.max(usualMinutes, flashOffMinutesOf[solvent ?? ""] ?? 0);

/** Whether solvent of the last wipe is still on it at a moment: it holds powder, and any oven. */
export function flashOffHold(ready: MetalReady, atMs: number, usualMinutes: number): MetalHold | null {
  if (!ready.wiped || ready.wiped.atMs > atMs) return null;
  const minutes = flashOffOf(ready.wiped.solvent, usualMinutes);
  const untilMs = ready.wiped.atMs + minutes * MINUTE_MS;
  return untilMs > atMs ? { kind: "flash-off", solvent: ready.wiped.solvent, minutes, untilMs } : null;
}

/**
 * What holds powder back at a moment: solvent not yet off; metal bare longer than the air lets it, to be cleaned again; a
 * conversion coat unsealed past its hours, to be washed again. Null where nothing does.
 */
export function powderHold(ready: MetalReady, atMs: number, limits: ReadyLimits): MetalHold | null {
  const wet = flashOffHold(ready, atMs, limits.flashOffMinutes);
  if (wet) return wet;
  const { blastedMs, cleanedMs, convertedMs } = ready;
  if (convertedMs !== null && (blastedMs === null || convertedMs > blastedMs)) {
    const hours = (atMs - convertedMs) / HOUR_MS;
    return hours > limits.unsealedHours ? { kind: "unsealed-too-long", hours, limitHours: limits.unsealedHours } : null;
  }
  if (blastedMs === null) return null;
  const hours = (atMs - Math.max(blastedMs, cleanedMs ?? blastedMs)) / HOUR_MS;
  return hours > limits.bareHours ? { kind: "bare-too-long", hours, limitHours: limits.bareHours } : null;
}
