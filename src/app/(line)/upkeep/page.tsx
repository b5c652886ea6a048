import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { upkeepStages } from "@/core/upkeep";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop } from "@/server/sign-in/roles";
import { loadUpkeep } from "@/server/upkeep/load-upkeep";
import { stagesToBegin } from "@/server/upkeep/save-upkeep";
import { Fold } from "@/ui/fields/fold";
import { dateAndTime } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { BeginUpkeep } from "@/ui/upkeep/begin-upkeep";
import { UpkeepForm } from "@/ui/upkeep/upkeep-form";
import { UpkeepSetupForm } from "@/ui/upkeep/upkeep-setup-form";
import { measureWindow, upkeepHandsName, upkeepResultName, upkeepStageName, upkeepWord } from "@/ui/words/upkeep";
import { beginUsualUpkeep, keepUpkeep } from "../actions";

export const metadata: Metadata = { title: "Upkeep" };

export default async function UpkeepPage() {
  const person = await personOnPage();
  // What a shop keeps up is its own affair, not a customer's.
  if (!ofTheShop(person)) notFound();
  const at = now();
  const [files, site] = await Promise.all([loadUpkeep(database(), at, { history: 6 }), siteAt(database(), at)]);
  const [mayLog, mayChange] = [may(person.role, "log-line"), may(person.role, "release")];
  const due = files.filter((f) => f.standing.result !== "in").length;
  const toBegin = stagesToBegin(files.map((f) => f.item.data.what));
  return (
    <>
      <section className="bench">
        <PageHead above="What the line runs on, looked after at fixed intervals" title="Upkeep">
          <Verdict result={due > 0 ? "watch" : files.length > 0 ? "in" : "unknown"}>
            {files.length === 0 ? "nothing set up" : due > 0 ? `${due} due` : "nothing due"}
          </Verdict>
        </PageHead>
        {files.length === 0 && (
          <p className="py-3">
            Nothing is kept up on record yet.{" "}
            {mayChange ? "Begin from what is usual, in the margin." : "A lead sets it up."}
          </p>
        )}
        {upkeepStages
          .map((stage) => ({ stage, mine: files.filter((f) => f.item.data.stage === stage) }))
          .filter(({ mine }) => mine.length > 0)
          .map(({ stage, mine }) => (
            <section key={stage} className="ruled mt-5" aria-label={upkeepStageName[stage]}>
              <h2>{upkeepStageName[stage]}</h2>
              {mine.map(({ item, done, standing }) => {
                const { what, everyDays, look, leadsTo, caution, hands, equipment, measure, retired } = item.data;
                const last = done[0];
                return (
                  <Fold
                    key={item.id}
                    id={item.code}
                    className="border-rule border-b"
                    summaryClassName="row min-h-[52px] list-none grid-cols-[minmax(0,1fr)_minmax(0,1fr)_170px] items-center border-0 hover:bg-sorrel-tint max-[700px]:grid-cols-[minmax(0,1fr)_auto] w-full"
                    summary={
                      <>
                        <span>
                          <b>{what}</b>
                          {equipment && <span className="soft"> {equipment}</span>}
                          <span className="small soft block">
                            every {everyDays === 1 ? "day" : `${everyDays} days`}
                            {hands === "line" ? "" : `, by ${upkeepHandsName[hands]}`}
                          </span>
                        </span>
                        <span className="small max-[700px]:hidden">
                          {last ? (
                            <>
                              {upkeepResultName[last.result]}
                              {last.value !== null && (
                                <>
                                  {" "}
                                  <b className="fig">{`${last.value} ${last.unit ?? ""}`.trim()}</b>
                                </>
                              )}
                              , {dateAndTime(last.at, site.timeZone)}, {last.by}
                            </>
                          ) : (
                            <span className="soft">never on record</span>
                          )}
                        </span>
                        <Verdict result={standing.result}>{upkeepWord(standing, at.getTime(), site.timeZone)}</Verdict>
                      </>
                    }
                  >
                    <div className="grid gap-3 pt-1 pb-3">
                      <p className="m-0">{look}</p>
                      {caution && <p className="m-0 border-watch border-l-4 pl-3">{caution}</p>}
                      {leadsTo && <p className="soft m-0">Left alone: {leadsTo}.</p>}
                      {mayLog && <UpkeepForm code={item.code} hands={hands} measure={measure} />}
                      {done.length > 0 && (
                        <div>
                          <h3 className="m-0">On record{measure ? `, ${measureWindow(measure)}` : ""}</h3>
                          {done.map((d) => (
                            <div
                              key={d.recordId}
                              className="row grid-cols-[150px_110px_80px_minmax(0,1fr)_70px] max-[700px]:grid-cols-[minmax(0,1fr)_110px]"
                            >
                              <span className="fig small">{dateAndTime(d.at, site.timeZone)}</span>
                              <Verdict result={d.result === "not-in-order" ? "out" : "in"}>
                                {upkeepResultName[d.result]}
                              </Verdict>
                              <span className="fig num">{d.value === null ? "" : `${d.value} ${d.unit ?? ""}`}</span>
                              <span>
                                {d.who && <b>{d.who}. </b>}
                                {d.note} <Grade grade={d.value === null ? "by-procedure" : "measured"} />
                              </span>
                              <span className="small faint">{d.by}</span>
                            </div>
                          ))}
                        </div>
                      )}
                      {mayChange && (
                        <Fold summary="Change how it is kept up">
                          <UpkeepSetupForm
                            code={item.code}
                            seen={item.versionId}
                            equipment={equipment}
                            plan={{ what, stage, everyDays, look, leadsTo, caution, hands, measure, retired }}
                            save={keepUpkeep}
                          />
                        </Fold>
                      )}
                    </div>
                  </Fold>
                );
              })}
            </section>
          ))}
        {mayChange && (
          <Fold className="mt-5" summary="Keep up one more thing">
            <UpkeepSetupForm
              code={null}
              seen={null}
              plan={{
                what: "",
                stage: "pretreat",
                everyDays: 7,
                look: "",
                leadsTo: "",
                caution: "",
                hands: "line",
                measure: null,
                retired: false,
              }}
              save={keepUpkeep}
            />
          </Fold>
        )}
      </section>
      <Margin step="shift">
        {mayChange && toBegin.length > 0 && (
          <MarginBlock title="Begin from what is usual">
            <BeginUpkeep stages={toBegin} begin={beginUsualUpkeep} />
          </MarginBlock>
        )}
        <MarginBlock title="How it is judged">
          <p className="small">
            What was left not in order stays out, here and on Shift, until it is recorded in order or put right. Never
            on record is not known, not fine. Burners, interlocks, electrical work and lifting gear: licensed people
            only, by the maker’s book and local rules.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
