import type { Metadata } from "next";
import { notFound } from "next/navigation";
import * as v from "valibot";
import { loadComplaint } from "@/server/complaints/complaints";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { AnswerForm } from "@/ui/complaints/answer-form";
import { countOf, dateAndTime } from "@/ui/format";
import { PhotoForm } from "@/ui/forms/photo-form";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { PrintButton } from "@/ui/frame/print-button";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { Photos } from "@/ui/plan/photos";
import { answeredByName, wantsName } from "@/ui/words/complaints";
import { attachPhoto } from "../../../actions";

export const metadata: Metadata = { title: "Complaint" };

const uuid = v.pipe(v.string(), v.uuid());

export default async function ComplaintPage({ params }: { params: Promise<{ id: string }> }) {
  const person = await personOnPage();
  const { id } = await params;
  const db = database();
  const at = now();
  const [file, site] = await Promise.all([v.is(uuid, id) ? loadComplaint(db, person, id, at) : null, siteAt(db, at)]);
  if (!file) notFound();
  const [last] = file.answers;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              <Link className="link" href="/causes">
                Causes
              </Link>{" "}
              · {file.customer} ·{" "}
              <Link className="link" href={`/racks/${file.rack}`}>
                rack {file.rack}
              </Link>
              , {file.part.toLowerCase()}
            </>
          }
          title={`Complaint${file.theirNumber ? ` ${file.theirNumber}` : ""}`}
        >
          <Verdict result={last ? "in" : "watch"}>
            {last ? `answered ${dateAndTime(last.at, site.timeZone)}` : "not answered"}
          </Verdict>
        </PageHead>
        <div className="no-print ruled mt-4">
          <blockquote className="m-0 border-rule-strong border-l-4 pl-3 text-[17px]">{file.what}</blockquote>
          <p className="mt-2 mb-0">
            {file.saidBy}, {file.saidOn}; they want {wantsName[file.wants as keyof typeof wantsName] ?? file.wants}.{" "}
            {file.piecesReturned !== null && `${countOf(file.piecesReturned, "piece")} returned. `}
            {file.piecesAffected !== null && `${countOf(file.piecesAffected, "piece")} with it. `}
            <span className="faint">
              Taken by {file.by}, {dateAndTime(file.at, site.timeZone)}
            </span>
          </p>
          {file.caseNumber && (
            <p className="mt-2 mb-0">
              <Link className="btn" href={`/causes/${file.caseNumber}`}>
                Case {file.caseNumber}: {file.defect.replaceAll("-", " ")},{" "}
                {file.confirmed ? "cause confirmed" : "cause open"}
              </Link>
            </p>
          )}
        </div>
        <div className="no-print">
          {file.photos.length > 0 && (
            <Photos photos={file.photos.map((p) => ({ ...p, when: dateAndTime(p.at, site.timeZone) }))} />
          )}
          {may(person.role, "inspect") && (
            <div className="mt-4">
              <PhotoForm of={{ rack: file.rack }} attach={attachPhoto} title="A photo of what came back" />
            </div>
          )}
        </div>
        {last && (
          <article className="ruled mt-6 max-w-[760px]" aria-label="Answer as sent">
            <h2>Answer, as sent</h2>
            {last.answer.split(/\n\n+/).map((paragraph) => (
              <p key={paragraph} className="mt-2 mb-0 whitespace-pre-line">
                {paragraph}
              </p>
            ))}
            <p className="small faint mt-3 mb-0">
              To {last.sentTo}, {answeredByName[last.sentBy as keyof typeof answeredByName] ?? last.sentBy},{" "}
              {dateAndTime(last.at, site.timeZone)}, {last.by}
            </p>
            <p className="no-print">
              <PrintButton>Print the answer</PrintButton>
            </p>
          </article>
        )}
        {may(person.role, "release") && (
          <section className="no-print ruled mt-6" aria-label={last ? "Write again" : "Answer them"}>
            <h2>{last ? "Write again" : "Answer them"}</h2>
            <p className="small soft m-0">
              A first wording by what the case has come to: read it, change it, send it from your own mail or on paper,
              then record it. It names no one of the shop and no price.
            </p>
            <AnswerForm
              key={`${file.confirmed}${file.answers.length}`}
              complaint={file.id}
              draft={file.draft}
              sentTo={file.saidBy}
            />
          </section>
        )}
      </section>
      <Margin step="causes">
        {file.answers.length > 1 && (
          <MarginBlock title="Told before">
            {file.answers.slice(1).map((a) => (
              <p key={a.id} className="small m-0 mb-1">
                {dateAndTime(a.at, site.timeZone)}, {a.by}: {a.answer.slice(0, 160)} …
              </p>
            ))}
          </MarginBlock>
        )}
        <MarginBlock title="Open until answered">
          <p>A complaint stands on Shift until an answer is on record. A later answer stands beside the first.</p>
        </MarginBlock>
      </Margin>
    </>
  );
}
