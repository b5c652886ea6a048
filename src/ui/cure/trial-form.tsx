"use client";
import { beforeAfter } from "@/core/coating";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { failureText } from "../words/failures";

/** Two programs on the same kind of panel, the same test: the difference with its interval as it is typed. */
export function TrialForm() {
  const begun = { question: "", test: "", unit: "", a: "", b: "", "values-a": "", "values-b": "", note: "" };
  const held = useEntryForm("cure trial", begun);
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const [first, second] = [held.liveMany("values-a"), held.liveMany("values-b")];
  const compared = first && second && first.length > 1 && second.length > 1 ? beforeAfter(first, second) : null;
  return (
    <Entry
      held={held}
      id="trial"
      sending={recorder}
      button="Keep this trial"
      className="grid gap-3"
      begin={["question", "values-a", "values-b", "note"]}
      send={(read) => {
        const { question, test, unit, a, b, note } = held.values;
        const [valuesA, valuesB] = [read.many("values-a"), read.many("values-b")];
        return recorder.send({
          kind: "cure-trial",
          question,
          test,
          unit,
          programA: a,
          programB: b,
          valuesA,
          valuesB,
          note,
        });
      }}
    >
      <div className="grid grid-cols-3 gap-3 max-[820px]:grid-cols-1">
        <F.Words name="question" label="What is asked" most={200} />
        <F.Words name="test" label="Test" most={80} />
        <F.Words name="unit" label="Unit" most={20} />
        <F.Words name="a" label="First program" most={120} />
        <F.Words name="b" label="Second program" most={120} />
        <span />
        <F.Words name="values-a" label="Results of the first" most={2000} />
        <F.Words name="values-b" label="Results of the second" most={2000} />
      </div>
      {compared?.ok && (
        <p className="m-0">
          Second less first: <b className="fig">{compared.value.difference.toFixed(2)}</b> {held.values.unit}, 95 %
          between <b className="fig">{compared.value.interval[0].toFixed(2)}</b> and{" "}
          <b className="fig">{compared.value.interval[1].toFixed(2)}</b>:{" "}
          {compared.value.says === "cannot-tell" ? "they cannot be told apart." : "they differ."}
        </p>
      )}
      {compared && !compared.ok && <p className="m-0 text-watch">{failureText(compared.error)}</p>}
    </Entry>
  );
}
