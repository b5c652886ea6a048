import type { Metadata } from "next";
import { notFound } from "next/navigation";
import type { UnitSystem } from "@/core/units";
import { compareCoat, movedSettings } from "@/server/coat/compare-coat";
import type { PowderLot } from "@/server/coat/powder-lots";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { showCoat } from "@/server/line/show-coat";
import { preferences } from "@/server/preferences";
import { loadRack, newest } from "@/server/rack/load-rack";
import { openOf } from "@/server/rack/open-of";
import { reworkPrice } from "@/server/release/rework-price";
import { personOnPage } from "@/server/sign-in/person";
import { may, seesCost } from "@/server/sign-in/roles";
import { CoachLines } from "@/ui/coat/coach-lines";
import { CoatChanges } from "@/ui/coat/coat-changes";
import { CoatForm } from "@/ui/coat/coat-form";
import { LampCheckForm } from "@/ui/coat/lamp-check-form";
import { CoatsOnRecord, LampsOnRecord } from "@/ui/coat/on-record";
import { PowderHeightForm } from "@/ui/coat/powder-height-form";
import { PreFlightForm } from "@/ui/coat/pre-flight-form";
import { SheetBlock } from "@/ui/coat/sheet-block";
import { WipeOffForm } from "@/ui/coat/wipe-off-form";
import { Fold } from "@/ui/fields/fold";
import { countOf, when, withUnit } from "@/ui/format";
import { FocusOnArrival } from "@/ui/frame/focus-on-arrival";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { AirNow } from "@/ui/prepare/air-now";
import { OpenItems } from "@/ui/rack/open-items";
import { RackTabs } from "@/ui/rack/rack-tabs";
import { earthSaid, preFlightOff } from "@/ui/words/coating";
import { money } from "@/ui/words/plan";

export const metadata: Metadata = { title: "Coat" };

const lotLabel = (lot: PowderLot, primer: boolean, units: UnitSystem): string =>
  [
    lot.code,
    lot.daysLeft >= 0
      ? `${countOf(Math.floor(lot.daysLeft), "day")} left`
      : `out of date ${countOf(Math.ceil(-lot.daysLeft), "day")}`,
    ...(lot.stockKg === null ? [] : [withUnit(lot.stockKg, "mass", units)]),
    ...(primer ? ["primer"] : []),
    ...(lot.panel?.result === "matches" ? [] : [lot.panel ? "panel off" : "no panel yet"]),
  ].join(", ");

export default async function CoatPage({
  params,
  searchParams,
}: {
  params: Promise<{ number: string }>;
  searchParams: Promise<{ sheet?: string }>;
}) {
  const person = await personOnPage();
  const { number } = await params;
  const rack = await loadRack(database(), person, number);
  if (!rack) notFound();
  const line = await currentLine(person);
  const [shown, { units }] = await Promise.all([
    showCoat(database(), person, rack, line.at, line.dewPointMarginC, (await searchParams).sheet ?? null),
    preferences(),
  ]);
  const wiped = reworkPrice(rack, shown.site, "wipe-off", null);
  const { site, sheet, air, coats, coatNo, loose, recoat, isPrimer, limits, flight, open, judged, read } = shown;
  const { transfer, targetUm, left, neededKg, faces, lamps, masks, past, risks, last, pairs } = shown;
  const { usable, firstLot, lotName, coatedSince, flightBefore, myPast, mine, film } = shown;
  const mayLog = may(person.role, "log-line");
  const lamped = lamps.length > 0;
  const summary = "link min-h-11 cursor-pointer content-center";
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              Rack {rack.number} · {rack.part.data.name} · {rack.powder.code} {rack.powder.data.name}
            </>
          }
          title={recoat ? `Coat ${coatNo}` : loose ? "Coat, loose powder" : "Coat"}
        >
          <div className="small soft">
            {coats.length === 0 ? "no coat on record" : `${coats.length} coat${coats.length > 1 ? "s" : ""} on record`}
          </div>
        </PageHead>
        <RackTabs number={rack.number} here="coat" standing={rack.standing} />
        <FocusOnArrival on="#bench form input.input:not([type=file])" />
        {recoat && mayLog && (
          <p className="caution mt-4">
            Over an old film: scuff it first and lower the voltage; the film underneath holds its charge.
          </p>
        )}
        <section className="ruled mt-4" aria-label="Pre-flight">
          <h2>Before powder goes on</h2>
          {flight && judged && (
            <p className="m-0">
              <Verdict result={judged.result}>
                {judged.off.length > 0
                  ? judged.off.map((i) => preFlightOff[i]).join("; ")
                  : judged.result === "in"
                    ? "all in order"
                    : "not all looked at"}
              </Verdict>{" "}
              <Grade grade={flight.base.grade} />{" "}
              <span className="small soft">
                {judged.earth && `${earthSaid(judged.earth, limits.earthLimitMohm)}, `}
                {when(flight.base.happened_at, line.at, line.timeZone)}, {flight.by}
                {coatedSince && "; coated since"}
              </span>
            </p>
          )}
          {open && judged && judged.stops.length > 0 && (
            <p role="alert" className="mt-2 border-l-4 border-out bg-out-tint p-3">
              <b>Stop.</b> {judged.stops.map((i) => preFlightOff[i]).join("; ")}: no powder goes on until it is put
              right and looked at again.
            </p>
          )}
          {mayLog && (
            <Fold
              open={!open && !loose}
              summaryClassName={summary}
              summary={open ? "Look again" : "Look at earth, air, booth and powder"}
            >
              <PreFlightForm
                key={flight?.base.id ?? "first"}
                rack={rack.number}
                sheet={sheet?.code ?? null}
                lot={firstLot?.code ?? null}
                recoat={recoat}
                limits={limits}
                last={flightBefore}
              />
            </Fold>
          )}
        </section>
        <OpenItems rack={rack.number} open={openOf(rack)} mayLog={mayLog} />
        <section className="ruled mt-5" aria-label="Coat">
          <h2>{coatNo > 1 ? `Coat ${coatNo}, and what is on it` : "The coat"}</h2>
          {mayLog ? (
            <Fold
              open={open !== undefined || coats.length === 0}
              summaryClassName={summary}
              summary="What is set and read at the gun"
            >
              <CoatForm
                key={`${coatNo}:${open?.base.id ?? ""}`}
                rack={rack.number}
                coatNo={coatNo}
                booth="booth 1"
                sheet={sheet ? { ...sheet.data, boothMetalC: site.boothMetalC } : null}
                sheetCode={sheet?.code ?? null}
                recoat={recoat}
                flight={{
                  // With a link unread the sum is only a least value.
                  earthMohm: open && judged?.earth?.unread.length === 0 ? judged.earth.totalMohm : null,
                  gunAirKPa: read("air-flowing"),
                  gunAirRestKPa: read("air-rest"),
                  hookCycles: read("hooks-stripped"),
                  boothAirMPerS: read("booth-air"),
                }}
                last={last && { ...last, metalC: null, hopperBeforeKg: null, hopperAfterKg: null, hopperAddedKg: null }}
                lots={usable.map((l) => ({
                  id: l.code,
                  primer: isPrimer(l),
                  label: lotLabel(l, isPrimer(l), units),
                  hazards: l.powder?.data.hazards ?? "",
                }))}
              />
            </Fold>
          ) : (
            <p className="soft">Coats are recorded by those on the line.</p>
          )}
          <CoatsOnRecord
            coats={coats}
            lotName={lotName}
            earthLimitMohm={sheet?.data.earthLimitMohm ?? null}
            now={line.at}
            timeZone={line.timeZone}
            units={units}
          />
        </section>
        {mine.length > 0 && (
          <section className="ruled mt-5" aria-label="Loose powder under the lamp">
            <h2>Loose powder under the lamp, before the oven</h2>
            <LampsOnRecord lamps={lamps} now={line.at} timeZone={line.timeZone} />
            {mayLog && (
              <>
                <Fold
                  open={!lamped}
                  summaryClassName={summary}
                  summary={lamped ? "Look again" : "Look at it under the lamp"}
                >
                  <LampCheckForm
                    key={lamps.at(-1)?.base.id ?? "first"}
                    rack={rack.number}
                    coatNo={Math.max(1, coatNo - 1)}
                    faces={faces}
                    masks={masks}
                  />
                </Fold>
                <Fold summaryClassName={summary} summary="Height of the loose powder, and the film it cures to">
                  <PowderHeightForm
                    rack={rack.number}
                    spots={rack.part.data.faces.flatMap((f) => f.spots.map((s) => ({ face: f.id, spot: s.id })))}
                    pairs={pairs}
                    film={film}
                  />
                </Fold>
                {!newest(rack, "bake") && (
                  <Fold summaryClassName={summary} summary="Not content: take the powder off and spray again">
                    <WipeOffForm
                      rack={rack.number}
                      powderCost={wiped && seesCost(person) ? money(wiped.cost, wiped.currency) : null}
                    />
                  </Fold>
                )}
              </>
            )}
          </section>
        )}
        {myPast && (
          <section className="ruled mt-5" aria-label="What changed">
            <h2>What changed since it was last good</h2>
            <CoatChanges
              compared={compareCoat(myPast, past)}
              moved={movedSettings(past, targetUm)}
              units={units}
              timeZone={line.timeZone}
            />
          </section>
        )}
      </section>
      <Margin step="coat">
        <MarginBlock title="Watch for">
          <CoachLines risks={risks} units={units} />
        </MarginBlock>
        <AirNow
          units={units}
          air={air}
          marginC={site.dewPointMarginC}
          now={line.at}
          timeZone={line.timeZone}
          mayLog={mayLog}
          quantities={["compressed-air-dew-point", "booth-air-speed", "air-temperature", "humidity"]}
          place="booth 1"
        />
        <SheetBlock rack={rack.number} sheet={sheet} fitting={shown.fitting} units={units} />
        {left && (
          <MarginBlock title="Left to build">
            <p>
              {left.length === 0 ? (
                <>What was read is at {withUnit(targetUm, "thickness", units)} in all already, or over it.</>
              ) : (
                <>
                  To {withUnit(targetUm, "thickness", units)} in all:{" "}
                  {left.map((um, i) => (
                    <span key={um}>
                      {i > 0 && ", "}
                      <b className="fig">{withUnit(um, "thickness", units)}</b>{" "}
                      {i === 0 ? "in one pass" : i === 1 ? "each in two" : "each in three"}
                    </span>
                  ))}
                  <span className="soft">, over what was read under it.</span>
                </>
              )}
            </p>
          </MarginBlock>
        )}
        <MarginBlock title="Powder for this rack">
          {neededKg === null ? (
            <p className="soft">The part’s area is not on record.</p>
          ) : (
            <p>
              About <b className="fig">{neededKg.toFixed(2)} kg</b> for {withUnit(targetUm, "thickness", units)}
              <span className="soft">
                {transfer
                  ? `; transfer ${(100 * transfer.mean).toFixed(0)} %${transfer.interval ? ` (${(100 * transfer.interval[0]).toFixed(0)} to ${(100 * transfer.interval[1]).toFixed(0)})` : ""}, learnt from ${transfer.n} racks`
                  : "; transfer taken as 60 %: weigh the hopper to learn it"}
              </span>{" "}
              <Grade grade={transfer?.relied ? "measured" : "assumed"} />
            </p>
          )}
        </MarginBlock>
      </Margin>
    </>
  );
}
