import type { UnitSystem } from "@/core/units";
import type { Changed, ChangedSinceGood } from "@/server/causes/changed-since-good";
import { Fold } from "../fields/fold";
import { dateAndTime, dayMonth } from "../format";
import Link from "../link";
import { Verdict } from "../marks/verdict";
import { comparedFigure, comparedName } from "../words/differs";

const SHOWN = 6;
const columns = "grid-cols-[minmax(0,1.2fr)_minmax(70px,120px)_minmax(70px,120px)_minmax(0,1.2fr)] items-center gap-3";

/** What was otherwise than on the last good rack of the part, the most unusual first, and since when. */
export function Changes({ found, units, timeZone }: { found: ChangedSinceGood; units: UnitSystem; timeZone: string }) {
  const { good, changed, same, notKnown } = found;
  if (!good)
    return (
      <p className="soft mt-1">
        No rack of this part was accepted before it without a fault: nothing to hold it against.
      </p>
    );
  const value = (c: Changed, v: string | number) => (typeof v === "number" ? comparedFigure(c.variable, v, units) : v);
  const row = (c: Changed) => (
    <div key={c.variable} className={`row ${columns} max-[700px]:grid-cols-[minmax(0,1fr)_90px_90px]`}>
      <b>{comparedName(c.variable)}</b>
      <span className={typeof c.good === "number" ? "num soft" : "soft"}>{value(c, c.good)}</span>
      <span className={typeof c.now === "number" ? "num" : ""}>
        <b>{value(c, c.now)}</b>
      </span>
      <span className="small max-[700px]:col-span-3">
        <Verdict result={c.unusual === null ? "unknown" : c.unusual >= 0.9 ? "out" : c.unusual >= 0.6 ? "watch" : "in"}>
          {c.unusual === null
            ? "too few racks to say"
            : c.unusual >= 0.995
              ? `on none of ${c.among} before`
              : `otherwise on ${Math.round(c.unusual * 100)} % of ${c.among}`}
        </Verdict>
        {c.since && (
          <span className="soft block">
            so since rack{" "}
            <Link className="link fig" href={`/racks/${c.since.number}`}>
              {c.since.number}
            </Link>
            , {dayMonth(c.since.at, timeZone)}
          </span>
        )}
      </span>
    </div>
  );
  return (
    <>
      <p className="mt-1 mb-0">
        Against the last {good.racks === 1 ? "rack" : `${good.racks} racks`} of the part accepted without a fault, the
        newest{" "}
        <Link className="link fig font-bold" href={`/racks/${good.number}`}>
          {good.number}
        </Link>
        , hung {dateAndTime(good.at, timeZone)}
        {changed.length === 0 ? ": nothing that is on record differs." : "."}
      </p>
      {changed.length > 0 && (
        <div className={`row small soft ${columns} max-[700px]:hidden`}>
          <span />
          <span className="text-right">when good</span>
          <span className="text-right">now</span>
          <span>of the racks before it</span>
        </div>
      )}
      {changed.slice(0, SHOWN).map(row)}
      {changed.length > SHOWN && (
        <Fold summaryClassName="min-h-11 soft" summary={`${changed.length - SHOWN} less unusual`}>
          {changed.slice(SHOWN).map(row)}
        </Fold>
      )}
      <p className="small soft mt-1 mb-0">
        {same} the same, or no further off than racks usually are
        {notKnown.length > 0 ? `; on record of one of the two only: ${notKnown.map(comparedName).join(", ")}` : ""}.
      </p>
    </>
  );
}
