import type { StopSeen } from "@/server/line/line-stops";
import { clock, when } from "../format";
import Link from "../link";
import { Verdict } from "../marks/verdict";
import { passageName } from "../words/preparation";
import { TakeStopBack } from "./take-stop-back";

const stageWord = (stage: string): string => passageName[stage] ?? stage;

const minutes = (seconds: number): string => String(Math.round(seconds / 6) / 10);
const limitText = ([least, most]: readonly [number | null, number]): string =>
  least === null ? `${minutes(most)} at most` : `${minutes(least)}–${minutes(most)} asked`;

/** Each stop with the racks that stood in the line: where, how long in all, and whether that spoils them. */
export function LineStops({
  stops,
  now,
  timeZone,
  mayLog = false,
}: {
  stops: readonly StopSeen[];
  now: Date;
  timeZone: string;
  mayLog?: boolean;
}) {
  if (stops.length === 0) return <p className="soft m-0">No stop in the last two days.</p>;
  return (
    <>
      {stops.map((stop) => (
        <div key={stop.recordId} className="mb-3">
          <p className="m-0">
            <b className="fig">
              {when(stop.from, now, timeZone)}–{clock(stop.to, timeZone)}
            </b>{" "}
            {stop.cause} <span className="small faint">{stop.by}</span>
          </p>
          {mayLog && <TakeStopBack stop={stop.recordId} />}
          {stop.racks.length === 0 && <p className="small soft m-0">No rack was in the line by what is on record.</p>}
          {stop.racks.map((rack) => (
            <div
              key={rack.number}
              className="row grid-cols-[60px_minmax(0,1fr)_92px_170px] items-center max-[700px]:grid-cols-[60px_minmax(0,1fr)]"
            >
              <Link className="link fig font-bold" href={`/racks/${rack.number}`}>
                {rack.number}
              </Link>
              <span>
                {rack.at.where === "in-stage"
                  ? `in ${stageWord(rack.at.stage).toLowerCase()}`
                  : `wet between ${stageWord(rack.at.after).toLowerCase()} and ${stageWord(rack.at.before).toLowerCase()}`}
              </span>
              <span className="num">
                {rack.seconds === null ? "—" : `${(rack.seconds / 60).toFixed(1)} min`}
                {rack.limitS && <span className="small faint block">{limitText(rack.limitS)}</span>}
              </span>
              <Verdict result={rack.result}>
                {rack.result === "out"
                  ? rack.at.where === "between"
                    ? "Watch for flash rust"
                    : "Contact out"
                  : rack.result === "watch"
                    ? "Look for flash rust"
                    : rack.seconds === null
                      ? "Not logged out of it"
                      : rack.result === "unknown"
                        ? "No window set"
                        : "No harm"}
              </Verdict>
            </div>
          ))}
        </div>
      ))}
    </>
  );
}
