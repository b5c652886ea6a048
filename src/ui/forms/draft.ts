/** What a form holds, by field. Sets are kept too; files and passwords have no place in it. */
export type Values = Record<string, unknown>;

const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && Object.getPrototypeOf(value) === Object.prototype;

/** As text, sets included, so that two values are one where they read alike. */
export const encode = (value: unknown): string =>
  JSON.stringify(value, (_, v) => (v instanceof Set ? { $set: [...v] } : v)) ?? "";
const decode = (text: string): unknown =>
  JSON.parse(text, (_, v) => (isPlain(v) && Array.isArray(v.$set) ? new Set(v.$set) : v));

/**
 * What of a form differs from every one of its beginnings, down to the entry of a field that is a record: only this is
 * kept, so that what somebody else changed meanwhile is not put back. Null where nothing does. O(size of the form).
 */
export function changedOf(values: Values, beginnings: readonly Values[]): Values | null {
  const out: Values = {};
  for (const [name, value] of Object.entries(values)) {
    const begun = beginnings.map((b) => b[name]);
    if (begun.some((b) => encode(b) === encode(value))) continue;
    if (isPlain(value) && begun.every(isPlain)) {
      const own = changedOf(value, begun as Values[]);
      if (own) out[name] = own;
    } else out[name] = value;
  }
  return Object.keys(out).length > 0 ? out : null;
}

/** A form's beginning with what was changed put over it; a field it has no longer is left out. */
export function withChanged<T extends Values>(begun: T, changed: Values): T {
  const out: Values = { ...begun };
  for (const [name, value] of Object.entries(changed)) {
    if (!(name in begun)) continue;
    const old = begun[name];
    out[name] = isPlain(value) && isPlain(old) ? { ...old, ...value } : value;
  }
  return out as T;
}

type Kept = { readonly atMs: number; readonly changed: Values };
const keyOf = (who: string, name: string) => `draft:${who}:${name}`;

/** What was kept of a form for this person in this browser; null where nothing was, or it cannot be read. */
export function keptDraft(who: string, name: string): Kept | null {
  try {
    const text = localStorage.getItem(keyOf(who, name));
    const kept = text === null ? null : decode(text);
    return isPlain(kept) && typeof kept.atMs === "number" && isPlain(kept.changed) ? (kept as Kept) : null;
  } catch {
    return null;
  }
}

/** Keeps what was changed, or lets it go where nothing was. A browser that keeps nothing loses nothing else. */
export function keepDraft(who: string, name: string, changed: Values | null, atMs: number): void {
  try {
    if (changed) localStorage.setItem(keyOf(who, name), encode({ atMs, changed }));
    else localStorage.removeItem(keyOf(who, name));
  } catch {}
}
