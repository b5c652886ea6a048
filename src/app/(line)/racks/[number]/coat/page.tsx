import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { airBefore } from "@/server/line/air";
import { currentLine } from "@/server/line/current-line";
import { lastGoodCoat } from "@/server/line/last-good-coat";
import { preferences } from "@/server/preferences";
import { loadRack } from "@/server/rack/load-rack";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { CoatForm } from "@/ui/coat/coat-form";
import { when, withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { AirNow } from "@/ui/prepare/air-now";
import { RackTabs } from "@/ui/rack/rack-tabs";

export const metadata: Metadata = { title: "Coat" };

export default async function CoatPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const { number } = await params;
  const rack = await loadRack(database(), person, number);
  if (!rack) notFound();
  const line = await currentLine(person);
  const [site, sheets, lots, powders, air, last, { units }] = await Promise.all([
    siteAt(database(), line.at),
    setupAt(database(), "setup-sheet", line.at),
    setupAt(database(), "lot", line.at),
    setupAt(database(), "powder", line.at),
    airBefore(database(), line.at, line.dewPointMarginC),
    lastGoodCoat(database(), rack, line.at),
    preferences(),
  ]);
  const sheet = [...sheets.values()].find((s) => s.data.powderCode === rack.powder.code) ?? null;
  const coats = rack.current.flatMap((r) => {
    const row = r.details.coat?.[0];
    return r.base.kind === "coat" && row ? [{ base: r.base, row }] : [];
  });
  const coatNo = Math.min(9, Math.max(0, ...coats.map((c) => c.row.coat_no)) + 1);
  const primers = new Set([...powders.values()].filter((p) => p.data.traits.includes("primer")).map((p) => p.code));
  const daysLeft = (lot: { powderCode: string; madeOn: string }) => {
    const shelf = [...powders.values()].find((p) => p.code === lot.powderCode)?.data.shelfLifeDays ?? 0;
    return Math.floor(shelf - (line.at.getTime() - new Date(lot.madeOn).getTime()) / 86_400_000);
  };
  const usable = [...lots.values()]
    .filter((l) => l.data.powderCode === rack.powder.code || primers.has(l.data.powderCode))
    .sort(
      (a, b) =>
        Number(primers.has(a.data.powderCode)) - Number(primers.has(b.data.powderCode)) ||
        a.data.madeOn.localeCompare(b.data.madeOn),
    );
  const lotName = new Map([...lots.values()].map((l) => [l.id, l.code]));
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              Rack {rack.number} · {rack.part.data.name} · {rack.powder.code} {rack.powder.data.name}
            </>
          }
          title={coatNo > 1 ? `Coat ${coatNo}` : "Coat"}
        >
          <div className="small soft">
            {coats.length === 0 ? "no coat on record" : `${coats.length} coat${coats.length > 1 ? "s" : ""} on record`}
          </div>
        </PageHead>
        <RackTabs number={rack.number} here="coat" />
        {coatNo > 1 && may(person.role, "log-line") && (
          <p className="caution mt-4">
            Over an old film: scuff it first and lower the voltage; the film underneath holds its charge.
          </p>
        )}
        <div className="mt-4">
          {may(person.role, "log-line") ? (
            <CoatForm
              key={coatNo}
              rack={rack.number}
              coatNo={coatNo}
              booth="booth 1"
              sheet={sheet ? { ...sheet.data, boothMetalC: site.boothMetalC } : null}
              last={last && { ...last, metalC: null }}
              lots={usable.map((l) => {
                const left = daysLeft(l.data);
                return {
                  id: l.code,
                  primer: primers.has(l.data.powderCode),
                  label: `${l.code}, ${left >= 0 ? `${left} days left` : `expired ${-left} days ago`}${primers.has(l.data.powderCode) ? ", primer" : ""}`,
                };
              })}
            />
          ) : (
            <p className="soft">Coats are recorded by those on the line.</p>
          )}
        </div>
        {coats.length > 0 && (
          <div className="ruled mt-6">
            <h2>On record</h2>
            {coats.map(({ base, row }) => {
              const out = sheet && row.earth_mohm !== null && row.earth_mohm > sheet.data.earthLimitMohm;
              return (
                <div
                  key={base.id}
                  className="row grid-cols-[80px_minmax(0,1fr)_130px_26px] items-center max-[700px]:grid-cols-[64px_minmax(0,1fr)_26px]"
                >
                  <b>Coat {row.coat_no}</b>
                  <span>
                    {row.layer}, {lotName.get(row.lot_id)}, {row.booth}
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
                    {row.sprayed_hot && (
                      <b className="text-watch">
                        , hot-applied{row.metal_c === null ? "" : ` at ${withUnit(row.metal_c, "temperature", units)}`}
                      </b>
                    )}
                    {row.reclaim_percent !== null && `, reclaim ${row.reclaim_percent} %`}
                    <span className="faint small block">
                      {when(base.happened_at, line.at, line.timeZone)}, {base.by_user}
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
          </div>
        )}
      </section>
      <Margin step="coat">
        <AirNow
          units={units}
          air={air}
          marginC={site.dewPointMarginC}
          now={line.at}
          timeZone={line.timeZone}
          mayLog={may(person.role, "log-line")}
          quantities={["compressed-air-dew-point", "booth-air-speed", "air-temperature", "humidity"]}
          place="booth 1"
        />
        <MarginBlock title={sheet ? `Set-up sheet, ${sheet.code}` : "Set-up sheet"}>
          {sheet ? (
            <div className="grid gap-0.5">
              <p className="m-0">
                Voltage <b className="fig">{sheet.data.kv.join("–")} kV</b>, recesses{" "}
                <b className="fig">{sheet.data.recessKv} kV</b>
              </p>
              <p className="m-0">
                Gun air <b className="fig">{sheet.data.gunAirKPa.join("–")} kPa</b>
              </p>
              <p className="m-0">
                Earth under <b className="fig">{sheet.data.earthLimitMohm} MΩ</b>; hooks stripped by{" "}
                <b className="fig">{sheet.data.hookCyclesLimit}</b> uses
              </p>
            </div>
          ) : (
            <p className="soft">No set-up sheet for this powder: nothing to hold the settings against.</p>
          )}
        </MarginBlock>
      </Margin>
    </>
  );
}
