import type { UnitSystem } from "@/core/units";
import type { ShownCoat } from "@/server/line/show-coat";
import { withUnit } from "../format";
import { MarginBlock } from "../frame/margin";
import Link from "../link";

/** The set-up sheet that a rack's coat is held against, and those for another gun or tip. */
export function SheetBlock({
  rack,
  sheet,
  fitting,
  units,
}: {
  rack: string;
  sheet: ShownCoat["sheet"];
  fitting: ShownCoat["fitting"];
  units: UnitSystem;
}) {
  return (
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
          {fitting.length > 1 && (
            <p className="m-0 mt-1">
              <span className="small soft block">with another gun or tip</span>
              {fitting
                .filter((s) => s.id !== sheet.id)
                .map((s) => (
                  <Link
                    key={s.id}
                    className="link block min-h-11 content-center"
                    href={`/racks/${rack}/coat?sheet=${encodeURIComponent(s.code)}`}
                  >
                    {[s.data.gun ?? "any gun", s.data.tip && `tip ${s.data.tip}`].filter(Boolean).join(", ")}: {s.code}
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
  );
}
