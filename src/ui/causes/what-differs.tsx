import type { Contrast, Difference } from "@/core/comparison";
import type { UnitSystem } from "@/core/units";
import type { WhatDiffers } from "@/server/causes/what-differs";
import { Fold } from "../fields/fold";
import { countOf, dayMonth } from "../format";
import { RecordLines } from "../shift/record-lines";
import { chance, comparedName, sides } from "../words/differs";

/** From here on a difference is as likely a false find as not worth a walk to the line. */
const STANDS_OUT = 0.1;
const SHOWN = 8;
const columns = "grid-cols-[minmax(0,1fr)_150px_158px_76px] max-[700px]:grid-cols-[minmax(0,1fr)_96px_96px_64px]";

/** What differs, what stands out first, and the other comparisons folded under it. */
export function Differences({ contrast, units }: { contrast: Contrast; units: UnitSystem }) {
  const out = contrast.differences.filter((d) => d.q <= STANDS_OUT);
  const rest = contrast.differences.filter((d) => d.q > STANDS_OUT);
  const row = (d: Difference) => {
    const said = sides(d, units);
    return (
      <div key={`${d.variable} ${d.kind === "category" ? d.value : ""}`} className={`row ${columns}`}>
        <span>
          {comparedName(d.variable)}
          {d.kind === "category" ? (
            <>
              : <b>{d.value}</b>
            </>
          ) : (
            <span className="soft">, median</span>
          )}
          {d.kind === "figure" && d.test.rough && <span className="faint small"> rough: few</span>}
        </span>
        <span className="num">{said.affected}</span>
        <span className="num">{said.others}</span>
        <span className="num">{chance(d.q)}</span>
      </div>
    );
  };
  return (
    <>
      {out.length > 0 ? (
        <>
          <div className={`row small soft ${columns}`}>
            <span>differs in</span>
            <span className="text-right">with it</span>
            <span className="text-right">without</span>
            <span className="text-right">chance</span>
          </div>
          {out.slice(0, SHOWN).map(row)}
        </>
      ) : (
        <p className="mt-1">
          Nothing stands out: every difference is of a size that chance makes among so many comparisons.
        </p>
      )}
      {out.length > SHOWN || rest.length > 0 ? (
        <Fold
          className="mt-1"
          summaryClassName="min-h-11 soft"
          summary={countOf(Math.max(0, out.length - SHOWN) + rest.length, "other comparison")}
        >
          {[...out.slice(SHOWN), ...rest].slice(0, 40).map(row)}
        </Fold>
      ) : null}
    </>
  );
}

/** Affected racks against the others of the same weeks, what stands out first, and the day it began. */
export function WhatDiffersTable({
  found,
  timeZone,
  units,
}: {
  found: WhatDiffers | null;
  timeZone: string;
  units: UnitSystem;
}) {
  if (!found)
    return (
      <p className="soft mt-1">
        There are no racks to hold against each other: none within thirty days shows this defect on record, or all do.
      </p>
    );
  const { contrast, onset } = found;
  return (
    <>
      <p className="soft mt-1">
        {countOf(contrast.affected, "rack shows", "racks show")} it, {contrast.others}{" "}
        {contrast.others === 1 ? "does not" : "do not"}, hung {dayMonth(found.from, timeZone)} to{" "}
        {dayMonth(found.to, timeZone)}
        {found.compared < found.hung ? `; of ${found.hung} the ${found.compared} nearest in time` : ""}.{" "}
        {countOf(contrast.tried, "comparison")} made.
      </p>
      <Differences contrast={contrast} units={units} />
      {onset ? (
        <div className="mt-3">
          <p>
            <b>Began about {dayMonth(onset.from, timeZone)}</b>: {Math.round(100 * onset.change.rateBefore)} in 100
            racks before, {Math.round(100 * onset.change.rateAfter)} in 100 from then on.
          </p>
          {onset.near.length > 0 ? (
            <>
              <p className="soft small mt-1">Recorded changes from the day before to that day’s end:</p>
              <RecordLines records={onset.near} timeZone={timeZone} units={units} withDay />
            </>
          ) : (
            <p className="soft small mt-1">No change is on record about then.</p>
          )}
        </div>
      ) : (
        <p className="soft mt-2">No day stands out as the one when it began.</p>
      )}
      <p className="faint small mt-2">
        Fisher’s exact test, Mann–Whitney, share of false finds after Benjamini and Hochberg. What goes together need
        not be cause.
      </p>
    </>
  );
}
