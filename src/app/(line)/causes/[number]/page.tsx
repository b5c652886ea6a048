import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { Suspense } from "react";
import { loadKnowledge } from "@/core/diagnosis";
import { sinceDone } from "@/server/causes/corrective-actions";
import { type CaseFile, type Containment, loadCase, sameCondition } from "@/server/causes/load-case";
import { whatDiffers } from "@/server/causes/what-differs";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { setupAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may, type Person } from "@/server/sign-in/roles";
import { ActionForm } from "@/ui/causes/action-form";
import { AnyFinding, NextChecks } from "@/ui/causes/ask-findings";
import { CauseRow } from "@/ui/causes/cause-row";
import { ConfirmForm } from "@/ui/causes/confirm-form";
import { WhatDiffersTable } from "@/ui/causes/what-differs";
import { Fold } from "@/ui/fields/fold";
import { countOf, dateAndTime, dayMonthYear } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { actionStateName, actionStateResult, sharedSaid } from "@/ui/words/actions";
import { foundText } from "@/ui/words/reasons";
import { confirm } from "../../actions";

export const metadata: Metadata = { title: "Case" };

export default async function CasePage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const file = await loadCase(database(), person, (await params).number);
  if (!file) notFound();
  const line = await currentLine(person);
  const knowledge = loadKnowledge();
  const labels = new Map([...knowledge.findings.values()].map((f) => [f.id, f.label]));
  const { diagnosis } = file;
  const open = diagnosis.causes.filter((c) => c.role !== "ruled-out");
  const ruledOut = diagnosis.causes.filter((c) => c.role === "ruled-out");
  const spoken = new Set(diagnosis.causes.flatMap((c) => [...c.raised, ...c.lowered].map((x) => x.finding)));
  const weightOf = (finding: string) =>
    Math.max(
      ...diagnosis.causes.flatMap((c) =>
        [...c.raised, ...c.lowered].filter((x) => x.finding === finding).map((x) => Math.abs(x.weight) * c.strength),
      ),
      0,
    );
  const relevant = file.established
    .filter((f) => spoken.has(f.finding))
    .sort(
      (a, b) =>
        Number(b.state === "present") - Number(a.state === "present") || weightOf(b.finding) - weightOf(a.finding),
    );
  const gaps = file.established.filter(
    (f) =>
      f.state === "unknown" &&
      knowledge.defects.get(file.defect) &&
      [...(knowledge.defects.get(file.defect)?.causes.keys() ?? [])].some((c) =>
        knowledge.causes.get(c)?.evidence.some((e) => e.finding === f.finding),
      ),
  );
  const word = file.confirmation
    ? `Confirmed: ${knowledge.causes.get(file.confirmation.cause)?.label ?? file.confirmation.cause}`
    : diagnosis.enoughToTell
      ? "Leading cause, not confirmed"
      : "Not enough to tell apart";
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              Case {file.number} ·{" "}
              {file.structure ? (
                <Link className="link" href={`/field/${file.structure.code.toLowerCase()}`}>
                  {file.structure.name}
                </Link>
              ) : null}
              {file.rack ? (
                <>
                  {" "}
                  ·{" "}
                  <Link className="link" href={`/racks/${file.rack.number}`}>
                    rack {file.rack.number}
                  </Link>
                  , {file.rack.part.data.name.toLowerCase()}
                </>
              ) : null}{" "}
              · {dateAndTime(file.openedAt, line.timeZone)}
            </>
          }
          title={
            <>
              {file.defectLabel}: {file.zone.toLowerCase()}
            </>
          }
        >
          <Verdict result={file.confirmation ? "in" : diagnosis.enoughToTell ? "watch" : "unknown"}>{word}</Verdict>
          <div className="small soft">
            from {relevant.length} findings in the record, {file.asked.length} asked
          </div>
        </PageHead>
        <div className="ruled small soft mt-4 grid grid-cols-[minmax(190px,250px)_minmax(0,1fr)] gap-3 max-[700px]:hidden">
          <span>cause, strength</span>
          <span className="grid grid-cols-[205px_1fr]">
            <span className="text-right">speaks against</span>
            <span className="pl-5">speaks for</span>
          </span>
        </div>
        {open.slice(0, 6).map((c, i) => (
          <CauseRow key={c.cause} cause={c} leading={i === 0 && diagnosis.enoughToTell} labels={labels} />
        ))}
        {open.length > 6 && (
          <Fold className="mt-1" summaryClassName="min-h-11 soft" summary={<>{open.length - 6} weaker causes</>}>
            {open.slice(6).map((c) => (
              <CauseRow key={c.cause} cause={c} leading={false} labels={labels} />
            ))}
          </Fold>
        )}
        {ruledOut.length > 0 && (
          <Fold
            className="mt-1"
            summaryClassName="min-h-11 soft"
            summary={<>{ruledOut.length} ruled out by the record</>}
          >
            {ruledOut.map((c) => (
              <CauseRow key={c.cause} cause={c} leading={false} labels={labels} />
            ))}
          </Fold>
        )}
        {file.confirmation && (
          <div className="ruled mt-5">
            <h2>
              Confirmed by {file.confirmation.by_user}, {dateAndTime(file.confirmation.happened_at, line.timeZone)}
            </h2>
            <p className="mt-1">
              <b>{knowledge.causes.get(file.confirmation.cause)?.label}</b>. {file.confirmation.proof}
            </p>
            <p className="soft">
              Now: {file.confirmation.correction || "–"}. For good: {file.confirmation.corrective_action} (
              {file.confirmation.who}
              {file.confirmation.due_on ? `, by ${dayOf(file.confirmation.due_on)}` : ""}).
            </p>
            <Action person={person} file={file} at={line.at} timeZone={line.timeZone} />
          </div>
        )}
        {may(person.role, "release") && open.length > 0 && (
          <ConfirmForm
            caseNumber={file.number}
            causes={open.map((c) => ({ id: c.cause, label: c.label }))}
            seen={file.confirmation?.record_id ?? null}
            confirm={confirm}
          />
        )}
        {file.rack && (
          <Suspense
            fallback={
              <p className="soft mt-5" role="status">
                Looking for what else passed like this …
              </p>
            }
          >
            <AtRisk person={person} file={file} cause={file.confirmation?.cause ?? open[0]?.cause ?? ""} />
          </Suspense>
        )}
        {file.rack && (
          <section className="ruled mt-6" aria-label="What differs">
            <h2>What differs</h2>
            <Suspense
              fallback={
                <p className="soft mt-1" role="status">
                  Holding the racks that show it against those that do not …
                </p>
              }
            >
              <Differs
                person={person}
                about={{ defect: file.defect, hungAt: file.rack.hungAt }}
                timeZone={line.timeZone}
              />
            </Suspense>
          </section>
        )}
      </section>
      <Margin step="causes">
        {may(person.role, "inspect") && (
          <MarginBlock title="Next best check">
            <NextChecks caseNumber={file.number} checks={diagnosis.nextChecks} />
          </MarginBlock>
        )}
        <MarginBlock title="What the record says">
          {relevant.length === 0 && <p className="soft">The record has nothing that bears on this defect.</p>}
          {relevant.map((f) => (
            <div key={f.finding} className="row grid-cols-[minmax(0,1fr)_24px]">
              <span>
                <span className="soft">{labels.get(f.finding)}:</span> <b>{f.state === "present" ? "yes" : "no"}</b>
                <br />
                <span className="small">{foundText(f.what)}</span>
                {f.sources.length > 0 && file.rack && (
                  <>
                    {" "}
                    <Link className="link small" href={`/records?rack=${file.rack.number}`}>
                      {f.sources.length === 1 ? "source" : `${f.sources.length} sources`}
                    </Link>
                  </>
                )}
              </span>
              <Grade grade={f.grade} />
            </div>
          ))}
        </MarginBlock>
        <MarginBlock title="Asked">
          {file.asked.length === 0 && <p className="soft">Nothing yet.</p>}
          {file.asked.map((f) => (
            <div key={f.finding} className="row grid-cols-[minmax(0,1fr)_auto]">
              <span>
                {labels.get(f.finding)}: <b>{{ present: "yes", absent: "no", unknown: "cannot tell" }[f.state]}</b>
              </span>
              <span className="faint small">{f.by}</span>
            </div>
          ))}
        </MarginBlock>
        {gaps.length > 0 && (
          <MarginBlock title="Never recorded">
            <p className="soft">
              {gaps
                .map((g) => labels.get(g.finding))
                .slice(0, 6)
                .join("; ")}
              {gaps.length > 6 ? "; …" : ""}
            </p>
          </MarginBlock>
        )}
        {may(person.role, "inspect") && (
          <MarginBlock title="Record a finding">
            <AnyFinding
              caseNumber={file.number}
              findings={[...knowledge.findings.values()].map(({ id, label, group }) => ({ id, label, group }))}
            />
          </MarginBlock>
        )}
      </Margin>
    </>
  );
}

/** A day of the shop’s calendar, in words. */
const dayOf = (day: string): string => dayMonthYear(new Date(`${day.slice(0, 10)}T12:00:00Z`), "UTC");

/** Whether what was to keep it away was done, and whether it did: looks so far, racks before and since, the next look. */
async function Action({ person, file, at, timeZone }: { person: Person; file: CaseFile; at: Date; timeZone: string }) {
  const done = file.actionChecks.findLast((c) => c.state !== "not-yet");
  const [since, sheets] = await Promise.all([
    done && file.rack
      ? sinceDone(database(), person, { defect: file.defect, partId: file.rack.part.id, doneAt: done.at, at })
      : null,
    setupAt(database(), "setup-sheet", at),
  ]);
  return (
    <section id="action" aria-label="Corrective action" className="mt-3">
      {file.actionChecks.length === 0 && <p className="soft">Nobody has said yet whether it was done.</p>}
      {file.actionChecks.map((c) => (
        <div key={c.recordId} className="row grid-cols-[190px_minmax(0,1fr)_auto] max-[560px]:grid-cols-1">
          <Verdict result={actionStateResult[c.state]}>{actionStateName[c.state]}</Verdict>
          <span>
            {c.seen}
            {c.sheet && (
              <>
                {" "}
                <Link className="link" href="/coat/sheets">
                  Sheet {c.sheet}
                </Link>
              </>
            )}
            {c.againOn && <span className="soft small block">To be looked at again on {dayOf(c.againOn)}</span>}
          </span>
          <span className="faint small">
            {c.by}, {dateAndTime(c.at, timeZone)}
          </span>
        </div>
      ))}
      {since && (
        <p className="mt-1">
          Racks of this part decided on since it was done: {sharedSaid(since.after)}. As long before:{" "}
          {sharedSaid(since.before)}.
        </p>
      )}
      {may(person.role, "inspect") && (
        <ActionForm
          key={file.actionChecks.length}
          caseNumber={file.number}
          sheets={[...sheets.values()].map((s) => s.code)}
        />
      )}
    </section>
  );
}

async function Differs({
  person,
  about,
  timeZone,
}: {
  person: Person;
  about: Parameters<typeof whatDiffers>[2];
  timeZone: string;
}) {
  const [found, { units }] = await Promise.all([whatDiffers(database(), person, about), preferences()]);
  return <WhatDiffersTable found={found} timeZone={timeZone} units={units} />;
}

async function AtRisk({
  person,
  file,
  cause,
}: {
  person: Person;
  file: Parameters<typeof sameCondition>[2];
  cause: string;
}) {
  const { racks: others, hung, lookedInto } = await sameCondition(database(), person, file, cause);
  const pieces = others.reduce((n, o) => n + o.pieces, 0);
  const out = others.filter((o) => o.structure !== null).length;
  return (
    <div className="ruled mt-6">
      <h2>
        What else passed like this: {others.length} racks, {pieces} pieces{out ? `, ${out} in the field` : ""}
      </h2>
      {others.length === 0 ? (
        <p className="soft mt-1">
          No other rack within thirty days shares the conditions that speak for the leading cause.
        </p>
      ) : (
        <>
          {others.slice(0, 20).map((o) => (
            <AtRiskRow key={o.number} rack={o} />
          ))}
          {others.length > 20 && (
            <Fold summary={<>and {others.length - 20} more</>}>
              {others.slice(20).map((o) => (
                <AtRiskRow key={o.number} rack={o} />
              ))}
            </Fold>
          )}
        </>
      )}
      {hung > lookedInto && (
        <p className="text-watch mt-1">
          Of {hung.toLocaleString("en-GB")} racks hung within thirty days the {lookedInto} nearest were looked into; the
          others were not.
        </p>
      )}
    </div>
  );
}

function AtRiskRow({ rack: o }: { rack: Containment["racks"][number] }) {
  return (
    <div className="row grid-cols-[60px_minmax(0,1fr)_90px_130px]">
      <Link className="link fig font-bold" href={`/racks/${o.number}`}>
        {o.number}
      </Link>
      <span>
        {o.part}, {o.customer}
      </span>
      <span className="num">{countOf(o.pieces, "piece")}</span>
      <span className="soft">{o.structure ?? o.decision?.replaceAll("-", " ") ?? "no decision"}</span>
    </div>
  );
}
