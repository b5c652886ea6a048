"use client";
import type { FormEvent } from "react";
import { passagesFromSpeed } from "@/core/line";
import { parseNumber, type UnitSystem } from "@/core/units";
import { Recorded, RecordRow } from "../forms/recorded";
import { SetAside } from "../forms/set-aside";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";
import { passageName } from "../words/preparation";

export type PassageSeen = {
  readonly stage: string;
  readonly time: string | null;
  readonly bySpeed: boolean;
  readonly due: boolean;
};
export type Washer = {
  readonly code: string;
  readonly name: string;
  readonly usualSpeedMPerMin: number;
  readonly stages: readonly { readonly stage: string; readonly fromM: number; readonly lengthM: number }[];
  readonly contactS: Readonly<Record<string, readonly [number, number]>>;
};

/** One key at each station: the rack goes into the stage now. */
export function PassageKeys({ rack, passages }: { rack: string; passages: readonly PassageSeen[] }) {
  const { send, message, busy, setAside } = useRecorder();
  return (
    <div>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(108px,1fr))] gap-1.5">
        {passages.map((p) => (
          <button
            key={p.stage}
            type="button"
            disabled={busy}
            onClick={() => void send({ kind: "passage", rack, stage: p.stage as "blast" })}
            className={`grid min-h-[52px] min-w-0 content-center border-[1.5px] px-2 text-left leading-tight ${p.time && !p.due ? "border-rule bg-bench" : "border-rule-strong bg-raised"}`}
            aria-label={
              p.time && !p.due
                ? `Into ${passageName[p.stage]} again now; was in at ${p.time}`
                : `Into ${passageName[p.stage]} now`
            }
          >
            <b>{passageName[p.stage]}</b>
            <span className={`small ${p.time ? "fig" : "faint"}`}>
              {p.time ? `${p.due ? "due " : ""}${p.time}${p.bySpeed ? ", by speed" : ""}` : "into it now"}
            </span>
          </button>
        ))}
      </div>
      <p className="mt-1 min-h-6">
        <Recorded message={message} />
      </p>
      <SetAside setAside={setAside} busy={busy} />
    </div>
  );
}

const METRES_PER_FOOT = 0.3048;
const inMetric = (speed: number, units: UnitSystem) => (units === "us" ? speed * METRES_PER_FOOT : speed);

/** The washer at a line speed: passages and contact times follow from the stages' lengths. */
export function WasherRun({ rack, washer }: { rack: string; washer: Washer }) {
  const { units } = usePreferences();
  const usual = units === "us" ? washer.usualSpeedMPerMin / METRES_PER_FOOT : washer.usualSpeedMPerMin;
  const held = useEntryForm(`line run ${rack}`, { text: String(Math.round(usual * 100) / 100) });
  const [text, setText] = held.field("text");
  const { send, message, busy, setAside } = useRecorder(held);
  const typed = parseNumber(text);
  const speed = typed.ok ? inMetric(typed.value, units) : null;
  const shown = speed === null ? null : passagesFromSpeed(0, speed, washer.stages);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    if (speed !== null) void send({ kind: "line-run", rack, line: washer.code, speedMPerMin: speed });
  };
  return (
    <form onSubmit={submit} className="mt-2 grid max-w-[640px] gap-2">
      {held.said}
      <div className="flex flex-wrap items-end gap-4">
        <div className="w-[150px]">
          <TypedNumber
            id="line-speed"
            label={`Line speed, ${units === "us" ? "ft/min" : "m/min"}`}
            text={text}
            change={setText}
          />
        </div>
        <p className="m-0 flex min-w-0 flex-wrap gap-x-4 pb-2">
          {shown?.ok ? (
            shown.value.map((p) => {
              const seconds = (p.leftMs - p.enteredMs) / 1000;
              const window = washer.contactS[p.stage];
              const out = window !== undefined && (seconds < window[0] || seconds > window[1]);
              return (
                <span key={p.stage} className={out ? "text-out" : ""}>
                  {passageName[p.stage]} <b className="fig">{seconds.toFixed(0)} s</b>
                  {out && window ? ` (asked ${window[0]}–${window[1]})` : ""}
                </span>
              );
            })
          ) : (
            <span className="text-out">“{text}” is not a line speed. Type one between 0 and 30 m/min.</span>
          )}
        </p>
      </div>
      <RecordRow busy={busy || !shown?.ok} message={message} primary={false}>
        {`Into ${washer.name.split(",")[0]} now`}
      </RecordRow>
      <SetAside setAside={setAside} busy={busy} />
    </form>
  );
}
