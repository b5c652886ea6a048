import type { Metadata } from "next";
import { loadKnowledge } from "@/core/diagnosis";
import { casesOf, escapes, proposals } from "@/server/causes/board";
import { bySite, failingZones } from "@/server/causes/failing-zones";
import { listComplaints } from "@/server/complaints/complaints";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop } from "@/server/sign-in/roles";
import { FieldProposals, Proposals } from "@/ui/causes/proposals";
import { countOf, when } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { List } from "@/ui/lists/list";
import { Verdict } from "@/ui/marks/verdict";
import { actionStateName } from "@/ui/words/actions";
import { agoSaid, severityName, severityResult } from "@/ui/words/board";
import { causeShort } from "@/ui/words/causes";
import { stageNames } from "@/ui/words/reasons";
import { startCase, startZoneCase } from "../actions";

export const metadata: Metadata = { title: "Causes" };

const caseColumns = [
  { key: "case", head: "case", width: "56px", look: "fig text-[17px] font-bold" },
  { key: "severity", head: "weight", width: "92px" },
  { key: "defect", head: "defect", width: "minmax(0,1.3fr)" },
  { key: "customer", head: "customer", width: "minmax(90px,150px)", wide: true },
  { key: "age", head: "open for", width: "84px", look: "fig soft small" },
  { key: "cause", head: "cause", width: "minmax(120px,1fr)" },
];
const complaintColumns = [
  { key: "at", head: "taken", width: "110px", look: "fig faint small" },
  { key: "customer", head: "customer", width: "minmax(90px,150px)", look: "font-bold" },
  { key: "what", head: "what they say", width: "minmax(0,1fr)", wide: true },
  { key: "of", head: "on", width: "100px", look: "soft" },
  { key: "answer", head: "answer", width: "130px" },
];

/** Everything that is wrong in one place: defects gathered into proposed cases, the cases with what came of them, complaints. */
export default async function CausesPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const knowledge = loadKnowledge();
  const [cases, proposed, complaints, failing, late] = await Promise.all([
    casesOf(database(), person),
    proposals(database(), person),
    listComplaints(database(), person, line.at),
    failingZones(database(), person),
    escapes(database(), person, (cause) => knowledge.causes.get(cause)?.stage ?? ""),
  ]);
  const label = (defect: string) => knowledge.defects.get(defect)?.label ?? defect;
  const open = cases.filter((c) => c.action !== "worked");
  const closed = cases.filter((c) => c.action === "worked");
  const lines = (list: typeof cases) =>
    list.map((c) => {
      const of = c.rack ? `rack ${c.rack}` : (c.structure ?? "");
      const more = c.defects > 1 ? `, ${c.defects} records` : "";
      const said = c.cause
        ? `${causeShort(knowledge.causes.get(c.cause)?.label ?? c.cause)}${c.action ? `; ${actionStateName[c.action as keyof typeof actionStateName].toLowerCase()}` : ""}`
        : "not confirmed";
      return {
        key: c.number,
        href: `/causes/${c.number}`,
        cells: {
          severity: <Verdict result={severityResult[c.severity]}>{severityName[c.severity]}</Verdict>,
          defect: (
            <>
              <b>{label(c.defect)}</b>
              {c.zone ? `, ${c.zone.toLowerCase()}` : ""}{" "}
              <span className="soft">
                {[c.part?.toLowerCase(), of].filter(Boolean).join(", ")}
                {more}
                {c.complaint ? "; complaint" : ""}
              </span>
            </>
          ),
          cause: c.cause ? said : <span className="soft">{said}</span>,
          age: agoSaid(c.openedAt, line.at),
        },
        values: {
          case: Number(c.number),
          severity: severityName[c.severity],
          defect: `${label(c.defect)} ${c.zone} ${c.part ?? ""} ${of}`,
          customer: c.customer,
          age: Math.round((line.at.getTime() - c.openedAt.getTime()) / 86_400_000),
          cause: said,
        },
      };
    });
  return (
    <>
      <section className="bench">
        <PageHead above="Everything that is wrong, in one place" title="Causes">
          <span className="no-print flex flex-wrap gap-2">
            {may(person.role, "inspect") && (
              <Link className="btn" href="/causes/complaints/new">
                A customer complains
              </Link>
            )}
            {may(person.role, "inspect") && (
              <Link className="btn" href="/causes/contrast">
                What differs
              </Link>
            )}
            <Link className="btn" href="/causes/atlas">
              Atlas
            </Link>
          </span>
        </PageHead>
        <section className="ruled mt-3" aria-label="Open cases">
          <h2>Open cases</h2>
          <List
            name="Open cases"
            empty="No case is open. Open one from a proposal below, or from a defect on a rack's release page: it asks what the record cannot tell, and says what most likely acts."
            columns={caseColumns}
            rows={lines(open)}
          />
        </section>
        <section className="ruled mt-6" aria-label="Proposed cases">
          <h2>Seen, without a case: {countOf(proposed.length, "group")} that look alike</h2>
          <Proposals
            proposals={proposed.map((p) => ({
              ...p,
              label: label(p.defect),
              items: p.items.map((i) => ({
                id: i.id,
                when: when(new Date(i.atMs), line.at, line.timeZone),
                of: i.rack ? `rack ${i.rack}` : (i.structureName ?? ""),
                href: i.rack ? `/racks/${i.rack}/release` : `/field/${i.structure?.toLowerCase()}`,
                part: i.partName.toLowerCase(),
                place: i.place,
                note: i.note,
                lot: i.lot,
                customer: i.customerName,
                complaint: i.complaint,
              })),
              first: when(p.firstAt, line.at, line.timeZone),
              last: when(p.lastAt, line.at, line.timeZone),
              age: agoSaid(p.firstAt, line.at),
            }))}
            mayOpen={may(person.role, "inspect")}
            open={startCase}
          />
        </section>
        {failing.length > 0 && (
          <section className="ruled mt-6" aria-label="Failing in the field">
            <h2>Past its limit in the field, without a case: {countOf(bySite(failing).length, "group")} by site</h2>
            <FieldProposals
              proposals={bySite(failing).map((zones) => {
                const times = zones.map((f) => f.at.getTime());
                const [first, last] = [new Date(Math.min(...times)), new Date(Math.max(...times))];
                return {
                  defect: zones[0]?.defect ?? "",
                  label: label(zones[0]?.defect ?? ""),
                  severity: "high" as const,
                  racks: 0,
                  structures: zones.length,
                  pieces: 0,
                  shared: ["site"],
                  first: when(first, line.at, line.timeZone),
                  last: when(last, line.at, line.timeZone),
                  age: agoSaid(first, line.at),
                  items: zones.map((f) => ({
                    id: f.structure,
                    when: when(f.at, line.at, line.timeZone),
                    of: f.name,
                    href: `/field/${f.structure.toLowerCase()}`,
                    part: f.site,
                    place: f.zones.join(", "),
                    note: null,
                    lot: null,
                    customer: f.customer,
                    complaint: false,
                  })),
                };
              })}
              mayOpen={may(person.role, "inspect")}
              start={startZoneCase}
            />
          </section>
        )}
        <section className="ruled mt-6" aria-label="Complaints">
          <h2>Complaints</h2>
          <List
            name="Complaints"
            empty="None. Where a customer complains, the button above takes it in and opens its case."
            columns={complaintColumns}
            rows={complaints.map((c) => ({
              key: c.id,
              href: `/causes/complaints/${c.id}`,
              cells: {
                at: when(c.at, line.at, line.timeZone),
                answer: (
                  <Verdict result={c.answeredAt ? "in" : "watch"}>{c.answeredAt ? "answered" : "not answered"}</Verdict>
                ),
              },
              values: {
                at: c.at.toISOString(),
                customer: c.customer,
                what: c.what,
                of: `rack ${c.rack}`,
                answer: c.answeredAt ? "answered" : "not answered",
              },
            }))}
          />
        </section>
        {closed.length > 0 && (
          <section className="ruled mt-6" aria-label="Closed cases">
            <h2>Closed: the action worked</h2>
            <List name="Closed cases" empty="" columns={caseColumns} rows={lines(closed)} />
          </section>
        )}
      </section>
      <Margin step="causes">
        <MarginBlock title="How it reasons">
          <p>
            Findings the record establishes come first, each with its source; the rest are asked. Several causes may act
            together. Unknown moves nothing. A person confirms.
          </p>
          {ofTheShop(person) && (
            <p>
              <Link className="link" href="/causes/knowledge">
                What it knows, and what was changed here
              </Link>
            </p>
          )}
        </MarginBlock>
        <MarginBlock title="Weight">
          <p className="small">
            High: it has left the shop or stands in use. Middle: it weakens the coat, or is on three racks or a quarter
            of the pieces. Low: a slip.
          </p>
        </MarginBlock>
        {late.length > 0 && (
          <MarginBlock title="Where made, where found">
            {late.map((e) => (
              <div key={`${e.made} ${e.found}`} className="row grid-cols-[minmax(0,1fr)_auto]">
                <span>
                  {stageNames[e.made] ?? e.made} → {stageNames[e.found] ?? e.found}
                </span>
                <span className="fig soft">
                  {countOf(e.cases, "case")}
                  {e.stages ? `, ${countOf(e.stages, "stage")} late` : ""}
                </span>
              </div>
            ))}
            <p className="small soft mt-1">
              {Math.round(
                (100 * late.filter((e) => (e.stages ?? 0) > 0).reduce((n, e) => n + e.cases, 0)) /
                  late.reduce((n, e) => n + e.cases, 0),
              )}{" "}
              of 100 confirmed causes got past the stage that made them.
            </p>
          </MarginBlock>
        )}
      </Margin>
    </>
  );
}
