import type { Metadata } from "next";
import { notFound } from "next/navigation";
import type { CoatSituation } from "@/core/coating";
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
import { PowderHeightForm } from "@/ui/coat/powder-height-form";
import { PreFlightForm } from "@/ui/coat/pre-flight-form";
import { WipeOffForm } from "@/ui/coat/wipe-off-form";
import { Fold } from "@/ui/fields/fold";
import { countOf, when, withUnit } from "@/ui/format";
import { FocusOnArrival } from "@/ui/frame/focus-on-arrival";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { AirNow } from "@/ui/prepare/air-now";
import { OpenItems } from "@/ui/rack/open-items";
import { RackTabs } from "@/ui/rack/rack-tabs";
import { earthSaid, lampWhatName, preFlightOff, situationName, systemName } from "@/ui/words/coating";
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
          {coats.map(({ base, by, row }) => {
            const out = sheet && row.earth_mohm !== null && row.earth_mohm > sheet.data.earthLimitMohm;
            const usedKg =
              row.hopper_before_kg !== null && row.hopper_after_kg !== null
                ? row.hopper_before_kg + (row.hopper_added_kg ?? 0) - row.hopper_after_kg
                : null;
            return (
              <div
                key={base.id}
                className="row grid-cols-[80px_minmax(0,1fr)_130px_26px] items-center max-[700px]:grid-cols-[64px_minmax(0,1fr)_26px]"
              >
                <b>Coat {row.coat_no}</b>
                <span>
                  {row.layer}, {lotName.get(row.lot_id)}, {row.booth}
                  {row.situation && `, ${situationName[row.situation as CoatSituation]}`}
                  {row.system && row.system !== "single" && `, ${systemName[row.system as keyof typeof systemName]}`}
                  {row.kv !== null && (
                    <>
                      , <b className="fig">{row.kv} kV</b>
                    </>
                  )}
                  {row.gun_air_kpa !== null && (
                    <>
                      , air <b className="fig">{withUnit(row.gun_air_kpa, "pressure", units)}</b>
                    </>
                  )}
                  {row.booth_air_m_per_s !== null && (
                    <>
                      , draught <b className="fig">{withUnit(Number(row.booth_air_m_per_s), "airSpeed", units)}</b>
                    </>
                  )}
                  {row.sprayed_hot && (
                    <b className="text-watch">
                      , hot-applied{row.metal_c === null ? "" : ` at ${withUnit(row.metal_c, "temperature", units)}`}
                    </b>
                  )}
                  {row.reclaim_percent !== null && `, reclaim ${row.reclaim_percent} %`}
                  {usedKg !== null && (
                    <>
                      , <b className="fig">{withUnit(usedKg, "mass", units, 1)}</b> out of the hopper
                    </>
                  )}
                  <span className="faint small block">
                    {when(base.happened_at, line.at, line.timeZone)}, {by}
                  </span>
                </span>
                <span className="max-[700px]:hidden">
                  <Verdict result={row.earth_mohm === null ? "unknown" : out ? "out" : "in"}>
                    {row.earth_mohm === null ? "earth not read" : `earth ${row.earth_mohm} MΩ`}
                  </Verdict>
                </span>
                <Grade grade={base.grade} />
              </div>
            );
          })}
        </section>
        {mine.length > 0 && (
          <section className="ruled mt-5" aria-label="Loose powder under the lamp">
            <h2>Loose powder under the lamp, before the oven</h2>
            {lamps.map((r) => {
              const row = r.details.lamp_check?.[0];
              const spots = r.details.light_spot ?? [];
              const left = spots.filter((s) => s.what === "light-left").length;
              return (
                row && (
                  <p key={r.base.id} className="m-0">
                    <Verdict result={row.bumped ? "out" : left > 0 ? "watch" : "in"}>
                      {row.bumped
                        ? "bumped: look at it before the oven"
                        : left > 0
                          ? `${left} light ${left === 1 ? "place" : "places"} left`
                          : spots.length > 0
                            ? `${spots.length} ${spots.length === 1 ? "place" : "places"}: ${[...new Set(spots.map((s) => lampWhatName[s.what as keyof typeof lampWhatName]))].join(", ")}`
                            : "nothing shines through"}
                    </Verdict>{" "}
                    <span className="small soft">
                      {row.wiped && "fits wiped, "}
                      {row.plugs_in !== null && `${row.plugs_in} plugs in, `}
                      {row.note && `${row.note}, `}
                      {when(r.base.happened_at, line.at, line.timeZone)}, {r.by}
                    </span>
                  </p>
                )
              );
            })}
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
        <MarginBlock title={sheet ? `Set-up sheet, ${sheet.code}` : "Set-up sheet"}>
          {sheet ? (
            <div className="grid gap-0.5">
              <p className="m-0">
                Voltage <b className="fig">{sheet.data.kv.join("–")} kV</b>, recesses{" "}
                <b className="fig">{sheet.data.recessKv} kV</b>
                {sheet.data.recoatKv && (
                  <>
                    , recoat <b className="fig">{sheet.data.recoatKv.join("–")} kV</b>
                  </>
                )}
              </p>
              <p className="m-0">
                Gun air{" "}
                <b className="fig">
                  {withUnit(sheet.data.gunAirKPa[0], "pressure", units)} to{" "}
                  {withUnit(sheet.data.gunAirKPa[1], "pressure", units)}
                </b>
                , {sheet.data.airReadAt === "flowing" ? "flowing" : "at rest"}
              </p>
              <p className="m-0">
                Earth under <b className="fig">{sheet.data.earthLimitMohm} MΩ</b>; hooks stripped by{" "}
                <b className="fig">{sheet.data.hookCyclesLimit}</b> uses
              </p>
              {(sheet.data.gun || sheet.data.tip) && (
                <p className="m-0">
                  {[sheet.data.gun, sheet.data.tip && `tip ${sheet.data.tip}`].filter(Boolean).join(", ")}
                </p>
              )}
              {shown.fitting.length > 1 && (
                <p className="m-0 mt-1">
                  <span className="small soft block">with another gun or tip</span>
                  {shown.fitting
                    .filter((s) => s.id !== sheet.id)
                    .map((s) => (
                      <Link
                        key={s.id}
                        className="link block min-h-11 content-center"
                        href={`/racks/${rack.number}/coat?sheet=${encodeURIComponent(s.code)}`}
                      >
                        {[s.data.gun ?? "any gun", s.data.tip && `tip ${s.data.tip}`].filter(Boolean).join(", ")}:{" "}
                        {s.code}
                      </Link>
                    ))}
                </p>
              )}
            </div>
          ) : (
            <p className="soft">No set-up sheet for this powder: nothing to hold the settings against.</p>
          )}
          <p className="m-0 mt-1">
            <Link className="link" href="/coat/sheets">
              Set-up sheets
            </Link>{" "}
            ·{" "}
            <Link className="link" href="/coat/powders">
              Powders and lots
            </Link>
          </p>
        </MarginBlock>
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
