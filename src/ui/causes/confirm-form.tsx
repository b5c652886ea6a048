"use client";
import type { TiedTo } from "@/core/kinds";
import { Fold } from "../fields/fold";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { tiedToName } from "../words/causes";

type Pairs = readonly (readonly [string, string])[];
const steps = ["why1", "why2", "why3", "why4", "why5"] as const;
const stepLabel = [
  "It acted because …",
  "and that was so because …",
  "and that was so because …",
  "and nobody saw it because …",
  "and the way we work let it through because …",
];

/** A person confirms the cause: the proof, what acts beside it and where, why it was let through, what is done now and for good. */
export function ConfirmForm({
  caseNumber,
  causes,
  acting,
  places,
  targets,
  seen,
  confirm,
}: {
  caseNumber: string;
  causes: readonly { readonly id: string; readonly label: string }[];
  /** Those that the findings say act as well. */
  acting: readonly string[];
  places: readonly string[];
  /** What an action may change, by kind: codes with names. */
  targets: Readonly<Partial<Record<TiedTo, Pairs>>>;
  /** The confirmation that stands on the page; null where there is none. */
  seen: string | null;
  confirm: Save;
}) {
  const begun = {
    cause: causes[0]?.id ?? "",
    zone: "",
    share: "",
    also1: acting.find((a) => a !== causes[0]?.id) ?? "",
    zone1: "",
    share1: "",
    also2: acting.filter((a) => a !== causes[0]?.id)[1] ?? "",
    zone2: "",
    share2: "",
    proof: "",
    why1: "",
    why2: "",
    why3: "",
    why4: "",
    why5: "",
    correction: "",
    action: "",
    tiedTo: "",
    tiedCode: "",
    who: "",
    due: "",
  };
  const held = useEntryForm(`confirm ${caseNumber}`, begun);
  const saving = useSave(confirm, held, { said: "Recorded.", keyed: true });
  const F = fieldsOf(held);
  const named = causes.map((c): [string, string] => [c.id, c.label]);
  const { tiedTo } = held.values;
  const codes = tiedTo ? targets[tiedTo as TiedTo] : undefined;
  const at = (n: "" | "1" | "2") => (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,150px)_110px] gap-3 max-[560px]:grid-cols-1">
      {n === "" ? (
        <F.Pick name="cause" label="Cause" of={named} />
      ) : (
        <F.Pick name={`also${n}`} label="Acts as well" of={[["", "nothing else"], ...named]} />
      )}
      <F.Words name={`zone${n}`} label={`Where${places.length > 0 ? ` (${places.join(", ")})` : ""}`} most={80} />
      <F.Num name={`share${n}`} label="Its share, %" />
    </div>
  );
  return (
    <Fold className="no-print mt-4" summaryClassName="btn pri list-none" summary="Confirm with proof">
      <Entry
        held={held}
        id="confirm"
        sending={saving}
        button="Record the confirmed cause"
        primary
        className="mt-3 grid max-w-[680px] gap-3"
        send={(read) => {
          const { cause, zone, also1, zone1, also2, zone2, proof, correction, action, who, due, tiedCode } =
            held.values;
          const alsoActing = [
            { cause: also1, zone: zone1, sharePercent: read.maybe("share1") },
            { cause: also2, zone: zone2, sharePercent: read.maybe("share2") },
            // Named as the cause it is not named a second time beside it.
          ].filter((a) => a.cause !== "" && !(a.cause === cause && a.zone === zone));
          return saving.send({
            caseNumber,
            cause,
            zone,
            sharePercent: read.maybe("share"),
            alsoActing,
            proof,
            chain: steps.map((s) => held.values[s].trim()).filter((s) => s !== ""),
            correction,
            correctiveAction: action,
            tiedTo: tiedTo || null,
            tiedCode: tiedCode || null,
            who,
            dueOn: due || null,
            seen,
          });
        }}
      >
        {at("")}
        {at("1")}
        {at("2")}
        <F.Words name="proof" label="Proof: what settled it" rows={2} most={600} required />
        <fieldset className="m-0 grid gap-2 border-l-4 border-rule-strong p-0 pl-3">
          <legend className="soft small p-0">
            From the cause to why it was let through: as many steps as are known
          </legend>
          {steps.map((step, i) => (
            <F.Words key={step} name={step} label={`${i + 1}. ${stepLabel[i]}`} most={300} />
          ))}
        </fieldset>
        <F.Words name="correction" label="Correction, now" rows={2} most={600} />
        <F.Words name="action" label="Corrective action, so that it stays away" rows={2} most={600} required />
        <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
          <F.Pick name="tiedTo" label="It changes" of={[["", "not said"], ...Object.entries(tiedToName)]} />
          {codes ? (
            <F.Pick name="tiedCode" label="Which" of={[["", "choose"], ...codes]} />
          ) : (
            tiedTo !== "" && <F.Words name="tiedCode" label="Which, in words" most={120} />
          )}
          <F.Words name="who" label="Who" most={80} required />
          <F.When name="due" label="By when" />
        </div>
      </Entry>
    </Fold>
  );
}
