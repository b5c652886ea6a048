import type { Metadata } from "next";
import { cureProofs } from "@/server/cure/cure-proof";
import { proofCoverage } from "@/server/cure/proof-coverage";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { siteItemAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { ProofChart } from "@/ui/charts/proof-chart";
import { CoverageOfProof } from "@/ui/cure/coverage-of-proof";
import { CurePlanForm } from "@/ui/cure/cure-plan-form";
import { CureTabs } from "@/ui/cure/cure-tabs";
import { TrialForm } from "@/ui/cure/trial-form";
import { Fold } from "@/ui/fields/fold";
import { dayMonth, percent } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { cureTestName, cureTestValue } from "@/ui/words/bench";
import { keepCurePlan } from "../../actions";

export const metadata: Metadata = { title: "Proof of cure" };
/** The newest tests shown one by one. */
const OTHERS_SHOWN = 40;

export default async function ProofPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const [proofs, kept] = await Promise.all([cureProofs(database(), person, line.at), siteItemAt(database(), line.at)]);
  const site = kept.data;
  const coverage = await proofCoverage(database(), person, site.proofEveryLoads, line.at);
  const { agreement: a, points } = proofs;
  const missed = points.filter((p) => p.index >= 100 && !p.passed);
  return (
    <>
      <section className="bench">
        <PageHead above="Cure: what the index says against what the rub says" title="Proof of cure">
          {a && (
            <Verdict result={a.indexMissed > 0 ? "watch" : "in"}>
              {a.agree} of {a.pairs} agree
            </Verdict>
          )}
        </PageHead>
        <CureTabs here="proof" />
        {!a && (
          <p className="mt-4">No rack has both a solvent rub and a trace yet. Rub the panel that rode with a probe.</p>
        )}
        {a && (
          <div className="mt-3 grid grid-cols-[570px_minmax(0,1fr)] gap-8 max-[1000px]:grid-cols-1">
            <div>
              <ProofChart points={points} safeIndex={a.safeIndex} />
            </div>
            <div className="ruled">
              <div className="row grid-cols-[minmax(0,1fr)_auto]">
                <span>Index and rub agree</span>
                <span className="num">
                  <b>{percent(a.share)}</b>, {percent(a.interval[0])}–{percent(a.interval[1])}
                </span>
              </div>
              <div className="row grid-cols-[minmax(0,1fr)_auto]">
                <span>Cured by the index, failed the rub</span>
                <b className={`num ${a.indexMissed > 0 ? "text-out" : ""}`}>{a.indexMissed}</b>
              </div>
              <div className="row grid-cols-[minmax(0,1fr)_auto]">
                <span>Short by the index, passed the rub</span>
                <b className="num">{a.indexTooStrict}</b>
              </div>
              <div className="row grid-cols-[minmax(0,1fr)_auto]">
                <span>
                  This shop’s own safe index
                  {a.safeIndex === null && <span className="soft"> (from ten rubs in a row that passed)</span>}
                </span>
                <b className="num">{a.safeIndex === null ? "not known" : a.safeIndex.toFixed(0)}</b>
              </div>
              {a.mayFailMost !== null && (
                <p className="soft m-0 mt-1">
                  {a.provenAbove} rubs from there on, none failed: up to {percent(a.mayFailMost)} may still. Loads are
                  planned to {site.plannedIndex}.
                </p>
              )}
              {a.safeIndex !== null && a.safeIndex > site.plannedIndex && (
                <p className="m-0 mt-1 text-watch">
                  That is under this shop’s own safe index: a lead can raise what loads are planned to.
                </p>
              )}
              {missed.map((p) => (
                <p key={p.rack} className="m-0 mt-1">
                  <Link className="link fig" href={`/racks/${p.rack}/cure`}>
                    {p.rack}
                  </Link>{" "}
                  had index {p.index.toFixed(0)} and rubbed to grade {p.grade}: was the probe on its heaviest place?
                </p>
              ))}
            </div>
          </div>
        )}
        {coverage && <CoverageOfProof coverage={coverage} timeZone={line.timeZone} />}
        {may(person.role, "release") && (
          <Fold className="no-print mt-2" summary="Change what loads are planned to, and how often cure is proven">
            <CurePlanForm
              key={kept.versionId}
              seen={kept.versionId}
              plannedIndex={site.plannedIndex}
              planHoldToo={site.planHoldToo}
              proofEveryLoads={site.proofEveryLoads}
              handleBelowC={site.handleBelowC}
              keep={keepCurePlan}
            />
          </Fold>
        )}
        {proofs.byMonth.length > 1 && (
          <div className="ruled mt-5">
            <h2>Agreement over the months</h2>
            {proofs.byMonth.map(({ month, agreement: m }) => (
              <div key={month} className="row grid-cols-[120px_130px_150px_minmax(0,1fr)] max-[700px]:grid-cols-2">
                <b className="fig">{month}</b>
                <span className="num">
                  {m.agree} of {m.pairs}
                </span>
                <span className="num">
                  {percent(m.interval[0])}–{percent(m.interval[1])}
                </span>
                <span className={m.indexMissed > 0 ? "text-out" : "soft"}>
                  {m.indexMissed > 0 ? `${m.indexMissed} cured by the index, failed the rub` : "none missed"}
                </span>
              </div>
            ))}
          </div>
        )}
        {proofs.byPlace.length > 0 && (
          <div className="ruled mt-5">
            <h2>By place in the oven</h2>
            {proofs.byPlace.map((p) => (
              <div key={p.place} className="row grid-cols-[120px_120px_minmax(0,1fr)]">
                <b>{p.place}</b>
                <span className="num">index {p.meanIndex.toFixed(0)}</span>
                <span className={p.failed > 0 ? "text-out" : "soft"}>
                  {p.rubs} {p.rubs === 1 ? "rub" : "rubs"}, {p.failed === 0 ? "none failed" : `${p.failed} failed`}
                </span>
              </div>
            ))}
          </div>
        )}
        {proofs.others.length > 0 && (
          <div className="ruled mt-5">
            <h2>Hardness, impact, bend, gloss and colour beside the index</h2>
            {proofs.others.slice(0, OTHERS_SHOWN).map((o) => (
              <Link
                key={o.test + o.rack + o.at.getTime()}
                href={`/racks/${o.rack}/cure`}
                className="row min-h-11 grid-cols-[80px_64px_minmax(0,1fr)_110px_110px_110px] items-center text-ink no-underline hover:bg-sorrel-tint max-[820px]:grid-cols-[80px_64px_minmax(0,1fr)]"
              >
                <span className="fig soft">{dayMonth(o.at, line.timeZone)}</span>
                <b className="fig">{o.rack}</b>
                <span>
                  {cureTestName[o.test]} <span className="soft">place {o.place}</span>
                </span>
                <span className="num max-[820px]:col-start-3">{cureTestValue(o.test, o.value)}</span>
                <span className="num max-[820px]:col-start-3">index {o.index.toFixed(0)}</span>
                <span className="max-[820px]:col-start-3">
                  <Verdict result={o.result}>
                    {o.result === "in" ? "In" : o.result === "out" ? "Out" : "Nothing asked"}
                  </Verdict>
                </span>
              </Link>
            ))}
            {proofs.others.length > OTHERS_SHOWN && (
              <p className="soft m-0">and {proofs.others.length - OTHERS_SHOWN} older</p>
            )}
          </div>
        )}
        <div className="ruled mt-5">
          <h2>Trials</h2>
          {proofs.trials.length === 0 && (
            <p className="soft m-0">
              None yet. Two programs on like panels, one test, and it says whether they differ.
            </p>
          )}
          {proofs.trials.map((trial) => (
            <div
              key={trial.recordId}
              className="row grid-cols-[80px_minmax(0,1fr)_250px_130px] items-center max-[820px]:grid-cols-[80px_minmax(0,1fr)]"
            >
              <span className="fig">{dayMonth(trial.at, line.timeZone)}</span>
              <span>
                <b>{trial.question}</b>{" "}
                <span className="soft">
                  {trial.test}: {trial.programA} {trial.compared.before.mean.toFixed(1)}, {trial.programB}{" "}
                  {trial.compared.after.mean.toFixed(1)} {trial.unit}
                </span>
              </span>
              <span className="num max-[820px]:col-start-2">
                {trial.compared.difference > 0 ? "+" : ""}
                {trial.compared.difference.toFixed(1)} ({trial.compared.interval[0].toFixed(1)} to{" "}
                {trial.compared.interval[1].toFixed(1)})
              </span>
              <span className="max-[820px]:col-start-2">
                {trial.compared.says === "cannot-tell" ? "cannot be told apart" : "they differ"}
              </span>
            </div>
          ))}
          {may(person.role, "inspect") && (
            <Fold className="mt-2" summary="Keep a trial">
              <TrialForm />
            </Fold>
          )}
        </div>
      </section>
      <Margin step="cure">
        <MarginBlock title="What counts">
          <p>
            A rub on a rack, against the index of the channel whose probe was on it, or of the slowest of its load.
            Grade against the powder’s own known-cured panel.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
