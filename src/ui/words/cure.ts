import type {
  BakeEventKind,
  Climb,
  CoolingMethod,
  FilmState,
  GelState,
  InfraredAim,
  InfraredDoubt,
  TraceFault,
} from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import type { VerdictResult } from "@/core/verdict";
import type { OpenBake } from "@/server/line/load-line";
import { plainly, span, withUnit } from "../format";

/** A load whose newest sample is old: what is foretold by now first, then what was read, and how long ago. */
export function staleBakeSaid(bake: OpenBake, nowMs: number, time: (at: Date) => string): string {
  const read = `read ${time(bake.lastAt)}, ${span(nowMs - bake.lastAt.getTime())} ago: index ${bake.index?.toFixed(0)} then on ${bake.channel}`;
  const since = bake.foretold?.overbakedSince;
  if (since) return `Foretold over-baked since ${time(since)}; ${read}`;
  if (bake.foretold && bake.overdue && bake.pullAt)
    return `Foretold cured since ${time(bake.pullAt)}, index ${bake.foretold.index.toFixed(0)} by now; ${read}`;
  if (bake.foretold) return `Foretold at index ${bake.foretold.index.toFixed(0)} by now; ${read}`;
  return `What it is by now nobody knows; ${read}`;
}

/** A section as it takes heat: a plate's thickness, or the plate that a hollow one heats as. */
export function sectionWords(s: { readonly sectionMm: number; readonly hollow: boolean }, units: UnitSystem): string {
  const thick = plainly(s.sectionMm, "size", units);
  return s.hollow ? `hollow, heats as ${thick} plate` : thick;
}

export const bakeEventName: Record<BakeEventKind, string> = {
  "door-opened": "Door opened",
  "door-shut": "Door shut",
  melted: "Melted, glossy",
  "touched-up": "Touched up",
  infrared: "Infrared reading",
  "set-point": "Set point changed",
  "heat-off": "Heat off",
  cooling: "Cooling",
  cool: "Cool enough, read",
  "plugs-out": "Plugs and masks out",
};
export const bakeEventSentence: Record<string, string> = {
  "door-opened": "oven door opened",
  "door-shut": "oven door shut",
  melted: "film melted",
  "touched-up": "touched up at melt",
  infrared: "metal read by infrared",
  "set-point": "oven set anew",
  "heat-off": "oven's heat off",
  cooling: "set to cool",
  cool: "cooled, read",
  "plugs-out": "plugs and masks out",
};
export const aimName: Record<InfraredAim, string> = {
  "coated-part": "the coated part",
  "bare-metal": "bare metal",
  "oven-wall": "the oven's wall",
  rack: "the rack",
};
export const doubtWords: Record<InfraredDoubt, string> = {
  "bright-metal": "bright metal reads far too cold or hot: kept, not relied on",
  "not-the-part": "not the part: kept, says nothing of its cure",
  "low-emissivity": "emissivity under 0.85 on a coated part reads too hot: kept, not relied on",
};

/** What the first bake of a gelled primer came to, and what follows. */
export const gelStateWords: Record<GelState, { result: VerdictResult; word: string; more: string }> = {
  short: { result: "out", word: "Not gelled", more: "bake on before the top coat, or it mixes with loose powder" },
  gelled: { result: "in", word: "Gelled", more: "" },
  "too-far": {
    result: "watch",
    word: "Past gel",
    more: "the top coat may not bond: scuff it, or prove it with a cross-cut",
  },
};

export const climbWords: Record<Climb, string> = {
  slow: "slower than its sheet: it flows less, expect peel",
  usual: "as its sheet asks",
  fast: "faster than its sheet: gas and water break through the film",
};

const MOST_TOUCH_UP_MIN = 120;
export function filmStateWords(state: FilmState, hot = false): string {
  // Past the onset of its cure it has melted, whether anybody noted it or not.
  if (state.kind === "loose")
    return hot ? "melted by its heat, not noted; soft, do not touch" : "powder loose or just melting";
  if (state.kind === "curing") return "melted and curing; soft, do not touch";
  if (state.kind === "cured") return "cured";
  const minutes = Math.floor(state.touchUpLeftS / 60);
  // At a heat that hardly cures the model's figure is no promise of hours.
  return `melted, soft; touch-up open${minutes <= MOST_TOUCH_UP_MIN ? ` for ${Math.max(0, minutes)} min more` : ""}`;
}

/** A fault of a trace in words, with what to do. */
export function traceFaultWords(fault: TraceFault, units: UnitSystem): string {
  const c = (value: number) => withUnit(value, "temperature", units);
  switch (fault.kind) {
    case "absurd-rate":
      return `${fault.channel} went from ${c(fault.fromC)} to ${c(fault.toC)} in one sample at ${Math.round(fault.atS / 60)} min: a probe or plug, not metal. Look at its wire; what it says decides nothing good.`;
    case "heats-like-air":
      return `${fault.channel} follows the air as it climbs: its probe hangs in the air or has come off. Metal under it may be far colder.`;
    case "changed-over":
      return `${fault.channel} lags behind ${fault.with}: their plugs seem changed over, air taken for metal.`;
    case "fahrenheit-as-celsius":
      return `Up to ${Math.round(fault.peakC)} as °C is beyond the sheet; as °F it would be ${c(fault.asC)}. If so, read the file again as °F.`;
    case "drifts":
      return `${fault.channel} drifts ${fault.perHourC > 0 ? "up" : "down"} by ${Math.abs(fault.perHourC).toFixed(0)} °C an hour against the others at the hold.`;
  }
}

export const heatName = {
  "gas-indirect": "gas, indirect",
  "gas-direct": "gas, direct",
  electric: "electric",
  infrared: "infrared",
} as const;

export const coolingName: Record<CoolingMethod, string> = {
  "still-air": "hung in still air",
  chamber: "in a cooling chamber",
  fan: "before a fan",
  "cold-air": "in cold air outside",
};
