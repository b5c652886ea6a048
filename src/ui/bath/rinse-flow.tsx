"use client";
import { useState } from "react";
import { rinseFlowLPerH } from "@/core/bath";
import { parseNumber } from "@/core/units";
import { TypedNumber } from "../forms/typed-number";
import { failureText } from "../words/failures";

/** Overflow that keeps a rinse at its target: what is carried in, how far it must be thinned, over how many rinses in counter-flow. */
export function RinseFlow({ limit }: { limit: number | null }) {
  const [texts, setTexts] = useState({ dragOut: "", before: "", rinses: "1" });
  const put = (key: keyof typeof texts) => (text: string) => setTexts({ ...texts, [key]: text });
  const [dragOut, before, rinses] = [parseNumber(texts.dragOut), parseNumber(texts.before), parseNumber(texts.rinses)];
  const asked = limit !== null && dragOut.ok && before.ok && rinses.ok;
  const flow = asked
    ? rinseFlowLPerH({ dragOutLPerH: dragOut.value, ratio: before.value / limit, stages: rinses.value })
    : null;
  if (limit === null) return <p className="soft m-0">Set its upper limit of conductivity first.</p>;
  return (
    <div className="grid gap-2">
      <div className="grid grid-cols-2 gap-2">
        <TypedNumber id="rinse-drag" label="Carried in, L/h" text={texts.dragOut} change={put("dragOut")} />
        <TypedNumber id="rinse-before" label="Bath before, µS/cm" text={texts.before} change={put("before")} />
        <TypedNumber id="rinse-count" label="Rinses in counter-flow" text={texts.rinses} change={put("rinses")} />
      </div>
      {flow?.ok && (
        <p className="m-0">
          Overflow <b className="fig">{flow.value.toFixed(0)} L/h</b>{" "}
          <span className="small soft">to stay at {limit} µS/cm, well mixed</span>
        </p>
      )}
      {flow && !flow.ok && <p className="m-0 text-out">{failureText(flow.error)}</p>}
    </div>
  );
}
