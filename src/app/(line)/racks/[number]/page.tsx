import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { bathSlug } from "@/core/bath";
import { sheetOfRack } from "@/server/coat/sheet-for";
import { database } from "@/server/database";
import { structuresOfRack } from "@/server/field/load-structure";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { happened, judgeRack } from "@/server/rack/judge-rack";
import { atPass, loadRack } from "@/server/rack/load-rack";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { clock, countOf, dateAndTime, withUnit } from "@/ui/format";
import { LabelLinks } from "@/ui/frame/label-links";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade, Shape, Verdict } from "@/ui/marks/verdict";
import { beadsOf } from "@/ui/rack/beads";
import { RackTabs } from "@/ui/rack/rack-tabs";
import { Thread } from "@/ui/rack/thread";
import { bathFigure, parameterName, parameterUnit } from "@/ui/words/baths";
import { itemName, itemOut, namesOf } from "@/ui/words/verdict";

export async function generateMetadata({ params }: { params: Promise<{ number: string }> }): Promise<Metadata> {
  return { title: `Rack ${(await params).number}` };
}

export default async function TravellerPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const { number } = await params;
  const rack = await loadRack(database(), person, number);
  if (!rack) notFound();
  const [all, line, chosen, structures, site, sheets] = await Promise.all([
    conditionsWhenPassed(database(), [rack.id], rack.hungAt),
    currentLine(person),
    preferences(),
    structuresOfRack(database(), rack.id),
    siteAt(database(), rack.hungAt),
    setupAt(database(), "setup-sheet", rack.hungAt),
  ]);
  const sheet = sheetOfRack(sheets, rack)?.data;
  // What the washer's speed foretells is no bead of the thread before it happened.
  const conditions = happened(all, new Date(0), line.at);
  const verdict = judgeRack(rack, conditions);
  const beads = rack.passes.flatMap((_, i) => {
    const then = atPass(rack, i);
    const judged = i === rack.pass ? verdict : judgeRack(then, conditions);
    return beadsOf({
      rack: then,
      verdict: judged,
      conditions,
      limits: site,
      earthLimitMohm: sheet?.earthLimitMohm ?? null,
      units: chosen.units,
      timeZone: line.timeZone,
    });
  });
  for (const s of structures)
    beads.push({
      key: s.code,
      stage: "Field",
      time: s.lastVisit ? (dateAndTime(s.lastVisit, line.timeZone).split(",")[0] ?? "") : "",
      href: `/field/${s.code.toLowerCase()}`,
      result:
        s.worstRating !== null && s.worstRating < 6
          ? "out"
          : s.worstRating !== null && s.worstRating < 9
            ? "watch"
            : s.lastVisit
              ? "in"
              : "unknown",
      grade: s.lastVisit ? "measured" : "unknown",
      note: s.worstRating === null ? "" : `rating ${s.worstRating}`,
      dashed: true,
      branch: rack.pass,
      text: (
        <>
          {countOf(s.pieces, "piece")} on <b>{s.name}</b>, {s.site}
          {s.worstCreepMm !== null && (
            <>
              ; creep up to <b className="fig">{withUnit(s.worstCreepMm, "creep", chosen.units)}</b>
            </>
          )}
        </>
      ),
    });
  const word =
    verdict.result === "in"
      ? "In on all counts"
      : verdict.result === "out"
        ? itemOut(verdict.limiting)
        : verdict.result === "watch"
          ? `In, ${verdict.limiting ? itemName(verdict.limiting).toLowerCase() : "something"} to watch`
          : "Not all known";
  const first = conditions.baths[0];
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              {rack.customer} ·{" "}
              <Link className="link" href={`/jobs/${rack.job.number}`}>
                job {rack.job.number}
              </Link>{" "}
              · {countOf(rack.pieces.length, "piece")} · {dateAndTime(rack.hungAt, line.timeZone)}
            </>
          }
          title={
            <>
              Rack {rack.number}, {rack.part.data.name.toLowerCase()}
            </>
          }
        >
          <Verdict result={verdict.result}>{word}</Verdict>
          <div className="small soft">
            {verdict.missing.length
              ? `not known: ${namesOf(verdict.missing).toLowerCase()}`
              : "every asked proof is on record"}
          </div>
        </PageHead>
        <RackTabs number={rack.number} here="" standing={rack.standing} />
        <Thread beads={beads} />
      </section>
      <Margin step="release">
        <MarginBlock title={first ? `When it passed the wash, ${clock(first.at, line.timeZone)}` : "When it passed"}>
          {conditions.baths.length === 0 && <p className="soft">No passage through a bath is on record.</p>}
          {conditions.baths.map((b) => (
            <div key={`${b.bathId}${b.parameter}`} className="row grid-cols-[126px_minmax(0,1fr)_16px_24px]">
              <Link className="link soft" href={`/pretreat/${bathSlug(b.bathCode)}`}>
                {b.bath}
              </Link>
              <span>
                {parameterName[b.parameter]}{" "}
                <b className="fig">
                  {b.found.value === null ? "–" : bathFigure(b.parameter, b.found.value, chosen.units)}
                </b>{" "}
                {parameterUnit(b.parameter, chosen.units)}
                <br />
                <span className="small faint">
                  {
                    {
                      interpolated: "between two checks",
                      "held-before": "last check before a change",
                      "held-after": "first check after a change",
                      "last-value": "last check, no later one",
                      "never-checked": "never checked",
                    }[b.found.how]
                  }
                </span>
              </span>
              <Shape result={b.result} />
              <Grade grade={b.found.grade} />
            </div>
          ))}
        </MarginBlock>
        <MarginBlock title="Corrections">
          {rack.thread.filter((r) => r.supersededBy).length === 0 ? (
            <p className="soft">None: nothing on this thread was corrected.</p>
          ) : (
            rack.thread
              .filter((r) => r.base.supersedes)
              .map((r) => (
                <div key={r.base.id} className="row">
                  <span>
                    {r.base.kind.replaceAll("-", " ")} corrected by {r.by}: “{r.base.reason}”
                  </span>
                </div>
              ))
          )}
        </MarginBlock>
        <MarginBlock title="Take it with you">
          <p className="flex flex-wrap gap-x-4">
            {rack.job.plan.system && (
              <>
                <Link
                  className="link inline-flex min-h-11 items-center"
                  href={`/jobs/${encodeURIComponent(rack.job.number)}/route-card?rack=${encodeURIComponent(rack.number)}`}
                >
                  Its route card
                </Link>
                <a
                  className="link inline-flex min-h-11 items-center"
                  href={`/api/jobs/${rack.job.number}/route-card.pdf?rack=${rack.number}`}
                >
                  Route card, PDF
                </a>
              </>
            )}
            <a className="link inline-flex min-h-11 items-center" href={`/api/jobs/${rack.job.number}/export.json`}>
              Whole job, JSON
            </a>
            <a className="link inline-flex min-h-11 items-center" href={`/api/jobs/${rack.job.number}/readings.csv`}>
              Readings, CSV
            </a>
            <LabelLinks name="Tag of the rack" query={{ of: "rack", number: rack.number }} />
            <LabelLinks name="Labels of its pieces" query={{ of: "piece", number: rack.number }} />
            <LabelLinks name="Label of a panel" query={{ of: "panel", number: rack.number }} />
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
