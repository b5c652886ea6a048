"use client";
import { type ConditionQuantity, conditionQuantities, dewPointC } from "@/core/preparation";
import { fieldsOf } from "../fields/in-form";
import { plainly, withUnit } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { quantityOf } from "../words/coating";

const labels: Record<ConditionQuantity, string> = {
  "air-temperature": "Air",
  humidity: "Humidity",
  "metal-temperature": "Metal",
  "compressed-air-dew-point": "Compressed air, dew point",
  "booth-air-speed": "Booth air",
};
/** The quantity of a condition where it follows the person's units. */
const unitOf = (q: ConditionQuantity) => quantityOf[conditionQuantities[q].unit];

/** Air and metal as read now: each a record of its own; the dew-point margin as one types. */
export function AirForm({
  place,
  quantities,
  marginC,
}: {
  place: string;
  quantities: readonly ConditionQuantity[];
  marginC: number;
}) {
  const { units } = usePreferences();
  const begun = Object.fromEntries(quantities.map((q) => [q, ""])) as Record<ConditionQuantity, string>;
  const held = useEntryForm(`air ${place}`, begun);
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const live = (q: ConditionQuantity) => (quantities.includes(q) ? held.live(q, unitOf(q)) : null);
  const [air, humidity, metal] = [live("air-temperature"), live("humidity"), live("metal-temperature")];
  const dew = air !== null && humidity !== null ? dewPointC({ airC: air, relativeHumidityPercent: humidity }) : null;
  return (
    <Entry
      held={held}
      id="air"
      sending={recorder}
      button="Record air"
      className="grid max-w-[640px] gap-2"
      begin={quantities}
      send={(read) => {
        const values = quantities.flatMap((quantity) => {
          const value = read.maybe(quantity, unitOf(quantity));
          return value === null ? [] : [{ quantity, value }];
        });
        if (values.length === 0) read.refuse(null, "Type at least one value.");
        return recorder.send({ kind: "conditions", place, values });
      }}
    >
      <div className="flex flex-wrap gap-3">
        {quantities.map((q) => {
          const own = unitOf(q);
          return own ? (
            <F.Num key={q} name={q} label={labels[q]} quantity={own} className="w-[132px]" />
          ) : (
            <F.Num key={q} name={q} label={`${labels[q]}, ${conditionQuantities[q].unit}`} className="w-[132px]" />
          );
        })}
      </div>
      {dew?.ok && (
        <p className="m-0">
          Dew point <b className="fig">{withUnit(dew.value, "temperature", units)}</b>
          {metal !== null && (
            <>
              {" "}
              ·{" "}
              <Verdict result={metal - dew.value >= marginC ? "in" : "out"}>
                metal {withUnit(metal - dew.value, "temperatureDifference", units)} over it,{" "}
                {plainly(marginC, "temperatureDifference", units)} asked
              </Verdict>
            </>
          )}
        </p>
      )}
    </Entry>
  );
}
