"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { fahrenheitToC, parseNumber } from "@/core/units";
import { RecordRow } from "../forms/recorded";
import { useRecorder } from "../forms/use-recorder";
import { useShell } from "../frame/shell";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

const timings = [
  ["metal-at-temperature", "from metal at temperature"],
  ["flow-out", "from flow-out"],
  ["door-close", "from door close"],
  ["hot-then-down", "hot until flow-out, then down"],
] as const;

/** A load into an oven: racks ticked with their places; the door closes when it is recorded. */
export function LoadForm({
  ovens,
  racks,
  nextLoad,
  places,
}: {
  ovens: readonly string[];
  racks: readonly { readonly number: string; readonly part: string }[];
  nextLoad: string;
  /** Places of the batch ovens, with a word where the newest survey found one cold. */
  places: readonly { readonly oven: string; readonly id: string; readonly note: string }[];
}) {
  const { units } = usePreferences();
  const { send, message, busy } = useRecorder();
  const [chosen, setChosen] = useState<Readonly<Record<string, string>>>({});
  const [probes, setProbes] = useState<Readonly<Record<string, string>>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const noteOf = (place: string) => places.find((p) => p.id.toLowerCase() === place.trim().toLowerCase())?.note ?? "";
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    setProblem(null);
    const form = new FormData(e.currentTarget);
    const other = String(form.get("other") ?? "").trim();
    const places = [
      ...Object.entries(chosen).map(([rack, place]) => ({ rack, place, channel: probes[rack]?.trim() || null })),
      ...(other ? other.split(/[\s,]+/).map((rack) => ({ rack, place: "", channel: null })) : []),
    ];
    if (places.length === 0) return setProblem("Tick a rack, or type its number.");
    const text = String(form.get("setpoint") ?? "").trim();
    const set = text === "" ? null : parseNumber(text);
    if (set && !set.ok) return setProblem(failureText(set.error));
    const saved = await send({
      kind: "load",
      oven: String(form.get("oven")),
      loadNo: String(form.get("load")),
      timing: String(form.get("timing")) as "flow-out",
      setPointC: set ? (units === "us" ? fahrenheitToC(set.value) : set.value) : null,
      places,
    });
    if (saved) setChosen({});
  };
  return (
    <form onSubmit={submit} className="ruled mt-6 grid max-w-[760px] gap-3">
      <h2>Close the door on a load</h2>
      <datalist id="oven-places">
        {places.map((p) => (
          <option key={p.oven + p.id} value={p.id}>
            {p.note}
          </option>
        ))}
      </datalist>
      <fieldset className="m-0 grid gap-1 border-0 p-0">
        <legend className="small soft">Racks in it, and where each hangs</legend>
        {racks.length === 0 && <p className="soft m-0">No coated rack is waiting; type a number below.</p>}
        {racks.map((r) => (
          <div key={r.number} className="flex min-h-11 items-center gap-3">
            <label className="flex min-w-[220px] items-center gap-2">
              <input
                type="checkbox"
                className="size-5"
                checked={chosen[r.number] !== undefined}
                onChange={(e) => {
                  const { [r.number]: _, ...rest } = chosen;
                  setChosen(e.target.checked ? { ...chosen, [r.number]: "" } : rest);
                }}
              />
              <b className="fig">{r.number}</b> {r.part}
            </label>
            {chosen[r.number] !== undefined && (
              <>
                <input
                  className="input max-w-[120px]"
                  aria-label={`Place of rack ${r.number}`}
                  placeholder="place"
                  maxLength={20}
                  list="oven-places"
                  value={chosen[r.number]}
                  onChange={(e) => setChosen({ ...chosen, [r.number]: e.target.value })}
                />
                <input
                  className="input max-w-[130px]"
                  aria-label={`Probe on rack ${r.number}`}
                  placeholder="probe, if any"
                  maxLength={40}
                  value={probes[r.number] ?? ""}
                  onChange={(e) => setProbes({ ...probes, [r.number]: e.target.value })}
                />
                {noteOf(chosen[r.number] ?? "") && (
                  <span className="small text-watch">{noteOf(chosen[r.number] ?? "")}</span>
                )}
              </>
            )}
          </div>
        ))}
      </fieldset>
      <div className="grid grid-cols-[110px_110px_110px_minmax(0,1fr)_150px] gap-3 max-[760px]:grid-cols-2">
        <div className="field">
          <label htmlFor="other">Other racks</label>
          <input id="other" name="other" className="input" maxLength={120} placeholder="1046 1047" />
        </div>
        <div className="field">
          <label htmlFor="oven">Oven</label>
          <select id="oven" name="oven" className="input">
            {ovens.map((o) => (
              <option key={o}>{o}</option>
            ))}
          </select>
        </div>
        <div className="field">
          <label htmlFor="load">Load</label>
          <input id="load" name="load" className="input" defaultValue={nextLoad} maxLength={40} required />
        </div>
        <div className="field">
          <label htmlFor="timing">Timed</label>
          <select id="timing" name="timing" className="input">
            {timings.map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </div>
        <div className="field">
          <label htmlFor="setpoint">Set point, {units === "us" ? "°F" : "°C"}</label>
          <input id="setpoint" name="setpoint" className="input num" inputMode="decimal" />
        </div>
      </div>
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message}>
        Door closed now
      </RecordRow>
    </form>
  );
}

/** Pull: one press, stored once however often it is pressed. */
export function PullButton({ recordId, load }: { recordId: string; load: string }) {
  const { actions } = useShell();
  const router = useRouter();
  const id = useRef(uuidv7());
  const [state, setState] = useState<{ busy: boolean; text: string }>({ busy: false, text: "" });
  const press = async () => {
    setState({ busy: true, text: "" });
    const outcome = await actions
      .pull(recordId, id.current)
      .catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
    setState({ busy: false, text: outcome.ok ? "" : failureText(outcome.failure) });
    if (outcome.ok) router.refresh();
  };
  return (
    <span className="flex items-center gap-3">
      <button
        type="button"
        className="btn pri"
        disabled={state.busy}
        onClick={() => void press()}
        aria-label={`Pull load ${load} now`}
      >
        {state.busy ? "Recording …" : "Pulled now"}
      </button>
      {state.text && <output className="text-out">{state.text}</output>}
    </span>
  );
}
