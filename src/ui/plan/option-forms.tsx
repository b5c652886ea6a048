"use client";
import { Choice } from "../fields/choice";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { optionName } from "../words/plan";
import { GoesOver } from "./change-plan-form";

const nameOf = (code: string) => optionName[code] ?? code.replaceAll("-", " ");

export type Suggestion = {
  readonly code: string;
  readonly risk: string;
  readonly quantity: number | null;
  readonly unit: string | null;
  readonly price: number | null;
};

/** An option offered: what, how much, its price, and the risk of going without it in plain words. */
export function OfferForm({
  job,
  currency,
  suggestions,
  offer,
}: {
  job: string;
  currency: string;
  suggestions: readonly Suggestion[];
  offer: Save;
}) {
  const begun = (code: string) => {
    const suggested = suggestions.find((s) => s.code === code);
    return {
      what: nameOf(code),
      risk: suggested?.risk ?? "",
      quantity: suggested?.quantity ? String(suggested.quantity) : "",
      price: suggested?.price ? suggested.price.toFixed(0) : "",
    };
  };
  const first = suggestions[0]?.code ?? "test-panels";
  const held = useEntryForm(`offer ${job}`, { code: first, ...begun(first) });
  const saving = useSave(offer, held, { said: "Recorded.", keyed: true });
  const F = fieldsOf(held);
  const unit = suggestions.find((s) => s.code === held.values.code)?.unit ?? null;
  const codes = [
    ...new Set([
      ...suggestions.map((s) => s.code),
      "blast",
      "zinc-primer",
      "seam-seal",
      "edge-breaking",
      "higher-grade",
      "outgas-bake",
      "two-coats",
      "test-panels",
      "sample-approval",
      "hand-finish",
      "weld-repair",
    ]),
  ];
  return (
    <Entry
      held={held}
      id="option"
      sending={saving}
      button="Record the offer"
      primary
      className="grid max-w-[760px] gap-3"
      begin={["price"]}
      send={(read) => {
        const { code, what, risk } = held.values;
        const [quantity, price] = [read.maybe("quantity"), read.maybe("price")];
        return saving.send({ job, code, what, quantity, unit, price, currency, risk });
      }}
    >
      <div className="grid grid-cols-[220px_minmax(0,1fr)_110px_120px] gap-3 max-[700px]:grid-cols-2">
        <F.Pick
          name="code"
          id="option"
          label="Option"
          of={codes.map((c) => [c, nameOf(c)])}
          changed={(code) => {
            for (const [name, value] of Object.entries(begun(code))) held.field(name as "what")[1](value);
          }}
        />
        <F.Words name="what" label="As offered" most={120} required />
        <F.Num name="quantity" label={`How much${unit ? `, ${unit}` : ""}`} />
        <F.Num name="price" label={`Price, ${currency || "–"}`} />
      </div>
      <F.Words name="risk" label="What is risked without it, in plain words" most={300} required />
    </Entry>
  );
}

/** The customer's answer: taken or declined, whose word, how and when. */
export function AnswerForm({
  offerId,
  today,
  hanging,
  answer,
}: {
  offerId: string;
  today: string;
  /** Racks that are not gone and hang under the plan that the answer may change. */
  hanging: readonly string[];
  answer: Save;
}) {
  const begun = { move: false, taken: null as "yes" | "no" | null, who: "", how: "signed", on: today };
  const held = useEntryForm(`answer ${offerId}`, begun);
  const saving = useSave(answer, held, { said: "Recorded.", keyed: true });
  const F = fieldsOf(held);
  const { taken, who, how, on, move } = held.values;
  return (
    <Entry
      held={held}
      id={`answer-${offerId}`}
      sending={saving}
      button={taken === null ? null : "Record answer"}
      className="flex flex-wrap items-end gap-2 pb-1"
      send={() => saving.send({ offer: offerId, taken: taken === "yes", who, how, on, note: "", move })}
    >
      <F.Ask
        name="taken"
        label="Answer"
        of={[
          ["yes", "Taken"],
          ["no", "Declined"],
        ]}
      />
      {taken !== null && (
        <>
          <input
            {...held.register("who")}
            className="input max-w-[190px]"
            aria-label="Whose word"
            placeholder="whose word"
            required
            maxLength={80}
          />
          <Choice {...held.choice("how")} className="input max-w-[150px]" aria-label="How it was said">
            {["signed", "by mail", "by telephone", "in person"].map((h) => (
              <option key={h}>{h}</option>
            ))}
          </Choice>
          <input
            {...held.register("on")}
            type="date"
            className="input max-w-[160px]"
            aria-label="On what day"
            max={today}
            required
          />
          <GoesOver racks={hanging} move={move} setMove={(on) => held.field("move")[1](on)} />
        </>
      )}
    </Entry>
  );
}
