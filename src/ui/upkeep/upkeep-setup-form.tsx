"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { parseNumber } from "@/core/units";
import { type UpkeepHands, type UpkeepPlan, type UpkeepStage, upkeepHands, upkeepStages } from "@/core/upkeep";
import { Choice } from "../fields/choice";
import { Tick } from "../fields/tick";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { failureText } from "../words/failures";
import { upkeepHandsName, upkeepStageName } from "../words/upkeep";

type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/** An upkeep as it is set up: new, or changed from now on. */
export function UpkeepSetupForm({
  code,
  seen,
  plan,
  save,
}: {
  code: string | null;
  seen: string | null;
  plan: UpkeepPlan & { readonly retired: boolean };
  save: (input: unknown) => Promise<Outcome>;
}) {
  const router = useRouter();
  const id = useRef(uuidv7());
  const number = (value: number | null | undefined) => (value === null || value === undefined ? "" : String(value));
  const held = useEntryForm(`upkeep set-up ${code ?? "new"}`, {
    texts: {
      what: plan.what,
      every: number(plan.everyDays),
      look: plan.look,
      leadsTo: plan.leadsTo,
      caution: plan.caution,
      measure: plan.measure?.name ?? "",
      unit: plan.measure?.unit ?? "",
      lower: number(plan.measure?.lower),
      upper: number(plan.measure?.upper),
      reason: "",
    },
    stage: plan.stage as UpkeepStage,
    hands: plan.hands as UpkeepHands,
    retired: plan.retired,
  });
  const [texts, setTexts] = held.field("texts");
  const [stage, setStage] = held.field("stage");
  const [hands, setHands] = held.field("hands");
  const [retired, setRetired] = held.field("retired");
  const [state, setState] = useState<{ busy: boolean; message: { good: boolean; text: string } | null }>({
    busy: false,
    message: null,
  });
  const put = (key: keyof typeof texts) => (text: string) => setTexts((before) => ({ ...before, [key]: text }));
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    const refuse = (text: string) => setState({ busy: false, message: { good: false, text } });
    const numbers: Record<"every" | "lower" | "upper", number | null> = { every: null, lower: null, upper: null };
    for (const key of ["every", "lower", "upper"] as const) {
      const read = texts[key].trim() === "" ? null : parseNumber(texts[key]);
      if (read && !read.ok) return refuse(failureText(read.error));
      numbers[key] = read?.ok ? read.value : null;
    }
    if (numbers.every === null) return refuse("Say how often, in days.");
    setState({ busy: true, message: null });
    const data = {
      what: texts.what,
      stage,
      everyDays: numbers.every,
      look: texts.look,
      leadsTo: texts.leadsTo,
      caution: texts.caution,
      hands,
      measure:
        texts.measure.trim() === ""
          ? null
          : { name: texts.measure, unit: texts.unit, lower: numbers.lower, upper: numbers.upper },
      retired,
    };
    const outcome = await save({ id: id.current, code, seen, reason: texts.reason, data }).catch(
      (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
    );
    if (!outcome.ok) return refuse(failureText(outcome.failure));
    setState({ busy: false, message: { good: true, text: "Saved, from now on." } });
    id.current = uuidv7();
    held.done();
    put("reason")("");
    router.refresh();
  };
  const key = code ?? "new";
  return (
    <form onSubmit={submit} className="grid max-w-[720px] gap-3 pb-4" noValidate>
      {held.said}
      <div className="grid grid-cols-[minmax(0,2fr)_120px_minmax(0,1fr)_minmax(0,1fr)] gap-3 max-[700px]:grid-cols-2">
        <TextField id={`${key}-what`} label="What" text={texts.what} change={put("what")} most={60} />
        <TypedNumber id={`${key}-every`} label="Every, days" text={texts.every} change={put("every")} />
        <div className="field">
          <label htmlFor={`${key}-stage`}>At</label>
          <Choice
            id={`${key}-stage`}
            className="input"
            value={stage}
            onChange={(value) => setStage(value as UpkeepStage)}
          >
            {upkeepStages.map((s) => (
              <option key={s} value={s}>
                {upkeepStageName[s]}
              </option>
            ))}
          </Choice>
        </div>
        <div className="field">
          <label htmlFor={`${key}-hands`}>Done by</label>
          <Choice
            id={`${key}-hands`}
            className="input"
            value={hands}
            onChange={(value) => setHands(value as UpkeepHands)}
          >
            {upkeepHands.map((h) => (
              <option key={h} value={h}>
                {upkeepHandsName[h]}
              </option>
            ))}
          </Choice>
        </div>
      </div>
      <TextField id={`${key}-look`} label="What is looked at" text={texts.look} change={put("look")} most={300} />
      <TextField
        id={`${key}-leads`}
        label="What comes of leaving it"
        text={texts.leadsTo}
        change={put("leadsTo")}
        most={200}
      />
      <TextField id={`${key}-caution`} label="Caution" text={texts.caution} change={put("caution")} most={200} />
      <div className="grid grid-cols-[minmax(0,2fr)_90px_110px_110px] gap-3 max-[700px]:grid-cols-2">
        <TextField
          id={`${key}-measure`}
          label="Value that is read, if any"
          text={texts.measure}
          change={put("measure")}
          most={60}
        />
        <TextField id={`${key}-unit`} label="Unit" text={texts.unit} change={put("unit")} most={12} />
        <TypedNumber id={`${key}-lower`} label="At least" text={texts.lower} change={put("lower")} />
        <TypedNumber id={`${key}-upper`} label="At most" text={texts.upper} change={put("upper")} />
      </div>
      <TextField id={`${key}-reason`} label="Why it changes" text={texts.reason} change={put("reason")} most={300} />
      {code !== null && (
        <label className="flex min-h-11 items-center gap-2">
          <Tick checked={retired} onChange={setRetired} /> no longer kept up; its record stays
        </label>
      )}
      <RecordRow busy={state.busy} message={state.message} primary={false}>
        {code === null ? "Set it up" : "Save the change"}
      </RecordRow>
    </form>
  );
}
