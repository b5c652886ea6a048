import { expect } from "vitest";
import { seededRandom } from "../../src/core/statistics";

/** Nine digits of a number, so that no platform's last bit is told; what is no number is said in a word. */
const told = (_: string, value: unknown): unknown =>
  typeof value === "number"
    ? Number.isFinite(value)
      ? Number(value.toPrecision(9))
      : String(value)
    : value instanceof Set
      ? [...value]
      : value instanceof Map
        ? [...value]
        : value;

/**
 * What came out of each case before, a line each, in a file that is read when it changes: `vitest run -u` writes it anew.
 * For what has no one right figure to check against: judgement, wording of lists, the demo's own line.
 */
export async function asBefore(
  name: string,
  cases: readonly (readonly [what: string, came: unknown])[],
): Promise<void> {
  const lines = cases.map(([what, came]) => `${what}: ${JSON.stringify(came, told) ?? "nothing"}`);
  await expect(`${lines.join("\n")}\n`).toMatchFileSnapshot(`../samples/as-before/${name}.txt`);
}

/** Made-up values that are the same each time. */
export function madeUp(seed: number) {
  const random = seededRandom(seed);
  const between = (low: number, high: number, digits = 1): number =>
    Number((low + (high - low) * random.uniform()).toFixed(digits));
  return {
    between,
    whole: (low: number, high: number): number => Math.floor(low + (high - low + 1) * random.uniform()),
    one: <T>(of: readonly T[]): T => of[Math.floor(random.uniform() * of.length)] as T,
    some: <T>(of: readonly T[], share = 0.3): T[] => of.filter(() => random.uniform() < share),
    chance: (share: number): boolean => random.uniform() < share,
    many: <T>(n: number, make: (i: number) => T): T[] => Array.from({ length: n }, (_, i) => make(i)),
  };
}
