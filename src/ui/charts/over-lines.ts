/** A chart's label that is read over whatever line runs through it. */
export const OVER_LINES = { paintOrder: "stroke", stroke: "var(--bench)", strokeWidth: 4 } as const;

/** A label between lines a text's height apart: it stands clear of its own and wipes out none above it. */
export const BETWEEN_LINES = { ...OVER_LINES, strokeWidth: 2, fontSize: 11 } as const;
