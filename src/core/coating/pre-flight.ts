import { within } from "../limits";
import type { EvidenceGrade, VerdictResult } from "../verdict";
import { worstResult } from "../verdict";
import { type EarthChain, type EarthLink, earthChain, earthLinks } from "./earth-chain";
import type { Window } from "./set-up";

/** What is looked at before powder goes on, in the order a painter walks it. */
export const preFlightItems = [
  "lead-rack",
  "rack-hook",
  "hook-part",
  "hooks-stripped",
  "air-rest",
  "air-flowing",
  "air-dew-point",
  "blotter",
  "air-filter",
  "compressor",
  "booth-air",
  "hopper-mark",
  "cloud",
  "powder-lot",
  "colour-change",
  "scuffed",
  "gloves",
] as const;
export type PreFlightItem = (typeof preFlightItems)[number];

/** Read as a number, in this unit; the others are looked at. */
export const preFlightMeasures: Readonly<
  Partial<Record<PreFlightItem, { readonly unit: string; readonly bounds: readonly [number, number] }>>
> = {
  "lead-rack": { unit: "MΩ", bounds: [0, 1_000_000] },
  "rack-hook": { unit: "MΩ", bounds: [0, 1_000_000] },
  "hook-part": { unit: "MΩ", bounds: [0, 1_000_000] },
  "hooks-stripped": { unit: "uses", bounds: [0, 10_000] },
  "air-rest": { unit: "kPa", bounds: [0, 1000] },
  "air-flowing": { unit: "kPa", bounds: [0, 1000] },
  "air-dew-point": { unit: "°C", bounds: [-100, 60] },
  "air-filter": { unit: "h", bounds: [0, 20_000] },
  compressor: { unit: "%", bounds: [0, 100] },
  "booth-air": { unit: "m/s", bounds: [0, 5] },
  "hopper-mark": { unit: "%", bounds: [0, 100] },
};
/** Where an item is one of the earth's links. */
export const earthLinkOf: Readonly<Partial<Record<PreFlightItem, EarthLink>>> = {
  "lead-rack": "lead-rack",
  "rack-hook": "rack-hook",
  "hook-part": "hook-part",
};

/** What is off leads to these defects, in the root-cause engine's codes: defect and cause. */
export const preFlightLeadsTo: Readonly<Record<PreFlightItem, readonly (readonly [string, string])[]>> = {
  "lead-rack": [["light-coverage", "poor-ground"]],
  "rack-hook": [["light-coverage", "poor-ground"]],
  "hook-part": [
    ["light-coverage", "poor-ground"],
    ["orange-peel", "poor-ground"],
  ],
  "hooks-stripped": [["light-coverage", "poor-ground"]],
  "air-rest": [["orange-peel", "output-too-high"]],
  "air-flowing": [["orange-peel", "output-too-high"]],
  "air-dew-point": [["craters", "wet-air"]],
  blotter: [["craters", "wet-air"]],
  "air-filter": [["craters", "wet-air"]],
  compressor: [["craters", "wet-air"]],
  "booth-air": [["light-coverage", "booth-draught"]],
  "hopper-mark": [["orange-peel", "output-too-high"]],
  cloud: [["orange-peel", "output-too-high"]],
  "powder-lot": [["colour-shift", "powder-lot"]],
  "colour-change": [["inclusions", "cross-contamination"]],
  scuffed: [["adhesion-loss", "intercoat"]],
  gloves: [["craters", "hand-contact"]],
};

export type PreFlightEntry = {
  readonly item: PreFlightItem;
  readonly how: "measured" | "by-procedure" | "skipped";
  readonly value: number | null;
  /** What was seen, where nothing is read: true is good. */
  readonly good: boolean | null;
  readonly note: string;
};
export type PreFlightLimits = {
  readonly gunAirKPa: Window;
  readonly earthLimitMohm: number;
  readonly boothAirMPerS: Window;
  readonly hookCyclesLimit: number;
  readonly compressedAirDewPointC: number;
  readonly hopperFillPercent: Window;
  readonly filterHours: number;
  readonly compressorPercent: number;
  /** Gun air may fall by this share from rest to flow, before a filter or hose is suspected. */
  readonly airDropShare: number;
};
export const usualPreFlightLimits = {
  hopperFillPercent: [null, 50] as Window,
  filterHours: 500,
  compressorPercent: 70,
  airDropShare: 0.4,
} as const;

/** The window of an item that is read; null where it is looked at, or judged with others (the earth's links add up). */
export function preFlightWindow(item: PreFlightItem, limits: PreFlightLimits): Window | null {
  switch (item) {
    case "hooks-stripped":
      return [null, limits.hookCyclesLimit];
    case "air-flowing":
      return limits.gunAirKPa;
    case "air-dew-point":
      return [null, limits.compressedAirDewPointC];
    case "air-filter":
      return [null, limits.filterHours];
    case "compressor":
      return [null, limits.compressorPercent];
    case "booth-air":
      return limits.boothAirMPerS;
    case "hopper-mark":
      return limits.hopperFillPercent;
    default:
      return earthLinkOf[item] ? [null, limits.earthLimitMohm] : null;
  }
}

/** What this rack asks for: scuffing only over an old film. */
export const preFlightAsked = (recoat: boolean): readonly PreFlightItem[] =>
  preFlightItems.filter((item) => item !== "scuffed" || recoat);

export type PreFlightJudged = {
  readonly result: VerdictResult;
  readonly grade: EvidenceGrade;
  readonly items: readonly { readonly item: PreFlightItem; readonly result: VerdictResult }[];
  /** Off, with what it leads to; the earth as a whole stands under its worst link. */
  readonly off: readonly PreFlightItem[];
  /** Nobody sprays until it is put right: earth out, or the booth's draught under its least. */
  readonly stops: readonly PreFlightItem[];
  /** Not looked at: asked for and neither read nor seen. */
  readonly open: readonly PreFlightItem[];
  /** The earth's links added up; null where none was read. */
  readonly earth: EarthChain | null;
  /** Fall of the gun's air from rest to flow, as a share of rest; null where either was not read. */
  readonly airDrop: number | null;
};

/**
 * The pre-flight as a whole: each item by its window or by sight; the earth's links add up to one reading; the fall of
 * the gun's air from rest to flow is judged where both were read. Skipped is unknown, never in. O(items).
 */
export function judgePreFlight(
  entries: readonly PreFlightEntry[],
  limits: PreFlightLimits,
  recoat: boolean,
): PreFlightJudged {
  const asked = preFlightAsked(recoat);
  const of = (item: PreFlightItem) => entries.find((e) => e.item === item) ?? null;
  const earth = earthChain(
    Object.fromEntries(earthLinks.map((link) => [link, of(link)?.value ?? null])),
    limits.earthLimitMohm,
  );
  const chain = earth.ok ? earth.value : null;
  const [rest, flowing] = [of("air-rest")?.value ?? null, of("air-flowing")?.value ?? null];
  const airDrop = rest !== null && flowing !== null && rest > 0 ? (rest - flowing) / rest : null;
  const judged = (item: PreFlightItem): VerdictResult => {
    const entry = of(item);
    if (!entry || entry.how === "skipped") return "unknown";
    if (entry.good === false) return "out";
    if (chain?.result === "out" && item === chain.worst) return "out";
    if (item === "air-rest" && airDrop !== null && (airDrop > limits.airDropShare || airDrop < 0)) return "watch";
    if (entry.value === null) return entry.good === true ? "in" : "unknown";
    const window = preFlightWindow(item, limits);
    if (window && !within(entry.value, window[0], window[1])) return "out";
    return "in";
  };
  const items = asked.map((item) => ({ item, result: judged(item) }));
  const seen = entries.filter((e) => asked.includes(e.item) && e.how !== "skipped");
  return {
    result: worstResult(items.map((i) => i.result)),
    grade: items.some((i) => i.result === "unknown")
      ? "unknown"
      : seen.some((e) => e.how === "by-procedure")
        ? "by-procedure"
        : "measured",
    items,
    off: items.filter((i) => i.result === "out" || i.result === "watch").map((i) => i.item),
    stops: items.flatMap(({ item, result }) => {
      if (result !== "out") return [];
      const least = item === "booth-air" ? limits.boothAirMPerS[0] : null;
      const still = least !== null && (of(item)?.value ?? least) < least;
      return earthLinkOf[item] || still ? [item] : [];
    }),
    open: asked.filter((item) => !of(item)),
    earth: chain,
    airDrop,
  };
}
