import { err, ok, type Result } from "../result";

/**
 * Spots asked for on an area, m², by each rule.
 * `spot-area`: 5 in each 10 m² place measured; up to 30 m² every 10 m², to 100 m² three places, then one more for
 * each further 100 m² or part. `nominal`: ≤1: 5; ≤3: 10; ≤10: 15; ≤30: 20; ≤100: 30; then 10 for each further 100 m² or part.
 * Failure: `bad-area`. Source: after SSPC-PA 2 and ISO 19840.
 */
export function howManySpots(areaM2: number): Result<{ readonly spotArea: number; readonly nominal: number }> {
  if (!(areaM2 > 0) || !Number.isFinite(areaM2)) return err({ kind: "bad-area", areaM2 });
  const furtherHundreds = Math.ceil((areaM2 - 100) / 100 - 1e-9);
  const places = areaM2 <= 30 ? Math.ceil(areaM2 / 10 - 1e-9) : areaM2 <= 100 ? 3 : 3 + furtherHundreds;
  const steps: readonly [number, number][] = [
    [1, 5],
    [3, 10],
    [10, 15],
    [30, 20],
    [100, 30],
  ];
  const nominal = steps.find(([upToM2]) => areaM2 <= upToM2)?.[1] ?? 30 + 10 * furtherHundreds;
  return ok({ spotArea: 5 * places, nominal });
}
