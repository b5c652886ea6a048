import {
  type ConditionQuantity,
  conditionQuantities,
  type DryOffReason,
  type HowWarning,
  type MetalDecision,
  type MetalFault,
  type MetalHold,
  type PrepHow,
  type PrepStep,
  prepHow,
  prepMeasures,
} from "@/core/preparation";
import type { UnitSystem } from "@/core/units";
import { localMoment, withUnit } from "../format";

export const prepStepName: Record<PrepStep, string> = {
  strip: "Strip old coating",
  "seals-out": "Seals and bushes out",
  degrease: "Grease off",
  grind: "Grind welds and spatter",
  "break-edges": "Break edges",
  blast: "Blast",
  sand: "Sand",
  scuff: "Scuff",
  "look-over": "Looked over, bare",
  "blow-off": "Blow off",
  "dust-tape": "Dust on tape",
  "solvent-wipe": "Solvent wipe",
  "soluble-salt": "Soluble salt",
  "water-break": "Water film",
  prebake: "Outgassing bake",
  "masks-in": "Masks and plugs in",
};
/** The bath roles and stages a rack passes, as a coater says them. */
export const passageName: Record<string, string> = {
  blast: "Blast",
  clean: "Clean",
  "clean-rinse": "Rinse after clean",
  conversion: "Conversion",
  rinse: "Rinse",
  seal: "Seal",
  "final-rinse": "Last rinse",
  "dry-off": "Dry-off",
  prebake: "Prebake",
  booth: "Booth",
  oven: "Oven",
  cool: "Cool",
};

/** What is measured at a step, in this person's units. */
export function prepFigure(step: PrepStep, value: number, units: UnitSystem): string {
  if (step === "blast") return withUnit(value, "thickness", units);
  if (step === "prebake") return withUnit(value, "temperature", units);
  const unit = prepMeasures[step]?.unit ?? "";
  return unit === "grade" ? `grade ${value}` : `${Math.round(value * 10) / 10} ${unit}`.trim();
}

export function conditionFigure(quantity: ConditionQuantity, value: number, units: UnitSystem): string {
  const { unit } = conditionQuantities[quantity];
  if (unit === "°C") return withUnit(value, "temperature", units);
  return `${unit === "%" ? value.toFixed(0) : value.toFixed(2)} ${unit}`;
}

export const metalFaultName: Record<MetalFault, string> = {
  pits: "Deep pits",
  scale: "Scale left",
  "old-coating": "Old coating left",
  rust: "Rust left",
  "edge-skin": "Hard skin on a cut edge",
};
export const metalDecisionName: Record<MetalDecision, string> = {
  "go-on": "goes on as it is",
  texture: "goes on under a texture",
  "do-again": "done again",
  "ask-customer": "waits for the customer",
};

/** What is wrong with a dry-off, in words. */
export function dryOffReason(reason: DryOffReason, leastMinutes: number | null): string {
  switch (reason) {
    case "damp":
      return "damp: back into the dry-off";
    case "hollow-not-blown":
      return "tubes and laps not blown out: water boils out under the film";
    case "hollow-not-looked-at":
      return "tubes and laps not looked at";
    case "too-short":
      return leastMinutes === null ? "too short a time in it" : `shorter than the ${leastMinutes} min asked`;
    case "too-hot-for-the-booth":
      return "too hot for the booth: takes too much powder";
  }
}

/** What the way a step was done is known to lead to. */
export const howWarning: Record<HowWarning, string> = {
  "paper-leaves-fibres": "paper sheds fibres that show after cure",
  "handled-bare": "handled bare: fingerprints show after cure",
  "air-not-checked": "wet or oily air dirties it again",
  "not-blasted-white": "scale and rust left under the film",
  "coating-left": "old coating left: it gases and lets go",
  "cut-skin-left": "film does not hold on a cut edge's hard skin",
  "ferrous-media": "steel grit or shot rusts in this metal: non-ferrous media, or a sweep",
  "slow-solvent": "leaves slowly: half an hour before powder",
};

/** How it was done in one line: “steel grit, 650 kPa, Sa 2½”. */
export const howWords = (step: PrepStep, how: PrepHow): string =>
  (prepHow[step] ?? [])
    .flatMap((f) => {
      const value = how[f.key];
      if (value === undefined) return [];
      return f.kind === "number" ? `${f.unit ? "" : `${f.key} `}${value}${f.unit ? ` ${f.unit}` : ""}` : String(value);
    })
    .join(", ");

/** What holds powder, or the oven, back from metal, with what to do. */
export function metalHoldSaid(hold: MetalHold): string {
  switch (hold.kind) {
    case "flash-off":
      return `${hold.solvent ? `wiped with ${hold.solvent}, which` : "its wipe"} is left to flash off for ${hold.minutes} min, until ${localMoment(new Date(hold.untilMs))}. Wait until then.`;
    case "bare-too-long":
      return `bare for ${hold.hours.toFixed(1)} h, ${hold.limitHours} h is the limit in this air. Clean it again: blast, sand or degrease, then wipe.`;
    case "unsealed-too-long":
      return `out of the conversion bath for ${hold.hours.toFixed(1)} h, it protects for ${hold.limitHours} h. Wash it again before powder.`;
  }
}

/** Gloves and air for a solvent, where it is wiped; its safety sheet comes first. */
export const solventCaution = (solvent: string): string =>
  `${
    {
      acetone: "Acetone: butyl gloves, it goes through nitrile in minutes",
      alcohol: "Alcohol: nitrile gloves",
      "mineral spirits": "Mineral spirits: nitrile gloves",
    }[solvent] ?? "Gloves as its safety sheet says"
  }; no flame, air moving, rags into the closed bin.`;
