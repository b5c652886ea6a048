import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { bathSlug, blankMlOf, codeOfSlug, outStretches, titrationFactor } from "@/core/bath";
import { bathWork } from "@/server/baths/bath-work";
import { chemicalStock } from "@/server/baths/chemical-stock";
import { exposedRacks } from "@/server/baths/exposure";
import { type BathFile, loadBath } from "@/server/baths/load-bath";
import { washProofs } from "@/server/baths/wash-proofs";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop, seesCost } from "@/server/sign-in/roles";
import { AdditionAdvice } from "@/ui/bath/addition-advice";
import { BathCheckForm } from "@/ui/bath/bath-check-form";
import { BathVerdict, FigureVerdict, SeriesChart, SeriesWords } from "@/ui/bath/bath-panel";
import { ExposureList } from "@/ui/bath/exposure-list";
import { PanelTestForm } from "@/ui/bath/panel-test-form";
import { RinseFlow } from "@/ui/bath/rinse-flow";
import { PanelForm, SludgeForm } from "@/ui/bath/wash-proof-forms";
import { WashProofs } from "@/ui/bath/wash-proofs";
import { Fold } from "@/ui/fields/fold";
import { clock, countOf, plainly, when, withUnit } from "@/ui/format";
import { PhotoForm } from "@/ui/forms/photo-form";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Photos } from "@/ui/plan/photos";
import { bathFigure, bathWindow, parameterName, parameterUnit } from "@/ui/words/baths";
import { money } from "@/ui/words/plan";
import { attachPhoto } from "../../actions";

export const metadata: Metadata = { title: "Bath" };

/** The newest round as it was typed, so that it can be corrected. */
function lastRound(file: BathFile, timeZone: string) {
  const points = file.series
    .map((s) => ({ parameter: s.parameter, point: s.points.at(-1) }))
    .filter((x) => x.point !== undefined);
  const newest = points.reduce<(typeof points)[number] | null>(
    (last, x) => (!last || (x.point?.at ?? 0) > (last.point?.at ?? 0) ? x : last),
    null,
  )?.point;
  if (!newest) return null;
  const mine = points.filter((x) => x.point?.recordId === newest.recordId);
  return {
    recordId: newest.recordId,
    label: clock(newest.at, timeZone),
    typed: Object.fromEntries(mine.map((x) => [x.parameter, x.point?.typed ?? ""])),
    blank: null,
  };
}

/** Newest times out of window listed with their racks. */
const STRETCHES_SHOWN = 6;

export default async function BathPage({ params }: { params: Promise<{ bath: string }> }) {
  const person = await personOnPage();
  const line = await currentLine(person);
  const file = await loadBath(database(), codeOfSlug((await params).bath), line.at);
  if (!file) notFound();
  const { data } = file.bath;
  const { units } = await preferences();
  const stretches = file.series
    .flatMap((s) =>
      outStretches(
        s.points.map((p) => ({ atMs: p.at.getTime(), value: p.value })),
        s.window,
      ).map((stretch) => ({ parameter: s.parameter, stretch })),
    )
    .sort((a, b) => b.stretch.firstOutMs - a.stretch.firstOutMs)
    .slice(0, STRETCHES_SHOWN);
  const [exposures, proofs, stock, site, work] = await Promise.all([
    Promise.all(
      stretches.map(async ({ parameter, stretch }) => ({
        parameter,
        stretch,
        exposure: await exposedRacks(
          database(),
          person,
          data.stage,
          new Date(stretch.fromMs),
          new Date(stretch.toMs ?? line.at.getTime()),
        ),
      })),
    ),
    washProofs(database(), file.bath, line.at),
    chemicalStock(database(), line.at),
    siteAt(database(), line.at),
    // How much a shop runs through its baths is its own affair.
    ofTheShop(person) ? bathWork(database(), file.bath, line.at) : null,
  ]);
  const reaction = file.series.find((s) => s.reaction);
  return (
    <>
      <section className="bench">
        <PageHead
          above={`${withUnit(data.volumeL, "volume", units)} · round every ${data.roundHours} h`}
          title={data.name}
        >
          <BathVerdict file={file} now={line.at} timeZone={line.timeZone} />
        </PageHead>
        {reaction?.reaction && (
          <p className="mt-3 mb-0 border-l-4 border-out pl-3">
            <b>
              {parameterName[reaction.parameter]} out since {when(reaction.reaction.since, line.at, line.timeZone)}.
            </b>{" "}
            {reaction.reaction.what}. It stays on Shift until a good check closes it.
          </p>
        )}
        <div className="ruled mt-3 grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-4">
          {file.series.map((s) => {
            const last = s.points.at(-1);
            return (
              <div key={s.parameter}>
                <span className="small soft">{parameterName[s.parameter]}</span>
                <div className="fig text-[28px] font-bold leading-tight">
                  {last ? bathFigure(s.parameter, last.value, units) : "–"}{" "}
                  <span className="text-[14px] font-medium">{parameterUnit(s.parameter, units)}</span>
                </div>
                <FigureVerdict series={s} now={line.at} timeZone={line.timeZone} />{" "}
                <span className="small faint">{bathWindow(s.parameter, s.window, units)}</span>
              </div>
            );
          })}
        </div>
        {file.series.map((s) => (
          <div key={s.parameter} className="mt-5">
            <div className="flex flex-wrap items-baseline justify-between gap-3">
              <h2>
                {parameterName[s.parameter]}, {s.points.length} checks
              </h2>
              <Link
                className="link inline-flex min-h-11 items-center"
                href={`/pretreat/${bathSlug(file.bath.code)}/history?value=${s.parameter}`}
              >
                all there is
              </Link>
            </div>
            <div className="mt-1.5">
              <SeriesChart series={s} file={file} now={line.at} timeZone={line.timeZone} units={units} width={820} />
            </div>
            <SeriesWords series={s} now={line.at} timeZone={line.timeZone} units={units} />
          </div>
        ))}
        <div className="mt-6">
          <WashProofs
            panels={data.role === "conversion" ? proofs.panels : null}
            sludge={proofs.sludge}
            tests={proofs.tests}
            worstIso={site.crossCutWorstIso}
            asked={data.weightGPerM2}
            now={line.at}
            timeZone={line.timeZone}
            units={units}
          />
        </div>
        {proofs.photos.length > 0 && (
          <section className="ruled mt-6" aria-label="Photos of test strips">
            <h2>Test strips, as they were held to the light</h2>
            <Photos
              photos={proofs.photos.map((p) => ({
                id: p.fileId,
                caption: p.caption,
                when: when(p.at, line.at, line.timeZone),
              }))}
            />
          </section>
        )}
        {exposures.length > 0 && (
          <section className="mt-6" aria-label="Out of window">
            <h2>Out of its window, and what passed then</h2>
            {exposures.map(({ parameter, stretch, exposure }) => (
              <ExposureList
                key={`${parameter}${stretch.firstOutMs}`}
                parameter={parameter}
                stretch={stretch}
                exposure={exposure}
                now={line.at}
                timeZone={line.timeZone}
                units={units}
              />
            ))}
          </section>
        )}
      </section>
      <Margin step="pretreat">
        {may(person.role, "log-line") && (
          <MarginBlock title="Log a check">
            <BathCheckForm
              bath={file.bath.code}
              parameters={file.series.map((s) => s.parameter)}
              titrations={Object.fromEntries(
                file.series.flatMap((s) => {
                  const factor = titrationFactor(data, s.parameter);
                  return factor === null ? [] : [[s.parameter, { factor, blankMl: blankMlOf(data, s.parameter) }]];
                }),
              )}
              drums={stock.filter((c) => c.leftL > 0)}
              windows={data.windows}
              last={lastRound(file, line.timeZone)}
            />
          </MarginBlock>
        )}
        <AdditionAdvice file={file} units={units} />
        <div className="mt-5" />
        {data.role === "rinse" && (
          <MarginBlock title="Overflow it needs">
            <RinseFlow bath={file.bath.code} limit={data.windows.conductivity?.upper ?? null} />
          </MarginBlock>
        )}
        {work && (
          <MarginBlock title="Work done">
            <p className="m-0">
              <b className="fig">{withUnit(work.areaM2, "area", units)}</b> in {countOf(work.racks, "rack")} since{" "}
              {work.madeUp ? "it was made up, " : ""}
              {when(work.since, line.at, line.timeZone)}
              {work.sinceAdditionM2 !== null && (
                <span className="soft">
                  ; <span className="fig">{withUnit(work.sinceAdditionM2, "area", units)}</span> since the last addition
                </span>
              )}
            </p>
            {work.products.map((p) => (
              <div key={p.product} className="row grid-cols-[minmax(0,1fr)_auto]">
                <span>{p.product || "no name"}</span>
                <span className="num">
                  {withUnit(p.litres, "volume", units)}
                  {p.per100M2 !== null && <span className="soft"> · {p.per100M2.toFixed(2)} L per 100 m²</span>}
                  {p.costPer100M2 !== null && seesCost(person) && (
                    <span className="block">
                      {money(p.costPer100M2 / 100, site.rates?.currency ?? "")} <span className="soft">per m²</span>
                    </span>
                  )}
                </span>
              </div>
            ))}
            {work.notMeasured > 0 && (
              <p className="small soft m-0">{countOf(work.notMeasured, "rack")} of parts never measured not counted.</p>
            )}
          </MarginBlock>
        )}
        {may(person.role, "log-line") && (
          <MarginBlock title="Proofs">
            {data.role === "conversion" && (
              <Fold summary="A panel, weighed or by colour">
                <PanelForm bath={file.bath.code} asked={data.weightGPerM2} />
              </Fold>
            )}
            <Fold summary="Sludge or filter">
              <SludgeForm bath={file.bath.code} />
            </Fold>
            {data.role === "conversion" && may(person.role, "inspect") && (
              <Fold summary="A coated panel, tested">
                <PanelTestForm bath={file.bath.code} worstIso={site.crossCutWorstIso} />
              </Fold>
            )}
            <Fold summary="Photo of a test strip">
              <PhotoForm
                of={{ bath: file.bath.code }}
                attach={attachPhoto}
                title="Test strip, beside its colour card"
              />
            </Fold>
          </MarginBlock>
        )}
        <MarginBlock title="Additions and changes">
          {file.events.length === 0 && <p className="soft">None in the last weeks.</p>}
          {[...file.events]
            .reverse()
            .slice(0, 8)
            .map((e) => (
              <div key={e.recordId} className="row grid-cols-[92px_minmax(0,1fr)]">
                <span className="fig faint small">{when(e.at, line.at, line.timeZone)}</span>
                <span>
                  {e.event}
                  {e.amountL !== null ? (
                    <>
                      {" "}
                      of <b className="fig">{plainly(e.amountL, "volume", units)}</b>
                    </>
                  ) : (
                    ""
                  )}{" "}
                  {e.product}
                </span>
              </div>
            ))}
        </MarginBlock>
      </Margin>
    </>
  );
}
