import type { Metadata } from "next";
import { notFound } from "next/navigation";
import type { NextStep } from "@/core/line";
import type { VerdictResult } from "@/core/verdict";
import { database } from "@/server/database";
import { loadJob } from "@/server/jobs/load-job";
import { nextRackNumber } from "@/server/jobs/make-job";
import { currentLine } from "@/server/line/current-line";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may, seesCost } from "@/server/sign-in/roles";
import { PartSketch } from "@/ui/charts/part-sketch";
import { dateAndTime, dayMonth, plainly, withUnit } from "@/ui/format";
import { RackForm } from "@/ui/forms/make-forms";
import { PhotoForm } from "@/ui/forms/photo-form";
import { LabelLinks } from "@/ui/frame/label-links";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Shape, Verdict } from "@/ui/marks/verdict";
import { JobTabs } from "@/ui/plan/job-tabs";
import { Photos } from "@/ui/plan/photos";
import { Pages, pageFrom } from "@/ui/shift/pages";
import { nextName } from "@/ui/words/next";
import { filmRequired } from "@/ui/words/reasons";
import { askedBeside } from "@/ui/words/requirement";
import { attachPhoto, createRack } from "../../actions";

export const metadata: Metadata = { title: "Job" };

/** Racks on a page of the job. */
const RACKS_SHOWN = 48;

export default async function JobPage({
  params,
  searchParams,
}: {
  params: Promise<{ number: string }>;
  searchParams: Promise<{ page?: string }>;
}) {
  const person = await personOnPage();
  const job = await loadJob(database(), person, (await params).number, now());
  if (!job) notFound();
  const page = pageFrom((await searchParams).page);
  const shownRacks = job.racks.slice((page - 1) * RACKS_SHOWN, page * RACKS_SHOWN);
  const [line, { units }, nextTag] = await Promise.all([
    currentLine(person),
    preferences(),
    may(person.role, "log-line") ? nextRackNumber(database()) : null,
  ]);
  const { film } = job.requirement;
  const facts: [string, string][] = [
    ...(job.customerOrder ? [["Order", job.customerOrder] as [string, string]] : []),
    ...(job.deliveryNote ? [["Delivery note", job.deliveryNote] as [string, string]] : []),
    [
      "Substrate",
      `${job.part?.data.substrate.replaceAll("-", " ")}, thickest ${job.part ? plainly(job.part.data.thickestMm, "size", units) : "not known"}`,
    ],
    ["Features", job.part?.data.features.join(", ").replaceAll("-", " ") || "none named"],
    ["Exposure", job.plan.exposure.join(", ").replaceAll("-", " ")],
    [
      "System",
      `${job.plan.primer ? "primer, then " : ""}${job.powder?.code} ${job.powder?.data.name}, ${job.powder?.data.chemistry}, ${job.powder?.data.weathering} weathering grade`,
    ],
    ["Route", job.plan.stages.join(" → ")],
    ["Film", filmRequired(film, units)],
    ...(job.ordered === null ? [] : [["Pieces", `${job.ordered} ordered, ${job.hung} hung`] as [string, string]]),
    ["Adhesion", `cross-cut grade ${job.requirement.adhesionWorstIso} or better`],
    [
      "Cure",
      `${job.powder?.data.schedule.map((p) => `${withUnit(p.metalC, "temperature", units)} for ${p.minutes} min`).join(", or ")}; judged by ${job.requirement.cureDecidedBy}`,
    ],
    ...askedBeside(job.requirement),
  ];
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              {job.customer} · received {dateAndTime(job.receivedAt, line.timeZone)}
            </>
          }
          title={
            <>
              Job {job.number}, {job.part?.data.name.toLowerCase()}
            </>
          }
        >
          <span className="soft small">{job.racks.length === 1 ? "1 rack" : `${job.racks.length} racks`}</span>
        </PageHead>
        <JobTabs number={job.number} here="" cost={seesCost(person)} />
        <div className="mt-4 grid grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)] gap-8 max-[820px]:grid-cols-1">
          <div className="ruled">
            {facts.map(([name, value]) => (
              <div key={name} className="row grid-cols-[110px_minmax(0,1fr)]">
                <span className="soft">{name}</span>
                <span>{value}</span>
              </div>
            ))}
            <h2 className="mt-5">Offered to the customer</h2>
            {job.plan.offered.length === 0 && <p className="soft mt-1">Nothing beyond the system is on record.</p>}
            {job.plan.offered.map((o) => (
              <div key={o.what} className="row grid-cols-[minmax(0,1fr)_auto]">
                <span>
                  <b>{o.what}</b>
                  {o.pricePercent ? `, +${o.pricePercent} %` : ""}: {o.risk}.
                  {o.state !== "open" && (
                    <span className="faint">
                      {" "}
                      {o.by}, {o.on}
                    </span>
                  )}
                </span>
                <Verdict result={o.state === "taken" ? "in" : o.state === "declined" ? "watch" : "unknown"}>
                  {o.state === "taken" ? "Taken" : o.state === "declined" ? "Declined" : "Not answered"}
                </Verdict>
              </div>
            ))}
          </div>
          {job.part && (
            <PartSketch
              units={units}
              faces={job.part.data.faces.map((f) => ({
                ...f,
                spots: f.spots.map((s) => ({ id: s.id, at: s.at, meanUm: null, result: "open" as const })),
              }))}
            />
          )}
        </div>
        {may(person.role, "inspect") && (
          <div className="mt-6">
            <PhotoForm of={{ job: job.number }} attach={attachPhoto} />
          </div>
        )}
        <Photos
          photos={job.photos.flatMap((p) =>
            p.file_id ? [{ id: p.file_id, caption: p.caption, when: dateAndTime(p.happened_at, line.timeZone) }] : [],
          )}
        />
        <section id="racks" className="ruled mt-6" aria-label="Racks">
          <h2>Racks</h2>
          {job.racks.length > 0 && <LabelLinks name="Tags of its racks" query={{ of: "rack", job: job.number }} />}
          {job.racks.length === 0 && <p className="soft mt-1">None hangs yet.</p>}
          <div className="grid grid-cols-[repeat(auto-fill,minmax(220px,1fr))] gap-x-6">
            {shownRacks.map((r) => (
              <div key={r.number} className="row grid-cols-[60px_1fr_auto] items-center">
                <Link className="link fig inline-flex min-h-11 items-center font-bold" href={`/racks/${r.number}`}>
                  {r.number}
                </Link>
                <span className="soft small">
                  {r.next
                    ? nextName[r.next as NextStep]
                    : r.gone_at
                      ? `decided ${dayMonth(r.gone_at, line.timeZone)}`
                      : ""}
                </span>
                {r.result && !r.gone_at ? <Shape result={r.result as VerdictResult} /> : <span />}
              </div>
            ))}
          </div>
          <Pages path={`/jobs/${job.number}`} page={page} perPage={RACKS_SHOWN} total={job.racks.length} />
        </section>
        {may(person.role, "log-line") && (
          <RackForm job={job.number} next={nextTag} ordered={job.ordered} hung={job.hung} make={createRack} />
        )}
      </section>
      <Margin step="plan">
        <MarginBlock title="Take it with you">
          <p className="flex gap-4">
            <a className="link" href={`/api/jobs/${job.number}/export.json`}>
              JSON
            </a>
            <a className="link" href={`/api/jobs/${job.number}/readings.csv`}>
              Readings, CSV
            </a>
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
