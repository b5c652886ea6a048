import { err, ok, type Result } from "../result";

/** What looks wrong about an addition before it is recorded; each is asked, and stands where a person gives a reason. */
export type DosingQuestion =
  | {
      readonly question: "wrong-product";
      readonly product: string;
      readonly belongsTo: string | null;
      readonly known: readonly string[];
    }
  | { readonly question: "tenfold"; readonly litres: number; readonly advisedL: number }
  | {
      readonly question: "wrong-direction";
      readonly parameter: "concentration" | "ph";
      readonly value: number;
      readonly target: number;
    }
  | { readonly question: "over-freeboard"; readonly litres: number; readonly freeboardL: number }
  | { readonly question: "drum-out-of-date"; readonly lot: string; readonly usableUntil: string }
  | { readonly question: "more-than-left"; readonly lot: string; readonly litres: number; readonly leftL: number }
  | { readonly question: "over-single"; readonly litres: number; readonly mostL: number };

export type Dosing = {
  readonly product: string;
  readonly litres: number;
  readonly bath: {
    readonly concentrate: string;
    readonly acid: string;
    /** What else may go in: inhibitor, defoamer. */
    readonly others?: readonly string[];
    readonly freeboardL: number;
    readonly maxSingleL: number | null;
    readonly targetPercent: number | null;
    readonly targetPh: number | null;
  };
  /** Products of the other baths, by bath. */
  readonly elsewhere: readonly { readonly bath: string; readonly product: string }[];
  /** Litres that the bath's own reckoning asks for now; null where it asks for none. */
  readonly advisedL: number | null;
  /** Newest readings; null where there is none since the last addition. */
  readonly percent: number | null;
  readonly ph: number | null;
  /** The drum it comes from, and the day, YYYY-MM-DD; null where no drum is named. */
  readonly drum?: { readonly lot: string; readonly leftL: number; readonly usableUntil: string | null } | null;
  readonly today?: string;
};

/** From this many times the advised amount a dose looks like a slipped decimal point. */
export const TENFOLD_FROM = 5;

const words = (product: string): readonly string[] => product.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
/** A name on a drum is the bath's product where every word of the shorter stands in the longer. */
export function sameProduct(a: string, b: string): boolean {
  const [short, long] = [words(a), words(b)].sort((x, y) => x.length - y.length) as [
    readonly string[],
    readonly string[],
  ];
  return short.length > 0 && short.every((w) => long.includes(w));
}

/**
 * Mistakes that wash operators make with additions, asked before they are recorded: the wrong drum, ten times too much,
 * a dose that takes the bath further from its target, more than fits or than may go in at once.
 * Failure: `bad-input` (litres not over 0). O(products).
 */
export function questionAddition(dose: Dosing): Result<readonly DosingQuestion[]> {
  const { product, litres, bath, elsewhere, advisedL, percent, ph, drum = null, today = "" } = dose;
  if (!(litres > 0) || !Number.isFinite(litres)) return err({ kind: "bad-input", name: "litres", value: litres });
  const out: DosingQuestion[] = [];
  const { others = [] } = bath;
  const known = [bath.concentrate, bath.acid, ...others].filter((p) => p.trim() !== "");
  const other = others.some((name) => sameProduct(product, name));
  const concentrate = bath.concentrate !== "" && sameProduct(product, bath.concentrate);
  const acid = bath.acid !== "" && sameProduct(product, bath.acid);
  if (known.length > 0 && !concentrate && !acid && !other) {
    const belongsTo = elsewhere.find((e) => sameProduct(product, e.product))?.bath ?? null;
    out.push({ question: "wrong-product", product, belongsTo, known });
  }
  // What is reckoned is concentrate or acid: it says nothing of an inhibitor.
  if (!other && advisedL !== null && advisedL > 0 && litres >= TENFOLD_FROM * advisedL)
    out.push({ question: "tenfold", litres, advisedL });
  if (concentrate && !acid && percent !== null && bath.targetPercent !== null && percent > bath.targetPercent)
    out.push({ question: "wrong-direction", parameter: "concentration", value: percent, target: bath.targetPercent });
  if (acid && !concentrate && ph !== null && bath.targetPh !== null && ph < bath.targetPh)
    out.push({ question: "wrong-direction", parameter: "ph", value: ph, target: bath.targetPh });
  if (litres > bath.freeboardL) out.push({ question: "over-freeboard", litres, freeboardL: bath.freeboardL });
  if (bath.maxSingleL !== null && litres > bath.maxSingleL)
    out.push({ question: "over-single", litres, mostL: bath.maxSingleL });
  if (drum?.usableUntil && drum.usableUntil < today)
    out.push({ question: "drum-out-of-date", lot: drum.lot, usableUntil: drum.usableUntil });
  if (drum && litres > drum.leftL + 1e-9)
    out.push({ question: "more-than-left", lot: drum.lot, litres, leftL: drum.leftL });
  return ok(out);
}
