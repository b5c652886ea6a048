"use client";
import { type ReactNode, useContext, useEffect, useRef, useState } from "react";
import { type DefaultValues, type Path, type PathValue, type UseFormRegisterReturn, useForm } from "react-hook-form";
import { type Quantity, quantities } from "@/core/units";
import { FoldContext } from "../fields/fold";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { changedOf, encode, keepDraft, keptDraft, type Values, withChanged } from "./draft";
import { DraftSaid } from "./draft-said";
import type { Texts } from "./entry";

type Next<T> = T | ((before: T) => T);
export type EntryForm<T extends Values> = {
  readonly values: T;
  /** A field's value and what sets it, as a state's. */
  readonly field: <K extends keyof T & string>(name: K) => readonly [T[K], (next: Next<T[K]>) => void];
  /** For an input that holds its own text: spread into it. */
  readonly register: <K extends keyof T & string>(name: K) => UseFormRegisterReturn;
  /** For a `Choice` and for a `Tick`: spread into it. */
  readonly choice: <K extends keyof T & string>(
    name: K,
  ) => { readonly name: K; readonly value: string; readonly onChange: (value: string) => void };
  readonly tick: <K extends keyof T & string>(
    name: K,
  ) => { readonly name: K; readonly checked: boolean; readonly onChange: (on: boolean) => void };
  /** A number as far as it is typed, in its canonical unit; null while it cannot be read. */
  readonly live: (field: Texts<T>, quantity?: Quantity) => number | null;
  /** Numbers as far as they are typed; null while one of them cannot be read. */
  readonly liveMany: (field: Texts<T>, quantity?: Quantity) => number[] | null;
  /** These are again as they began. */
  readonly again: (fields: readonly (keyof T & string)[]) => void;
  /** What stands in it is recorded: it is no draft any more. */
  readonly done: () => void;
  /** Back to how it began. */
  readonly drop: () => void;
  /** That what was typed is here again, where it is: stands in the form. */
  readonly said: ReactNode;
};

/**
 * The fields of a form, held by react-hook-form, and its draft: what was typed and not recorded is kept in the browser, for
 * this person and this form (`name` says which, and of what), and is there again after a reload, another page, an ended
 * session, a lost network or a deploy. `begun` is how it begins.
 */
export function useEntryForm<T extends Values>(name: string, begun: T): EntryForm<T> {
  const { who, units } = usePreferences();
  const fold = useContext(FoldContext);
  const first = useRef(begun);
  const recorded = useRef<Values | null>(null);
  const form = useForm<T>({ defaultValues: begun as DefaultValues<T> });
  const [foundMs, setFoundMs] = useState<number | null>(null);
  const looked = useRef(false);
  const values = form.watch() as T;

  useEffect(() => {
    const kept = keptDraft(who, name);
    looked.current = true;
    if (!kept) return;
    const again = withChanged(first.current, kept.changed);
    if (encode(again) === encode(first.current)) return keepDraft(who, name, null, 0);
    form.reset(again, { keepDefaultValues: true });
    setFoundMs(kept.atMs);
    fold?.();
  }, [who, name, form, fold]);
  const content = encode(values);
  const before = useRef(content);
  useEffect(() => {
    if (!looked.current || before.current === content) return;
    before.current = content;
    const beginnings = recorded.current ? [first.current, recorded.current] : [first.current];
    keepDraft(who, name, changedOf(values, beginnings), Date.now());
  }, [content, values, who, name]);

  const put = (field: string, value: unknown) =>
    form.setValue(field as Path<T>, value as PathValue<T, Path<T>>, { shouldDirty: true });
  const setters = useRef(new Map<string, (next: Next<never>) => void>());
  const setterOf = (field: string) => {
    const known = setters.current.get(field);
    if (known) return known;
    const made = (next: unknown) =>
      put(field, typeof next === "function" ? next(form.getValues(field as Path<T>)) : next);
    setters.current.set(field, made);
    return made;
  };
  const own = (value: number, quantity?: Quantity) =>
    quantity && units === "us" ? quantities[quantity].fromUs(value) : value;
  const done = () => {
    recorded.current = form.getValues();
    keepDraft(who, name, null, 0);
    setFoundMs(null);
  };
  const drop = () => {
    recorded.current = null;
    form.reset(first.current);
    keepDraft(who, name, null, 0);
    setFoundMs(null);
  };
  return {
    values,
    field: (field) => [values[field], setterOf(field) as (next: Next<T[typeof field]>) => void],
    register: (field) => form.register(field as string as Path<T>),
    choice: (field) => ({ name: field, value: String(values[field] ?? ""), onChange: (value) => put(field, value) }),
    tick: (field) => ({ name: field, checked: values[field] === true, onChange: (on) => put(field, on) }),
    live: (field, quantity) => {
      const read = parseTyped(String(values[field]));
      return read.ok ? own(read.value, quantity) : null;
    },
    liveMany: (field, quantity) => {
      const read = String(values[field])
        .split(/[\s;]+/)
        .filter((w) => w !== "")
        .map((w) => parseTyped(w));
      return read.every((r) => r.ok) ? read.flatMap((r) => (r.ok ? [own(r.value, quantity)] : [])) : null;
    },
    again: (fields) => {
      for (const field of fields) put(field, first.current[field]);
    },
    done,
    drop,
    said: foundMs === null ? null : <DraftSaid atMs={foundMs} drop={drop} />,
  };
}
