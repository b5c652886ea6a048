import type { UnitSystem } from "@/core/units";
import type { ZoneFile } from "@/server/field/zones-of";
import { dateAndTime, dayMonthYear, withUnit } from "../format";
import { Verdict } from "../marks/verdict";
import { failureText } from "../words/failures";
import { forecastSaid, foundName, zoneFound, zonePlace } from "../words/field-zones";

const word = { in: "Good", watch: "Watch", out: "Failed", unknown: "Not looked at" } as const;

/** Zones of a structure with two verdicts each, what was found, how fast it grows, and until when. */
export function ZoneList({
  zones,
  timeZone,
  units,
}: {
  zones: readonly ZoneFile[];
  timeZone: string;
  units: UnitSystem;
}) {
  return (
    <div className="ruled">
      <div className="row small soft grid-cols-[minmax(0,1.2fr)_minmax(0,1.4fr)_120px_120px] max-[760px]:hidden">
        <span>zone</span>
        <span>found, as read last</span>
        <span>protection</span>
        <span>appearance</span>
      </div>
      {zones.map((z) => {
        const worst = (side: "protection" | "appearance") =>
          z.verdict.judged
            .filter((j) => (side === "appearance") === ["gloss", "colour", "chalk"].includes(j.name))
            .filter((j) => j.result === z.verdict[side] && j.result !== "in")
            .map((j) => foundName[j.name])
            .join(", ");
        return (
          <div
            key={z.name}
            className="row grid-cols-[minmax(0,1.2fr)_minmax(0,1.4fr)_120px_120px] items-start max-[760px]:grid-cols-2"
          >
            <span>
              <b>{z.name}</b>
              <span className="small soft block">{zonePlace(z)}</span>
            </span>
            <span>
              {zoneFound(z, units, (m) => dayMonthYear(m, timeZone))}
              {z.newest.map((c) => (
                <span key={c.recordId} className="small soft block">
                  {dateAndTime(c.at, timeZone)}, {c.by}
                  {c.row.note ? `: ${c.row.note}` : ""}
                </span>
              ))}
              {z.creepRate && (
                <span className="small block">
                  {z.creepRate.ok ? (
                    <>
                      creep grows <b className="fig">{withUnit(z.creepRate.value.rate, "creep", units)}</b> a year (
                      {withUnit(z.creepRate.value.interval[0], "creep", units)} to{" "}
                      {withUnit(z.creepRate.value.interval[1], "creep", units)})
                      {z.creepFrom &&
                        ` since ${z.creepFrom.visit ? "the visit of " : ""}${dayMonthYear(z.creepFrom.at, timeZone)}`}
                      {z.creepRateOfAll?.ok &&
                        `, ${withUnit(z.creepRateOfAll.value.rate, "creep", units)} a year since it was coated`}
                      {z.forecast?.ok && `; ${forecastSaid(z.forecast.value.years)}`}
                    </>
                  ) : (
                    <span className="soft">{failureText(z.creepRate.error, units)}</span>
                  )}
                </span>
              )}
            </span>
            {(["protection", "appearance"] as const).map((side) => (
              <span key={side}>
                <Verdict result={z.verdict[side]}>{word[z.verdict[side]]}</Verdict>
                <span className="small soft block">
                  <span className="hidden max-[760px]:inline">{side} </span>
                  {worst(side)}
                </span>
              </span>
            ))}
          </div>
        );
      })}
    </div>
  );
}
