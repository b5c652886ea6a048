import { err, ok, type Result } from "../result";
import { mean, sampleSd } from "../statistics";

/** One thing about a rack: a number or a word. `usual` are the values of past racks of the same part and powder. */
export type Compared =
  | {
      readonly kind: "number";
      readonly name: string;
      readonly now: number | null;
      readonly good: number | null;
      readonly usual: readonly number[];
    }
  | {
      readonly kind: "word";
      readonly name: string;
      readonly now: string | null;
      readonly good: string | null;
      readonly usual: readonly string[];
    };
export type Change = {
  readonly name: string;
  readonly kind: "number" | "word";
  readonly now: number | string | null;
  readonly good: number | string | null;
  /** 0 is as ever, 1 was never seen: the share of past racks that were less unusual than this one. */
  readonly unusual: number;
  /** Past racks it rests on. */
  readonly among: number;
  /** For a number: how many spreads it lies from what is usual; null where nothing scatters or is known. */
  readonly spreads: number | null;
};

/** Under this many past racks nothing can be called unusual: a change is shown, and not ranked before others. */
export const USUAL_FROM = 4;
const HALF = 0.5;

/**
 * What differs from the last good rack, the most unusual first. A number is as unusual as the share of past racks that
 * lay nearer to their middle; a word as the share of past racks that had another. What is the same is left out; what one
 * of the two never recorded is left out and counted. O(n log n) over the past values. Failure: `bad-input` (not a number).
 */
export function whatChanged(compared: readonly Compared[]): Result<{
  readonly changes: readonly Change[];
  readonly same: number;
  readonly notKnown: readonly string[];
}> {
  const changes: Change[] = [];
  const notKnown: string[] = [];
  let same = 0;
  for (const c of compared) {
    if (c.now === null || c.good === null) {
      notKnown.push(c.name);
      continue;
    }
    if (c.kind === "word") {
      if (c.now === c.good) {
        same++;
        continue;
      }
      const among = c.usual.length;
      const others = c.usual.filter((w) => w !== c.now).length;
      changes.push({
        name: c.name,
        kind: "word",
        now: c.now,
        good: c.good,
        unusual: among >= USUAL_FROM ? others / among : HALF,
        among,
        spreads: null,
      });
      continue;
    }
    const values = [c.now, c.good, ...c.usual];
    const bad = values.find((v) => !Number.isFinite(v));
    if (bad !== undefined) return err({ kind: "bad-input", name: c.name, value: bad });
    if (c.now === c.good) {
      same++;
      continue;
    }
    const among = c.usual.length;
    const centre = among > 0 ? mean(c.usual) : c.good;
    const sd = among > 1 ? sampleSd(c.usual) : 0;
    const away = Math.abs(c.now - centre);
    const nearer = c.usual.filter((v) => Math.abs(v - centre) < away - 1e-12).length;
    changes.push({
      name: c.name,
      kind: "number",
      now: c.now,
      good: c.good,
      unusual: among >= USUAL_FROM ? nearer / among : HALF,
      among,
      spreads: sd > 0 ? (c.now - centre) / sd : null,
    });
  }
  const rank = (c: Change) => Math.abs(c.spreads ?? 0);
  return ok({
    changes: changes.sort((a, b) => b.unusual - a.unusual || rank(b) - rank(a) || a.name.localeCompare(b.name)),
    same,
    notKnown,
  });
}
