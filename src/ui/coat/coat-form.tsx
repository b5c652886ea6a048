"use client";
import { type CoatSituation, type CoatSystem, coatSituations, coatSystems } from "@/core/coating";
import { fieldsOf, type Options } from "../fields/in-form";
import { typed } from "../format";
import { Entry } from "../forms/entry";
import { SetAside } from "../forms/set-aside";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Shape } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { settingQuantity, situationName, systemName } from "../words/coating";

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
const answers: Options = [
  ["no", "no"],
  ["yes", "yes"],
  ["", "not known"],
];

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
const windowWord = ([lower, upper]: readonly [number | null, number | null], say: (value: number) => string) => {
  const [from, to] = [lower, upper].map((v) => (v === null ? "" : say(v)));
  return lower === null ? `up to ${to}` : `${from}–${to}`;
};

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
  const { units } = usePreferences();
  const asTexts = (settings: Partial<CoatSettings>) =>
    Object.fromEntries(
      every.flatMap(({ key }) => {
        const value = settings[key];
        if (value === null || value === undefined) return [];
        const quantity = settingQuantity[key];
        return [[key, quantity ? typed(value, quantity, units) : String(Math.round(value * 1000) / 1000)]];
      }),
    ) as Partial<Record<Key, string>>;
  const held = useEntryForm(`coat ${rack}`, {
    ...(Object.fromEntries(every.map(({ key }) => [key, ""])) as Record<Key, string>),
    ...asTexts(flight),
    situation: (recoat ? "recoat" : "first-coat") as CoatSituation,
    lot: lots[0]?.id ?? "",
    coatNo: String(coatNo),
    layer: "top" as "top" | "clear",
    gun: "",
    booth,
    hot: "no",
    colour: "no",
    system: coatSystems[0] as CoatSystem,
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { lot, situation } = held.values;
  const chosen = lots.find((l) => l.id === lot);
  return (
    <Entry
      held={held}
      id="coat"
      sending={recorder}
      button="Record coat"
      primary
      className="grid max-w-[760px] gap-3"
      begin={every.map(({ key }) => key)}
      foot={<SetAside setAside={recorder.setAside} busy={recorder.busy} />}
      send={(read) => {
        const { layer, gun, hot, colour, system } = held.values;
        const settings = Object.fromEntries(
          every.map(({ key }) => [key, read.maybe(key, settingQuantity[key])]),
        ) as Record<Key, number | null>;
        const asked = (answer: string) => (answer === "" ? null : answer === "yes");
        return recorder.send({
          kind: "coat",
          rack,
          coatNo: read.number("coatNo"),
          layer: chosen?.primer ? "primer" : layer,
          lot,
          booth: held.values.booth,
          ...settings,
          sprayedHot: asked(hot),
          colourChangeBefore: asked(colour),
          gun,
          sheet: sheetCode,
          situation,
          system,
        });
      }}
    >
      <div className="grid grid-cols-4 gap-3 max-[700px]:grid-cols-2">
        <div className="col-span-2">
          <F.Pick name="lot" id="lot" label="Powder lot, oldest first" of={lots.map((l) => [l.id, l.label])} />
          {chosen?.hazards && <p className="caution m-0 mt-1.5">{chosen.hazards}</p>}
        </div>
        <F.Num name="coatNo" id="coatNo" label="Coat" />
        {chosen?.primer ? (
          <div className="field">
            <label htmlFor="layer">Layer</label>
            <input id="layer" className="input" value="primer" readOnly />
          </div>
        ) : (
          <F.Pick name="layer" id="layer" label="Layer" of={["top", "clear"]} />
        )}
      </div>
      <div className="grid grid-cols-4 gap-3 max-[700px]:grid-cols-2">
        {every.map(({ key, label, unit }) => {
          const window = windowOf(key, sheet, situation);
          const quantity = settingQuantity[key];
          const value = held.live(key, quantity);
          const out =
            value !== null &&
            window !== null &&
            ((window[0] !== null && value < window[0]) || (window[1] !== null && value > window[1]));
          return (
            <F.Num
              key={key}
              name={key}
              label={unit && !quantity ? `${label}, ${unit}` : label}
              {...(quantity ? { quantity } : {})}
              hint={
                <span className={out ? "text-out" : ""}>
                  {window ? windowWord(window, (v) => (quantity ? typed(v, quantity, units) : String(v))) : " "}
                  {value !== null && window && (
                    <span className="ml-1.5">
                      <Shape result={out ? "out" : "in"} />
                    </span>
                  )}
                </span>
              }
            />
          );
        })}
        <F.Words name="gun" id="gun" label="Gun" most={40} />
        <F.Words name="booth" id="booth" label="Booth" most={40} required />
        <F.Pick name="hot" id="hot" label="Sprayed on hot parts" of={answers} />
        <F.Pick name="colour" id="colour" label="Colour change before" of={answers} />
      </div>
      <div className="grid grid-cols-2 gap-3 max-[700px]:grid-cols-1">
        <F.Pick name="situation" label="Sprayed as" of={coatSituations.map((s) => [s, situationName[s]])} />
        <F.Pick
          name="system"
          id="system"
          label="Layers and their bakes"
          of={coatSystems.map((s) => [s, systemName[s]])}
        />
      </div>
      {last && (
        <p className="m-0">
          <button
            type="button"
            className="btn"
            onClick={() => {
              const again = asTexts({ ...last, earthMohm: null, hookCycles: null, metalC: null });
              for (const [key, text] of Object.entries(again)) held.field(key as Key)[1](text);
            }}
          >
            Same as {last.label}
          </button>{" "}
          <span className="small soft">all but the earth, the hooks and the heat: those are read anew each time</span>
        </p>
      )}
    </Entry>
  );
}
