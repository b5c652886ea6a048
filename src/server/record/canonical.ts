import { createHash } from "node:crypto";

/**
 * Canonical text of a value: keys sorted, absent and null keys left out, moments as ISO 8601 with milliseconds.
 * The same row gives the same text whether it was just typed or read back from the database.
 */
export function canonicalText(value: unknown): string {
  if (value === null || value === undefined) return "null";
  if (value instanceof Date) return JSON.stringify(value.toISOString());
  if (Array.isArray(value)) return `[${value.map(canonicalText).join(",")}]`;
  if (typeof value === "object") {
    const entries = Object.entries(value).filter(([, v]) => v !== null && v !== undefined);
    entries.sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
    return `{${entries.map(([key, v]) => `${JSON.stringify(key)}:${canonicalText(v)}`).join(",")}}`;
  }
  if (typeof value === "number" && !Number.isFinite(value)) throw new RangeError(`no canonical text for ${value}`);
  return JSON.stringify(value);
}

export const sha256 = (text: string | Buffer): string => createHash("sha256").update(text).digest("hex");

/** Merkle root over leaf hashes in order; leaves and nodes are hashed under different prefixes, an odd node moves up as it is. */
export function merkleRoot(leaves: readonly string[]): string {
  if (leaves.length === 0) throw new RangeError("no leaves to seal");
  let level = leaves.map((leaf) => sha256(`leaf:${leaf}`));
  while (level.length > 1) {
    const next: string[] = [];
    for (let i = 0; i < level.length; i += 2) {
      const right = level[i + 1];
      next.push(right === undefined ? (level[i] as string) : sha256(`node:${level[i]}${right}`));
    }
    level = next;
  }
  return level[0] as string;
}
