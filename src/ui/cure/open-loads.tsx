import { ovenSlug } from "@/core/cure";
import type { OpenBake } from "@/server/line/load-line";
import { clock, span } from "../format";
import Link from "../link";
import { staleBakeSaid } from "../words/cure";
import { PullButton } from "./pull-button";

/** The loads that stand in an oven now: index of the slowest, when it is done, and the pull. */
export function OpenLoads({
  bakes,
  now,
  timeZone,
  mayPull,
}: {
  bakes: readonly OpenBake[];
  now: Date;
  timeZone: string;
  mayPull: boolean;
}) {
  return bakes.map((b) => (
    <div key={b.recordId} className="ruled mt-5">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <div>
          <h2>
            <Link className="link" href={`/cure/loads/${ovenSlug(b.oven)}/${encodeURIComponent(b.load)}`}>
              {b.oven}, load {b.load}
            </Link>
            : rack{b.racks.length > 1 ? "s" : ""}{" "}
            {b.racks.map((number, i) => (
              <span key={number}>
                {i > 0 && ", "}
                <Link className="link" href={`/racks/${number}/cure`}>
                  {number}
                </Link>
              </span>
            ))}
          </h2>
          <p className="mt-1">
            {b.index === null ? (
              <>
                In since {clock(b.closedAt, timeZone)},{" "}
                <b className="fig">{span(now.getTime() - b.closedAt.getTime())}</b>. No metal temperature is on record
                yet, so its cure is not known. The load’s page foretells it, and follows the recorder.
              </>
            ) : b.stale ? (
              <>
                {b.overdue && b.pullAt && (
                  <b className={b.result === "out" ? "text-out" : "text-watch"}>
                    Pull overdue by {span(now.getTime() - b.pullAt.getTime())}.{" "}
                  </b>
                )}
                {staleBakeSaid(b, now.getTime(), (at) => clock(at, timeZone))}.
              </>
            ) : (
              <>
                Index <b className="fig text-[26px]">{b.index.toFixed(0)}</b> on {b.channel}, the slowest, at{" "}
                {clock(b.lastAt, timeZone)}.{" "}
                {b.cured
                  ? "Cured: pull it."
                  : b.pullAt
                    ? `Cured by ${clock(b.pullAt, timeZone)}, as its trace foretells.`
                    : "Still heating."}
              </>
            )}
          </p>
        </div>
        {mayPull && <PullButton recordId={b.recordId} load={b.load} />}
      </div>
    </div>
  ));
}
