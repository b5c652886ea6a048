import { err, ok, type Result } from "../result";

/** Least margin of metal over dew point, °C; a site can set its own. */
export const DEW_POINT_MARGIN_C = 3;

/** Dew point, °C, by the Magnus formula: γ = ln(RH/100) + 17.62 T/(243.12 + T). Failures: `bad-input`. Source: WMO guide no. 8. */
export function dewPointC(input: { readonly airC: number; readonly relativeHumidityPercent: number }): Result<number> {
  const { airC, relativeHumidityPercent } = input;
  if (!(airC > -45 && airC < 90)) return err({ kind: "bad-input", name: "airC", value: airC });
  if (!(relativeHumidityPercent > 0 && relativeHumidityPercent <= 100))
    return err({ kind: "bad-input", name: "relativeHumidityPercent", value: relativeHumidityPercent });
  const gamma = Math.log(relativeHumidityPercent / 100) + (17.62 * airC) / (243.12 + airC);
  return ok((243.12 * gamma) / (17.62 - gamma));
}

/** Soluble salt by patch, mg/m²: ρ = 0.5 Δκ (µS/cm) · V (L) / A (m²) · 10³ as usually written with mL and mm². Source: after ISO 8502-9. */
export function solubleSaltMgPerM2(input: {
  readonly deltaMicroSiemensPerCm: number;
  readonly volumeMl: number;
  readonly areaMm2: number;
}): Result<number> {
  const { deltaMicroSiemensPerCm, volumeMl, areaMm2 } = input;
  if (!(deltaMicroSiemensPerCm >= 0) || !Number.isFinite(deltaMicroSiemensPerCm))
    return err({ kind: "bad-input", name: "deltaMicroSiemensPerCm", value: deltaMicroSiemensPerCm });
  if (!(volumeMl > 0) || !Number.isFinite(volumeMl))
    return err({ kind: "bad-input", name: "volumeMl", value: volumeMl });
  if (!(areaMm2 > 0) || !Number.isFinite(areaMm2)) return err({ kind: "bad-input", name: "areaMm2", value: areaMm2 });
  return ok((0.5 * deltaMicroSiemensPerCm * (volumeMl / 1000)) / (areaMm2 / 1e6));
}
