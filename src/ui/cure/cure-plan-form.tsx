"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { cToFahrenheit, fahrenheitToC, parseNumber } from "@/core/units";
import { Tick } from "../fields/tick";
import { kept, stillSaid } from "../forms/still-said";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

const KEPT = { good: true, text: "Kept, from now on." } as const;

/** What loads are planned to, how often cure is proven, under what heat metal is packed: a lead's, with a reason, from now on. */
export function CurePlanForm({
  seen,
  plannedIndex,
  planHoldToo,
  proofEveryLoads,
  handleBelowC,
  keep,
}: {
  seen: string;
  plannedIndex: number;
  planHoldToo: boolean;
  proofEveryLoads: number;
  handleBelowC: number;
  keep: (input: unknown) => Promise<Outcome>;
}) {
  const router = useRouter();
  const { units } = usePreferences();
  const us = units === "us";
  const held = useEntryForm("cure plan", {
    t: {
      index: String(plannedIndex),
      every: String(proofEveryLoads),
      handle: String(Math.round(us ? cToFahrenheit(handleBelowC) : handleBelowC)),
      reason: "",
    },
    hold: planHoldToo,
  });
  const [t, setT] = held.field("t");
  const [hold, setHold] = held.field("hold");
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(() =>
    stillSaid("cure plan") ? KEPT : null,
  );
  const put = (key: keyof typeof t) => (text: string) => setT((before) => ({ ...before, [key]: text }));
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setMessage(null);
    const [index, every, handle] = [parseNumber(t.index), parseNumber(t.every), parseNumber(t.handle)];
    for (const read of [index, every, handle])
      if (!read.ok) return setMessage({ good: false, text: failureText(read.error) });
    if (!index.ok || !every.ok || !handle.ok) return;
    setBusy(true);
    const outcome = await keep({
      seen,
      reason: t.reason,
      plannedIndex: index.value,
      planHoldToo: hold,
      proofEveryLoads: every.value,
      handleBelowC: us ? fahrenheitToC(handle.value) : handle.value,
    }).catch((): Outcome => ({ ok: false, failure: { kind: "not-saved" } }));
    setBusy(false);
    if (!outcome.ok) return setMessage({ good: false, text: failureText(outcome.failure) });
    held.done();
    kept("cure plan");
    setMessage(KEPT);
    router.refresh();
  };
  return (
    <form onSubmit={submit} noValidate className="grid max-w-[720px] gap-3 pb-4">
      {held.said}
      <div className="grid grid-cols-3 gap-3 max-[700px]:grid-cols-1">
        <TypedNumber id="plan-index" label="Loads are planned to index" text={t.index} change={put("index")} />
        <TypedNumber id="plan-every" label="A test on one load in" text={t.every} change={put("every")} />
        <TypedNumber
          id="plan-handle"
          label={`Packed under, ${us ? "°F" : "°C"} of the metal`}
          text={t.handle}
          change={put("handle")}
        />
      </div>
      <label className="flex min-h-11 items-center gap-2">
        <Tick checked={hold} onChange={setHold} />
        Wait for a hold of the sheet as well
      </label>
      <TextField id="plan-reason" label="Why it changes" text={t.reason} change={put("reason")} most={300} />
      <p className="m-0 flex flex-wrap items-center gap-3">
        <button type="submit" className="btn" disabled={busy}>
          {busy ? "Keeping …" : "Keep it"}
        </button>
        {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
      </p>
    </form>
  );
}
