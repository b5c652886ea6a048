import { scaleLinear } from "d3";
import type { DryOffs } from "@/server/line/dry-offs";
import { Plot } from "../charts/plot/plot";
import { type Layer, ticksOf } from "../charts/plot/spec";
import { countOf, dayMonth, when } from "../format";
import Link from "../link";
import { Verdict } from "../marks/verdict";

/** Racks listed; the rest are on the chart. */
const MOST_LISTED = 8;

/** How racks came out of the dry-off, over the humidity of the hall: damp ones lie where the air was wet. */
export function DryOffsSection({ dryOffs, now, timeZone }: { dryOffs: DryOffs; now: Date; timeZone: string }) {
  const { seen, humidity, from } = dryOffs;
  if (seen.length === 0) return <p className="soft m-0">No rack was looked at out of the dry-off yet.</p>;
  const values = humidity.map((h) => h.percent);
  const [low, high] = [Math.min(40, ...values), Math.max(90, ...values)];
  const days = scaleLinear([from.getTime(), now.getTime()], [0, 1])
    .ticks(6)
    .map((ms) => ({ at: ms, label: dayMonth(new Date(ms), timeZone) }));
  const out = seen.filter((s) => s.result === "out").reverse();
  const racks = seen.map((s) => ({
    x: s.at.getTime(),
    y: low - 4,
    says: `Rack ${s.rack}, ${when(s.at, now, timeZone)}: ${s.result === "in" ? "dry" : s.result === "out" ? "damp or not blown out" : "not known"}`,
    ...(s.result === "out"
      ? ({ tone: "out", shape: "square", r: 4 } as const)
      : ({ tone: s.result === "in" ? "in" : "watch", r: 2 } as const)),
  }));
  return (
    <>
      <Plot
        label={`Humidity of the hall, and ${out.length} of ${countOf(seen.length, "rack")} that came out damp or not blown out`}
        width={820}
        height={124}
        spec={{
          x: { domain: [from.getTime(), now.getTime()], ticks: days },
          y: { domain: [low - 6, high + 2], ticks: ticksOf([50, 70, 90], (v) => `${v} %`), lines: true },
          layers: [
            {
              kind: "curve",
              points: humidity.map((h) => [h.at.getTime(), h.percent]),
              tone: "ink",
              width: 1.5,
              label: "humidity",
            },
            ...out.map((s): Layer => ({ kind: "moment", x: s.at.getTime(), tone: "out", dash: "2 3" })),
            {
              kind: "marks",
              marks: racks.map(({ says, ...r }) => r),
            },
          ],
        }}
        readings={racks}
      />
      {out.length === 0 && (
        <p className="soft m-0">{seen.length === 1 ? "The one rack" : `All ${seen.length} racks`} came out dry.</p>
      )}
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
