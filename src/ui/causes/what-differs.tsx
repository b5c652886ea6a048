import type { Contrast, Difference } from "@/core/comparison";
import type { UnitSystem } from "@/core/units";
import type { Explored, Told } from "@/server/causes/explore";
import { Fold } from "../fields/fold";
import { countOf, dayMonth } from "../format";
import Link from "../link";
import { RecordLines } from "../shift/record-lines";
import { adjustedSaid, chance, comparedName, effectSaid, sides } from "../words/differs";
import { BeganChart } from "./began-chart";
import { SpreadMark } from "./spread-mark";

/** From here on a difference is as likely a false find as not worth a walk to the line. */
const STANDS_OUT = 0.1;
const SHOWN = 8;
const columns = "grid-cols-[minmax(0,1fr)_150px_158px_76px] max-[700px]:grid-cols-[minmax(0,1fr)_96px_96px_64px]";

/** What differs, what stands out first, and the other comparisons folded under it. */
export function Differences({ contrast, units }: { contrast: Contrast; units: UnitSystem }) {
  const out = contrast.differences.filter((d) => d.q <= STANDS_OUT);
  const rest = contrast.differences.filter((d) => d.q > STANDS_OUT);
  return (
    <>
      {out.length > 0 ? (
        <Plain differences={out.slice(0, SHOWN)} units={units} />
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
          <Plain differences={[...out.slice(SHOWN), ...rest].slice(0, 40)} units={units} />
        </Fold>
      ) : null}
    </>
  );
}

/** Differences a line each, both sides counted. */
function Plain({ differences, units }: { differences: readonly Difference[]; units: UnitSystem }) {
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
      <div className={`row small soft ${columns}`}>
        <span>differs in</span>
        <span className="text-right">with it</span>
        <span className="text-right">without</span>
        <span className="text-right">chance</span>
      </div>
      {differences.map(row)}
    </>
  );
}

/** One difference with how its values lie, its effect with the interval, and what is left of it with another variable held still. */
function ToldRow({ told, units, href }: { told: Told; units: UnitSystem; href: string | null }) {
  const { difference: d, adjusted } = told;
  const said = sides(d, units);
  const value = d.kind === "category" ? d.value : null;
  const name = (
    <>
      {comparedName(d.variable)}
      {d.kind === "category" && (
        <>
          : <b>{d.value}</b>
        </>
      )}
    </>
  );
  return (
    <div className="row grid-cols-[minmax(0,1fr)_150px_minmax(150px,190px)] items-center gap-3 max-[700px]:grid-cols-1">
      <span>
        {href ? (
          <Link className="link" href={href}>
            {name}
          </Link>
        ) : (
          name
        )}
        <br />
        <span className="small soft fig">
          {said.affected} with it, {said.others} without
          {d.kind === "figure" && d.test.rough ? "; rough, few" : ""}
        </span>
      </span>
      <SpreadMark
        spread={told.spread}
        value={value}
        said={`${comparedName(d.variable)}${value ? ` ${value}` : ""}: ${said.affected} with it, ${said.others} without`}
      />
      <span className="small">
        <span className="fig">{effectSaid(d)}</span>
        <br />
        <span className="soft fig">chance {chance(d.q)}</span>
        {adjusted && (
          <>
            <br />
            <span className="soft fig">held still: {adjustedSaid(adjusted)}</span>
          </>
        )}
      </span>
    </div>
  );
}

/** Groups of differences: those within one moved together, so that the record cannot separate them. */
export function Groups({
  groups,
  units,
  hrefOf,
}: {
  groups: readonly (readonly Told[])[];
  units: UnitSystem;
  hrefOf?: (told: Told) => string | null;
}) {
  return (
    <>
      {groups.map((group) => {
        const names = [...new Set(group.map((t) => comparedName(t.difference.variable)))];
        const rows = group.map((t) => (
          <ToldRow
            key={`${t.difference.variable} ${t.difference.kind === "category" ? t.difference.value : ""}`}
            told={t}
            units={units}
            href={hrefOf?.(t) ?? null}
          />
        ));
        return names.length > 1 ? (
          <div key={names.join()} className="my-2 border-l-4 border-rule-strong pl-3">
            <p className="small m-0">
              <b>These {names.length} moved together</b>: the record cannot separate {listed(names)}. To tell them
              apart, change one and leave the others.
            </p>
            {rows}
          </div>
        ) : (
          <div key={names.join()}>{rows}</div>
        );
      })}
    </>
  );
}

const listed = (names: readonly string[]): string => {
  const lower = names.map((n) => n.charAt(0).toLowerCase() + n.slice(1));
  return lower.length < 2 ? lower.join("") : `${lower.slice(0, -1).join(", ")} and ${lower.at(-1)}`;
};

/** Affected racks against the others of the same weeks, what stands out first, and the day it began. */
export function WhatDiffersTable({
  found,
  timeZone,
  units,
  hrefOf,
}: {
  found: (Explored & { readonly from: Date; readonly to: Date }) | null;
  timeZone: string;
  units: UnitSystem;
  hrefOf?: (told: Told) => string | null;
}) {
  if (!found)
    return (
      <p className="soft mt-1">
        There are no racks to hold against each other: none of that time shows this defect on record, or all do.
      </p>
    );
  const { contrast, onset, groups, rest } = found;
  return (
    <>
      <p className="soft mt-1">
        {countOf(contrast.affected, "rack shows", "racks show")} it, {contrast.others}{" "}
        {contrast.others === 1 ? "does not" : "do not"}, hung {dayMonth(found.from, timeZone)} to{" "}
        {dayMonth(found.to, timeZone)}. {countOf(contrast.tried, "comparison")} made.
        {found.left ? " Older racks are still being read; look again in a minute." : ""}
      </p>
      {groups.length > 0 ? (
        <Groups groups={groups} units={units} hrefOf={hrefOf} />
      ) : (
        <p className="mt-1">
          Nothing stands out: every difference is of a size that chance makes among so many comparisons.
        </p>
      )}
      {rest.length > 0 && (
        <Fold className="mt-1" summaryClassName="min-h-11 soft" summary={countOf(rest.length, "other comparison")}>
          <Plain differences={rest.slice(0, 40)} units={units} />
        </Fold>
      )}
      {onset ? (
        <div className="mt-3">
          <p>
            <b>Began about {dayMonth(onset.from, timeZone)}</b>: {Math.round(100 * onset.change.rateBefore)} in 100
            racks before, {Math.round(100 * onset.change.rateAfter)} in 100 from then on.
          </p>
          <BeganChart days={found.days} onset={onset} timeZone={timeZone} />
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
        <>
          <p className="soft mt-2">No day stands out as the one when it began.</p>
          <BeganChart days={found.days} onset={null} timeZone={timeZone} />
        </>
      )}
      <p className="faint small mt-2">
        Fisher’s exact test, Mann–Whitney, share of false finds after Benjamini and Hochberg. What goes together need
        not be cause.
      </p>
    </>
  );
}
