"use client";
import { type FormEvent, useState } from "react";
import { type ConditionQuantity, conditionQuantities, dewPointC } from "@/core/preparation";
import { fahrenheitToC, parseNumber, type UnitSystem } from "@/core/units";
import { withUnit } from "../format";
import { RecordRow } from "../forms/recorded";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

const labels: Record<ConditionQuantity, string> = {
  "air-temperature": "Air",
  humidity: "Humidity",
  "metal-temperature": "Metal",
  "compressed-air-dew-point": "Compressed air, dew point",
  "booth-air-speed": "Booth air",
};
const inMetric = (quantity: ConditionQuantity, value: number, units: UnitSystem): number =>
  units === "us" && conditionQuantities[quantity].unit === "°C" ? fahrenheitToC(value) : value;

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
  const held = useEntryForm(`air ${place}`, { texts: {} as Partial<Record<ConditionQuantity, string>> });
  const [texts, setTexts] = held.field("texts");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const read = (quantity: ConditionQuantity): number | null => {
    const typed = parseNumber(texts[quantity] ?? "");
    return typed.ok ? inMetric(quantity, typed.value, units) : null;
  };
  const [air, humidity, metal] = [read("air-temperature"), read("humidity"), read("metal-temperature")];
  const dew = air !== null && humidity !== null ? dewPointC({ airC: air, relativeHumidityPercent: humidity }) : null;
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    const values = [];
    for (const quantity of quantities) {
      const text = (texts[quantity] ?? "").trim();
      if (text === "") continue;
      const typed = parseNumber(text);
      if (!typed.ok) return setProblem(`${labels[quantity]}: ${failureText(typed.error)}`);
      values.push({ quantity, value: inMetric(quantity, typed.value, units) });
    }
    if (values.length === 0) return setProblem("Type at least one value.");
    if (await send({ kind: "conditions", place, values })) setTexts({});
  };
  return (
    <form onSubmit={submit} className="grid max-w-[640px] gap-2">
      {held.said}
      <div className="flex flex-wrap gap-3">
        {quantities.map((quantity) => {
          const unit = conditionQuantities[quantity].unit;
          return (
            <div key={quantity} className="field w-[124px]">
              <label htmlFor={`air-${quantity}`}>
                {labels[quantity]}, {unit === "°C" && units === "us" ? "°F" : unit}
              </label>
              <input
                id={`air-${quantity}`}
                className="input num"
                inputMode="decimal"
                value={texts[quantity] ?? ""}
                onChange={(e) => setTexts({ ...texts, [quantity]: e.target.value })}
              />
            </div>
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
                metal {(metal - dew.value).toFixed(1)} °C over it, {marginC} °C asked
              </Verdict>
            </>
          )}
        </p>
      )}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Record air
      </RecordRow>
    </form>
  );
}
