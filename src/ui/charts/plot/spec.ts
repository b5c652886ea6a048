/**
 * What a chart shows, as data: axes, and layers from the back to the front, in the chart's own values. `Plot` draws it.
 */

export type Tone = "ink" | "soft" | "faint" | "rule" | "in" | "watch" | "out" | "unknown" | "sorrel";
export const colourOf: Readonly<Record<Tone, string>> = {
  ink: "var(--ink)",
  soft: "var(--ink-2)",
  faint: "var(--ink-3)",
  rule: "var(--rule-strong)",
  in: "var(--in)",
  watch: "var(--watch)",
  out: "var(--out)",
  unknown: "var(--unknown)",
  sorrel: "var(--sorrel)",
};

export type Tick = { readonly at: number; readonly label: string };
export type Axis = {
  readonly domain: readonly [number, number];
  /** More than fit may be given: those that would touch are left out, evenly. */
  readonly ticks: readonly Tick[];
  /** What it counts, with its unit. */
  readonly title?: string;
  readonly log?: boolean;
  /** A hairline at each tick. */
  readonly lines?: boolean;
};

type Stroke = { readonly tone: Tone; readonly width?: number; readonly dash?: string };
export type Span = readonly [from: number | null, to: number | null];
export type Mark = {
  readonly x: number;
  readonly y: number;
  readonly tone: Tone;
  readonly shape?: "dot" | "square" | "ring";
  /** Half its size, px. */
  readonly r?: number;
  readonly opacity?: number;
  /** Moved by so many px from its value, where several share one. */
  readonly lift?: number;
  readonly says?: string;
};
export type Bar = {
  readonly from: number;
  readonly to: number;
  readonly y: number;
  /** Its filling; hatched where it rests on an assumption. */
  readonly fill: string;
  readonly outline?: Tone;
  readonly strong?: boolean;
};

export type Layer =
  /** A range that is allowed or wanted; open where null. */
  | { readonly kind: "band"; readonly x?: Span; readonly y?: Span; readonly fill?: string; readonly label?: string }
  /** A limit: a line across, named with its value beside the plot. */
  | ({ readonly kind: "level"; readonly y: number; readonly x?: Span; readonly label?: string } & Stroke)
  /** A moment: a line from foot to top, named above the plot, with a flag where it is an event. */
  | ({
      readonly kind: "moment";
      readonly x: number;
      readonly y?: Span;
      readonly label?: string;
      readonly flag?: boolean;
      /** What its flag says where it is pointed at; else its name. */
      readonly says?: string;
      /** Named whatever else stands there; the others keep their flag where there is no room. */
      readonly must?: boolean;
    } & Stroke)
  /** A line through values, broken where null; named at its end. */
  | ({
      readonly kind: "curve";
      readonly points: readonly (readonly [number, number] | null)[];
      readonly label?: string;
      readonly strong?: boolean;
      readonly opacity?: number;
    } & Stroke)
  /** What lies between a lower and an upper value. */
  | {
      readonly kind: "area";
      readonly points: readonly (readonly [x: number, low: number, high: number])[];
      readonly tone: Tone;
      readonly opacity: number;
    }
  | { readonly kind: "marks"; readonly marks: readonly Mark[] }
  | { readonly kind: "bars"; readonly bars: readonly Bar[] }
  /** Nothing was read here. */
  | { readonly kind: "gap"; readonly from: number; readonly to: number; readonly label?: string }
  /** Words at a value. */
  | {
      readonly kind: "note";
      readonly x: number;
      readonly y: number;
      readonly text: string;
      readonly tone: Tone;
      readonly strong?: boolean;
    }
  /** Words beside the plot at a value, without a line. */
  | {
      readonly kind: "beside";
      readonly y: number;
      readonly text: string;
      /** Said in its place where the chart is too narrow for all of it. */
      readonly short?: string;
      readonly tone: Tone;
    };

export type Spec = {
  readonly x: Axis;
  readonly y: Axis;
  readonly layers: readonly Layer[];
  /** Least room around the plot, px: where charts stand under one another on one scale, or what is drawn changes. */
  readonly room?: { readonly left?: number; readonly right?: number; readonly top?: number };
};
/** A value that can be read off by pointer and by key. */
export type Reading = {
  readonly x: number;
  readonly y: number;
  /** In words; where there are thousands, worked out when it is read. */
  readonly says: string | (() => string);
};

/** Round ticks of an axis of numbers. `format` sees the tick in the axis' own value. */
export const ticksOf = (at: readonly number[], format: (value: number) => string): Tick[] =>
  at.map((value) => ({ at: value, label: format(value) }));

/** The least range that holds all values and limits, with some air; never without width. Nulls are no value. */
export function domainOf(values: readonly (number | null | undefined)[], air = 0.08): readonly [number, number] {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const v of values) {
    if (v === null || v === undefined) continue;
    low = Math.min(low, v);
    high = Math.max(high, v);
  }
  if (low > high) return [0, 1];
  const pad = (high - low || 1) * air;
  return [low - pad, high + pad];
}
