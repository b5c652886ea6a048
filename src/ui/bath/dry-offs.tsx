import { line, scaleLinear } from "d3";
import type { DryOffs } from "@/server/line/dry-offs";
import { dayMonth, when } from "../format";
import Link from "../link";
import { Verdict } from "../marks/verdict";

const WIDTH = 820;
const PLOT = WIDTH - 46;
const HEIGHT = 118;
const LANE = HEIGHT - 22;
/** Racks listed; the rest are on the chart. */
const MOST_LISTED = 8;

/** How racks came out of the dry-off, over the humidity of the hall: damp ones lie where the air was wet. */
export function DryOffsSection({ dryOffs, now, timeZone }: { dryOffs: DryOffs; now: Date; timeZone: string }) {
  const { seen, humidity, from } = dryOffs;
  if (seen.length === 0) return <p className="soft m-0">No rack was looked at out of the dry-off yet.</p>;
  const x = scaleLinear([from.getTime(), now.getTime()], [4, PLOT]);
  const values = humidity.map((h) => h.percent);
  const y = scaleLinear([Math.min(40, ...values), Math.max(90, ...values)], [LANE - 12, 10]);
  const path = line<(typeof humidity)[number]>(
    (h) => x(h.at.getTime()),
    (h) => y(h.percent),
  );
  const out = seen.filter((s) => s.result === "out").reverse();
  return (
    <>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width={WIDTH}
        className="h-auto max-w-full overflow-visible"
        role="img"
        aria-label={`Humidity of the hall, and ${out.length} of ${seen.length} racks that came out damp or not blown out`}
      >
        {[50, 70, 90].map((v) => (
          <g key={v}>
            <line x1="0" x2={PLOT} y1={y(v)} y2={y(v)} stroke="var(--rule)" />
            <text x={PLOT + 4} y={y(v) + 4}>
              {v} %
            </text>
          </g>
        ))}
        <path d={path(humidity) ?? ""} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
        {seen.map((s) =>
          s.result === "out" ? (
            <g key={`${s.rack}${s.at.getTime()}`}>
              <line
                x1={x(s.at.getTime())}
                x2={x(s.at.getTime())}
                y1={10}
                y2={LANE}
                stroke="var(--out)"
                strokeDasharray="2 3"
              />
              <rect x={x(s.at.getTime()) - 4} y={LANE - 4} width="8" height="8" fill="var(--out)">
                <title>{`Rack ${s.rack}, ${dayMonth(s.at, timeZone)}`}</title>
              </rect>
            </g>
          ) : (
            <circle
              key={`${s.rack}${s.at.getTime()}`}
              cx={x(s.at.getTime())}
              cy={LANE}
              r="2"
              fill={s.result === "in" ? "var(--in)" : "var(--watch)"}
            />
          ),
        )}
        {x.ticks(6).map((ms) => (
          <text key={ms} x={x(ms)} y={HEIGHT - 2} textAnchor="middle">
            {dayMonth(new Date(ms), timeZone)}
          </text>
        ))}
      </svg>
      {out.length === 0 && <p className="soft m-0">All {seen.length} racks came out dry.</p>}
      {out.slice(0, MOST_LISTED).map((s) => (
        <div
          key={`${s.rack}${s.at.getTime()}`}
          className="row grid-cols-[60px_150px_minmax(0,1fr)_96px_110px] items-center max-[700px]:grid-cols-[60px_minmax(0,1fr)]"
        >
          <Link className="link fig font-bold" href={`/racks/${s.rack}`}>
            {s.rack}
          </Link>
          <span>{s.part}</span>
          <Verdict result={s.result}>{s.reasons[0] === "damp" ? "damp" : "tubes and laps not blown out"}</Verdict>
          <span className="num">{s.humidityPercent === null ? "" : `${s.humidityPercent.toFixed(0)} % humid`}</span>
          <span className="small faint">{when(s.at, now, timeZone)}</span>
        </div>
      ))}
      {out.length > MOST_LISTED && <p className="small soft m-0">and {out.length - MOST_LISTED} older</p>}
    </>
  );
}
