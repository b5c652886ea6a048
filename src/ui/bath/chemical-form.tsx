"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { parseNumber } from "@/core/units";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { failureText } from "../words/failures";

type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/** A drum taken into stock, by its lot. */
export function ChemicalForm({
  products,
  today,
  take,
}: {
  products: readonly string[];
  today: string;
  take: (input: unknown) => Promise<Outcome>;
}) {
  const router = useRouter();
  const held = useEntryForm("chemical", {
    texts: {
      product: "",
      lot: "",
      litres: "",
      price: "",
      receivedOn: today,
      usableUntil: "",
    },
  });
  const [texts, setTexts] = held.field("texts");
  const [state, setState] = useState<{ busy: boolean; message: { good: boolean; text: string } | null }>({
    busy: false,
    message: null,
  });
  const put = (key: keyof typeof texts) => (text: string) => setTexts((before) => ({ ...before, [key]: text }));
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    const litres = parseNumber(texts.litres);
    if (!litres.ok) return setState({ busy: false, message: { good: false, text: failureText(litres.error) } });
    const price = texts.price.trim() === "" ? null : parseNumber(texts.price);
    if (price && !price.ok) return setState({ busy: false, message: { good: false, text: failureText(price.error) } });
    setState({ busy: true, message: null });
    const { product, lot, receivedOn, usableUntil } = texts;
    const pricePerL = price?.ok ? price.value : null;
    const drum = { product, lot, receivedOn, usableUntil: usableUntil || null, litres: litres.value, pricePerL };
    const outcome = await take(drum).catch((): Outcome => ({ ok: false, failure: { kind: "not-saved" } }));
    setState({
      busy: false,
      message: outcome.ok
        ? { good: true, text: "Taken into stock." }
        : { good: false, text: failureText(outcome.failure) },
    });
    if (!outcome.ok) return;
    held.done();
    setTexts({ ...texts, lot: "", litres: "" });
    router.refresh();
  };
  const date = (key: "receivedOn" | "usableUntil", label: string) => (
    <div className="field">
      <label htmlFor={`drum-${key}`}>{label}</label>
      <input
        id={`drum-${key}`}
        type="date"
        className="input num"
        value={texts[key]}
        onChange={(e) => put(key)(e.target.value)}
      />
    </div>
  );
  return (
    <form onSubmit={submit} className="grid gap-2" noValidate>
      {held.said}
      <div className="field">
        <label htmlFor="drum-product">Product, as on the drum</label>
        <input
          id="drum-product"
          className="input"
          list="drum-products"
          maxLength={80}
          value={texts.product}
          onChange={(e) => put("product")(e.target.value)}
        />
        <datalist id="drum-products">
          {products.map((p) => (
            <option key={p} value={p} />
          ))}
        </datalist>
      </div>
      <div className="grid grid-cols-2 gap-2">
        <TextField id="drum-lot" label="Lot" text={texts.lot} change={put("lot")} most={40} />
        <TypedNumber id="drum-litres" label="Litres" text={texts.litres} change={put("litres")} />
        <TypedNumber id="drum-price" label="Price per L, if known" text={texts.price} change={put("price")} />
        <span />
        {date("receivedOn", "Received")}
        {date("usableUntil", "Usable until")}
      </div>
      <RecordRow busy={state.busy} message={state.message} primary={false}>
        Take it into stock
      </RecordRow>
    </form>
  );
}
