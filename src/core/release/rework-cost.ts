import type { Rates } from "../plan";
import { powderKg } from "../powder";
import { err, ok, type Result } from "../result";

export type ReworkCost = {
  readonly kind: "rework-cost";
  /** Powder sprayed once more, kg. */
  readonly powderKg: number;
  readonly hours: number;
  readonly cost: number;
  readonly currency: string;
};

/**
 * What it costs to do a rack's coat again, by the shop's own rates: powder, spraying and the work on the metal before it. The
 * oven's hours are left out: it runs anyhow. `minutes` that somebody took stand for the reckoned hours. Failures: those of
 * `powderKg`, `bad-input` (minutes under nothing). Formulas as in the job's costing.
 */
export function reworkCost(input: {
  readonly decision: "wipe-off" | "touch-up" | "scuff-and-recoat" | "strip";
  readonly pieces: number;
  readonly areaM2: number;
  readonly filmUm: number;
  readonly powder: { readonly specificGravity: number; readonly pricePerKg: number };
  readonly rates: Rates;
  readonly minutes: number | null;
}): Result<ReworkCost> {
  const { decision, pieces, rates, minutes } = input;
  if (minutes !== null && !(minutes >= 0 && Number.isFinite(minutes)))
    return err({ kind: "bad-input", name: "minutes", value: minutes });
  const areaM2 = input.areaM2 * pieces;
  const sprayed = decision !== "touch-up";
  const kg = sprayed
    ? powderKg({
        areaM2,
        thicknessUm: input.filmUm,
        specificGravity: input.powder.specificGravity,
        transferEfficiency: rates.transferEfficiency,
        loss: rates.powderLoss,
      })
    : ok(0);
  if (!kg.ok) return kg;
  const strip = decision === "strip";
  const reckoned =
    (sprayed ? areaM2 / rates.sprayM2PerHour : 0) +
    (decision === "scuff-and-recoat" ? areaM2 / rates.sandM2PerHour : 0) +
    (strip ? areaM2 / rates.stripM2PerHour + areaM2 / rates.blastM2PerHour + areaM2 / rates.washM2PerHour : 0);
  const hours = minutes === null ? reckoned : minutes / 60;
  return ok({
    kind: "rework-cost",
    powderKg: kg.value,
    hours,
    cost: kg.value * input.powder.pricePerKg + hours * rates.labourPerHour + (strip ? areaM2 * rates.stripPerM2 : 0),
    currency: rates.currency,
  });
}
