import type {
  BeforeAfter,
  CoachBecause,
  CoachMove,
  CoatSituation,
  CoatSystem,
  EarthChain,
  EarthLink,
  PreFlightItem,
  Setting,
} from "@/core/coating";
// From its own file: the frame carries these words, and not the statistics beside them.
import { settings } from "@/core/coating/set-up";
import { type Quantity, quantities, type UnitSystem } from "@/core/units";
import { plainly } from "../format";

export const settingName: Record<Setting, string> = {
  kv: "gun voltage",
  currentUa: "current",
  gunAirKPa: "gun air, flowing",
  gunAirRestKPa: "gun air at rest",
  distanceMm: "distance",
  passes: "passes",
  boothAirMPerS: "booth draught",
  hookPitchMm: "hook pitch",
  hookCycles: "hook uses since stripped",
  earthMohm: "part to earth",
  reclaimPercent: "reclaim",
  hopperFillPercent: "hopper filled",
  metalC: "metal when sprayed",
};
const otherNames: Record<string, string> = {
  humidity: "humidity of the hall",
  dewPointC: "dew point of the air",
  blastUm: "blast profile",
  lot: "powder lot",
  painter: "painter",
  booth: "booth",
  gun: "gun",
  situation: "kind of coat",
};
export const comparedName = (name: string): string => settingName[name as Setting] ?? otherNames[name] ?? name;

/** Settings that follow the person's units, and what each is of. */
export const settingQuantity: Readonly<Partial<Record<string, Quantity>>> = {
  gunAirKPa: "pressure",
  gunAirRestKPa: "pressure",
  boothAirMPerS: "airSpeed",
  distanceMm: "distance",
  hookPitchMm: "distance",
  metalC: "temperature",
  dewPointC: "temperature",
  blastUm: "thickness",
  hopperBeforeKg: "mass",
  hopperAfterKg: "mass",
  hopperAddedKg: "mass",
};
/** Of a unit's word as it is kept, the quantity that follows the person's units. */
export const quantityOf: Readonly<Partial<Record<string, Quantity>>> = {
  kPa: "pressure",
  "°C": "temperature",
  "m/s": "airSpeed",
};
const otherUnits: Record<string, string> = { humidity: "%" };
/** A compared value as this person reads it. */
export function comparedValue(name: string, value: number | string | null, units: UnitSystem): string {
  if (value === null) return "not read";
  if (typeof value === "string") return name === "situation" ? value.replaceAll("-", " ") : value;
  const quantity = settingQuantity[name];
  if (quantity) return plainly(value, quantity, units);
  const unit = settings[name as Setting]?.unit ?? otherUnits[name] ?? "";
  return `${Math.round(value * 100) / 100}${unit ? ` ${unit}` : ""}`;
}
export const situationName: Record<CoatSituation, string> = {
  "first-coat": "first coat",
  recess: "recesses",
  recoat: "recoat, over an old film",
};
export const systemName: Record<CoatSystem, string> = {
  single: "one coat",
  "primer-gelled": "primer gelled, then top",
  "dry-on-dry": "dry on dry, one cure",
  "full-cured": "full cure between",
};
export const linkName: Record<EarthLink, string> = {
  "lead-rack": "lead to rack",
  "rack-hook": "rack to hook",
  "hook-part": "hook to part",
};
export const preFlightName: Record<PreFlightItem, string> = {
  "lead-rack": "Earth, lead to rack",
  "rack-hook": "Earth, rack to hook",
  "hook-part": "Earth, hook to part",
  "hooks-stripped": "Hook uses since stripped",
  "air-rest": "Gun air at rest",
  "air-flowing": "Gun air, flowing",
  "air-dew-point": "Dew point of the air",
  blotter: "Blotter in the air: dry, no oil",
  "air-filter": "Filter in use",
  compressor: "Compressor running",
  "booth-air": "Booth draught",
  "hopper-mark": "Hopper filled",
  cloud: "Cloud: even, no puffs",
  "powder-lot": "Lot: right powder, in date",
  "colour-change": "Clean after the last colour",
  scuffed: "Old film scuffed dull",
  gloves: "Gloves on, clean",
};
/** A word for what is off, in the middle of a sentence. */
export const preFlightOff: Record<PreFlightItem, string> = {
  "lead-rack": "the earth is poor from lead to rack",
  "rack-hook": "the earth is poor from rack to hook",
  "hook-part": "the earth is poor from hook to part",
  "hooks-stripped": "hooks are past their uses",
  "air-rest": "the gun’s air falls too far from rest to flow",
  "air-flowing": "the gun’s air is out of its window",
  "air-dew-point": "the air is damp",
  blotter: "the blotter shows oil or water",
  "air-filter": "the filter is past its hours",
  compressor: "the compressor runs too much",
  "booth-air": "the draught is out of its window",
  "hopper-mark": "the hopper is too full",
  cloud: "the cloud puffs",
  "powder-lot": "the lot is wrong or out of date",
  "colour-change": "the last colour is still about",
  scuffed: "the old film is not scuffed",
  gloves: "bare or dirty gloves",
};

const facts: Record<Extract<CoachBecause, { kind: "fact" }>["fact"], string> = {
  recess: "the part has inside corners",
  recoat: "the film underneath holds its charge",
  casting: "castings hold gas",
  "sharp-edge": "edges are sharp",
  "high-flow": "this powder flows off sharp edges",
  "lot-old": "the lot is past its shelf life",
  "thick-in-one": "a lot in one coat",
  "voltage-against-earth": "the voltage was raised while the earth is out: it makes it worse, and it can spark",
  hot: "hot metal takes too much, unseen",
  "water-releasing": "this powder gives off water as it cures",
};
export function coachBecause(because: CoachBecause, units: UnitSystem): string {
  switch (because.kind) {
    case "off":
      return preFlightOff[because.item];
    case "fact":
      return facts[because.fact];
    case "beyond":
      return `${settingName[because.setting]} is ${comparedValue(because.setting, because.value, units)}, its window ends at ${comparedValue(because.setting, because.limit, units)}`;
  }
}
const deeds: Record<Extract<CoachMove, { kind: "do" }>["what"], string> = {
  "stop-for-draught": "Stop: no powder until the booth draws again; clear its filters, read the draught anew",
  "earth-first": "Clean metal to metal at that link and read again, before any setting is touched",
  "strip-hooks": "Take stripped hooks",
  "drain-and-filter": "Drain the tank, change the filter, try the blotter again",
  "clean-down": "Clean down again: hopper, hose, gun, booth walls",
  scuff: "Scuff it dull and wipe before powder",
  "other-lot": "Take another lot",
  "two-light-coats": "Build it in two light coats",
  "outgas-first": "Outgas hotter than the cure first",
  "warm-slowly": "Bring it up slowly",
  "aim-into-the-corner": "Aim into the corner from the side, low voltage, little air",
  "empty-to-mark": "Empty the hopper to its mark and look at the cloud again",
  "edge-by-hand": "One quick pass along the edges; read the film there",
  "test-piece": "Spray a test piece first",
};
export function coachMove(move: CoachMove, units: UnitSystem): string {
  if (move.kind === "do") return deeds[move.what];
  const name = settingName[move.setting];
  const to = move.to === null ? "" : ` to ${comparedValue(move.setting, move.to, units)}`;
  return `${name[0]?.toUpperCase()}${name.slice(1)} ${move.way}${to}; nothing else at the same time`;
}

export const lampWhats = ["light-resprayed", "light-left", "heavy-left", "bumped", "wiped"] as const;
export type LampWhat = (typeof lampWhats)[number];
export const lampWhatName: Record<LampWhat, string> = {
  "light-resprayed": "light, sprayed again",
  "light-left": "light, left",
  "heavy-left": "heavy, left",
  bumped: "bumped",
  wiped: "wiped clean",
};

export const saysName: Record<BeforeAfter["says"], string> = {
  helped: "helped",
  "made-worse": "made it worse",
  moved: "moved the film",
  "cannot-tell": "cannot be told yet",
};
/** Unit of a pre-flight reading as this person types it, and how it comes to its canonical one. */
export function preFlightUnit(
  unit: string,
  units: UnitSystem,
): { unit: string; from: (typed: number) => number; to: (value: number) => number } {
  const same = { unit, from: (x: number) => x, to: (x: number) => x };
  if (units !== "us") return same;
  const quantity = quantityOf[unit];
  if (!quantity) return same;
  const { us, fromUs, toUs } = quantities[quantity];
  return { unit: us, from: fromUs, to: toUs };
}

/** The earth in a line: the sum of its links, a least value while one is unread, and which link holds most of what is too much. */
export function earthSaid(earth: EarthChain, limitMohm: number): string {
  const total = Math.round(earth.totalMohm * 100) / 100;
  const names = earth.unread.map((link) => linkName[link]);
  if (earth.result === "out")
    return `earth ${total} MΩ, over ${limitMohm}${earth.worst ? `: most of it ${linkName[earth.worst]}` : ""}`;
  return names.length > 0
    ? `earth at least ${total} of ${limitMohm} MΩ, ${names.join(" and ")} not read`
    : `earth ${total} of ${limitMohm} MΩ`;
}
