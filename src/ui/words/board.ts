import type { VerdictResult } from "@/core/verdict";
import type { Severity } from "@/server/causes/board";

export const severityName: Readonly<Record<Severity, string>> = { high: "high", middle: "middle", low: "low" };
export const severityResult: Readonly<Record<Severity, VerdictResult>> = {
  high: "out",
  middle: "watch",
  low: "unknown",
};

/** How long ago, in the unit that tells: “5 h”, “3 days”, “7 weeks”, “2 years”. */
export function agoSaid(at: Date, now: Date): string {
  const hours = Math.max(0, now.getTime() - at.getTime()) / 3_600_000;
  const of = (n: number, one: string) => `${Math.round(n)} ${one}${Math.round(n) === 1 ? "" : "s"}`;
  if (hours < 1) return "now";
  if (hours < 36) return `${Math.round(hours)} h`;
  if (hours < 24 * 14) return of(hours / 24, "day");
  return hours < 24 * 365 * 1.5 ? of(hours / 168, "week") : of(hours / 8766, "year");
}
