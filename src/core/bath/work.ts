import { err, ok, type Result } from "../result";

/**
 * Consumption of a product, L for each 100 m² through the bath. Failures: `bad-input` (litres under 0, area not a
 * number), `nothing-passed` (no area yet).
 */
export function consumptionPer100M2(litres: number, areaM2: number): Result<number> {
  if (!(litres >= 0) || !Number.isFinite(litres)) return err({ kind: "bad-input", name: "litres", value: litres });
  if (!(areaM2 >= 0) || !Number.isFinite(areaM2)) return err({ kind: "bad-input", name: "areaM2", value: areaM2 });
  return areaM2 > 0 ? ok((100 * litres) / areaM2) : err({ kind: "nothing-passed" });
}
