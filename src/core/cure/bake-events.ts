/** An address for an oven: “Oven 1” is `oven-1`. */
export const ovenSlug = (code: string): string => code.toLowerCase().replace(/[^a-z0-9]+/g, "-");

/** What is noted of a load while it is in the oven and cools. */
export const bakeEvents = [
  "door-opened",
  "door-shut",
  "melted",
  "touched-up",
  "infrared",
  "set-point",
  "heat-off",
  "cooling",
  "cool",
  "plugs-out",
] as const;
/** How a load cools once it is out: still air does it no harm. */
export const coolingMethods = ["still-air", "chamber", "fan", "cold-air"] as const;
export type CoolingMethod = (typeof coolingMethods)[number];
/** Forced or cold air on hot powder shows in its finish. */
export const isHardCooling = (method: CoolingMethod): boolean => method === "fan" || method === "cold-air";
export type BakeEventKind = (typeof bakeEvents)[number];
export type BakeEvent = { readonly event: BakeEventKind; readonly atS: number };

/** Where a film is between loose powder and cured: what may be touched, and whether powder still takes. */
export type FilmState =
  | { readonly kind: "loose" }
  /** Powder still bonds to a film that has just melted; it is soft and takes prints. */
  | { readonly kind: "melted"; readonly sinceS: number; readonly touchUpOpen: boolean; readonly touchUpLeftS: number }
  | { readonly kind: "curing" }
  | { readonly kind: "cured" };

/** Touch-up is open from the melt until so much of the cure is done. */
export const TOUCH_UP_INDEX = 25;

/**
 * What the film of a load is at a moment by its melt and its index: loose, melted (touch-up still open up to a quarter of
 * the cure), curing, cured. `indexPerS` is how fast it earns now. Source: shop practice.
 */
export function filmState(
  events: readonly BakeEvent[],
  nowS: number,
  index: number | null,
  indexPerS: number,
): FilmState {
  if (index !== null && index >= 100) return { kind: "cured" };
  const melt = events.filter((e) => e.event === "melted" && e.atS <= nowS).at(-1);
  if (!melt) return index !== null && index >= TOUCH_UP_INDEX ? { kind: "curing" } : { kind: "loose" };
  const done = index ?? 0;
  const open = done < TOUCH_UP_INDEX;
  if (!open) return { kind: "curing" };
  return {
    kind: "melted",
    sinceS: melt.atS,
    touchUpOpen: open,
    touchUpLeftS: indexPerS > 0 ? (TOUCH_UP_INDEX - done) / indexPerS : Number.POSITIVE_INFINITY,
  };
}

/** Seconds the door stood open within a span: what a hold by the clock must give back. An opening without an end runs on. */
export function doorOpenS(events: readonly BakeEvent[], fromS: number, toS: number): number {
  let open: number | null = null;
  let sum = 0;
  const add = (a: number, b: number) => {
    sum += Math.max(0, Math.min(b, toS) - Math.max(a, fromS));
  };
  for (const { event, atS } of [...events].sort((a, b) => a.atS - b.atS)) {
    if (event === "door-opened") open ??= atS;
    else if (event === "door-shut" && open !== null) {
      add(open, atS);
      open = null;
    }
  }
  if (open !== null) add(open, toS);
  return sum;
}
