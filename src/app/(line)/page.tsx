import type { Metadata } from "next";
import { Suspense } from "react";
import { bathSlug } from "@/core/bath";
import { onWatch } from "@/server/causes/watches";
import { database } from "@/server/database";
import { structuresByDue } from "@/server/field/structure-facts";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { recentRecords, recordedNothing } from "@/server/search/recent";
import { shopBegun } from "@/server/shop/not-set-up";
import { personOnPage } from "@/server/sign-in/person";
import { may, type Person } from "@/server/sign-in/roles";
import { tourOf } from "@/server/tour";
import { AdditionAdvice } from "@/ui/bath/addition-advice";
import { SeriesChart, SeriesWords } from "@/ui/bath/bath-panel";
import { Fold } from "@/ui/fields/fold";
import { clock, fullDate, when } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Shape, Verdict } from "@/ui/marks/verdict";
import { type DueItem, dueList } from "@/ui/shift/due-list";
import { RecordLines } from "@/ui/shift/record-lines";
import { Beginnings } from "@/ui/shop/beginnings";
import { tourSteps } from "@/ui/tour/steps";
import { TourOffer } from "@/ui/tour/tour-bar";
import { parameterName } from "@/ui/words/baths";
import { nextName, nextSoFar } from "@/ui/words/next";
import { conditionsSaid, ledSaid } from "@/ui/words/watches";
import { tour } from "../actions";

export const metadata: Metadata = { title: "Shift" };

const onLineOf = (line: { readonly counts: Readonly<Record<string, number>> }) =>
  Object.values(line.counts).reduce((a, b) => a + b, 0);

export default async function ShiftPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const [recent, changed] = await Promise.all([
    recentRecords(database(), person, line.at, 6),
    recentRecords(database(), person, line.at, 7, { changesSince: line.shift.previousBegan }),
  ]);
  // Until the first rack is hung, what a shop needs for it stands where its day will.
  const begun = onLineOf(line) === 0 && may(person.role, "release") ? await shopBegun(database()) : null;
  const [visits, { units }, tourAt, fresh] = await Promise.all([
    structuresByDue(database(), person),
    preferences(),
    tourOf(person),
    recordedNothing(database(), person.username),
  ]);
  const due = dueList(line, units, visits);
  const shown = line.baths.find((b) => b.result !== "in") ?? line.baths[0];
  const series = shown?.series.find((s) => s.points.at(-1)?.result === shown.result) ?? shown?.series[0];
  const onLine = onLineOf(line);
  const dueRow = (item: DueItem) => (
    <Link
      key={`${item.what}${item.word}`}
      href={item.href}
      className="row grid-cols-[58px_190px_minmax(0,1fr)_150px] text-ink no-underline hover:bg-sorrel-tint max-[700px]:grid-cols-[58px_1fr_auto]"
    >
      <span className="fig">
        {item.atMs === null ? "–" : item.atMs <= line.at.getTime() ? "now" : clock(new Date(item.atMs), line.timeZone)}
      </span>
      <b>{item.what}</b>
      <span className="soft max-[700px]:order-last max-[700px]:col-span-3">{item.why}</span>
      <Verdict result={item.result}>{item.word}</Verdict>
    </Link>
  );
  return (
    <>
      <section className="bench">
        <PageHead above={`${fullDate(line.at, line.timeZone)} · ${line.siteName}`} title="What needs a hand now">
          <span className="soft small">
            <span className="key">/</span> entry line &nbsp; <span className="key">?</span> keys
          </span>
        </PageHead>
        {fresh && tourAt === null && (
          <TourOffer of={tourSteps.filter((t) => may(person.role, t.may)).length} keep={tour} />
        )}
        <div className="ruled mt-3">
          {due.length === 0 && (
            <p className="py-3">Nothing is due. The next thing that happens on the line shows here.</p>
          )}
          {due.slice(0, 9).map(dueRow)}
          {due.length > 9 && <Fold summary={<>and {due.length - 9} more</>}>{due.slice(9).map(dueRow)}</Fold>}
        </div>
        {may(person.role, "inspect") && (
          <Suspense fallback={null}>
            <WatchedFor person={person} at={line.at} />
          </Suspense>
        )}
        {begun && !begun.hung && (
          <section className="mt-6" aria-label="Before the first rack">
            <h2>Before the first rack</h2>
            <div className="ruled mt-2">
              <Beginnings has={begun.has} administers={may(person.role, "administer")} />
            </div>
          </section>
        )}
        {shown && series && (
          <div className="mt-6 grid grid-cols-[minmax(0,560px)_minmax(220px,1fr)] gap-7 max-[860px]:grid-cols-1">
            <div>
              <h2>
                <Link className="link" href={`/pretreat/${bathSlug(shown.bath.code)}`}>
                  {shown.bath.data.name}
                </Link>
                , {parameterName[series.parameter]}, last {series.points.length} checks
              </h2>
              <div className="mt-2">
                <SeriesChart series={series} file={shown} now={line.at} timeZone={line.timeZone} units={units} />
              </div>
              <SeriesWords series={series} now={line.at} timeZone={line.timeZone} units={units} />
            </div>
            <AdditionAdvice file={shown} units={units} />
          </div>
        )}
      </section>
      <Margin step="shift">
        <MarginBlock
          title={`Changed since ${when(line.shift.previousBegan, line.at, line.timeZone)}, last shift and this`}
        >
          {changed.length === 0 && <p className="soft">No addition, defect, decision or correction.</p>}
          <RecordLines records={changed} timeZone={line.timeZone} units={units} />
        </MarginBlock>
        <MarginBlock title="Latest on record">
          {recent.length === 0 && <p className="soft">Nothing yet.</p>}
          <RecordLines records={recent} timeZone={line.timeZone} units={units} />
        </MarginBlock>
        <MarginBlock title="Racks on the line">
          {onLine === 0 && <p className="soft">None. Hang one under its job.</p>}
          {line.racks.slice(-12).map((r) => (
            <div key={r.number} className="row grid-cols-[48px_minmax(0,1fr)_16px]">
              <Link className="link fig font-bold" href={`/racks/${r.number}`}>
                {r.number}
              </Link>
              <span>
                {r.part}, {r.next ? nextName[r.next].toLowerCase() : ""} {nextSoFar(r)}
              </span>
              <Shape result={r.result} />
            </div>
          ))}
          {onLine > 0 && (
            <Link className="link inline-flex min-h-11 items-center" href="/racks">
              {onLine === 1 ? "The one rack on the line" : `All ${onLine} racks on the line`}
            </Link>
          )}
        </MarginBlock>
      </Margin>
    </>
  );
}

/** Racks in the shop that met what has led to a defect before, with how often it did and how often not. */
async function WatchedFor({ person, at }: { person: Person; at: Date }) {
  const [found, { units }] = await Promise.all([onWatch(database(), person, at), preferences()]);
  if (found.length === 0) return null;
  return (
    <section className="mt-5" aria-label="Watch for">
      <h2>Watch for</h2>
      <div className="ruled mt-1">
        {found.map(({ watch, defectLabel, counts, racks }) => (
          <div key={watch.id} className="row grid-cols-[190px_minmax(0,1fr)_150px] max-[700px]:grid-cols-1">
            <b>{defectLabel}</b>
            <span>
              {racks.slice(0, 6).map((r, i) => (
                <span key={r}>
                  {i > 0 ? ", " : "Rack "}
                  <Link className="link fig" href={`/racks/${r}`}>
                    {r}
                  </Link>
                </span>
              ))}
              {racks.length > 6 ? ` and ${racks.length - 6} more` : ""}: {conditionsSaid(watch.when, units)}.
              <span className="soft small block">On record, {ledSaid(counts)}.</span>
            </span>
            <Link className="link" href={`/causes/${watch.fromCase}`}>
              as in case {watch.fromCase}
            </Link>
          </div>
        ))}
      </div>
    </section>
  );
}
