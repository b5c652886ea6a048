/** Causes of loss by how often, the most frequent first, each with its share of all and the share up to it, 0–1. O(n log n). */
export function pareto<T extends { readonly count: number }>(
  causes: readonly T[],
): readonly (T & { readonly share: number; readonly upTo: number })[] {
  const sorted = causes.filter((c) => c.count > 0).sort((a, b) => b.count - a.count);
  const all = sorted.reduce((sum, c) => sum + c.count, 0);
  let before = 0;
  return sorted.map((c) => {
    before += c.count;
    return { ...c, share: c.count / all, upTo: before / all };
  });
}
