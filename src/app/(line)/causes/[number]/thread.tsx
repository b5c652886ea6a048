import { type CaseEvent, caseThread } from "@/server/causes/case-thread";
import type { CaseFile } from "@/server/causes/load-case";
import { database } from "@/server/database";
import { may, type Person } from "@/server/sign-in/roles";
import { NoteForm } from "@/ui/causes/note-form";
import { Fold } from "@/ui/fields/fold";
import { countOf, dateAndTime } from "@/ui/format";
import { actionStateName } from "@/ui/words/actions";
import { causeShort } from "@/ui/words/causes";

const SHOWN = 10;
const stateWords: Readonly<Record<string, string>> = { present: "so", absent: "not so", unknown: "cannot tell" };

/** What one event of a case says. */
export function eventSaid(e: CaseEvent, file: CaseFile): string {
  const cause = (id: string) => causeShort(file.known.knowledge.causes.get(id)?.label ?? id);
  switch (e.kind) {
    case "finding":
      return `${file.known.knowledge.findings.get(e.said)?.label ?? e.said}: ${stateWords[e.state ?? ""] ?? e.state}${e.zone ? `, at ${e.zone}` : ""}`;
    case "confirmation":
      return `Cause confirmed: ${cause(e.said)}`;
    case "action-check":
      return `Corrective action, ${(actionStateName[e.state as keyof typeof actionStateName] ?? "").toLowerCase()}: ${e.said}`;
    case "trial":
      return `Trial planned: ${e.said}`;
    case "trial-result":
      return `Trial, cause ${e.state === "repeated" ? "repeated" : "taken away"}: ${e.zone} show it${e.said ? `. ${e.said}` : ""}`;
    case "case-defect":
      return `${countOf(Number(e.zone ?? 1), "defect")} ${e.state === "split" ? "split from it" : "joined to it"}`;
    default:
      return e.said;
  }
}

/** Notes and everything recorded of a case in order of time, with who. */
export async function Thread({ person, file, timeZone }: { person: Person; file: CaseFile; timeZone: string }) {
  const events = await caseThread(database(), file.id);
  const people = [
    ...new Set([file.openedBy, ...events.map((e) => e.by), ...events.flatMap((e) => (e.people ? [e.people] : []))]),
  ];
  const row = (e: CaseEvent) => (
    <div key={e.recordId} className="row grid-cols-[120px_minmax(0,1fr)_auto] max-[560px]:grid-cols-1">
      <span className="fig faint small">{dateAndTime(e.at, timeZone)}</span>
      <span>
        {eventSaid(e, file)}
        {e.people && <span className="soft small block">there: {e.people}</span>}
      </span>
      <span className="faint small">{e.by}</span>
    </div>
  );
  return (
    <section className="ruled mt-6" id="time-line" aria-label="Notes and time line">
      <h2>Notes and time line</h2>
      {events.slice(0, SHOWN).map(row)}
      {events.length > SHOWN && (
        <Fold summaryClassName="min-h-11 soft" summary={`${events.length - SHOWN} earlier`}>
          {events.slice(SHOWN).map(row)}
        </Fold>
      )}
      <div className="row grid-cols-[120px_minmax(0,1fr)_auto] max-[560px]:grid-cols-1">
        <span className="fig faint small">{dateAndTime(file.openedAt, timeZone)}</span>
        <span>Case opened</span>
        <span className="faint small">{file.openedBy}</span>
      </div>
      <p className="soft small mt-1 mb-0">People in it: {people.join(", ")}.</p>
      {may(person.role, "log-line") && <NoteForm caseNumber={file.number} />}
    </section>
  );
}
