import { atMost } from "../limits";
import { err, ok, type Result } from "../result";

export type AdditionWay = "on-top" | "level-kept";

/**
 * Concentrate to raise a bath from c₁ to c₂ (same unit, % v/v): on top of a full tank that gains volume,
 * x = V (c₂ − c₁)/(p − c₂); with x drained first, x = V (c₂ − c₁)/(p − c₁). Litres.
 * Failures: `bad-input`, `nothing-to-add` (c₂ ≤ c₁), `concentrate-too-weak` (p ≤ c₂).
 */
export function additionL(input: {
  readonly volumeL: number;
  readonly fromPercent: number;
  readonly toPercent: number;
  readonly concentratePercent?: number;
}): Result<{ readonly onTopL: number; readonly levelKeptL: number }> {
  const { volumeL, fromPercent, toPercent, concentratePercent = 100 } = input;
  if (!(volumeL > 0) || !Number.isFinite(volumeL)) return err({ kind: "bad-input", name: "volumeL", value: volumeL });
  for (const [name, value] of Object.entries({ fromPercent, toPercent, concentratePercent }))
    if (!(value >= 0 && value <= 100)) return err({ kind: "bad-input", name, value });
  if (toPercent <= fromPercent) return err({ kind: "nothing-to-add", fromPercent, toPercent });
  if (concentratePercent <= toPercent) return err({ kind: "concentrate-too-weak", concentratePercent, toPercent });
  const rise = volumeL * (toPercent - fromPercent);
  return ok({ onTopL: rise / (concentratePercent - toPercent), levelKeptL: rise / (concentratePercent - fromPercent) });
}

/** Too strong: litres to drain and refill, D = V (c₁ − c₂)/(c₁ − c_makeup). */
export function dilutionL(input: {
  readonly volumeL: number;
  readonly fromPercent: number;
  readonly toPercent: number;
  readonly makeUpPercent?: number;
}): Result<number> {
  const { volumeL, fromPercent, toPercent, makeUpPercent = 0 } = input;
  if (!(volumeL > 0) || !Number.isFinite(volumeL)) return err({ kind: "bad-input", name: "volumeL", value: volumeL });
  if (!(toPercent < fromPercent)) return err({ kind: "nothing-to-dilute", fromPercent, toPercent });
  if (!(makeUpPercent >= 0 && makeUpPercent < toPercent))
    return err({ kind: "make-up-too-strong", makeUpPercent, toPercent });
  return ok((volumeL * (fromPercent - toPercent)) / (fromPercent - makeUpPercent));
}

export type AdditionPlan = {
  readonly kind: "addition-plan";
  readonly way: AdditionWay;
  readonly neededL: number;
  /** Each dose, rounded up to what can be measured out; more than one where a single addition would pass the limit. */
  readonly dosesL: readonly number[];
  readonly expectedPercent: number;
  readonly expectedWithinPercent: readonly [number, number];
};

/**
 * A dose as it goes in: in one, or where that is more than may go in at once in as few as serve, alike to within a step
 * of the measure. `totalL` is a whole number of steps. Failures: `bad-input`, `measure-over-single` (not even one step may).
 */
export function splitDose(totalL: number, stepL: number, maxSingleL: number | null): Result<readonly number[]> {
  if (!(stepL > 0) || !Number.isFinite(stepL)) return err({ kind: "bad-input", name: "stepL", value: stepL });
  if (!(totalL >= 0) || !Number.isFinite(totalL)) return err({ kind: "bad-input", name: "totalL", value: totalL });
  if (maxSingleL === null || atMost(totalL, maxSingleL)) return ok([totalL]);
  const most = Math.floor(maxSingleL / stepL + 1e-9);
  if (!(most >= 1)) return err({ kind: "measure-over-single", stepL, maxSingleL });
  const steps = Math.round(totalL / stepL);
  const doses = Math.ceil(steps / most);
  const least = Math.floor(steps / doses);
  const litres = (n: number) => Number((n * stepL).toFixed(9));
  return ok(Array.from({ length: doses }, (_, i) => litres(least + (i < steps - least * doses ? 1 : 0))));
}

/**
 * Turns the arithmetic into what a hand can do: rounded up to the measure's step, never above the freeboard when
 * topped up, and split with a re-check between doses where one would pass the product's maximum single addition.
 * Failures: those of `additionL` and `splitDose`, `bad-input`, `over-freeboard` (litres needed and free).
 */
export function planAddition(input: {
  readonly volumeL: number;
  readonly fromPercent: number;
  readonly toPercent: number;
  readonly concentratePercent?: number;
  readonly way: AdditionWay;
  readonly stepL: number;
  readonly freeboardL: number;
  readonly maxSingleL: number | null;
  readonly titrationTolerancePercent: number;
}): Result<AdditionPlan> {
  const amounts = additionL(input);
  if (!amounts.ok) return amounts;
  if (!(input.stepL > 0)) return err({ kind: "bad-input", name: "stepL", value: input.stepL });
  const neededL = input.way === "on-top" ? amounts.value.onTopL : amounts.value.levelKeptL;
  const roundUp = (litres: number) => Math.ceil(litres / input.stepL - 1e-9) * input.stepL;
  const totalL = roundUp(neededL);
  if (input.way === "on-top" && !atMost(totalL, input.freeboardL))
    return err({ kind: "over-freeboard", neededL: totalL, freeboardL: input.freeboardL });
  const split = splitDose(totalL, input.stepL, input.maxSingleL);
  if (!split.ok) return split;
  const p = input.concentratePercent ?? 100;
  const c = input.fromPercent;
  const expectedPercent =
    input.way === "on-top"
      ? (input.volumeL * c + totalL * p) / (input.volumeL + totalL)
      : c + (totalL * (p - c)) / input.volumeL;
  return ok({
    kind: "addition-plan",
    way: input.way,
    neededL,
    dosesL: split.value,
    expectedPercent,
    expectedWithinPercent: [
      expectedPercent - input.titrationTolerancePercent,
      expectedPercent + input.titrationTolerancePercent,
    ],
  });
}

/**
 * Response learnt from past additions: change of the value per litre and m³ of bath, least squares through the
 * origin. Five or more make it measured. Failures: `too-few-additions`, `no-dose`.
 */
export const ADDITIONS_NEEDED_TO_LEARN = 5;
export function learnResponse(
  additions: readonly { readonly litres: number; readonly volumeL: number; readonly change: number }[],
): Result<{ readonly changePerLPerM3: number; readonly standardError: number; readonly n: number }> {
  const n = additions.length;
  if (n < ADDITIONS_NEEDED_TO_LEARN) return err({ kind: "too-few-additions", got: n, need: ADDITIONS_NEEDED_TO_LEARN });
  const doses = additions.map((a) => (a.litres * 1000) / a.volumeL);
  const squares = doses.reduce((sum, dose) => sum + dose * dose, 0);
  if (!(squares > 0) || !Number.isFinite(squares)) return err({ kind: "no-dose", n });
  const slope = additions.reduce((sum, a, i) => sum + (doses[i] as number) * a.change, 0) / squares;
  const residual = additions.reduce((sum, a, i) => sum + (a.change - slope * (doses[i] as number)) ** 2, 0) / (n - 1);
  return ok({ changePerLPerM3: slope, standardError: Math.sqrt(residual / squares), n });
}
