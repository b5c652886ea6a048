import type { ConditionQuantity } from "@/core/preparation";
import type { UnitSystem } from "@/core/units";
import type { Air } from "@/server/line/air";
import { Fold } from "../fields/fold";
import { when, withUnit } from "../format";
import { MarginBlock } from "../frame/margin";
import { Grade, Verdict } from "../marks/verdict";
import { quantityOf } from "../words/coating";
import { AirForm } from "./air-form";

const names: Record<ConditionQuantity, string> = {
  humidity: "Humidity",
  "air-temperature": "Air",
  "metal-temperature": "Metal",
  "compressed-air-dew-point": "Compressed air, dew point",
  "booth-air-speed": "Booth air",
};

/** The air as last read, its dew point, how far the metal stands above it, and a place to read it anew. */
export function AirNow({
  air,
  units,
  marginC,
  now,
  timeZone,
  mayLog,
  quantities = ["air-temperature", "humidity", "metal-temperature"],
  place = "hall",
}: {
  air: Air;
  units: UnitSystem;
  marginC: number;
  now: Date;
  timeZone: string;
  mayLog: boolean;
  quantities?: readonly ConditionQuantity[];
  place?: string;
}) {
  const { lasts } = air;
  const quantity = (unit: string) => quantityOf[unit];
  return (
    <MarginBlock title="Air">
      {air.readings.length === 0 && <p className="soft">No reading in the last twelve hours.</p>}
      {air.readings.map((r) => (
        <div key={r.quantity} className="row grid-cols-[minmax(0,1fr)_auto_64px]">
          <span>
            {names[r.quantity]} <span className="faint small">{r.place}</span>
          </span>
          <b className="fig">
            {quantity(r.unit)
              ? withUnit(r.value, quantity(r.unit) ?? "temperature", units)
              : `${r.value.toFixed(0)} ${r.unit}`}
          </b>
          <span className="faint small text-right">{when(r.at, now, timeZone)}</span>
        </div>
      ))}
      {air.dewPointC !== null && (
        <p className="mt-1">
          Dew point <b className="fig">{withUnit(air.dewPointC, "temperature", units)}</b>
          {air.marginC !== null ? (
            <>
              {" "}
              <Verdict result={air.marginC >= marginC ? "in" : "out"}>
                metal {withUnit(air.marginC, "temperatureDifference", units)} over
              </Verdict>
            </>
          ) : (
            <span className="small soft">
              {" "}
              · metal not read: its margin ({withUnit(marginC, "temperatureDifference", units)} asked) is not known
            </span>
          )}
        </p>
      )}
      {lasts !== null && (
        <p className="m-0 mt-1">
          {lasts.hours === 0 ? (
            <>The margin is gone: warm the metal or dry the air before anything is put on it.</>
          ) : (
            <>
              Falling by {withUnit(lasts.fallCPerHour, "temperatureDifference", units)} an hour{" "}
              <Grade grade={lasts.grade} /> the margin lasts <b className="fig">{lasts.hours.toFixed(1)} h</b>
            </>
          )}
        </p>
      )}
      {mayLog && (
        <Fold className="mt-2" summary="Read the air">
          <AirForm place={place} quantities={quantities} marginC={marginC} />
        </Fold>
      )}
    </MarginBlock>
  );
}
