import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { dayIn } from "@/server/day";
import { now } from "@/server/now";
import { loadPlanFile } from "@/server/plan/load-plan";
import { personOnPage } from "@/server/sign-in/person";
import { may, seesCost } from "@/server/sign-in/roles";
import { Fold } from "@/ui/fields/fold";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Verdict } from "@/ui/marks/verdict";
import { JobTabs } from "@/ui/plan/job-tabs";
import { AnswerForm, OfferForm, type Suggestion } from "@/ui/plan/option-forms";
import { money, optionName, questions } from "@/ui/words/plan";
import { noteAnswer, offerOption } from "../../../actions";

export const metadata: Metadata = { title: "Options" };

export default async function OptionsPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const at = now();
  const file = await loadPlanFile(database(), person, (await params).number, at);
  if (!file) notFound();
  const { offered } = file.plan;
  const declined = offered.filter((o) => o.state === "declined").length;
  const open = offered.filter((o) => o.state === "open").length;
  const lead = may(person.role, "release");
  const offeredCodes = new Set(offered.map((o) => o.code));
  const suggestions = new Map<string, Suggestion>();
  for (const risk of file.risks)
    for (const code of risk.removedBy)
      if (!offeredCodes.has(code) && !suggestions.has(code))
        suggestions.set(code, {
          code,
          risk: risk.because,
          quantity: code === "seam-seal" ? (file.part?.lapM ?? 0) * (file.plan.pieces ?? 1) || null : null,
          unit: code === "seam-seal" ? "m" : null,
          price: file.optionPrices[code] ?? null,
        });
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              {file.customer} · {file.partName}
            </>
          }
          title={`Job ${file.number}: options`}
        >
          <Verdict result={open > 0 ? "unknown" : declined > 0 ? "watch" : "in"}>
            {open > 0
              ? `${open} not answered`
              : declined > 0
                ? `${declined} declined`
                : offered.length
                  ? "All taken"
                  : "Nothing offered"}
          </Verdict>
          <div className="small">
            <a className="link" href={`/api/jobs/${file.number}/options.pdf`}>
              Sheet to sign, PDF
            </a>
          </div>
        </PageHead>
        <JobTabs number={file.number} here="options" cost={seesCost(person)} />
        <div className="ruled mt-4">
          {offered.length === 0 && <p className="py-2">Nothing beyond the system was offered yet.</p>}
          {offered.map((o) => (
            <div
              key={o.id ?? o.what}
              className="row grid-cols-[minmax(0,1fr)_110px_130px] items-center max-[700px]:grid-cols-[minmax(0,1fr)_110px]"
            >
              <span>
                <b>{o.what}</b>
                {o.quantity !== null && `, ${o.quantity} ${o.unit ?? ""}`}
                <span className="soft block">{o.risk}</span>
                {o.state !== "open" && (
                  <span className="faint small block">
                    {o.by}
                    {o.how ? `, ${o.how}` : ""}
                    {o.on ? `, ${o.on}` : ""}
                  </span>
                )}
              </span>
              <span className="num">
                {o.price !== null ? money(o.price, o.currency) : o.pricePercent !== null ? `+${o.pricePercent} %` : "–"}
              </span>
              <Verdict result={o.state === "taken" ? "in" : o.state === "declined" ? "watch" : "unknown"}>
                {{ taken: "Taken", declined: "Declined", open: "Not answered" }[o.state]}
              </Verdict>
              {lead && o.id && o.state === "open" && (
                <div className="col-span-full">
                  <AnswerForm
                    offerId={o.id}
                    today={dayIn(at, file.site.timeZone)}
                    hanging={file.racks.map((r) => r.number)}
                    answer={noteAnswer}
                  />
                </div>
              )}
            </div>
          ))}
        </div>
        {lead && (
          <div className="mt-6">
            <h2 className="mb-2">Offer an option</h2>
            <OfferForm
              key={offered.length}
              job={file.number}
              currency={file.site.rates?.currency ?? ""}
              suggestions={[...suggestions.values()]}
              offer={offerOption}
            />
          </div>
        )}
      </section>
      <Margin step="plan">
        <MarginBlock title="Why it is kept">
          <p>
            What was offered and declined stays on the thread of every rack, is shown in the field, and speaks in a
            root-cause case.
          </p>
        </MarginBlock>
        {seesCost(person) && Object.keys(file.optionPrices).length > 0 && (
          <MarginBlock title="What a step adds, by the site's rates">
            {Object.entries(file.optionPrices).map(([code, price]) => (
              <div key={code} className="row grid-cols-[minmax(0,1fr)_auto]">
                <span>{optionName[code]}</span>
                <span className="num">{money(price, file.site.rates?.currency ?? "")}</span>
              </div>
            ))}
          </MarginBlock>
        )}
        <MarginBlock title="What people ask">
          {questions.map(([question, answer]) => (
            <Fold key={question} summaryClassName="min-h-11" summary={question}>
              <p className="small soft mt-0">{answer}</p>
            </Fold>
          ))}
        </MarginBlock>
        <MarginBlock title="Told before it is promised">
          <p className="small soft">
            A standard grade is promised for about a year of colour and gloss. Edges without a blast go within a year or
            so; blasted and coated they stand three to five. Promise no more than the system bears.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
