import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { caseThread, trialsOf } from "@/server/causes/case-thread";
import { loadCase } from "@/server/causes/load-case";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { Chains } from "@/ui/causes/lead";
import { Seen } from "@/ui/causes/seen";
import { dateAndTime } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { PrintButton } from "@/ui/frame/print-button";
import Link from "@/ui/link";
import { Grade } from "@/ui/marks/verdict";
import { causeShort, strengthSaid } from "@/ui/words/causes";
import { gradeWords } from "@/ui/words/grades";
import { foundText } from "@/ui/words/reasons";
import { bearing, gapsOf } from "../evidence";
import { Confirmed } from "../proof";
import { eventSaid } from "../thread";

export const metadata: Metadata = { title: "Report of a case" };

/** Findings told in a report before the rest is left out. */
const TOLD = 14;

/** A case as a report that a customer can read: what was seen, what acts and on what evidence, how it was proved, what is done. */
export default async function CaseReport({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const line = await currentLine(person);
  const file = await loadCase(database(), person, (await params).number, line.at);
  if (!file) notFound();
  const { units } = await preferences();
  const [events, trials] = await Promise.all([caseThread(database(), file.id), trialsOf(database(), file.id)]);
  const { knowledge } = file.known;
  const label = (finding: string) => knowledge.findings.get(finding)?.label ?? finding;
  const names = (cause: string) => knowledge.causes.get(cause)?.label ?? cause;
  const possible = file.diagnosis.causes.filter((c) => c.role !== "ruled-out" && c.strength >= 0.1).slice(0, 5);
  const told = bearing(file).slice(0, TOLD);
  const gaps = gapsOf(file).slice(0, 4);
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              <Link className="link" href={`/causes/${file.number}`}>
                Case {file.number}
              </Link>{" "}
              · {line.siteName} · as of {dateAndTime(line.at, line.timeZone)}
            </>
          }
          title={
            <>
              {file.defectLabel}
              {file.zone ? `: ${file.zone.toLowerCase()}` : ""}
            </>
          }
        >
          <PrintButton>Print</PrintButton>
        </PageHead>
        <div className="mt-3 grid grid-cols-[minmax(0,1fr)_auto] gap-6 max-[700px]:grid-cols-1">
          <div>
            <h2>What was seen</h2>
            <p className="m-0 mt-1">
              {file.defectPlain}.{" "}
              {file.rack
                ? `On ${file.rack.part.data.name.toLowerCase()}, rack ${file.rack.number}, hung ${dateAndTime(file.rack.hungAt, line.timeZone)}, for ${file.rack.customer}.`
                : ""}
              {file.structure ? ` On ${file.structure.name}.` : ""}
            </p>
            {file.defects.slice(0, 8).map((d) => (
              <p key={d.recordId} className="soft small m-0">
                {dateAndTime(d.at, line.timeZone)}, {d.rack ? `rack ${d.rack}` : d.structure}
                {d.face ? `, ${d.face}` : ""}
                {d.piecesAffected !== null
                  ? `, ${d.piecesAffected}${d.piecesSeen !== null ? ` of ${d.piecesSeen}` : ""} pieces`
                  : ""}
                {d.note ? `: ${d.note}` : ""}
              </p>
            ))}
          </div>
          <Seen file={file} units={units} />
        </div>
        <section className="ruled mt-4">
          <h2>{file.confirmation ? "What it came of" : "What it most likely came of"}</h2>
          {file.confirmation ? (
            <div className="mt-1">
              <Confirmed file={file} timeZone={line.timeZone} />
            </div>
          ) : file.diagnosis.enoughToTell ? (
            <>
              <Chains chains={file.diagnosis.chains} />
              <p className="soft mt-1">Not confirmed by a person yet.</p>
            </>
          ) : (
            <p className="mt-1">
              Not enough is known to tell apart. Possible: {possible.map((c) => causeShort(c.label)).join("; ")}.
            </p>
          )}
        </section>
        <section className="ruled mt-4">
          <h2>On what evidence</h2>
          {told.map((f) => (
            <div key={f.finding} className="row grid-cols-[minmax(0,1fr)_minmax(0,1fr)_30px]">
              <span>
                {label(f.finding)}: <b>{f.state === "present" ? "yes" : "no"}</b>
              </span>
              <span className="soft">{foundText(f.what)}</span>
              <Grade grade={f.grade} />
            </div>
          ))}
          {file.asked
            .filter((a) => a.state !== "unknown")
            .map((a) => (
              <div key={a.recordId} className="row grid-cols-[minmax(0,1fr)_minmax(0,1fr)_30px]">
                <span>
                  {label(a.finding)}: <b>{a.state === "present" ? "yes" : "no"}</b>
                </span>
                <span className="soft">
                  looked at by {a.by}, {dateAndTime(a.at, line.timeZone)}
                  {a.zone ? `, at ${a.zone}` : ""}
                </span>
                <Grade grade="measured" />
              </div>
            ))}
          {gaps.length > 0 && (
            <p className="soft mt-1">Never recorded: {gaps.map((g) => causeShort(label(g.finding))).join("; ")}.</p>
          )}
          <p className="faint small mt-1">
            A full mark is {gradeWords.measured}, a half one {gradeWords["by-procedure"]}.
          </p>
        </section>
        <section className="ruled mt-4">
          <h2>How likely each cause is, by these findings</h2>
          {possible.map((c) => (
            <div key={c.cause} className="row grid-cols-[minmax(0,1fr)_120px]">
              <span>{c.label}</span>
              <span className="num">{strengthSaid(c.strength)}</span>
            </div>
          ))}
        </section>
        {trials.length > 0 && (
          <section className="ruled mt-4">
            <h2>Trials</h2>
            {trials.map((t) => (
              <p key={t.id} className="m-0 mt-1">
                <b>{names(t.cause)}</b>: {t.plan}. Repeated: {t.counts.repeated.withIt} of {t.counts.repeated.panels}{" "}
                show it; taken away: {t.counts["taken-away"].withIt} of {t.counts["taken-away"].panels}.
              </p>
            ))}
          </section>
        )}
        <section className="ruled mt-4">
          <h2>Time line</h2>
          {[...events].reverse().map((e) => (
            <div key={e.recordId} className="row small grid-cols-[120px_minmax(0,1fr)_auto]">
              <span className="fig faint">{dateAndTime(e.at, line.timeZone)}</span>
              <span>{eventSaid(e, file)}</span>
              <span className="faint">{e.by}</span>
            </div>
          ))}
        </section>
      </section>
      <Margin step="causes">
        <MarginBlock title="What it is for">
          <p className="small">
            A case as it stands, for the file or for the customer: print it. What was confirmed later is in a later
            report.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
