"use client";
import { type FormEvent, useState } from "react";
import { type CoatSituation, type CoatSystem, coatSituations, coatSystems } from "@/core/coating";
import { parseNumber } from "@/core/units";
import { Choice } from "../fields/choice";
import { RecordRow } from "../forms/recorded";
import { SetAside } from "../forms/set-aside";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Shape } from "../marks/verdict";
import { situationName, systemName } from "../words/coating";

export type SheetWindow = {
  readonly kv: readonly [number, number];
  readonly recessKv: number;
  readonly recoatKv: readonly [number, number] | null;
  readonly currentMostUa: number | null;
  readonly distanceMm: readonly [number, number] | null;
  readonly passes: readonly [number, number] | null;
  readonly boothAirMPerS: readonly [number, number];
  readonly airReadAt: "rest" | "flowing";
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
  readonly gunAirRestKPa: number | null;
  readonly boothAirMPerS: number | null;
  readonly passes: number | null;
  readonly hopperBeforeKg: number | null;
  readonly hopperAfterKg: number | null;
  readonly hopperAddedKg: number | null;
};
type Key = keyof CoatSettings;

const fields: readonly { key: Key; label: string; unit: string }[] = [
  { key: "earthMohm", label: "Part to earth", unit: "MΩ" },
  { key: "kv", label: "Gun voltage", unit: "kV" },
  { key: "currentUa", label: "Current", unit: "µA" },
  { key: "gunAirKPa", label: "Gun air, flowing", unit: "kPa" },
  { key: "gunAirRestKPa", label: "Gun air at rest", unit: "kPa" },
  { key: "boothAirMPerS", label: "Booth draught", unit: "m/s" },
  { key: "passes", label: "Passes", unit: "" },
  { key: "distanceMm", label: "Distance", unit: "mm" },
  { key: "hookCycles", label: "Hook uses since stripped", unit: "" },
  { key: "reclaimPercent", label: "Reclaim", unit: "%" },
  { key: "metalC", label: "Metal when sprayed", unit: "°C" },
];
/** The hopper's weights, beside one another: before, after, and what was filled in between. */
const hopper: readonly { key: Key; label: string; unit: string }[] = [
  { key: "hopperBeforeKg", label: "Hopper before", unit: "kg" },
  { key: "hopperAfterKg", label: "Hopper after", unit: "kg" },
  { key: "hopperAddedKg", label: "Filled in between", unit: "kg" },
];
const every = [...fields, ...hopper];
const windowOf = (
  key: Key,
  sheet: SheetWindow | null,
  situation: CoatSituation,
): readonly [number | null, number | null] | null => {
  if (!sheet) return null;
  switch (key) {
    case "kv":
      return situation === "recess"
        ? [null, sheet.recessKv]
        : situation === "recoat"
          ? (sheet.recoatKv ?? [null, sheet.kv[1]])
          : sheet.kv;
    case "gunAirKPa":
      return sheet.airReadAt === "flowing" ? sheet.gunAirKPa : null;
    case "gunAirRestKPa":
      return sheet.airReadAt === "rest" ? sheet.gunAirKPa : null;
    case "currentUa":
      return sheet.currentMostUa === null ? null : [null, sheet.currentMostUa];
    case "distanceMm":
      return sheet.distanceMm;
    case "passes":
      return sheet.passes;
    case "boothAirMPerS":
      return sheet.boothAirMPerS;
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
  sheetCode,
  last,
  flight,
  recoat,
}: {
  sheetCode: string | null;
  /** What the pre-flight read: taken over, since it was read just now. */
  flight: Partial<CoatSettings>;
  recoat: boolean;
  rack: string;
  coatNo: number;
  lots: readonly {
    readonly id: string;
    readonly label: string;
    readonly primer: boolean;
    /** As its safety sheet says; said where the lot is picked. */
    readonly hazards: string;
  }[];
  booth: string;
  sheet: SheetWindow | null;
  last: (CoatSettings & { readonly label: string }) | null;
}) {
  const asTexts = (settings: Partial<CoatSettings>) =>
    Object.fromEntries(
      every.flatMap(({ key }) => {
        const value = settings[key];
        return value === null || value === undefined ? [] : [[key, String(Math.round(value * 1000) / 1000)]];
      }),
    ) as Partial<Record<Key, string>>;
  const held = useEntryForm(`coat ${rack}`, {
    texts: asTexts(flight) as Partial<Record<Key, string>>,
    situation: (recoat ? "recoat" : "first-coat") as CoatSituation,
    lot: lots[0]?.id ?? "",
    coatNo: String(coatNo),
    layer: "top",
    gun: "",
    booth,
    hot: "no",
    colour: "no",
    system: coatSystems[0] as string,
  });
  const [texts, setTexts] = held.field("texts");
  const [situation, setSituation] = held.field("situation");
  const [lot, setLot] = held.field("lot");
  const { send, message, busy, setAside } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const primer = lots.find((l) => l.id === lot)?.primer ?? false;
  const hazards = lots.find((l) => l.id === lot)?.hazards ?? "";
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
      gunAirRestKPa: null,
      boothAirMPerS: null,
      passes: null,
      hopperBeforeKg: null,
      hopperAfterKg: null,
      hopperAddedKg: null,
    };
    for (const { key, label } of every) {
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
      gun: String(form.get("gun") ?? ""),
      sheet: sheetCode,
      situation,
      system: String(form.get("system")) as CoatSystem,
    });
    if (saved) setTexts({});
  };
  return (
    <form onSubmit={submit} className="grid max-w-[760px] gap-3">
      {held.said}
      <div className="grid grid-cols-4 gap-3 max-[700px]:grid-cols-2">
        <div className="field col-span-2">
          <label htmlFor="lot">Powder lot, oldest first</label>
          <Choice id="lot" className="input" value={lot} onChange={setLot}>
            {lots.map((l) => (
              <option key={l.id} value={l.id}>
                {l.label}
              </option>
            ))}
          </Choice>
          {hazards && <p className="caution m-0 mt-1.5">{hazards}</p>}
        </div>
        <div className="field">
          <label htmlFor="coatNo">Coat</label>
          <input id="coatNo" {...held.register("coatNo")} type="number" min="1" max="9" className="input num" />
        </div>
        <div className="field">
          <label htmlFor="layer">Layer</label>
          {primer ? (
            <input id="layer" className="input" value="primer" readOnly />
          ) : (
            <Choice id="layer" {...held.choice("layer")} className="input">
              <option value="top">top</option>
              <option value="clear">clear</option>
            </Choice>
          )}
        </div>
      </div>
      <div className="grid grid-cols-4 gap-3 max-[700px]:grid-cols-2">
        {every.map(({ key, label, unit }) => {
          const window = windowOf(key, sheet, situation);
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
          <label htmlFor="gun">Gun</label>
          <input id="gun" {...held.register("gun")} className="input" maxLength={40} />
        </div>
        <div className="field">
          <label htmlFor="booth">Booth</label>
          <input id="booth" {...held.register("booth")} className="input" maxLength={40} required />
        </div>
        {(
          [
            ["hot", "Sprayed on hot parts"],
            ["colour", "Colour change before"],
          ] as const
        ).map(([name, label]) => (
          <div key={name} className="field">
            <label htmlFor={name}>{label}</label>
            <Choice id={name} {...held.choice(name)} className="input">
              <option value="no">no</option>
              <option value="yes">yes</option>
              <option value="">not known</option>
            </Choice>
          </div>
        ))}
      </div>
      <div className="grid grid-cols-2 gap-3 max-[700px]:grid-cols-1">
        <div className="field">
          <label htmlFor="coat-situation">Sprayed as</label>
          <Choice
            id="coat-situation"
            className="input"
            value={situation}
            onChange={(value) => setSituation(value as CoatSituation)}
          >
            {coatSituations.map((s) => (
              <option key={s} value={s}>
                {situationName[s]}
              </option>
            ))}
          </Choice>
        </div>
        <div className="field">
          <label htmlFor="system">Layers and their bakes</label>
          <Choice id="system" {...held.choice("system")} className="input">
            {coatSystems.map((s) => (
              <option key={s} value={s}>
                {systemName[s]}
              </option>
            ))}
          </Choice>
        </div>
      </div>
      {last && (
        <p className="m-0">
          <button
            type="button"
            className="btn"
            onClick={() =>
              setTexts({ ...texts, ...asTexts({ ...last, earthMohm: null, hookCycles: null, metalC: null }) })
            }
          >
            Same as {last.label}
          </button>{" "}
          <span className="small soft">all but the earth, the hooks and the heat: those are read anew each time</span>
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
      <SetAside setAside={setAside} busy={busy} />
    </form>
  );
}
