import type { Metadata } from "next";
import { listCases } from "@/server/causes/list-cases";
import { listComplaints } from "@/server/complaints/complaints";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { when } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { List } from "@/ui/lists/list";
import { Verdict } from "@/ui/marks/verdict";

export const metadata: Metadata = { title: "Causes" };

const caseColumns = [
  { key: "case", head: "case", width: "72px", look: "fig text-[17px] font-bold" },
  { key: "defect", head: "defect", width: "minmax(0,1fr)" },
  { key: "cause", head: "cause", width: "minmax(110px,170px)" },
];
const complaintColumns = [
  { key: "at", head: "taken", width: "110px", look: "fig faint small" },
  { key: "customer", head: "customer", width: "minmax(90px,150px)", look: "font-bold" },
  { key: "what", head: "what they say", width: "minmax(0,1fr)", wide: true },
  { key: "of", head: "on", width: "100px", look: "soft" },
  { key: "answer", head: "answer", width: "130px" },
];
const defectColumns = [
  { key: "at", head: "found", width: "110px", look: "fig faint small" },
  { key: "defect", head: "defect", width: "minmax(90px,130px)", look: "font-bold" },
  { key: "note", head: "note", width: "minmax(0,1fr)", wide: true },
  { key: "of", head: "on", width: "110px", look: "soft" },
];

export default async function CausesPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const [{ cases, defects }, complaints] = await Promise.all([
    listCases(database(), person),
    listComplaints(database(), person, line.at),
  ]);
  return (
    <>
      <section className="bench">
        <PageHead above="Root-cause cases and the defects behind them" title="Causes">
          {may(person.role, "inspect") && (
            <Link className="btn" href="/causes/complaints/new">
              A customer complains
            </Link>
          )}
        </PageHead>
        <div className="ruled mt-3">
          <h2>Cases</h2>
          <List
            name="Cases"
            empty="No case yet. Open one from a defect on a rack's release page: it asks what the record cannot tell, and says what most likely did it."
            columns={caseColumns}
            rows={cases.map((c) => {
              const of = c.rack ? `rack ${c.rack}` : (c.structure ?? "");
              return {
                key: String(c.number),
                href: `/causes/${c.number}`,
                cells: {
                  defect: (
                    <>
                      <b>{c.defect.replaceAll("-", " ")}</b>, {c.zone} <span className="soft">{of}</span>
                    </>
                  ),
                  cause: (
                    <Verdict result={c.cause ? "in" : "watch"}>
                      {c.cause?.replaceAll("-", " ") ?? "Not confirmed"}
                    </Verdict>
                  ),
                },
                values: {
                  case: c.number,
                  defect: `${c.defect.replaceAll("-", " ")}, ${c.zone}, ${of}`,
                  cause: c.cause?.replaceAll("-", " ") ?? "not confirmed",
                },
              };
            })}
          />
        </div>
        <div className="ruled mt-6">
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
        </div>
        <div className="ruled mt-6">
          <h2>Defects without a case, newest first</h2>
          <List
            name="Defects without a case"
            empty="None. A defect recorded on a rack or in the field stands here until a case is opened of it."
            columns={defectColumns}
            rows={defects.map((d) => ({
              key: d.id,
              href: d.rack ? `/racks/${d.rack}/release` : `/field/${d.structure?.toLowerCase()}`,
              cells: { at: when(d.at, line.at, line.timeZone) },
              values: {
                at: d.at.toISOString(),
                defect: d.defect.replaceAll("-", " "),
                note: d.note,
                of: d.rack ? `rack ${d.rack}` : (d.structure ?? null),
              },
            }))}
          />
        </div>
      </section>
      <Margin step="causes">
        <MarginBlock title="How it reasons">
          <p>
            Findings the record establishes come first, each with its source; the rest are asked. Several causes may act
            together. Unknown moves nothing. A person confirms.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
