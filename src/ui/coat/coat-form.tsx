"use client";
import { type FormEvent, useState } from "react";
import { parseNumber } from "@/core/units";
import { RecordRow } from "../forms/recorded";
import { useRecorder } from "../forms/use-recorder";
import { Shape } from "../marks/verdict";

export type SheetWindow = {
  readonly kv: readonly [number, number];
  readonly gunAirKPa: readonly [number, number];
  readonly earthLimitMohm: number;
  readonly hookCyclesLimit: number;
  readonly reclaimLimitPercent: number;
  /** Metal hotter than this takes too much powder. */
  readonly boothMetalC: number;
};
export type CoatSettings = {
  readonly kv: number | null;
  readonly currentUa: number | null;
  readonly gunAirKPa: number | null;
  readonly distanceMm: number | null;
  readonly earthMohm: number | null;
  readonly hookCycles: number | null;
  readonly reclaimPercent: number | null;
  readonly metalC: number | null;
};
type Key = keyof CoatSettings;

const fields: readonly { key: Key; label: string; unit: string }[] = [
  { key: "earthMohm", label: "Part to earth", unit: "MΩ" },
  { key: "kv", label: "Gun voltage", unit: "kV" },
  { key: "currentUa", label: "Current", unit: "µA" },
  { key: "gunAirKPa", label: "Gun air", unit: "kPa" },
  { key: "distanceMm", label: "Distance", unit: "mm" },
  { key: "hookCycles", label: "Hook uses since stripped", unit: "" },
  { key: "reclaimPercent", label: "Reclaim", unit: "%" },
  { key: "metalC", label: "Metal when sprayed", unit: "°C" },
];
const windowOf = (key: Key, sheet: SheetWindow | null): readonly [number | null, number | null] | null => {
  if (!sheet) return null;
  switch (key) {
    case "kv":
      return sheet.kv;
    case "gunAirKPa":
      return sheet.gunAirKPa;
    case "earthMohm":
      return [null, sheet.earthLimitMohm];
    case "hookCycles":
      return [null, sheet.hookCyclesLimit];
    case "reclaimPercent":
      return [null, sheet.reclaimLimitPercent];
    case "metalC":
      return [null, sheet.boothMetalC];
    default:
      return null;
  }
};
const windowWord = ([lower, upper]: readonly [number | null, number | null]) =>
  lower === null ? `up to ${upper}` : `${lower}–${upper}`;

/** A coat with what was read at the gun and the earth, each against the set-up sheet as it is typed. */
export function CoatForm({
  rack,
  coatNo,
  lots,
  booth,
  sheet,
  last,
}: {
  rack: string;
  coatNo: number;
  lots: readonly { readonly id: string; readonly label: string; readonly primer: boolean }[];
  booth: string;
  sheet: SheetWindow | null;
  last: (CoatSettings & { readonly label: string }) | null;
}) {
  const [texts, setTexts] = useState<Partial<Record<Key, string>>>({});
  const [lot, setLot] = useState(lots[0]?.id ?? "");
  const [problem, setProblem] = useState<string | null>(null);
  const { send, message, busy } = useRecorder();
  const primer = lots.find((l) => l.id === lot)?.primer ?? false;
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    setProblem(null);
    const form = new FormData(e.currentTarget);
    const settings: Record<Key, number | null> = {
      kv: null,
      currentUa: null,
      gunAirKPa: null,
      distanceMm: null,
      earthMohm: null,
      hookCycles: null,
      reclaimPercent: null,
      metalC: null,
    };
    for (const { key, label } of fields) {
      const text = (texts[key] ?? "").trim();
      if (text === "") continue;
      const typed = parseNumber(text);
      if (!typed.ok) return setProblem(`${label}: “${text}” is not a number. Type digits, with a point for decimals.`);
      settings[key] = typed.value;
    }
    const asked = (name: string) => (form.get(name) === "" ? null : form.get(name) === "yes");
    const saved = await send({
      kind: "coat",
      rack,
      coatNo: Number(form.get("coatNo")),
      layer: primer ? "primer" : (String(form.get("layer")) as "top"),
      lot,
      booth: String(form.get("booth")),
      ...settings,
      sprayedHot: asked("hot"),
      colourChangeBefore: asked("colour"),
    });
    if (saved) setTexts({});
  };
  return (
    <form onSubmit={submit} className="grid max-w-[760px] gap-3">
      <div className="grid grid-cols-4 gap-3 max-[700px]:grid-cols-2">
        <div className="field col-span-2">
          <label htmlFor="lot">Powder lot, oldest first</label>
          <select id="lot" className="input" value={lot} onChange={(e) => setLot(e.target.value)}>
            {lots.map((l) => (
              <option key={l.id} value={l.id}>
                {l.label}
              </option>
            ))}
          </select>
        </div>
        <div className="field">
          <label htmlFor="coatNo">Coat</label>
          <input id="coatNo" name="coatNo" type="number" min="1" max="9" defaultValue={coatNo} className="input num" />
        </div>
        <div className="field">
          <label htmlFor="layer">Layer</label>
          {primer ? (
            <input id="layer" className="input" value="primer" readOnly />
          ) : (
            <select id="layer" name="layer" className="input">
              <option value="top">top</option>
              <option value="clear">clear</option>
            </select>
          )}
        </div>
      </div>
      <div className="grid grid-cols-4 gap-3 max-[700px]:grid-cols-2">
        {fields.map(({ key, label, unit }) => {
          const window = windowOf(key, sheet);
          const typed = parseNumber(texts[key] ?? "");
          const out =
            typed.ok &&
            window &&
            ((window[0] !== null && typed.value < window[0]) || (window[1] !== null && typed.value > window[1]));
          return (
            <div key={key} className="field">
              <label htmlFor={`coat-${key}`}>
                {label}
                {unit && `, ${unit}`}
              </label>
              <input
                id={`coat-${key}`}
                className={`input num ${out ? "border-out" : ""}`}
                inputMode="decimal"
                value={texts[key] ?? ""}
                onChange={(e) => setTexts({ ...texts, [key]: e.target.value })}
              />
              <span className={out ? "text-out" : ""}>
                {window ? windowWord(window) : " "}
                {typed.ok && window && (
                  <span className="ml-1.5">
                    <Shape result={out ? "out" : "in"} />
                  </span>
                )}
              </span>
            </div>
          );
        })}
        <div className="field">
          <label htmlFor="booth">Booth</label>
          <input id="booth" name="booth" className="input" defaultValue={booth} maxLength={40} required />
        </div>
        {(
          [
            ["hot", "Sprayed on hot parts"],
            ["colour", "Colour change before"],
          ] as const
        ).map(([name, label]) => (
          <div key={name} className="field">
            <label htmlFor={name}>{label}</label>
            <select id={name} name={name} className="input" defaultValue="no">
              <option value="no">no</option>
              <option value="yes">yes</option>
              <option value="">not known</option>
            </select>
          </div>
        ))}
      </div>
      {last && (
        <p className="m-0">
          <button
            type="button"
            className="btn"
            onClick={() =>
              setTexts(
                Object.fromEntries(
                  fields.flatMap(({ key }) =>
                    last[key] === null || key === "earthMohm" ? [] : [[key, String(last[key])]],
                  ),
                ),
              )
            }
          >
            Same as {last.label}
          </button>{" "}
          <span className="small soft">all but the earth: that is read anew each time</span>
        </p>
      )}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message}>
        Record coat
      </RecordRow>
    </form>
  );
}
