"use client";
import { passagesFromSpeed } from "@/core/line";
import { fieldsOf } from "../fields/in-form";
import { plainly, typed } from "../format";
import { Entry } from "../forms/entry";
import { Recorded } from "../forms/recorded";
import { SetAside } from "../forms/set-aside";
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

/** Faster than any line runs. */
const FASTEST_M_PER_MIN = 30;

/** The washer at a line speed: passages and contact times follow from the stages' lengths. */
export function WasherRun({ rack, washer }: { rack: string; washer: Washer }) {
  const { units } = usePreferences();
  const usual = typed(washer.usualSpeedMPerMin, "lineSpeed", units);
  const held = useEntryForm(`line run ${rack}`, { speed: usual });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  // What was not touched is the usual speed to its last decimal.
  const speed = held.values.speed === usual ? washer.usualSpeedMPerMin : held.live("speed", "lineSpeed");
  const shown = speed === null ? null : passagesFromSpeed(0, speed, washer.stages);
  return (
    <Entry
      held={held}
      id="line"
      sending={recorder}
      button={`Into ${washer.name.split(",")[0]} now`}
      className="mt-2 grid max-w-[640px] gap-2"
      foot={<SetAside setAside={recorder.setAside} busy={recorder.busy} />}
      send={(read) => {
        const speedMPerMin = speed ?? read.number("speed", "lineSpeed");
        if (!shown?.ok) read.refuse("speed", "This is no line speed.");
        return recorder.send({ kind: "line-run", rack, line: washer.code, speedMPerMin });
      }}
    >
      <div className="flex flex-wrap items-end gap-4">
        <F.Num name="speed" label="Line speed" quantity="lineSpeed" className="w-[150px]" />
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
            <span className="text-out">
              “{held.values.speed}” is not a line speed. Type one between 0 and{" "}
              {plainly(FASTEST_M_PER_MIN, "lineSpeed", units)}.
            </span>
          )}
        </p>
      </div>
    </Entry>
  );
}
