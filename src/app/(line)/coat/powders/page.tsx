import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { coverageM2PerKg } from "@/core/powder";
import { powderLots } from "@/server/coat/powder-lots";
import { POWDER_STORE } from "@/server/coat/powder-store";
import { database } from "@/server/database";
import { dayIn } from "@/server/day";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop, seesCost } from "@/server/sign-in/roles";
import { ScheduleCurve } from "@/ui/charts/schedule-curve";
import { FirstPanelForm } from "@/ui/coat/first-panel-form";
import { JudgeAgain } from "@/ui/coat/judge-again";
import { LotsForm } from "@/ui/coat/lots-form";
import { OpenLot } from "@/ui/coat/open-lot";
import { PowderForm } from "@/ui/coat/powder-form";
import { PowderPhotos } from "@/ui/coat/powder-photos";
import { PowdersForm } from "@/ui/coat/powders-form";
import { Fold } from "@/ui/fields/fold";
import { countOf, dateAndTime, dayMonth, withUnit } from "@/ui/format";
import { LabelLinks } from "@/ui/frame/label-links";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { AirForm } from "@/ui/prepare/air-form";
import { familyName, money } from "@/ui/words/plan";
import { attachPowderPhoto, keepPowder, keepPowderList, openPowderLot, takeLots } from "../../actions";

export const metadata: Metadata = { title: "Powders and lots" };

/** A lot with fewer days than this is worth a word. */
const NEARLY_OLD_DAYS = 30;
const NEARLY_EMPTY_KG = 5;
const blank = {
  name: "",
  chemistry: "polyester",
  minUm: 60,
  maxUm: 90,
  specificGravity: 1.6,
  schedule: [],
  overbake: [],
  onsetC: null,
  gel: null,
  climbCPerMin: null,
  shelfLifeDays: 365,
  knownCuredRubGrade: 5,
  traits: [],
  weathering: "standard",
  family: "polyester",
  pricePerKg: null,
  smoothness: null,
  glossGu: null,
  swatch: null,
  storeMostC: 25,
  mostPerCoatUm: null,
  mostInAllUm: null,
  yearsPromised: null,
  hazards: "",
};

export default async function PowdersPage() {
  const person = await personOnPage();
  // What a shop has in store is its own affair.
  if (!ofTheShop(person)) notFound();
  const at = now();
  const [lots, powders, site, { units }] = await Promise.all([
    powderLots(database(), at),
    setupAt(database(), "powder", at),
    siteAt(database(), at),
    preferences(),
  ]);
  const [mayLog, mayInspect, mayChange] = (["log-line", "inspect", "release"] as const).map((a) => may(person.role, a));
  const currency = site.rates?.currency ?? "";
  const old = lots.filter((l) => l.daysLeft < 0).length;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/coat">
              Coat
            </Link>
          }
          title="Powders and lots"
        >
          <Verdict result={lots.length === 0 ? "unknown" : old > 0 ? "out" : "in"}>
            {lots.length === 0 ? "no lot on record" : old > 0 ? `${old} out of date` : "all in date"}
          </Verdict>
        </PageHead>
        <section className="ruled mt-3" aria-label="Lots">
          <h2>Lots, the one to use first on top</h2>
          {lots.length === 0 && <p className="soft">No lot is in stock on record. Take one in, in the margin.</p>}
          {lots.map((lot) => {
            const state =
              lot.failure !== null || !Number.isFinite(lot.daysLeft)
                ? ("unknown" as const)
                : lot.daysLeft < 0
                  ? ("out" as const)
                  : lot.daysLeft < NEARLY_OLD_DAYS
                    ? ("watch" as const)
                    : ("in" as const);
            return (
              <Fold
                key={lot.id}
                id={lot.code}
                className="border-rule border-b"
                summaryClassName="row min-h-[46px] list-none grid-cols-[minmax(0,1fr)_150px_120px_150px] items-center border-0 hover:bg-sorrel-tint max-[700px]:grid-cols-[minmax(0,1fr)_130px] w-full"
                summary={
                  <>
                    <span>
                      <b className="fig">{lot.code}</b> <span className="soft">{lot.powder?.data.name}</span>
                    </span>
                    <Verdict result={state}>
                      {Number.isFinite(lot.daysLeft)
                        ? lot.daysLeft < 0
                          ? `out of date ${Math.ceil(-lot.daysLeft)} d`
                          : `${countOf(Math.floor(lot.daysLeft), "day")} left`
                        : "not known"}
                    </Verdict>
                    <span
                      className={`num max-[700px]:hidden ${lot.stockKg !== null && lot.stockKg < NEARLY_EMPTY_KG ? "text-watch" : ""}`}
                    >
                      {lot.stockKg === null ? "not weighed in" : withUnit(lot.stockKg, "mass", units)}
                    </span>
                    <span className="max-[700px]:hidden">
                      <Verdict result={lot.panel === null ? "unknown" : lot.panel.result === "off" ? "out" : "in"}>
                        {lot.panel === null
                          ? "no first panel"
                          : lot.panel.result === "off"
                            ? "panel off"
                            : "panel matches"}
                      </Verdict>
                    </span>
                  </>
                }
              >
                <div className="grid gap-2 pt-1 pb-2">
                  <p className="m-0">
                    Made {lot.madeOn}, received {lot.receivedOn}, {lot.openedOn ? `opened ${lot.openedOn}` : "shut"}
                    {lot.receivedKg !== null && (
                      <>
                        ,{" "}
                        <b className="fig">{lot.receivedKg === null ? "?" : withUnit(lot.receivedKg, "mass", units)}</b>
                        , of which the hopper took <b className="fig">{withUnit(lot.usedKg, "mass", units)}</b>
                      </>
                    )}
                    .{" "}
                    {lot.age && lot.age.warmDays > 0.5 && (
                      <span className="text-watch">
                        Warm storage used up {countOf(Math.round(lot.age.warmDays), "day")} more than the calendar (rule
                        of thumb, store read on {Math.round(lot.age.readDays)} days).
                      </span>
                    )}
                    {lot.panel && (
                      <span className="soft">
                        {" "}
                        Panel {dayMonth(lot.panel.at, site.timeZone)}, {lot.panel.by}
                        {lot.panel.gloss !== null && `, gloss ${lot.panel.gloss} GU`}
                        {lot.panel.deltaE !== null && `, ΔE ${lot.panel.deltaE.toFixed(1)}`}.
                      </span>
                    )}
                  </p>
                  <LabelLinks name="Label of this lot" query={{ of: "lot", number: lot.code }} />
                  {mayLog && lot.openedOn === null && <OpenLot lot={lot.code} open={openPowderLot} />}
                  {mayInspect && (
                    <FirstPanelForm
                      lot={lot.code}
                      swatch={lot.powder?.data.swatch?.code ?? null}
                      gloss={lot.powder?.data.glossGu ?? null}
                    />
                  )}
                </div>
              </Fold>
            );
          })}
        </section>
        <section className="ruled mt-6" aria-label="Data sheets">
          <h2>Powders, by their data sheets</h2>
          {[...powders.values()].map((p) => {
            const d = p.data;
            const cover = coverageM2PerKg({ specificGravity: d.specificGravity, thicknessUm: (d.minUm + d.maxUm) / 2 });
            return (
              <Fold
                key={p.versionId}
                className="border-rule border-b"
                summaryClassName="row min-h-[46px] list-none grid-cols-[80px_minmax(0,1fr)_172px_minmax(0,1.2fr)] items-center border-0 hover:bg-sorrel-tint max-[700px]:grid-cols-[80px_minmax(0,1fr)] w-full"
                summary={
                  <>
                    <b className="fig">{p.code}</b>
                    <span>
                      {d.name}{" "}
                      <span className="small soft block">
                        {familyName[d.family]}, {d.weathering}
                        {d.traits.includes("primer") ? ", primer" : ""}
                      </span>
                    </span>
                    <span className="num max-[700px]:hidden">
                      {withUnit(d.minUm, "thickness", units)} to {withUnit(d.maxUm, "thickness", units)}
                    </span>
                    <span className="small max-[700px]:hidden">
                      {d.schedule
                        .map((s) => `${s.minutes} min at ${withUnit(s.metalC, "temperature", units)}`)
                        .join(", ")}
                    </span>
                  </>
                }
              >
                <div className="grid gap-2 pt-1 pb-2">
                  <p className="m-0">
                    Specific gravity <b className="fig">{d.specificGravity}</b>
                    {cover.ok && (
                      <>
                        , covers <b className="fig">{withUnit(cover.value, "area", units)}</b> a kg at the middle of its
                        film
                      </>
                    )}
                    {d.glossGu && `, gloss ${d.glossGu[0]} ± ${d.glossGu[1]} GU`}
                    {d.swatch && `, swatch ${d.swatch.code} within ΔE ${d.swatch.deltaE}`}, shelf life {d.shelfLifeDays}{" "}
                    days
                    {d.storeMostC !== null && ` up to ${withUnit(d.storeMostC, "temperature", units)}`}
                    {d.mostPerCoatUm !== null &&
                      `, at most ${withUnit(d.mostPerCoatUm, "thickness", units)} in one coat`}
                    {d.mostInAllUm !== null && `, ${withUnit(d.mostInAllUm, "thickness", units)} in all`}
                    {d.yearsPromised !== null && `, ${countOf(d.yearsPromised, "year")} promised by its maker`}
                    {seesCost(person) && d.pricePerKg !== null && `, ${money(d.pricePerKg, currency)} a kg`}.
                  </p>
                  {(d.gel || d.climbCPerMin) && (
                    <p className="m-0">
                      {d.gel && (
                        <>
                          As a primer gelled by{" "}
                          <b className="fig">
                            {d.gel.leastMin}–{d.gel.mostMin} min
                          </b>{" "}
                          with the metal at {withUnit(d.gel.metalC, "temperature", units)}.{" "}
                        </>
                      )}
                      {d.climbCPerMin && (
                        <>
                          While it melts the metal climbs{" "}
                          <b className="fig">
                            {withUnit(d.climbCPerMin[0], "temperatureDifference", units).split(" ")[0]}–
                            {withUnit(d.climbCPerMin[1], "temperatureDifference", units)}
                          </b>{" "}
                          a minute.
                        </>
                      )}
                    </p>
                  )}
                  <ScheduleCurve
                    schedule={{ points: d.schedule, overbake: d.overbake, onsetC: d.onsetC }}
                    units={units}
                  />
                  {d.hazards && <p className="caution m-0">{d.hazards}</p>}
                  <PowderPhotos code={p.code} photos={d.photos} change={mayChange ? attachPowderPhoto : null} />
                  {mayInspect && ofTheShop(person) && <JudgeAgain code={p.code} timeZone={site.timeZone} />}
                  <p className="small faint m-0">This version since {dateAndTime(p.validFrom, site.timeZone)}</p>
                  {mayChange && (
                    <Fold summary="Change the sheet">
                      <PowderForm code={p.code} seen={p.versionId} powder={d} save={keepPowder} />
                    </Fold>
                  )}
                </div>
              </Fold>
            );
          })}
          {mayChange && (
            <Fold className="mt-3" summary="Put a new powder on record">
              <PowderForm code={null} seen={null} powder={blank} save={keepPowder} />
            </Fold>
          )}
          {mayChange && (
            <Fold summary="Put several on record from a list (CSV)">
              <PowdersForm save={keepPowderList} />
            </Fold>
          )}
        </section>
      </section>
      <Margin step="coat">
        {mayLog && (
          <MarginBlock title="Lots came in">
            <LotsForm today={dayIn(at, site.timeZone)} receive={takeLots} />
          </MarginBlock>
        )}
        {mayLog && (
          <MarginBlock title="Air of the powder store">
            <AirForm place={POWDER_STORE} quantities={["air-temperature", "humidity"]} marginC={site.dewPointMarginC} />
          </MarginBlock>
        )}
        <MarginBlock title="How days are counted">
          <p className="small">
            Shelf life by its sheet, less its age; a day above 25 °C counts 2^((T − 25)/10) days, where the store was
            read.
            {site.warmStorageCounts
              ? " A rule of thumb, and the site can switch it off."
              : " Switched off at this site."}{" "}
            Stock is what came in less what the hopper’s weights say was sprayed.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
