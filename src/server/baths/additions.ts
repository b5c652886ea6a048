import type { Kysely } from "kysely";
import {
  ADDITIONS_NEEDED_TO_LEARN,
  type AdditionPlan,
  type BathParameter,
  dilutionL,
  movedBy,
  planAddition,
  splitDose,
} from "@/core/bath";
import type { Failure, Result } from "@/core/result";
import type { Database } from "@/db/schema";
import type { SetupItem } from "../setup/setup-data";
import { learntResponse } from "./learnt-response";
import type { BathSeries } from "./load-bath";

/** What would bring a value of a bath back, worked out for a hand. */
export type BathAddition = { readonly parameter: BathParameter; readonly from: number; readonly to: number } & (
  | {
      /** Concentrate by its strength: with as much drained first, or on top where there is room. */
      readonly kind: "concentrate";
      readonly product: string;
      readonly levelKept: Result<AdditionPlan>;
      readonly onTop: Result<AdditionPlan>;
    }
  | {
      /** What has no %: by what a litre of it does. */
      readonly kind: "response";
      readonly product: string;
      readonly dosesL: readonly number[];
      /** Measured where five or more past additions of it to this bath tell; else the supplier's factor, assumed. */
      readonly grade: "measured" | "assumed";
      readonly learnt: { readonly n: number; readonly litresFrom: number; readonly litresTo: number } | null;
    }
  /** Too strong: so much is drained and refilled with water. */
  | { readonly kind: "dilute"; readonly litres: number }
  /** There is a product for it, and what a litre does is not known here. */
  | { readonly kind: "not-known"; readonly product: string; readonly additionsAsked: number }
  | { readonly kind: "cannot"; readonly why: Failure }
);

/** A strength so much under its target is brought up, %: less is not told by a titration. */
const STRENGTH_NEAR_PERCENT = 0.05;
const TITRATION_TOLERANCE_PERCENT = 0.1;

/** Advice for each value of a bath that is out, or short of its target, and has a product. At most a query for each. */
export async function additionsFor(
  db: Kysely<Database>,
  bath: SetupItem<"bath">,
  series: readonly BathSeries[],
  at: Date,
): Promise<readonly BathAddition[]> {
  const { data } = bath;
  const found: BathAddition[] = [];
  for (const { parameter, window, points } of series) {
    const last = points.at(-1);
    if (!last) continue;
    const middle =
      window.lower !== null && window.upper !== null
        ? (window.lower + window.upper) / 2
        : (window.watchLower ?? window.lower ?? null);
    const base = (to: number) => ({ parameter, from: last.value, to });
    if (parameter === "concentration" && data.targetPercent !== null) {
      const strength = strengthAdvice(bath, last.value, data.targetPercent, last.result === "out");
      if (strength) found.push({ ...base(data.targetPercent), ...strength });
      continue;
    }
    if (last.result === "in") continue;
    if (parameter === "ph") {
      // Acid brings it down; nothing on record brings it up.
      if (data.targetPh === null || last.value <= data.targetPh || !data.acidProduct) continue;
      const own = await byResponse(
        db,
        bath,
        at,
        "ph",
        data.acidProduct,
        last.value,
        data.targetPh,
        data.phChangePerLPerM3,
      );
      found.push({ ...base(data.targetPh), ...own });
      continue;
    }
    const product = data.otherProducts.find((p) => {
      const moved = movedBy(data, { event: "addition", product: p });
      return moved.length > 0 && moved.length < 3 && moved.includes(parameter);
    });
    if (!product || middle === null || (window.lower !== null && last.value > middle)) continue;
    found.push({ ...base(middle), ...(await byResponse(db, bath, at, parameter, product, last.value, middle, null)) });
  }
  return found;
}

type Advice<K extends BathAddition["kind"]> = Omit<Extract<BathAddition, { kind: K }>, "parameter" | "from" | "to">;

function strengthAdvice(
  { data }: SetupItem<"bath">,
  value: number,
  target: number,
  out: boolean,
): Advice<"concentrate"> | Advice<"dilute"> | Advice<"cannot"> | null {
  if (value > target) {
    if (!out) return null;
    const litres = dilutionL({ volumeL: data.volumeL, fromPercent: value, toPercent: target });
    return litres.ok
      ? { kind: "dilute", litres: Math.ceil(litres.value / data.stepL - 1e-9) * data.stepL }
      : { kind: "cannot", why: litres.error };
  }
  if (value >= target - STRENGTH_NEAR_PERCENT || data.product.trim() === "") return null;
  const plan = (way: "level-kept" | "on-top") =>
    planAddition({
      volumeL: data.volumeL,
      fromPercent: value,
      toPercent: target,
      concentratePercent: data.concentratePercent ?? 100,
      way,
      stepL: data.stepL,
      freeboardL: data.freeboardL,
      maxSingleL: data.maxSingleL,
      titrationTolerancePercent: TITRATION_TOLERANCE_PERCENT,
    });
  return { kind: "concentrate", product: data.product, levelKept: plan("level-kept"), onTop: plan("on-top") };
}

/** By what a litre of the product has done here, else by the supplier's factor, else not known. */
async function byResponse(
  db: Kysely<Database>,
  { id, data }: SetupItem<"bath">,
  at: Date,
  parameter: BathParameter,
  product: string,
  from: number,
  to: number,
  suppliers: number | null,
): Promise<Advice<"response"> | Advice<"not-known"> | Advice<"cannot">> {
  const toward = Math.sign(to - from) as 1 | -1;
  const learnt = await learntResponse(db, { id, volumeL: data.volumeL }, { parameter, product, toward }, at);
  const change = learnt?.changePerLPerM3 ?? suppliers;
  if (change === null || change * toward <= 0)
    return { kind: "not-known", product, additionsAsked: ADDITIONS_NEEDED_TO_LEARN };
  const litresAt = (perL: number) => (to - from) / perL / (1000 / data.volumeL);
  const doses = splitDose(Math.ceil(litresAt(change) / data.stepL - 1e-9) * data.stepL, data.stepL, data.maxSingleL);
  if (!doses.ok) return { kind: "cannot", why: doses.error };
  const away = learnt ? change - toward * 2 * learnt.standardError : 0;
  return {
    kind: "response",
    product,
    dosesL: doses.value,
    grade: learnt ? "measured" : "assumed",
    learnt: learnt && {
      n: learnt.n,
      litresFrom: litresAt(change + toward * 2 * learnt.standardError),
      litresTo: away * toward > 0 ? litresAt(away) : Number.POSITIVE_INFINITY,
    },
  };
}

/** On top where there is room for it, else with as much drained first. */
function dosesOf(a: BathAddition): readonly number[] | null {
  if (a.kind === "response") return a.dosesL;
  if (a.kind !== "concentrate") return null;
  const plan = a.onTop.ok ? a.onTop : a.levelKept;
  return plan.ok ? plan.value.dosesL : null;
}

/** Litres in all that a bath's own reckoning asks for of a product now; null where it asks for none. */
export function advisedLitres(additions: readonly BathAddition[], isIt: (product: string) => boolean): number | null {
  for (const a of additions) {
    if (!("product" in a) || !isIt(a.product)) continue;
    const doses = dosesOf(a);
    if (doses) return doses.reduce((x, y) => x + y, 0);
  }
  return null;
}
