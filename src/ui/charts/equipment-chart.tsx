import type { CoatedWeek } from "@/server/equipment/load-equipment";
import { dayMonth } from "../format";
import { Plot } from "./plot/plot";
import { ticksOf } from "./plot/spec";

const HALF_A_WEEK_MS = 3.5 * 86_400_000;

/** Film of what was coated with one piece of equipment, week by week, within its powders' own ranges. */
export function EquipmentChart({ weeks, timeZone }: { weeks: readonly CoatedWeek[]; timeZone: string }) {
  const read = weeks.flatMap((w) => (w.film === null ? [] : [{ ...w, film: w.film }]));
  const [first, last] = [read[0], read.at(-1)];
  if (!first || !last) return null;
  const day = (d: Date) => dayMonth(d, timeZone);
  const marks = read.map((w) => ({
    x: w.week.getTime(),
    y: Math.max(-0.5, Math.min(1.5, w.film)),
    tone: w.thin > 0 ? ("out" as const) : w.film < 0 || w.film > 1 ? ("watch" as const) : ("in" as const),
    shape: w.thin > 0 ? ("square" as const) : ("dot" as const),
    r: 5,
    says: `week of ${day(w.week)}: ${Math.round(w.film * 100)} % of the way from least to most film, ${w.read} racks read${w.thin > 0 ? `, ${w.thin} with a thin spot` : ""}`,
  }));
  return (
    <Plot
      label="Film by week, within the powders’ ranges"
      width={620}
      height={220}
      readings={marks}
      spec={{
        x: {
          domain: [first.week.getTime() - HALF_A_WEEK_MS, last.week.getTime() + HALF_A_WEEK_MS],
          ticks: read
            .filter((_, i) => i % Math.ceil(read.length / 6) === 0)
            .map((w) => ({ at: w.week.getTime(), label: day(w.week) })),
        },
        y: {
          domain: [-0.5, 1.5],
          ticks: ticksOf([0, 0.5, 1], (v) => ({ 0: "least", 0.5: "middle", 1: "most" })[v] ?? ""),
          title: "film",
          lines: true,
        },
        layers: [
          { kind: "level", y: 0, tone: "out", label: "least film" },
          { kind: "level", y: 1, tone: "out", label: "most film" },
          { kind: "curve", points: marks.map((m) => [m.x, m.y] as const), tone: "ink" },
          { kind: "marks", marks: marks.map(({ says, ...m }) => m) },
        ],
      }}
    />
  );
}
