import { err, ok, type Result } from "../result";
import { mean } from "../statistics/mean";

export const CREEP_LEAST_POINTS = 6;
/** Upper limit of mean creep, mm, for each rating from 9 down to 1. Source: after ASTM D1654. */
const ratingSteps: readonly (readonly [number, number])[] = [
  [0, 10],
  [0.5, 9],
  [1, 8],
  [2, 7],
  [3, 6],
  [5, 5],
  [7, 4],
  [10, 3],
  [13, 2],
  [16, 1],
];

export type Creep = {
  readonly kind: "creep";
  readonly creepMm: number;
  readonly n: number /** Null under six points. */;
  readonly rating: number | null;
  readonly few: boolean;
};

/** Rating 10 (none) … 0 from mean creep in mm. */
export function creepRating(creepMm: number): Result<number> {
  if (!(creepMm >= 0) || !Number.isFinite(creepMm)) return err({ kind: "bad-input", name: "creepMm", value: creepMm });
  return ok(ratingSteps.find(([upTo]) => creepMm <= upTo * (1 + 1e-9))?.[1] ?? 0);
}

const checkWidths = (widthsMm: readonly number[]) => {
  if (widthsMm.length === 0) return err({ kind: "no-widths" });
  const index = widthsMm.findIndex((width) => !(width >= 0) || !Number.isFinite(width));
  return index >= 0 ? err({ kind: "bad-width", index, widthMm: widthsMm[index] }) : null;
};
const creep = (creepMm: number, n: number): Result<Creep> => {
  const rating = creepRating(creepMm);
  if (!rating.ok) return rating;
  const few = n < CREEP_LEAST_POINTS;
  return ok({ kind: "creep", creepMm, n, rating: few ? null : rating.value, few });
};

/**
 * Creep from a scribe, mm: (mean width − scribe width) / 2, at even spacing, six points or more for a rating.
 * Failures: `no-widths`, `bad-width`, `bad-input`, `narrower-than-scribe`. Source: after ISO 4628-8, ASTM D1654.
 */
export function creepFromScribe(widthsMm: readonly number[], scribeMm: number): Result<Creep> {
  const failure = checkWidths(widthsMm);
  if (failure) return failure;
  if (!(scribeMm >= 0) || !Number.isFinite(scribeMm))
    return err({ kind: "bad-input", name: "scribeMm", value: scribeMm });
  const meanMm = mean(widthsMm);
  if (meanMm < scribeMm * (1 - 1e-9)) return err({ kind: "narrower-than-scribe", meanMm, scribeMm });
  return creep(Math.max(0, (meanMm - scribeMm) / 2), widthsMm.length);
}

/** Creep from a chip, mm: one-sided, measured from the chip's edge; the mean of the widths. */
export function creepFromChip(widthsMm: readonly number[]): Result<Creep> {
  return checkWidths(widthsMm) ?? creep(mean(widthsMm), widthsMm.length);
}

/** Area method, mm: (area / length − scribe width) / 2. */
export function creepFromArea(input: {
  readonly areaMm2: number;
  readonly lengthMm: number;
  readonly scribeMm: number;
}): Result<number> {
  if (!(input.areaMm2 >= 0)) return err({ kind: "bad-input", name: "areaMm2", value: input.areaMm2 });
  if (!(input.lengthMm > 0)) return err({ kind: "bad-input", name: "lengthMm", value: input.lengthMm });
  if (!(input.scribeMm >= 0) || !Number.isFinite(input.scribeMm))
    return err({ kind: "bad-input", name: "scribeMm", value: input.scribeMm });
  const meanMm = input.areaMm2 / input.lengthMm;
  if (meanMm < input.scribeMm * (1 - 1e-9))
    return err({ kind: "narrower-than-scribe", meanMm, scribeMm: input.scribeMm });
  return ok(Math.max(0, (meanMm - input.scribeMm) / 2));
}

/** Two readings of a width nearer in time than this differ by how they were read more than by what grew, days. */
export const RATE_LEAST_DAYS = 90;

/** Mean creep rate, mm/year, between two visits or since coating. Failures: `times-out-of-order`, `bad-input`. */
export function creepRateMmPerYear(input: {
  readonly fromMm: number;
  readonly toMm: number;
  readonly years: number;
}): Result<number> {
  if (!(input.years > 0) || !Number.isFinite(input.years))
    return err({ kind: "times-out-of-order", years: input.years });
  if (!(input.fromMm >= 0) || !(input.toMm >= 0))
    return err({ kind: "bad-input", name: "creepMm", value: Math.min(input.fromMm, input.toMm) });
  return ok((input.toMm - input.fromMm) / input.years);
}
