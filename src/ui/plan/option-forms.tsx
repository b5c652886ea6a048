"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { parseNumber } from "@/core/units";
import { Choice } from "../fields/choice";
import { RecordRow } from "../forms/recorded";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { failureText } from "../words/failures";
import { optionName } from "../words/plan";
import { GoesOver } from "./change-plan-form";

type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };
type Send = (input: unknown) => Promise<Outcome>;

function useSend(send: Send) {
  const router = useRouter();
  const id = useRef<{ content: string; id: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(null);
  const go = async (body: object): Promise<boolean> => {
    const content = JSON.stringify(body);
    if (id.current?.content !== content) id.current = { content, id: uuidv7() };
    setBusy(true);
    const outcome = await send({ id: id.current.id, ...body }).catch(
      (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
    );
    setBusy(false);
    setMessage(outcome.ok ? { good: true, text: "Recorded." } : { good: false, text: failureText(outcome.failure) });
    if (outcome.ok) {
      id.current = null;
      router.refresh();
    }
    return outcome.ok;
  };
  return { go, busy, message, setMessage };
}

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
  offer: Send;
}) {
  const first = suggestions[0];
  const held = useEntryForm(`offer ${job}`, {
    code: first?.code ?? "test-panels",
    what: optionName[first?.code ?? "test-panels"] ?? "",
    risk: first?.risk ?? "",
    quantity: first?.quantity ? String(first.quantity) : "",
    price: first?.price ? first.price.toFixed(0) : "",
  });
  const [code, setCode] = held.field("code");
  const [what, setWhat] = held.field("what");
  const [risk, setRisk] = held.field("risk");
  const [quantity, setQuantity] = held.field("quantity");
  const [price, setPrice] = held.field("price");
  const { go, busy, message, setMessage } = useSend(offer);
  const choose = (next: string) => {
    const suggested = suggestions.find((s) => s.code === next);
    setCode(next);
    setWhat(optionName[next] ?? next.replaceAll("-", " "));
    setRisk(suggested?.risk ?? "");
    setQuantity(suggested?.quantity ? String(suggested.quantity) : "");
    setPrice(suggested?.price ? suggested.price.toFixed(0) : "");
  };
  const unit = suggestions.find((s) => s.code === code)?.unit ?? null;
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    const number = (text: string) => (text.trim() === "" ? null : parseNumber(text));
    const [q, p] = [number(quantity), number(price)];
    for (const read of [q, p]) if (read && !read.ok) return setMessage({ good: false, text: failureText(read.error) });
    const saved = await go({
      job,
      code,
      what,
      quantity: q?.ok ? q.value : null,
      unit,
      price: p?.ok ? p.value : null,
      currency,
      risk,
    });
    if (!saved) return;
    held.done();
    setPrice("");
  };
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
    <form onSubmit={submit} className="grid max-w-[760px] gap-3">
      {held.said}
      <div className="grid grid-cols-[220px_minmax(0,1fr)_110px_120px] gap-3 max-[700px]:grid-cols-2">
        <div className="field">
          <label htmlFor="option">Option</label>
          <Choice id="option" className="input" value={code} onChange={choose}>
            {codes.map((c) => (
              <option key={c} value={c}>
                {optionName[c] ?? c.replaceAll("-", " ")}
              </option>
            ))}
          </Choice>
        </div>
        <div className="field">
          <label htmlFor="option-what">As offered</label>
          <input
            id="option-what"
            className="input"
            maxLength={120}
            required
            value={what}
            onChange={(e) => setWhat(e.target.value)}
          />
        </div>
        <TypedNumber
          id="option-quantity"
          label={`How much${unit ? `, ${unit}` : ""}`}
          text={quantity}
          change={setQuantity}
        />
        <TypedNumber id="option-price" label={`Price, ${currency || "–"}`} text={price} change={setPrice} />
      </div>
      <div className="field">
        <label htmlFor="option-risk">What is risked without it, in plain words</label>
        <input
          id="option-risk"
          className="input"
          maxLength={300}
          required
          value={risk}
          onChange={(e) => setRisk(e.target.value)}
        />
      </div>
      <RecordRow busy={busy} message={message}>
        Record the offer
      </RecordRow>
    </form>
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
  answer: Send;
}) {
  const { go, busy, message } = useSend(answer);
  const held = useEntryForm(`answer ${offerId}`, {
    move: false,
    taken: null as boolean | null,
    who: "",
    how: "signed",
    on: today,
  });
  const [move, setMove] = held.field("move");
  const [taken, setTaken] = held.field("taken");
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const { who, how, on } = held.values;
    if (taken === null) return;
    void go({ offer: offerId, taken, who, how, on, note: "", move }).then((saved) => saved && held.done());
  };
  return (
    <form onSubmit={submit} className="flex flex-wrap items-end gap-2 pb-1">
      {held.said}
      {[true, false].map((value) => (
        <button
          key={String(value)}
          type="button"
          aria-pressed={taken === value}
          className={`btn ${taken === value ? "pri" : ""}`}
          onClick={() => setTaken(value)}
        >
          {value ? "Taken" : "Declined"}
        </button>
      ))}
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
          <GoesOver racks={hanging} move={move} setMove={setMove} />
          <RecordRow busy={busy} message={message} primary={false}>
            Record answer
          </RecordRow>
        </>
      )}
    </form>
  );
}
