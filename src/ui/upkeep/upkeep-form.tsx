"use client";
import { measureHolds, type UpkeepHands, type UpkeepMeasure, type UpkeepResult, upkeepResults } from "@/core/upkeep";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { measureWindow, upkeepResultName } from "../words/upkeep";

const whoLabel: Record<UpkeepHands, string> = {
  line: "With whom",
  supplier: "Who visited",
  licensed: "Who did it, and their licence",
};

/** One upkeep recorded: the value where there is one, what was found, by whom where it is not the line's own. */
export function UpkeepForm({
  code,
  hands,
  measure,
}: {
  code: string;
  hands: UpkeepHands;
  measure: UpkeepMeasure | null;
}) {
  const held = useEntryForm(`upkeep ${code}`, { result: null as UpkeepResult | null, value: "", who: "", note: "" });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const live = held.live("value");
  const holds = live === null ? null : measureHolds(measure, live);
  return (
    <Entry
      held={held}
      id={code}
      sending={recorder}
      button="Record it"
      primary
      className="grid max-w-[720px] gap-3 pb-4"
      begin={["result", "value", "note"]}
      send={(read) => {
        const { result, who, note } = held.values;
        const value = read.maybe("value");
        if (result === null) return read.refuse("result", "Say what was found: in order, put right, or not in order.");
        return recorder.send({ kind: "upkeep", item: code, result, value, who, note });
      }}
    >
      {measure && (
        <div className="flex flex-wrap items-end gap-3">
          <F.Num
            name="value"
            label={`${measure.name}${measure.unit ? `, ${measure.unit}` : ""}`}
            className="w-[200px]"
          />
          <span className="soft pb-2">
            {holds === null ? (
              measureWindow(measure)
            ) : (
              <Verdict result={holds ? "in" : "out"}>{measureWindow(measure)}</Verdict>
            )}
          </span>
        </div>
      )}
      <F.Ask name="result" label="Found" of={upkeepResults.map((r) => [r, upkeepResultName[r]])} />
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,2fr)] gap-3 max-[600px]:grid-cols-1">
        <F.Words name="who" label={whoLabel[hands]} most={80} />
        <F.Words
          name="note"
          label={hands === "supplier" ? "What was found, and what is to be changed by when" : "What was found and done"}
          most={800}
        />
      </div>
    </Entry>
  );
}
