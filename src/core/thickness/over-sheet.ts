/** Film above what a powder's sheet bears: at which spot, how much, and by which of its limits. */
export type OverSheet = {
  readonly kind: "one-coat" | "in-all";
  readonly spot: string;
  readonly um: number;
  readonly limitUm: number;
};

/**
 * The thickest spot over what the sheet gives as the most: in one coat where there is one, in all where there are several
 * over each other. Null where none is, or the sheet gives no such limit. Spots are means, µm. O(spots).
 */
export function overSheet(
  spots: readonly { readonly id: string; readonly um: number }[],
  coats: number,
  sheet: { readonly mostPerCoatUm: number | null; readonly mostInAllUm: number | null },
): OverSheet | null {
  const one = coats <= 1 && sheet.mostPerCoatUm !== null;
  const limitUm = one ? sheet.mostPerCoatUm : sheet.mostInAllUm;
  if (limitUm === null || spots.length === 0) return null;
  const thickest = spots.reduce((a, b) => (b.um > a.um ? b : a));
  return thickest.um > limitUm
    ? { kind: one ? "one-coat" : "in-all", spot: thickest.id, um: thickest.um, limitUm }
    : null;
}
