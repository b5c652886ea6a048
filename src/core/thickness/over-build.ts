import { err, ok, type Result } from "../result";

export type OverBuild = {
  readonly kind: "over-build";
  /** Powder above the target, kg, transfer losses included; under the target is not set against it. */
  readonly kg: number;
  readonly money: number | null;
  readonly areaM2: number;
  readonly racks: number;
  /** Share of area whose mean lies above the target. */
  readonly shareOver: number;
};

/**
 * Powder laid on above the target: area × (mean − target) × specific gravity × 10⁻³ / transfer efficiency, summed over
 * what lies above. Failures: `bad-input` (area, target, gravity not over 0; efficiency beyond (0, 1]).
 */
export function overBuild(
  racks: readonly {
    readonly areaM2: number;
    readonly meanUm: number;
    readonly specificGravity: number;
    readonly pricePerKg: number | null;
  }[],
  targetUm: number,
  efficiency: number,
): Result<OverBuild> {
  if (!(targetUm > 0)) return err({ kind: "bad-input", name: "targetUm", value: targetUm });
  if (!(efficiency > 0 && efficiency <= 1))
    return err({ kind: "bad-input", name: "transferEfficiency", value: efficiency });
  let [kg, money, areaM2, overM2] = [0, 0, 0, 0];
  let priced = true;
  for (const r of racks) {
    if (!(r.areaM2 > 0)) return err({ kind: "bad-input", name: "areaM2", value: r.areaM2 });
    if (!(r.meanUm >= 0)) return err({ kind: "bad-input", name: "meanUm", value: r.meanUm });
    if (!(r.specificGravity > 0)) return err({ kind: "bad-input", name: "specificGravity", value: r.specificGravity });
    areaM2 += r.areaM2;
    if (r.meanUm <= targetUm) continue;
    overM2 += r.areaM2;
    const own = (r.areaM2 * (r.meanUm - targetUm) * r.specificGravity * 1e-3) / efficiency;
    kg += own;
    if (r.pricePerKg === null) priced = false;
    else money += own * r.pricePerKg;
  }
  return ok({
    kind: "over-build",
    kg,
    money: priced ? money : null,
    areaM2,
    racks: racks.length,
    shareOver: areaM2 > 0 ? overM2 / areaM2 : 0,
  });
}
