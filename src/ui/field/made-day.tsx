import type { UnitSystem } from "@/core/units";
import type { MadeDay } from "@/server/field/made-day";
import { dateAndTime, dayMonthYear } from "../format";
import Link from "../link";
import { Grade, Verdict } from "../marks/verdict";
import { bathValue, parameterName } from "../words/baths";
import { itemName, itemSentence } from "../words/verdict";

/** The day the pieces were coated, as the record holds it, with “no record” where it holds nothing. */
export function MadeDays({ days, timeZone, units }: { days: readonly MadeDay[]; timeZone: string; units: UnitSystem }) {
  return (
    <section className="ruled mt-6" aria-label="The day it was coated">
      <h2>The day it was coated</h2>
      {days.map((d) => (
        <div key={d.number} className="mt-2">
          <p className="m-0">
            <Link className="link fig" href={`/racks/${d.number}`}>
              Rack {d.number}
            </Link>
            , hung {dayMonthYear(d.hungAt, timeZone)}
            {d.decidedBy ? `, released by ${d.decidedBy}` : ", no decision on record"}
          </p>
          <dl className="m-0 grid grid-cols-[130px_minmax(0,1fr)] gap-x-3 gap-y-1">
            <dt className="soft">Powder</dt>
            <dd className="m-0">
              {d.coats.length === 0
                ? "no record of a coat"
                : d.coats.map((c, i) => (
                    <span key={`${c.layer} ${c.at.getTime()}`}>
                      {i > 0 && "; "}
                      {c.layer}: lot{" "}
                      {c.lot ? (
                        // Its first panel, with colour and gloss as read then, and the chip that is kept.
                        <Link className="link" href={`/coat/powders#${c.lot}`}>
                          {c.lot}
                        </Link>
                      ) : (
                        "not recorded"
                      )}
                      , {c.booth}
                      {c.gun ? `, ${c.gun}` : ""}, {c.by}, {dateAndTime(c.at, timeZone)}
                    </span>
                  ))}
            </dd>
            <dt className="soft">Oven</dt>
            <dd className="m-0">
              {d.bakes.length === 0
                ? "no record of a bake"
                : d.bakes
                    .map(
                      (b) =>
                        `load ${b.loadNo} in ${b.oven}${b.place ? `, ${b.place}` : ", place not recorded"}, ${dateAndTime(b.at, timeZone)}`,
                    )
                    .join("; ")}
            </dd>
            <dt className="soft">Baths as it passed</dt>
            <dd className="m-0">
              {d.baths.length === 0
                ? "no record of a bath"
                : d.baths.map((b, i) => (
                    <span key={`${b.bathId} ${b.parameter}`}>
                      {i > 0 && "; "}
                      {b.bath} {parameterName[b.parameter]}{" "}
                      <b className="fig">
                        {b.found.value === null ? "no record" : bathValue(b.parameter, b.found.value, units)}
                      </b>{" "}
                      <Grade grade={b.found.grade} />
                    </span>
                  ))}
            </dd>
            {d.items.map((item) => {
              const said = itemSentence(item, units);
              return (
                <div key={itemName(item)} className="contents">
                  <dt className="soft">{itemName(item)}</dt>
                  <dd className="m-0 flex flex-wrap items-baseline gap-2">
                    <Verdict result={item.result}>{said.word}</Verdict>
                    <span>{said.text}</span>
                    <Grade grade={item.grade} />
                  </dd>
                </div>
              );
            })}
          </dl>
        </div>
      ))}
    </section>
  );
}
