"use client";
import type { ReactNode } from "react";
import { type Quantity, quantities } from "@/core/units";
import type { Values } from "../forms/draft";
import { type Texts, useInForm } from "../forms/entry";
import type { EntryForm } from "../forms/use-entry-form";
import { usePreferences } from "../preferences-context";
import { Choice } from "./choice";
import { OneOf } from "./one-of-later";
import { Tick } from "./tick";

type Shared = { readonly label: string; readonly className?: string; readonly id?: string };
export type Options = readonly (string | readonly [value: string, name: string])[];
const optionOf = (o: Options[number]): readonly [string, string] => (typeof o === "string" ? [o, o] : o);

/** A field with its name above it and what is wrong with it under it. */
function Named({
  name,
  label,
  className = "",
  id,
  children,
}: Shared & {
  name: string;
  children: (own: { id: string; "aria-invalid"?: true; "aria-describedby"?: string }) => ReactNode;
}) {
  const form = useInForm();
  const own = id ?? `${form.id}-${name}`;
  const wrong = form.refusal?.field === name ? form.refusal.text : null;
  return (
    <div className={`field ${className}`}>
      <label htmlFor={own}>{label}</label>
      {children({ id: own, ...(wrong ? { "aria-invalid": true, "aria-describedby": `${own}-wrong` } : {}) })}
      {wrong && (
        <span id={`${own}-wrong`} role="alert" className="small text-out">
          {wrong}
        </span>
      )}
    </div>
  );
}
const useValue = (name: string): readonly [string, (text: string) => void] => {
  const { held } = useInForm();
  const [value, set] = held.field(name);
  return [String(value ?? ""), (text) => set(text)];
};

/** A number as a person types it, point or comma, kept as text until it is read; in the person's unit of a quantity. */
function Num({
  name,
  label,
  quantity,
  placeholder,
  hint,
  ...shared
}: Shared & { name: string; quantity?: Quantity; placeholder?: string; hint?: ReactNode }) {
  const { units } = usePreferences();
  const [text, set] = useValue(name);
  return (
    <Named name={name} label={quantity ? `${label}, ${quantities[quantity][units]}` : label} {...shared}>
      {(own) => (
        <>
          <input
            {...own}
            className="input num"
            inputMode="decimal"
            autoComplete="off"
            placeholder={placeholder}
            value={text}
            onChange={(e) => set(e.target.value)}
          />
          {hint}
        </>
      )}
    </Named>
  );
}

/** A line of words; `among` is offered as one types. */
function Words({
  name,
  label,
  most,
  least,
  placeholder,
  required,
  among,
  rows,
  ...shared
}: Shared & {
  name: string;
  /** Lines it shows, where there may be several. */
  rows?: number;
  most: number;
  /** Fewest characters that say something. */
  least?: number;
  placeholder?: string;
  required?: boolean;
  among?: readonly string[];
}) {
  const [text, set] = useValue(name);
  return (
    <Named name={name} label={label} {...shared}>
      {(own) => {
        const shown = { ...own, maxLength: most, minLength: least, placeholder, required, value: text };
        if (rows) return <textarea {...shown} rows={rows} className="input" onChange={(e) => set(e.target.value)} />;
        return (
          <>
            <input
              {...shown}
              className="input"
              {...(among ? { list: `${own.id}-among` } : {})}
              onChange={(e) => set(e.target.value)}
            />
            {among && (
              <datalist id={`${own.id}-among`}>
                {among.map((a) => (
                  <option key={a} value={a} />
                ))}
              </datalist>
            )}
          </>
        );
      }}
    </Named>
  );
}

/** Lines of text, as a table pasted. */
function Lines({ name, label, placeholder, ...shared }: Shared & { name: string; placeholder?: string }) {
  const [text, set] = useValue(name);
  return (
    <Named name={name} label={label} {...shared}>
      {(own) => (
        <textarea
          {...own}
          className="input fig min-h-[120px]"
          spellCheck={false}
          placeholder={placeholder}
          value={text}
          onChange={(e) => set(e.target.value)}
        />
      )}
    </Named>
  );
}

/** A day, or with `time` a moment, by the clock of whoever types it. */
function When({ name, label, time = false, ...shared }: Shared & { name: string; time?: boolean }) {
  const [text, set] = useValue(name);
  return (
    <Named name={name} label={label} {...shared}>
      {(own) => (
        <input
          {...own}
          type={time ? "datetime-local" : "date"}
          className="input num"
          value={text}
          onChange={(e) => set(e.target.value)}
        />
      )}
    </Named>
  );
}

/** One of many, from a list. */
function Pick({
  name,
  label,
  of,
  changed,
  required = false,
  ...shared
}: Shared & { name: string; of: Options; changed?: (value: string) => void; required?: boolean }) {
  const [value, set] = useValue(name);
  return (
    <Named name={name} label={label} {...shared}>
      {({ id }) => (
        <Choice
          id={id}
          className="input"
          {...(required ? { name, required } : {})}
          value={value}
          onChange={(next) => {
            set(next);
            changed?.(next);
          }}
        >
          {of.map(optionOf).map(([v, text]) => (
            <option key={v} value={v}>
              {text}
            </option>
          ))}
        </Choice>
      )}
    </Named>
  );
}

/** One of a few, all in sight; nothing is chosen beforehand where the form begins with null. */
function Ask({ name, label, of }: { name: string; label: string; of: Options }) {
  const { held, refusal, id } = useInForm();
  const [value, set] = held.field(name);
  return (
    <div id={`${id}-${name}`} tabIndex={-1}>
      <OneOf
        label={label}
        value={(value as string | null) ?? null}
        options={of.map(optionOf).map(([v, text]) => ({ value: v, label: text }))}
        onChange={set}
      />
      {refusal?.field === name && (
        <span role="alert" className="small text-out">
          {refusal.text}
        </span>
      )}
    </div>
  );
}

/** Yes or no. */
function Yes({ name, children, className = "" }: { name: string; children: ReactNode; className?: string }) {
  const { held } = useInForm();
  return (
    <label className={`flex min-h-11 items-center gap-2 ${className}`}>
      <Tick {...held.tick(name)} /> {children}
    </label>
  );
}

/** Any of several, each ticked for itself; held as a set of them or as a list. */
function Many({ name, label, of }: { name: string; label: string; of: Options }) {
  const { held } = useInForm();
  const [value, set] = held.field(name);
  const listed = Array.isArray(value);
  const chosen = new Set(value as Iterable<string>);
  const put = (v: string, on: boolean) => {
    const next = new Set(chosen);
    if (on) next.add(v);
    else next.delete(v);
    set(listed ? [...next] : next);
  };
  return (
    <fieldset className="m-0 border-0 p-0">
      {label && <legend className="small soft mb-1">{label}</legend>}
      <span className="flex flex-wrap gap-x-5">
        {of.map(optionOf).map(([v, text]) => (
          <label key={v} className="flex min-h-11 items-center gap-2">
            <Tick checked={chosen.has(v)} onChange={(on) => put(v, on)} /> {text}
          </label>
        ))}
      </span>
    </fieldset>
  );
}

type Of<P, K> = (props: Omit<P, "name"> & { readonly name: K }) => ReactNode;
type Props<F extends (props: never) => ReactNode> = Parameters<F>[0];
/** The fields of a form of `T`, each by the name it has there. */
export type Fields<T extends Values> = {
  readonly Num: Of<Props<typeof Num>, Texts<T>>;
  readonly Words: Of<Props<typeof Words>, Texts<T>>;
  readonly Lines: Of<Props<typeof Lines>, Texts<T>>;
  readonly When: Of<Props<typeof When>, Texts<T>>;
  readonly Pick: Of<Props<typeof Pick>, keyof T & string>;
  readonly Ask: Of<Props<typeof Ask>, keyof T & string>;
  readonly Yes: Of<Props<typeof Yes>, keyof T & string>;
  readonly Many: Of<Props<typeof Many>, keyof T & string>;
};
const all = { Num, Words, Lines, When, Pick, Ask, Yes, Many };
/** The fields of a form, to stand inside its `Entry`. */
export const fieldsOf = <T extends Values>(_held: EntryForm<T>): Fields<T> => all as unknown as Fields<T>;
