"use client";
import { createContext, type FormEvent, type ReactNode, useContext, useState } from "react";
import { type Quantity, quantities, type UnitSystem } from "@/core/units";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import type { Values } from "./draft";
import { RecordRow } from "./recorded";
import { Refused } from "./refused";
import type { EntryForm } from "./use-entry-form";

/** The fields of a form that hold words, as numbers do until they are read. */
export type Texts<T> = { [K in keyof T & string]: T[K] extends string ? K : never }[keyof T & string];

/** Reads what was typed, in canonical units. Each throws `Refused`, which is said at its field. */
export type Reader<T extends Values> = {
  /** A number; must be there. `quantity` says what it is of, where it is typed in the person's unit. */
  readonly number: (field: Texts<T>, quantity?: Quantity) => number;
  /** A number, or null where nothing was typed. */
  readonly maybe: (field: Texts<T>, quantity?: Quantity) => number | null;
  /** Numbers with blanks or semicolons between them; none where nothing was typed. */
  readonly many: (field: Texts<T>, quantity?: Quantity) => number[];
  /** By a way of reading of its own, which throws `Refused`. */
  readonly as: <V>(field: Texts<T>, parse: (text: string) => V) => V;
  readonly refuse: (field: (keyof T & string) | null, text: string) => never;
};

/** What stands between blanks or semicolons. */
export const wordsIn = (text: string): string[] => text.split(/[\s;]+/).filter((word) => word !== "");

export function readerOf<T extends Values>(values: T, units: UnitSystem): Reader<T> {
  const refuse = (field: string | null, text: string): never => {
    throw new Refused(field, text);
  };
  const one = (field: Texts<T>, text: string, quantity?: Quantity) => {
    const read = parseTyped(text);
    if (!read.ok) return refuse(field, failureText(read.error));
    return quantity && units === "us" ? quantities[quantity].fromUs(read.value) : read.value;
  };
  const maybe = (field: Texts<T>, quantity?: Quantity) => {
    const text = String(values[field]);
    return text.trim() === "" ? null : one(field, text, quantity);
  };
  const many = (field: Texts<T>, quantity?: Quantity) =>
    wordsIn(String(values[field])).map((word) => one(field, word, quantity));
  const as = <V,>(field: Texts<T>, parse: (text: string) => V): V => {
    try {
      return parse(String(values[field]));
    } catch (error) {
      if (error instanceof Refused) throw new Refused(field, error.message);
      throw error;
    }
  };
  return {
    maybe,
    many,
    as,
    refuse,
    number: (field, quantity) => maybe(field, quantity) ?? refuse(field, "Type a number here."),
  };
}

type InForm = {
  readonly held: EntryForm<Values>;
  readonly id: string;
  readonly refusal: { readonly field: string | null; readonly text: string } | null;
};
const InFormContext = createContext<InForm | null>(null);
/** The form a field stands in. */
export function useInForm(): InForm {
  const form = useContext(InFormContext);
  if (!form) throw new Error("a field outside its form");
  return form;
}

/**
 * A form that records: its draft, its fields, what is refused said at its field, and its button with what came of it. `send`
 * gives whether it is recorded; then the fields of `begin` are as they began.
 */
export function Entry<T extends Values>({
  held,
  id,
  sending,
  send,
  begin = [],
  button,
  primary = false,
  label,
  className = "grid gap-2",
  foot,
  children,
}: {
  held: EntryForm<T>;
  /** Of its fields in the page, each with its own name after it. */
  id: string;
  sending: {
    readonly busy: boolean;
    readonly message: { readonly good: boolean; readonly text: string } | null;
  };
  send: (read: Reader<T>) => Promise<boolean>;
  begin?: readonly (keyof T & string)[];
  /** What its button says; null where it has a foot of its own. */
  button: string | null;
  primary?: boolean;
  label?: string;
  className?: string;
  /** What stands after its button. */
  foot?: ReactNode;
  children: ReactNode;
}) {
  const { units } = usePreferences();
  const [refusal, setRefusal] = useState<InForm["refusal"]>(null);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setRefusal(null);
    try {
      if (await send(readerOf(held.values, units))) held.again(begin);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      setRefusal({ field: error.field, text: error.message });
      if (error.field !== null) document.getElementById(`${id}-${error.field}`)?.focus();
    }
  };
  return (
    <form onSubmit={submit} className={className} aria-label={label}>
      {held.said}
      <InFormContext value={{ held: held as unknown as EntryForm<Values>, id, refusal }}>{children}</InFormContext>
      {refusal?.field === null && (
        <p role="alert" className="m-0 text-out">
          {refusal.text}
        </p>
      )}
      {button !== null && (
        <RecordRow busy={sending.busy} message={sending.message} primary={primary}>
          {button}
        </RecordRow>
      )}
      {foot}
    </form>
  );
}
