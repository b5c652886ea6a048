/** A chart's label that is read over whatever line runs through it. */
export const OVER_LINES = { paintOrder: "stroke", stroke: "var(--bench)", strokeWidth: 4 } as const;
