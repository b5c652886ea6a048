"use client";
import { line, scaleLinear, scaleTime } from "d3";
import { useRouter } from "next/navigation";
import { type FormEvent, type KeyboardEvent, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import {
  type BathParameter,
  type BathWindow,
  conductivityAt25,
  judgeBathValue,
  parseMeterLine,
  type TitrationRecipe,
} from "@/core/bath";
import type { VerdictResult } from "@/core/verdict";
import { TextField } from "../forms/text-field";
import { useEntryForm } from "../forms/use-entry-form";
import type { Failure } from "../frame/line-actions";
import { useShell } from "../frame/shell";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import {
  bathValue,
  bathWindow,
  inUnits,
  parameterDigits,
  parameterLabel,
  parameterName,
  parameterUnit,
} from "../words/baths";
import { failureText } from "../words/failures";
import { AskedAgain } from "./asked-again";
import { readBathValue } from "./read-value";
import { TitrationGuide } from "./titration-guide";

export type RoundValue = {
  readonly parameter: BathParameter;
  readonly window: BathWindow;
  readonly points: readonly { readonly atMs: number; readonly value: number; readonly result: VerdictResult }[];
  readonly lastWhen: string;
  /** Value per mL of titrant; null where it is read off a meter or a strip. */
  readonly titrationFactor: number | null;
  /** The blank that is set for it, mL. */
  readonly blankMl: number;
  readonly recipe: TitrationRecipe | null;
};
export type RoundBath = {
  readonly code: string;
  readonly name: string;
  readonly due: string;
  readonly dueResult: VerdictResult;
  readonly caution: string;
  readonly reaction: string | null;
  /** The last round, where it was left out: when, by whom and why. */
  readonly leftOut: string | null;
  readonly values: readonly RoundValue[];
};
type Sent = { readonly good: boolean; readonly text: string; readonly failure: Failure | null };

const verdictWord = { in: "in", watch: "near its limit", out: "out", unknown: "no window" } as const;

/** The whole round on one screen, in walking order: one key to the next value, each judged as it is typed. */
export function RoundForm({ baths }: { baths: readonly RoundBath[] }) {
  const { units } = usePreferences();
  const { actions } = useShell();
  const router = useRouter();
  const form = useRef<HTMLFormElement>(null);
  const ids = useRef(new Map<string, { content: string; id: string }>());
  const held = useEntryForm("round", {
    typed: {} as Readonly<Record<string, string>>,
    blanks: {} as Readonly<Record<string, string>>,
    skips: {} as Readonly<Record<string, string | undefined>>,
  });
  const [typed, setTyped] = held.field("typed");
  const [blanks, setBlanks] = held.field("blanks");
  const [skips, setSkips] = held.field("skips");
  const [sent, setSent] = useState<Readonly<Record<string, Sent>>>({});
  const [busy, setBusy] = useState(false);
  const keyOf = (bath: string, parameter: string) => `${bath}/${parameter}`;
  const blankOf = (bath: RoundBath, { parameter, blankMl }: RoundValue) =>
    blanks[keyOf(bath.code, parameter)] ?? String(blankMl);
  const readOf = (bath: RoundBath, value: RoundValue) =>
    readBathValue(value.parameter, typed[keyOf(bath.code, value.parameter)] ?? "", blankOf(bath, value), {
      units,
      titrationFactor: value.titrationFactor,
    });
  const put = (bath: string, parameter: string, text: string) =>
    setTyped((before) => ({ ...before, [keyOf(bath, parameter)]: text }));

  /** Enter and the arrows walk from value to value; Enter on the last one goes to the button. */
  const walk = (e: KeyboardEvent<HTMLFormElement>) => {
    const step = e.key === "Enter" || e.key === "ArrowDown" ? 1 : e.key === "ArrowUp" ? -1 : 0;
    if (step === 0 || !(e.target instanceof HTMLInputElement) || e.target.dataset.value === undefined) return;
    e.preventDefault();
    const inputs = [...(form.current?.querySelectorAll<HTMLInputElement>("input[data-value]") ?? [])];
    const next = inputs[inputs.indexOf(e.target) + step];
    if (next) next.focus();
    else if (step > 0) form.current?.querySelector<HTMLButtonElement>("button[type=submit]")?.focus();
  };

  const send = async (bath: RoundBath, sure: boolean): Promise<Sent | null> => {
    const reason = skips[bath.code];
    const values = [];
    if (reason === undefined)
      for (const value of bath.values) {
        const { parameter } = value;
        const found = readOf(bath, value);
        if (!found) continue;
        if ("failure" in found) return { good: false, text: failureText(found.failure), failure: null };
        values.push({
          parameter,
          ...found,
          typed: typed[keyOf(bath.code, parameter)]?.trim() ?? "",
          typedUnit: value.titrationFactor !== null ? "mL" : parameterUnit(parameter, units),
        });
      }
    if (reason === undefined && values.length === 0) return null;
    const entry =
      reason === undefined
        ? { kind: "bath-check" as const, bath: bath.code, values, sure }
        : { kind: "round-skip" as const, bath: bath.code, reason };
    const content = JSON.stringify(entry);
    const known = ids.current.get(bath.code);
    const id = known?.content === content ? known.id : uuidv7();
    ids.current.set(bath.code, { content, id });
    const outcome = await actions
      .save({ ...entry, id, idempotencyKey: `round:${id}`, happenedAt: new Date().toISOString() })
      .catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
    if (!outcome.ok) return { good: false, text: failureText(outcome.failure, units), failure: outcome.failure };
    ids.current.delete(bath.code);
    return { good: true, text: reason === undefined ? "Recorded" : "Left out, with its reason", failure: null };
  };
  const record = async (which: readonly RoundBath[], sure: boolean) => {
    setBusy(true);
    // What came of the round before must not stand for this one.
    setSent((before) =>
      Object.fromEntries(Object.entries(before).filter(([code]) => !which.some((b) => b.code === code))),
    );
    // One bath after another, so that what is refused leaves the others on record and is named beside its own values.
    let refused = false;
    for (const bath of which) {
      const result = await send(bath, sure);
      if (!result) continue;
      setSent((before) => ({ ...before, [bath.code]: result }));
      refused ||= !result.good;
      if (result.good) {
        setTyped((before) =>
          Object.fromEntries(Object.entries(before).filter(([key]) => !key.startsWith(`${bath.code}/`))),
        );
        setSkips((before) => ({ ...before, [bath.code]: undefined }));
      }
    }
    if (!refused && which.length === baths.length) held.done();
    setBusy(false);
    router.refresh();
  };
  const submit = (e: FormEvent) => {
    e.preventDefault();
    void record(baths, false);
  };
  const fromMeter = async (bath: RoundBath) => {
    const fail = (text: string) =>
      setSent((before) => ({ ...before, [bath.code]: { good: false, text, failure: null } }));
    try {
      const response = await fetch(`/api/instruments/bath-meter?bath=${encodeURIComponent(bath.code)}`);
      const read = parseMeterLine(await response.text());
      if (!response.ok || !read.ok) return fail("The meter did not answer. Type the values.");
      for (const { parameter } of bath.values) {
        const value = parameter === "conductivity" ? at25(read.value) : read.value[parameter];
        if (value !== undefined)
          put(bath.code, parameter, inUnits(parameter, value, units).toFixed(parameterDigits(parameter)));
      }
    } catch {
      fail("The meter did not answer. Type the values.");
    }
  };
  const count = baths.reduce(
    (n, b) =>
      n + (skips[b.code] !== undefined ? 1 : b.values.some((v) => typed[keyOf(b.code, v.parameter)]?.trim()) ? 1 : 0),
    0,
  );
  return (
    <form ref={form} onSubmit={submit} onKeyDown={walk} noValidate className="mt-2 grid gap-1">
      {held.said}
      {baths.map((bath) => {
        const skipping = skips[bath.code] !== undefined;
        const result = sent[bath.code];
        return (
          <fieldset key={bath.code} className="ruled m-0 min-w-0 border-0 p-0 pb-2">
            <legend className="float-left mb-1 flex w-full flex-wrap items-baseline gap-x-4 pt-1">
              <b className="text-[17px]">{bath.name}</b>
              <Verdict result={bath.dueResult}>{bath.due}</Verdict>
              <span className="ml-auto flex gap-4">
                <button type="button" className="link min-h-11" onClick={() => void fromMeter(bath)}>
                  from the meter
                </button>
                <button
                  type="button"
                  className="link min-h-11"
                  onClick={() => setSkips({ ...skips, [bath.code]: skipping ? undefined : "" })}
                >
                  {skipping ? "measure it" : "leave out"}
                </button>
              </span>
            </legend>
            {bath.leftOut && <p className="small soft clear-both m-0">{bath.leftOut}</p>}
            {bath.reaction && (
              <p className="m-0 clear-both border-l-4 border-out pl-3">
                <b>Out of its window.</b> {bath.reaction}.
              </p>
            )}
            {skipping ? (
              <TextField
                id={`skip-${bath.code}`}
                label="Why this round is left out"
                text={skips[bath.code] ?? ""}
                change={(text) => setSkips({ ...skips, [bath.code]: text })}
                most={400}
                className="clear-both max-w-[520px]"
              />
            ) : (
              bath.values.map((v) => (
                <RoundRow
                  key={v.parameter}
                  bath={bath}
                  value={v}
                  text={typed[keyOf(bath.code, v.parameter)] ?? ""}
                  change={(text) => put(bath.code, v.parameter, text)}
                  blank={blankOf(bath, v)}
                  setBlank={(text) => setBlanks({ ...blanks, [keyOf(bath.code, v.parameter)]: text })}
                />
              ))
            )}
            {result && <output className={`block ${result.good ? "text-in" : "text-out"}`}>{result.text}</output>}
            {result && !result.good && (
              <AskedAgain
                refused={result.failure}
                units={units}
                busy={busy}
                use={(parameter, text) => {
                  put(bath.code, parameter, text);
                  setSent({
                    ...sent,
                    [bath.code]: { good: true, text: "Taken; record the round again.", failure: null },
                  });
                }}
                sure={() => void record([bath], true)}
              />
            )}
          </fieldset>
        );
      })}
      <p className="m-0 flex items-center gap-4">
        <button type="submit" className="btn pri" disabled={busy || count === 0}>
          {busy ? "Recording …" : count > 1 ? `Record the round, ${count} baths` : "Record the round"}
        </button>
        <span className="small soft">
          <span className="key">Enter</span> next value
        </span>
      </p>
    </form>
  );
}

/** A meter that has not brought its reading to 25 °C itself is corrected by the usual 2 % a degree. */
function at25(reading: Extract<ReturnType<typeof parseMeterLine>, { ok: true }>["value"]): number | undefined {
  const { conductivity, temperature, compensated } = reading;
  if (conductivity === undefined || compensated || temperature === undefined) return conductivity;
  const corrected = conductivityAt25({ microSiemensPerCm: conductivity, temperatureC: temperature });
  return corrected.ok ? corrected.value : conductivity;
}

function RoundRow({
  bath,
  value: { parameter, window, points, lastWhen, titrationFactor, recipe },
  text,
  change,
  blank,
  setBlank,
}: {
  bath: RoundBath;
  value: RoundValue;
  text: string;
  change: (text: string) => void;
  blank: string;
  setBlank: (text: string) => void;
}) {
  const { units } = usePreferences();
  const titrates = titrationFactor !== null;
  const found = readBathValue(parameter, text, blank, { units, titrationFactor });
  const last = points.at(-1);
  const id = `round-${bath.code}-${parameter}`;
  return (
    <div className="row clear-both grid-cols-[128px_104px_minmax(0,1fr)_210px_132px] items-center gap-3 max-[900px]:grid-cols-[112px_104px_minmax(0,1fr)]">
      <label htmlFor={id}>
        {titrates
          ? parameter === "concentration"
            ? "titrant, mL"
            : `${parameterName[parameter]}, mL`
          : parameterLabel(parameter, units)}
        <span className="small faint block">{bathWindow(parameter, window, units)}</span>
      </label>
      <input
        id={id}
        data-value
        className="input num text-[18px]"
        inputMode="decimal"
        autoComplete="off"
        value={text}
        onChange={(e) => change(e.target.value)}
      />
      <span className="flex flex-wrap items-center gap-3">
        {found &&
          ("failure" in found ? (
            <span className="small text-out">{failureText(found.failure)}</span>
          ) : (
            <Verdict result={judgeBathValue(found.value, window)}>
              {titrates ? `${bathValue(parameter, found.value, units)}, ` : ""}
              {verdictWord[judgeBathValue(found.value, window)]}
            </Verdict>
          ))}
        {titrates && (
          <label className="small soft flex items-center gap-2">
            blank
            <input
              className="input num w-[72px]"
              inputMode="decimal"
              aria-label={`Blank${parameter === "concentration" ? "" : ` of ${parameterName[parameter]}`}, mL, ${bath.name}`}
              value={blank}
              onChange={(e) => setBlank(e.target.value)}
            />
          </label>
        )}
        {recipe && (
          <TitrationGuide
            bath={bath.name}
            parameter={parameter}
            recipe={recipe}
            blank={blank}
            caution={bath.caution}
            take={change}
          />
        )}
      </span>
      <span className="num max-[900px]:hidden">
        {last ? (
          <>
            <b className="fig">{bathValue(parameter, last.value, units)}</b>{" "}
            <span className="small faint">{lastWhen}</span>
          </>
        ) : (
          <span className="small faint">never checked</span>
        )}
      </span>
      <span className="max-[900px]:hidden">
        <Spark points={points} window={window} label={`${parameterName[parameter]}, last ${points.length} checks`} />
      </span>
    </div>
  );
}

const SPARK = { width: 128, height: 30 };
/** The last checks against the window, small: whether it moves, and which way. */
function Spark({ points, window, label }: { points: RoundValue["points"]; window: BathWindow; label: string }) {
  const first = points[0];
  const last = points.at(-1);
  if (!first || !last || points.length < 2) return null;
  const values = points.map((p) => p.value);
  const least = Math.min(...values, window.lower ?? Number.POSITIVE_INFINITY);
  const most = Math.max(...values, window.upper ?? Number.NEGATIVE_INFINITY);
  const x = scaleTime([first.atMs, last.atMs], [3, SPARK.width - 5]);
  const y = scaleLinear([least, most], [SPARK.height - 3, 3]);
  const path = line<(typeof points)[number]>(
    (p) => x(p.atMs),
    (p) => y(p.value),
  )(points);
  return (
    <svg width={SPARK.width} height={SPARK.height} role="img" aria-label={label} className="block">
      {[window.lower, window.upper].map(
        (limit) =>
          limit !== null && (
            <line
              key={limit}
              x1={0}
              x2={SPARK.width}
              y1={y(limit)}
              y2={y(limit)}
              stroke="var(--rule-strong)"
              strokeDasharray="3 3"
            />
          ),
      )}
      <path d={path ?? ""} fill="none" stroke="var(--ink-2)" strokeWidth={1.5} />
      <circle cx={x(last.atMs)} cy={y(last.value)} r={3.5} fill={last.result === "out" ? "var(--out)" : "var(--ink)"} />
    </svg>
  );
}
