import { movedBy, type Readiness, type ReadinessValue, readiness, valueAtPassage } from "@/core/bath";
import type { BathFile } from "./load-bath";

const HOUR = 3_600_000;

/** The wash as it stands at a moment, by the checks on record: each value as it was then, never across an addition. O(checks). */
export function washReadiness(files: readonly BathFile[], at: Date): Readiness {
  const values = files.flatMap((file) =>
    file.series.map((series): ReadinessValue => {
      const checks = series.points.map((p) => ({ atMs: p.at.getTime(), value: p.value, recordId: p.recordId }));
      const next = checks.findIndex((c) => c.atMs > at.getTime());
      const found = valueAtPassage({
        atMs: at.getTime(),
        before: (next < 0 ? checks.at(-1) : checks[next - 1]) ?? null,
        after: (next < 0 ? null : checks[next]) ?? null,
        eventsMs: file.events.flatMap((e) =>
          movedBy(file.bath.data, e).includes(series.parameter) ? [e.at.getTime()] : [],
        ),
        roundHours: file.bath.data.roundHours,
      });
      return {
        bath: file.bath.code,
        parameter: series.parameter,
        value: found.value,
        grade: found.grade,
        window: series.window,
      };
    }),
  );
  return readiness(values);
}

/** Readiness at each full hour of the last day, oldest first. */
export const readinessByHour = (files: readonly BathFile[], at: Date, hours = 24) =>
  Array.from({ length: hours + 1 }, (_, i) => {
    const hour = new Date(Math.floor(at.getTime() / HOUR) * HOUR - (hours - i) * HOUR);
    return { at: hour, ...washReadiness(files, hour) };
  });
