"use client";
import { useState } from "react";
import { planTrial } from "@/core/comparison";
import type { Trial } from "@/server/causes/case-thread";
import { Fold } from "../fields/fold";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { causeShort } from "../words/causes";

/** A small trial designed: how many panels for which certainty, from what is expected with the cause and without it. */
export function TrialForm({
  caseNumber,
  causes,
}: {
  caseNumber: string;
  causes: readonly { readonly id: string; readonly label: string }[];
}) {
  const held = useEntryForm(`trial ${caseNumber}`, {
    cause: causes[0]?.id ?? "",
    plan: "",
    expectWith: "90",
    expectWithout: "5",
    certainty: "95",
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const share = (text: string) => Number(text.replace(",", ".")) / 100;
  const { cause, plan, expectWith, expectWithout, certainty } = held.values;
  const planned = planTrial(share(expectWith), share(expectWithout), share(certainty));
  return (
    <Fold className="no-print mt-4" summaryClassName="btn list-none" summary="Design a trial that proves it">
      <Entry
        held={held}
        id="trial"
        sending={recorder}
        button="Plan this trial"
        className="mt-3 grid max-w-[560px] gap-3"
        send={(read) => {
          if (!planned.ok) return read.refuse("expectWith", "With these shares no trial of up to 200 panels tells.");
          return recorder.send({
            kind: "trial",
            caseNumber,
            cause: cause as "overcure",
            plan,
            panels: planned.value.panels,
            expectWith: share(expectWith),
            expectWithout: share(expectWithout),
            certainty: share(certainty),
          });
        }}
      >
        <F.Pick name="cause" label="Cause to prove" of={causes.map((c) => [c.id, c.label])} />
        <F.Words
          name="plan"
          label="How it is repeated on some panels, and taken away on others; all else alike"
          rows={3}
          most={1000}
          required
        />
        <div className="grid grid-cols-3 gap-3 max-[560px]:grid-cols-1">
          <F.Num name="expectWith" label="With the cause, % show it" />
          <F.Num name="expectWithout" label="Without it, % show it" />
          <F.Num name="certainty" label="Certainty wanted, %" />
        </div>
        <p className="m-0" role="status">
          {planned.ok ? (
            <>
              <b className="fig">
                {planned.value.panels} and {planned.value.panels} panels
              </b>
              : expected to show it {planned.value.expectedWith.toFixed(1)} with and{" "}
              {planned.value.expectedWithout.toFixed(1)} without. If it is so, {Math.round(planned.value.power * 100)}{" "}
              of 100 such trials prove it.
            </>
          ) : (
            <span className="soft">With these shares no trial of up to 200 panels a group would tell.</span>
          )}
        </p>
      </Entry>
    </Fold>
  );
}

/** What was seen on panels of a trial. */
export function TrialResultForm({ trial }: { trial: Trial }) {
  const held = useEntryForm(`trial result ${trial.id}`, { arm: "repeated", panels: "", withIt: "", note: "" });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const [shown, show] = useState(false);
  if (!shown)
    return (
      <button type="button" className="btn no-print mt-2" onClick={() => show(true)}>
        Record panels of it
      </button>
    );
  return (
    <Entry
      held={held}
      id={`result-${trial.id}`}
      sending={recorder}
      button="Record what was seen"
      className="no-print mt-2 grid max-w-[560px] gap-3"
      send={(read) =>
        recorder.send({
          kind: "trial-result",
          trial: trial.id,
          arm: held.values.arm as "repeated",
          panels: read.number("panels"),
          withIt: read.number("withIt"),
          note: held.values.note,
        })
      }
    >
      <div className="grid grid-cols-3 gap-3 max-[560px]:grid-cols-1">
        <F.Pick
          name="arm"
          label="Panels on which the cause was"
          of={[
            ["repeated", "repeated"],
            ["taken-away", "taken away"],
          ]}
        />
        <F.Num name="panels" label="Panels looked at" />
        <F.Num name="withIt" label="Of them show it" />
      </div>
      <F.Words name="note" label={`What was seen of ${causeShort("The cause")}`} rows={2} most={400} />
    </Entry>
  );
}
