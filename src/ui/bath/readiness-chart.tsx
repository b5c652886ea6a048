import { READY_LIMIT } from "@/core/bath";
import type { EvidenceGrade } from "@/core/verdict";
import { Plot } from "../charts/plot/plot";
import { clock } from "../format";
import { gradeWords } from "../words/grades";

const HOUR = 3_600_000;

/** Readiness of the wash by the hour: one bar an hour, its height the index, hatched where it rests on an assumption. */
export function ReadinessChart({
  hours,
  timeZone,
}: {
  hours: readonly { readonly at: Date; readonly index: number | null; readonly grade: EvidenceGrade }[];
  timeZone: string;
}) {
  const [first, last] = [hours[0], hours.at(-1)];
  if (!first || !last) return null;
  const known = hours.flatMap((h) => (h.index === null ? [] : [{ ...h, index: h.index, ms: h.at.getTime() }]));
  const least = known.length > 0 ? Math.min(...known.map((h) => h.index)) : "not known";
  return (
    <Plot
      label={`Readiness of the wash by the hour, last ${hours.length - 1} hours; lowest ${least}`}
      width={820}
      height={92}
      spec={{
        x: {
          domain: [first.at.getTime(), last.at.getTime() + HOUR],
          ticks: hours
            .filter((h) => h.at.getHours() % 6 === 0)
            .map((h) => ({ at: h.at.getTime(), label: clock(h.at, timeZone) })),
        },
        y: { domain: [0, 104], ticks: [] },
        layers: [
          {
            kind: "bars",
            bars: known.map((h) => ({
              from: h.ms,
              to: h.ms + HOUR,
              y: h.index,
              fill: h.grade === "measured" ? "var(--band)" : "hatch",
              outline: h.index < READY_LIMIT ? "out" : "soft",
              strong: h.index < READY_LIMIT,
            })),
          },
          {
            kind: "level",
            y: READY_LIMIT,
            tone: "out",
            width: 1.5,
            dash: "5 4",
            label: `${READY_LIMIT}: at a limit`,
          },
          { kind: "beside", y: 100, text: "100: mid-window", tone: "soft" },
        ],
      }}
      readings={known.map((h) => ({
        x: h.ms + HOUR / 2,
        y: h.index,
        says: `${clock(h.at, timeZone)}: ${h.index}, ${gradeWords[h.grade]}`,
      }))}
    />
  );
}
