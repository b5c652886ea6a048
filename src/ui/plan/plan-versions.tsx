import type { PlanVersion } from "@/server/plan/plan-of";
import { dateAndTime } from "../format";
import { MarginBlock } from "../frame/margin";

/** Every version of a plan, newest first: what it was for, whose it was. */
export function PlanVersions({ versions, timeZone }: { versions: readonly PlanVersion[]; timeZone: string }) {
  return (
    <MarginBlock title="Versions">
      {versions.length === 0 && <p className="soft">As it was taken in.</p>}
      {[...versions].reverse().map((one) => (
        <div key={one.recordId} className="row">
          <span>
            <b>{one.version}</b>
            {one.released ? ", released" : ""}: {one.reason ?? "first plan"}
            <br />
            <span className="faint small">
              {one.by}, {dateAndTime(one.at, timeZone)}
            </span>
          </span>
        </div>
      ))}
    </MarginBlock>
  );
}
