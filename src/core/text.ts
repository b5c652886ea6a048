const LONE = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

/** Text that any encoding keeps as it is: half of a surrogate pair, which none does, becomes the sign for what is lost. */
export const wellFormed = (text: string): string => text.replace(LONE, "\uFFFD");

/** The same value with every text in it well formed; itself where all are. Moments and numbers stay as they are. O(values). */
export function wellFormedDeep<T>(value: T): T {
  if (typeof value === "string") return wellFormed(value) as T;
  if (value === null || typeof value !== "object" || value instanceof Date || ArrayBuffer.isView(value)) return value;
  if (Array.isArray(value)) {
    const made = value.map(wellFormedDeep);
    return made.some((v, i) => v !== value[i]) ? (made as T) : value;
  }
  const entries = Object.entries(value);
  const made = entries.map(([key, v]) => [key, wellFormedDeep(v)] as const);
  return made.some(([, v], i) => v !== entries[i]?.[1]) ? (Object.fromEntries(made) as T) : value;
}

/** At most so many signs as the eye counts them: an emoji, or a letter with its accents, is never cut in two. */
export function cutTo(text: string, most: number): string {
  if (text.length <= most) return text;
  let kept = "";
  for (const { segment } of new Intl.Segmenter("en", { granularity: "grapheme" }).segment(text)) {
    if (kept.length + segment.length > most) break;
    kept += segment;
  }
  return kept;
}
