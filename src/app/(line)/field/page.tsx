import type { Metadata } from "next";
import { Fragment } from "react";
import type { VisitDue } from "@/core/field";
import { database } from "@/server/database";
import { structuresByDue } from "@/server/field/structure-facts";
import { currentLine } from "@/server/line/current-line";
import { setupAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop } from "@/server/sign-in/roles";
import { dateAndTime } from "@/ui/format";
import { StructureForm } from "@/ui/forms/make-forms";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { visitDueName } from "@/ui/words/field-zones";
import { createStructure } from "../actions";

export const metadata: Metadata = { title: "Field" };

/** The head it stands under: overdue, or the month it falls due in. */
const monthOf = (due: VisitDue, now: Date, timeZone: string): string =>
  due.why === "never-seen"
    ? "Nobody has looked yet"
    : due.at <= now
      ? "Overdue"
      : new Intl.DateTimeFormat("en-GB", { month: "long", year: "numeric", timeZone }).format(due.at);
const dayOf = (at: Date, timeZone: string): string => dateAndTime(at, timeZone).split(",")[0] ?? "";

export default async function FieldPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const [structures, customers] = await Promise.all([
    structuresByDue(database(), person),
    setupAt(database(), "customer", line.at),
  ]);
  return (
    <>
      <section className="bench">
        <PageHead above="Structures, the one that is looked at next first" title="Field">
          {may(person.role, "inspect") && (
            <a className="btn pri no-print mr-3" href="/round">
              Walk a round
            </a>
          )}
          {ofTheShop(person) && (
            <>
              <Link className="btn no-print mr-3" href="/field/ageing">
                How long it stands
              </Link>
              <Link className="btn no-print" href="/field/contrast">
                What failed, what did not
              </Link>
            </>
          )}
        </PageHead>
        <div className="ruled mt-3">
          {structures.length === 0 && <p className="py-3">No structure stands on record for you yet.</p>}
          {structures.map((s, i) => {
            const late = s.due.at <= line.at;
            const head = monthOf(s.due, line.at, line.timeZone);
            const before = structures[i - 1];
            return (
              <Fragment key={s.code}>
                {(!before || monthOf(before.due, line.at, line.timeZone) !== head) && (
                  <h2 className="mt-4 mb-1">{head}</h2>
                )}
                <Link
                  href={`/field/${s.code.toLowerCase()}`}
                  className="row min-h-[60px] grid-cols-[minmax(0,1fr)_minmax(0,200px)_220px] items-center text-ink no-underline hover:bg-sorrel-tint max-[700px]:grid-cols-1"
                >
                  <span>
                    <b className="text-[17px]">{s.name}</b>
                    <span className="small soft block">
                      {s.site} · {s.customer}
                    </span>
                  </span>
                  <span className="soft">
                    {s.lastVisit ? `last visit ${dayOf(s.lastVisit, line.timeZone)}` : "never visited"}
                  </span>
                  <span>
                    <Verdict result={late ? "watch" : "in"}>
                      {s.due.why === "never-seen"
                        ? "Never looked at"
                        : `${late ? "Due since" : "Due"} ${dayOf(s.due.at, line.timeZone)}`}
                    </Verdict>
                    <span className="small soft block">{visitDueName[s.due.why]}</span>
                  </span>
                </Link>
              </Fragment>
            );
          })}
        </div>
        {may(person.role, "inspect") && (
          <StructureForm
            make={createStructure}
            customers={[...customers.values()].map((c): readonly [string, string] => [c.code, c.data.name])}
          />
        )}
      </section>
      <Margin step="field">
        <MarginBlock title="To take along">
          <p>
            <a className="link inline-flex min-h-11 items-center" href="/api/field/visits.ics">
              Visits as a calendar, iCalendar
            </a>
          </p>
          <p>
            <a className="link inline-flex min-h-11 items-center" href="/api/field/card.pdf">
              Scale card, PDF
            </a>
            <br />
            <span className="small soft">
              Laid beside a scribe or blisters, it tells a photo’s millimetres, from whichever side it is taken.
            </span>
          </p>
        </MarginBlock>
        <MarginBlock title="When it is looked at">
          <p>
            In its first, third and fifth year and every second after; in half that time where salt, standing water or
            knocks wear it, half a year after trouble, and before what was promised of it ends.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
