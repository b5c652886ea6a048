/** Relative tolerance within which a comparison with a limit counts as met. */
export const LIMIT_TOLERANCE = 1e-9;

const slack = (limit: number) => Math.abs(limit) * LIMIT_TOLERANCE;

/** value ≥ limit, met within 1e-9 relative so that 0.8 × 76.2 does not fail a 60.96. */
export const atLeast = (value: number, limit: number): boolean => value >= limit - slack(limit);
/** value ≤ limit, met within 1e-9 relative. */
export const atMost = (value: number, limit: number): boolean => value <= limit + slack(limit);
/** lower ≤ value ≤ upper; either side may be absent (null). */
export const within = (value: number, lower: number | null, upper: number | null): boolean =>
  (lower === null || atLeast(value, lower)) && (upper === null || atMost(value, upper));
