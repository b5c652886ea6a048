import { group } from "d3";
import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { candidates, lookedInto, passedLike } from "@/server/causes/containment";
import { loadCase } from "@/server/causes/load-case";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { countOf, dateAndTime, fullDate } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { PrintButton } from "@/ui/frame/print-button";
import Link from "@/ui/link";
import { causeShort } from "@/ui/words/causes";

export const metadata: Metadata = { title: "Message to a customer" };

/** A sheet to send a customer: which of what they have passed like the rack of a case, what to look for, what to do. */
export default async function MessagePage({
  params,
  searchParams,
}: {
  params: Promise<{ number: string }>;
  searchParams: Promise<{ customer?: string }>;
}) {
  const person = await personOnPage();
  if (!may(person.role, "inspect")) notFound();
  const line = await currentLine(person);
  const file = await loadCase(database(), person, (await params).number, line.at);
  const { customer: to } = await searchParams;
  if (!file?.rack) notFound();
  const cause = file.confirmation?.cause ?? file.diagnosis.causes[0]?.cause ?? "";
  const found = await candidates(
    database(),
    person,
    { rackId: file.rack.id, defect: file.defect, established: file.established },
    cause,
    line.at,
  );
  const { ids, left } = lookedInto(found);
  const out = (await passedLike(database(), person, ids, found, file.defect, line.at)).filter(
    (r) => r.place === "shipped" || r.place === "in-field",
  );
  const racks = group(out, (r) => r.customerId).get(to ?? "") ?? [];
  if (racks.length === 0) notFound();
  const { knowledge } = file.known;
  const defect = knowledge.defects.get(file.defect);
  const looks = (defect?.firstChecks ?? []).flatMap((f) => {
    const check = knowledge.findings.get(f)?.check;
    return check?.at.includes("field") ? [check.how] : [];
  });
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link no-print" href={`/causes/${file.number}#at-risk`}>
              Case {file.number}
            </Link>
          }
          title={`To ${racks[0]?.customer}`}
        >
          <PrintButton>Print</PrintButton>
        </PageHead>
        <div className="mt-4 max-w-[70ch]">
          <p>
            {line.siteName}, {fullDate(line.at, line.timeZone)}
          </p>
          <p>
            On work that passed our line we found {file.defectLabel.toLowerCase()}: {causeShort(file.defectPlain)}.{" "}
            {file.confirmation
              ? `We have confirmed what it came of: ${causeShort(knowledge.causes.get(cause)?.label ?? cause)}.`
              : `We think it came of this, and are still proving it: ${causeShort(knowledge.causes.get(cause)?.label ?? cause)}.`}{" "}
            The following, which you have, passed under the same conditions.{" "}
            {racks.some((r) => r.showsIt)
              ? "Some of it is on record as showing it already."
              : "None of it is on record as showing it."}
            {left > 0 && ` We are still looking into ${countOf(left, "earlier rack")}; you will hear of those too.`}
          </p>
          <div className="ruled mt-3">
            {racks.map((r) => (
              <div key={r.number} className="row grid-cols-[80px_130px_minmax(0,1fr)_auto]">
                <b className="fig">{r.number}</b>
                <span className="fig soft small">{dateAndTime(r.hungAt, line.timeZone)}</span>
                <span>
                  {r.part}
                  {r.structures.length > 0 ? `, in ${r.structures.join(", ")}` : ""}
                </span>
                <span className="fig">{countOf(r.pieces, "piece")}</span>
              </div>
            ))}
          </div>
          <h2 className="mt-4">What we ask of you</h2>
          <p className="m-0 mt-1">
            Please set it aside where it is not in use yet, and look at it: {defect?.plain.toLowerCase()}.
            {looks.length > 0 ? ` How to look: ${looks.join("; ")}.` : ""} Tell us what you find, also where you find
            nothing. Do not burn, blast or strip it before you have spoken with us.
          </p>
          {file.confirmation && (
            <>
              <h2 className="mt-4">What we do</h2>
              <p className="m-0 mt-1">
                Now: {file.confirmation.correction || "what has not left is held and tested"}. So that it stays away:{" "}
                {file.confirmation.corrective_action}.
              </p>
            </>
          )}
          <p className="mt-4">
            {person.name}, {line.siteName}
          </p>
        </div>
      </section>
      <Margin step="causes">
        <MarginBlock title="What it is for">
          <p className="small">
            A first wording: read it before it goes out, and say how it was sent as a note of the case.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
