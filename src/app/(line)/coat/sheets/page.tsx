import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop } from "@/server/sign-in/roles";
import { type SetupSheet, SheetForm } from "@/ui/coat/sheet-form";
import { Fold } from "@/ui/fields/fold";
import { dateAndTime, sections, withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { keepSheet } from "../../actions";

export const metadata: Metadata = { title: "Set-up sheets" };

const blank: SetupSheet = {
  powderCode: "",
  partCode: null,
  gun: null,
  gunType: "corona-negative",
  tip: "",
  kv: [60, 80],
  recessKv: 45,
  recoatKv: [35, 55],
  currentMostUa: null,
  distanceMm: null,
  passes: null,
  conveyingAirKPa: null,
  hookPitchMm: null,
  hopperFillPercent: null,
  airReadAt: "flowing",
  gunAirKPa: [40, 75],
  earthLimitMohm: 1,
  boothAirMPerS: [0.3, 0.6],
  hookCyclesLimit: 5,
  reclaimLimitPercent: 40,
};

export default async function SheetsPage() {
  const person = await personOnPage();
  if (!ofTheShop(person)) notFound();
  const at = now();
  const [sheets, powders, parts, site, { units }] = await Promise.all([
    setupAt(database(), "setup-sheet", at),
    setupAt(database(), "powder", at),
    setupAt(database(), "part", at),
    siteAt(database(), at),
    preferences(),
  ]);
  const mayChange = may(person.role, "release");
  const powderCodes = [...powders.values()].map((p) => p.code);
  const partNames = [...parts.values()].map((p) => ({ code: p.code, name: p.data.name }));
  const partName = new Map(partNames.map((p) => [p.code, p.name]));
  const pressure = ([a, b]: readonly [number, number]) =>
    `${withUnit(a, "pressure", units)} to ${withUnit(b, "pressure", units)}`;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/coat">
              Coat
            </Link>
          }
          title="Set-up sheets"
        >
          <span className="small soft">a window for each setting, per powder, part and gun</span>
        </PageHead>
        <div className="ruled mt-3">
          {sheets.size === 0 && (
            <p className="py-2">No set-up sheet is on record: settings are kept, and held against nothing.</p>
          )}
          {[...sheets.values()].map((s) => {
            const d = s.data;
            return (
              <Fold
                key={s.versionId}
                className="border-rule border-b"
                summaryClassName="row min-h-[52px] list-none grid-cols-[minmax(0,1fr)_120px_minmax(0,1.1fr)_110px] items-center border-0 hover:bg-sorrel-tint max-[700px]:grid-cols-[minmax(0,1fr)_110px] w-full"
                summary={
                  <>
                    <span>
                      <b>{s.code}</b>
                      <span className="small soft block">
                        {d.powderCode}, {d.partCode ? (partName.get(d.partCode) ?? d.partCode) : "any part"},{" "}
                        {d.gun ?? "any gun"}
                      </span>
                    </span>
                    <span className="num">
                      <b className="fig">{d.kv.join("–")}</b> kV
                    </span>
                    <span className="small max-[700px]:hidden">
                      air {pressure(d.gunAirKPa)}, {d.airReadAt === "flowing" ? "flowing" : "at rest"}
                    </span>
                    <span className="num max-[700px]:hidden">{d.boothAirMPerS.join("–")} m/s</span>
                  </>
                }
              >
                <div className="grid gap-2 pt-1 pb-2">
                  <p className="m-0">
                    Recesses <b className="fig">{d.recessKv} kV</b>
                    {d.recoatKv && (
                      <>
                        , over an old film <b className="fig">{d.recoatKv.join("–")} kV</b>
                      </>
                    )}
                    {d.currentMostUa !== null && `, at most ${d.currentMostUa} µA`}
                    {d.distanceMm && `, ${sections(...d.distanceMm, units)} away`}
                    {d.passes && `, ${d.passes.join("–")} passes`}
                    {d.tip && `, tip ${d.tip}`}
                    {d.hookPitchMm && `, hooks every ${sections(...d.hookPitchMm, units)}`}
                    {d.hopperFillPercent && `, hopper ${d.hopperFillPercent.join("–")} %`}; earth under{" "}
                    {d.earthLimitMohm} MΩ, hooks stripped by {d.hookCyclesLimit} uses, reclaim at most{" "}
                    {d.reclaimLimitPercent} %.
                  </p>
                  <p className="small faint m-0">This version since {dateAndTime(s.validFrom, site.timeZone)}</p>
                  {mayChange && (
                    <Fold summary="Change the sheet">
                      <SheetForm
                        code={s.code}
                        seen={s.versionId}
                        sheet={d}
                        powders={powderCodes}
                        parts={partNames}
                        save={keepSheet}
                      />
                    </Fold>
                  )}
                </div>
              </Fold>
            );
          })}
        </div>
        {mayChange && (
          <Fold className="mt-4" summary="Put a new sheet on record">
            <SheetForm code={null} seen={null} sheet={blank} powders={powderCodes} parts={partNames} save={keepSheet} />
          </Fold>
        )}
      </section>
      <Margin step="coat">
        <MarginBlock title="A window, not a truth">
          <p className="small">
            What gun air is right differs sevenfold between guns and people: a sheet holds the window of its gun, read
            at rest or flowing. The sheet that names the part, then the gun, goes before one for any. A change is a new
            version: coats made before it stay judged by the one of their time.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
