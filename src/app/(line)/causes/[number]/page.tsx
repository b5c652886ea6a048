import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { Suspense } from "react";
import { changedSinceGood } from "@/server/causes/changed-since-good";
import { type CaseFile, loadCase } from "@/server/causes/load-case";
import { whatDiffers } from "@/server/causes/what-differs";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may, type Person } from "@/server/sign-in/roles";
import { type Ask, AskGroups, NextChecks } from "@/ui/causes/ask-findings";
import { CauseRow, Effects } from "@/ui/causes/cause-row";
import { Changes } from "@/ui/causes/changes";
import { Lead } from "@/ui/causes/lead";
import { Seen } from "@/ui/causes/seen";
import { WhatDiffersTable } from "@/ui/causes/what-differs";
import { Fold } from "@/ui/fields/fold";
import { countOf, dateAndTime } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { causeShort, strengthSaid } from "@/ui/words/causes";
import { AtRisk } from "./at-risk";
import { Defects } from "./defects";
import { bearing, Gaps, Mixed, RecordSays } from "./evidence";
import { Proof } from "./proof";
import { Thread } from "./thread";

export const metadata: Metadata = { title: "Case" };

/** Causes shown before the weaker ones fold away. */
const SHOWN = 4;
/** A weaker cause is still shown open from here on. */
const POSSIBLE = 0.1;

export default async function CasePage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const line = await currentLine(person);
  const file = await loadCase(database(), person, (await params).number, line.at);
  if (!file) notFound();
  const { knowledge } = file.known;
  const { diagnosis } = file;
  const labels = new Map([...knowledge.findings.values()].map((f) => [f.id, f.label]));
  const names = new Map([...knowledge.causes.values()].map((c) => [c.id, c.label]));
  const open = diagnosis.causes.filter((c) => c.role !== "ruled-out");
  const ruledOut = diagnosis.causes.filter((c) => c.role === "ruled-out");
  const front = open.filter((c, i) => i < SHOWN && (i === 0 || c.strength >= POSSIBLE));
  const rest = open.filter((c) => !front.includes(c));
  const grouped = (checks: typeof diagnosis.checks): Ask[] =>
    checks.map((c) => ({ ...c, group: knowledge.findings.get(c.finding)?.group ?? "" }));
  const word = file.confirmation
    ? `Confirmed: ${causeShort(names.get(file.confirmation.cause) ?? file.confirmation.cause)}`
    : diagnosis.enoughToTell
      ? "Leading cause, not confirmed"
      : "Not enough to tell apart";
  const leading = file.confirmation?.cause ?? open[0]?.cause ?? "";
  const { units } = await preferences();
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              <Link className="link" href="/causes">
                Causes
              </Link>{" "}
              · case {file.number}
              {file.structure && (
                <>
                  {" "}
                  ·{" "}
                  <Link className="link" href={`/field/${file.structure.code.toLowerCase()}`}>
                    {file.structure.name}
                  </Link>
                </>
              )}
              {file.rack && (
                <>
                  {" "}
                  ·{" "}
                  <Link className="link" href={`/racks/${file.rack.number}`}>
                    rack {file.rack.number}
                  </Link>
                  , {file.rack.part.data.name.toLowerCase()}, {file.rack.customer}
                </>
              )}{" "}
              · {dateAndTime(file.openedAt, line.timeZone)}
            </>
          }
          title={
            <>
              {file.defectLabel}
              {file.zone ? `: ${file.zone.toLowerCase()}` : ""}
            </>
          }
        >
          <Verdict result={file.confirmation ? "in" : diagnosis.enoughToTell ? "watch" : "unknown"}>{word}</Verdict>
          <div className="small soft">
            from {countOf(bearing(file).length, "finding")} in the record, {file.asked.length} asked
          </div>
        </PageHead>
        <nav aria-label="On this page" className="no-print mt-2 flex flex-wrap gap-x-4 small">
          {(
            [
              ["#causes", "Causes"],
              ["#changed", "What changed"],
              ["#differs", "What differs"],
              ["#at-risk", "What else"],
              ["#proof", "Proof and action"],
              ["#records", "Records of it"],
              ["#time-line", "Time line"],
            ] as const
          ).map(([href, label]) => (
            <a key={href} className="link inline-flex min-h-11 items-center" href={href}>
              {label}
            </a>
          ))}
          <Link className="link inline-flex min-h-11 items-center" href={`/causes/${file.number}/report`}>
            Report
          </Link>
        </nav>
        <div className="mt-2 grid grid-cols-[minmax(0,1fr)_auto] items-start gap-5 max-[700px]:grid-cols-1">
          <Lead diagnosis={diagnosis} names={names} />
          <Seen file={file} units={units} />
        </div>
        <div
          id="causes"
          className="ruled small soft mt-4 grid grid-cols-[minmax(190px,250px)_minmax(0,1fr)] gap-3 max-[700px]:hidden"
        >
          <span>cause, how likely it acts</span>
          <span className="grid grid-cols-[205px_1fr]">
            <span className="text-right">speaks against</span>
            <span className="pl-5">speaks for</span>
          </span>
        </div>
        {front.map((c, i) => (
          <CauseRow key={c.cause} cause={c} leading={i === 0 && diagnosis.enoughToTell} labels={labels} />
        ))}
        {rest.length > 0 && (
          <Fold className="mt-1" summaryClassName="min-h-11 soft" summary={`${rest.length} weaker causes`}>
            {rest.map((c) => (
              <CauseRow key={c.cause} cause={c} leading={false} labels={labels} />
            ))}
          </Fold>
        )}
        {ruledOut.length > 0 && (
          <Fold
            className="mt-1"
            summaryClassName="min-h-11 soft"
            summary={`${countOf(ruledOut.length, "cause")} ruled out by what is so by definition`}
          >
            {ruledOut.map((c) => (
              <CauseRow key={c.cause} cause={c} leading={false} labels={labels} />
            ))}
          </Fold>
        )}
        <Fold className="no-print mt-1" summaryClassName="min-h-11 soft" summary="What each finding does to each cause">
          <Effects causes={front} labels={labels} />
        </Fold>
        <Zones file={file} names={names} />
        {diagnosis.turns.length > 0 && (
          <Fold
            className="mt-1"
            summaryClassName="min-h-11 soft"
            summary={`What would change the lead: ${countOf(diagnosis.turns.length, "answer")}`}
          >
            {diagnosis.turns.map((t) => (
              <div key={`${t.finding} ${t.state}`} className="row grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
                <span>
                  {t.label}: <b>{t.state === "present" ? "yes" : "no"}</b>
                </span>
                <span className="soft">
                  then {causeShort(names.get(t.leads) ?? t.leads)} leads,{" "}
                  <span className="fig">{strengthSaid(t.strength)}</span>
                </span>
              </div>
            ))}
          </Fold>
        )}
        {file.rack && (
          <section className="ruled mt-6" id="changed" aria-label="What changed since it was last good">
            <h2>What changed since it was last good</h2>
            <Suspense
              fallback={
                <p className="soft mt-1" role="status">
                  Holding it against the last good rack …
                </p>
              }
            >
              <Changed rackId={file.rack.id} at={line.at} timeZone={line.timeZone} />
            </Suspense>
          </section>
        )}
        {file.rack && (
          <section className="ruled mt-6" id="differs" aria-label="What differs">
            <h2>What differs</h2>
            <Suspense
              fallback={
                <p className="soft mt-1" role="status">
                  Holding the racks that show it against those that do not …
                </p>
              }
            >
              <Differs person={person} file={file} timeZone={line.timeZone} />
            </Suspense>
          </section>
        )}
        <Suspense
          fallback={
            <p className="soft mt-5" role="status">
              Looking for what else passed like this …
            </p>
          }
        >
          <AtRisk person={person} file={file} cause={leading} at={line.at} timeZone={line.timeZone} />
        </Suspense>
        <Proof person={person} file={file} at={line.at} timeZone={line.timeZone} />
        <Suspense fallback={null}>
          <Defects person={person} file={file} at={line.at} timeZone={line.timeZone} />
        </Suspense>
        <Thread person={person} file={file} timeZone={line.timeZone} />
      </section>
      <Margin step="causes">
        {may(person.role, "inspect") && (
          <MarginBlock title="Next best check">
            <NextChecks caseNumber={file.number} checks={grouped(diagnosis.nextChecks)} />
          </MarginBlock>
        )}
        <MarginBlock title="What the record says">
          <RecordSays file={file} labels={labels} />
          <Mixed file={file} labels={labels} />
        </MarginBlock>
        <MarginBlock title="Asked">
          {file.asked.length === 0 && <p className="soft">Nothing yet.</p>}
          {file.asked.map((f) => (
            <div key={f.recordId} className="row grid-cols-[minmax(0,1fr)_auto]">
              <span>
                {labels.get(f.finding)}: <b>{{ present: "yes", absent: "no", unknown: "cannot tell" }[f.state]}</b>
                {f.zone && <span className="soft"> at {f.zone}</span>}
              </span>
              <span className="faint small">{f.by}</span>
            </div>
          ))}
        </MarginBlock>
        {may(person.role, "inspect") && diagnosis.checks.length > 3 && (
          <MarginBlock title="What else can be found out">
            <AskGroups
              caseNumber={file.number}
              checks={grouped(diagnosis.checks.slice(3))}
              places={file.zones.map((z) => z.zone)}
            />
          </MarginBlock>
        )}
        <MarginBlock title="Never recorded: gaps to close">
          <Gaps file={file} labels={labels} />
        </MarginBlock>
      </Margin>
    </>
  );
}

/** What acts at each place of the piece, where its places are told apart. */
function Zones({ file, names }: { file: CaseFile; names: ReadonlyMap<string, string> }) {
  if (file.zones.length === 0) return null;
  return (
    <section className="ruled mt-4" aria-label="By place">
      <h2>By place</h2>
      {file.zones.map(({ zone, diagnosis }) => {
        const acting = diagnosis.causes.filter((c) => c.role === "primary" || c.role === "contributing");
        return (
          <div key={zone} className="row grid-cols-[minmax(90px,150px)_minmax(0,1fr)_auto] gap-3">
            <b>{zone}</b>
            <span>
              {acting.map((c, i) => (
                <span key={c.cause}>
                  {i > 0 ? "; " : ""}
                  {causeShort(names.get(c.cause) ?? c.cause)}{" "}
                  <span className="fig soft small">{strengthSaid(c.strength)}</span>
                </span>
              ))}
              {acting.length === 0 && <span className="soft">nothing that is raised by a finding</span>}
            </span>
            <Verdict result={diagnosis.enoughToTell ? "watch" : "unknown"}>
              {diagnosis.enoughToTell ? "leads" : "not enough to tell"}
            </Verdict>
          </div>
        );
      })}
    </section>
  );
}

async function Changed({ rackId, at, timeZone }: { rackId: string; at: Date; timeZone: string }) {
  const [found, { units }] = await Promise.all([changedSinceGood(database(), rackId, at), preferences()]);
  return found ? <Changes found={found} units={units} timeZone={timeZone} /> : null;
}

async function Differs({ person, file, timeZone }: { person: Person; file: CaseFile; timeZone: string }) {
  const hungAt = file.rack?.hungAt;
  if (!hungAt) return null;
  const [found, { units }] = await Promise.all([
    whatDiffers(database(), person, {
      defect: file.defect,
      hungAt,
      ...(file.rack ? { partId: file.rack.part.id } : {}),
    }),
    preferences(),
  ]);
  const day = (date: Date) => date.toISOString().slice(0, 10);
  return (
    <>
      {found?.ofPart && <p className="soft m-0 mt-1">Among racks of this part.</p>}
      <WhatDiffersTable found={found} timeZone={timeZone} units={units} />
      {found && may(person.role, "inspect") && (
        <p className="no-print mt-1">
          <Link
            className="link"
            href={`/causes/contrast?${new URLSearchParams({ defect: file.defect, ...(found.ofPart && file.rack ? { part: file.rack.part.code } : {}), from: day(found.from), to: day(found.to) })}`}
          >
            Compare further: by part, by time, with one thing held still
          </Link>
        </p>
      )}
    </>
  );
}
