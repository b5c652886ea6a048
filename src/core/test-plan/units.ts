import type { TestPlanLine } from "./scope";
import type { Level } from "./switching";

export type CallReason =
  | "every-rack"
  | "tightened"
  | "coated-again"
  | "first-of-unit"
  | "unit-not-known"
  | "unit-has-one"
  | "joined-to-last";
export type Call = {
  /** Whether this rack is the one that is tested. */
  readonly asked: boolean;
  /** Racks of one unit stand by the one that is tested. */
  readonly unit: string;
  readonly why: CallReason;
};

/** What is known of the calls before, of the same line of the same plan. */
export type Before = {
  /** The unit that this rack's lot, load, shift or job was put to already; null where this is its first. */
  readonly ofKey: string | null;
  /** The newest unit of more than one rack in the making: racks and keys in it; null where there is none. */
  readonly last: { readonly unit: string; readonly racks: number; readonly keys: number } | null;
};

/**
 * Whether a rack is asked for a test as it comes to the line, and whom it stands by if not. Every rack at the tightened level
 * and after it was coated again; one in so many, twice as many when eased; one of each lot, load, shift or job, every second
 * of them when eased. What its unit is is not known (no lot on record): asked. O(1).
 */
export function callFor(
  line: TestPlanLine,
  level: Level,
  rack: { readonly id: string; readonly key: string | null; readonly again: boolean },
  before: Before,
): Call {
  const alone = (why: CallReason): Call => ({ asked: true, unit: `rack:${rack.id}`, why });
  if (rack.again) return alone("coated-again");
  if (level === "tightened") return alone("tightened");
  if (line.every === "rack") return alone("every-rack");
  const eased = level === "eased" ? 2 : 1;
  const { last } = before;
  if (line.every === "nth") {
    const n = (line.n ?? 1) * eased;
    return last && last.racks < n
      ? { asked: false, unit: last.unit, why: "unit-has-one" }
      : { asked: true, unit: `run:${rack.id}`, why: "first-of-unit" };
  }
  if (rack.key === null) return alone("unit-not-known");
  if (before.ofKey !== null) return { asked: false, unit: before.ofKey, why: "unit-has-one" };
  // A first piece that the rest waits for is that of its own lot, however good the last ones were.
  if (last && last.keys < eased && !line.first) return { asked: false, unit: last.unit, why: "joined-to-last" };
  return { asked: true, unit: `${line.every}:${rack.key}`, why: "first-of-unit" };
}
