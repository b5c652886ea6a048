import { max, scaleBand, scaleLinear } from "d3";
import type { Day, Onset } from "@/server/causes/onset";
import { dayMonth } from "../format";

const [WIDTH, HEIGHT, FOOT] = [640, 110, 18];
const MOST_BARS = 60;
const DAY_MS = 86_400_000;

/** Days put together so that at most sixty bars are drawn: each with the same number of days. */
function bars(days: readonly Day[]) {
  const first = days[0]?.from.getTime() ?? 0;
  const span = ((days.at(-1)?.from.getTime() ?? first) - first) / DAY_MS + 1;
  const each = Math.max(1, Math.ceil(span / MOST_BARS));
  const out = new Map<number, { from: Date; defective: number; inspected: number }>();
  for (const day of days) {
    const place = Math.floor((day.from.getTime() - first) / DAY_MS / each);
    const one = out.get(place) ?? { from: day.from, defective: 0, inspected: 0 };
    out.set(place, {
      from: one.from,
      defective: one.defective + day.defective,
      inspected: one.inspected + day.inspected,
    });
  }
  return { each, bars: [...out.values()] };
}

/** The share of racks that show it, day by day, with the day from which more did. */
export function BeganChart({ days, onset, timeZone }: { days: readonly Day[]; onset: Onset | null; timeZone: string }) {
  const { each, bars: list } = bars(days);
  const top = max(list, (d) => d.defective / d.inspected) ?? 0;
  if (list.length < 2 || top === 0) return null;
  const x = scaleBand(
    list.map((_, i) => i),
    [0, WIDTH],
  ).paddingInner(0.25);
  const y = scaleLinear([0, Math.max(0.1, top)], [HEIGHT - FOOT, 14]);
  const at = onset ? list.findIndex((d) => d.from.getTime() >= onset.from.getTime()) : -1;
  const since = at >= 0 ? (x(at) ?? 0) - 2 : null;
  const late = since !== null && since > WIDTH * 0.7;
  return (
    <figure className="m-0 mt-2">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full max-w-[640px]"
        role="img"
        aria-label={`Share of racks that show it, ${each === 1 ? "a day" : `${each} days`} a bar, most ${Math.round(top * 100)} in 100${onset ? `; more from ${dayMonth(onset.from, timeZone)} on` : ""}`}
      >
        {list.map((d, i) => (
          <rect
            key={d.from.getTime()}
            x={x(i)}
            y={Math.min(y(d.defective / d.inspected), HEIGHT - FOOT - 1)}
            width={x.bandwidth()}
            height={Math.max(1, HEIGHT - FOOT - y(d.defective / d.inspected))}
            fill={at >= 0 && i >= at ? "var(--sorrel)" : "var(--rule-strong)"}
          />
        ))}
        {since !== null && onset && (
          <>
            <line x1={since} x2={since} y1="0" y2={HEIGHT - FOOT} stroke="var(--ink)" strokeDasharray="3 3" />
            <text
              x={late ? since - 5 : since + 5}
              y="10"
              textAnchor={late ? "end" : "start"}
              className="fig text-[12px] text-ink"
              fill="currentColor"
            >
              from {dayMonth(onset.from, timeZone)} on
            </text>
          </>
        )}
        <text x="0" y={HEIGHT - 4} className="fig text-[12px] text-ink-2" fill="currentColor">
          {dayMonth(list[0]?.from ?? new Date(0), timeZone)}
        </text>
        <text x={WIDTH} y={HEIGHT - 4} textAnchor="end" className="fig text-[12px] text-ink-2" fill="currentColor">
          {dayMonth(list.at(-1)?.from ?? new Date(0), timeZone)}
        </text>
      </svg>
      <figcaption className="faint small">
        Share of racks that show it, {each === 1 ? "a bar a day" : `a bar of ${each} days`}; the highest{" "}
        {Math.round(top * 100)} in 100.
      </figcaption>
    </figure>
  );
}
