import { err, ok, type Result } from "../result";

const bad = (name: string, value: number) => err({ kind: "bad-input", name, value });

/** Concentration = (titrant − blank) × factor; the factor's unit decides the result's (% v/v, g/L, points). */
export function concentrationFromTitration(input: {
  readonly titrantMl: number;
  readonly blankMl: number;
  readonly factor: number;
}): Result<number> {
  const { titrantMl, blankMl, factor } = input;
  if (!Number.isFinite(titrantMl) || titrantMl < 0) return bad("titrantMl", titrantMl);
  if (!Number.isFinite(blankMl) || blankMl < 0) return bad("blankMl", blankMl);
  if (!(factor > 0) || !Number.isFinite(factor)) return bad("factor", factor);
  if (blankMl > titrantMl) return err({ kind: "blank-over-titrant", titrantMl, blankMl });
  return ok((titrantMl - blankMl) * factor);
}

/** In full: c (g/L) = (V_t − V_blank) · N · equivalent weight / V_sample. */
export function concentrationGPerL(input: {
  readonly titrantMl: number;
  readonly blankMl: number;
  readonly normality: number;
  readonly equivalentWeightG: number;
  readonly sampleMl: number;
}): Result<number> {
  if (!(input.sampleMl > 0)) return bad("sampleMl", input.sampleMl);
  return concentrationFromTitration({
    titrantMl: input.titrantMl,
    blankMl: input.blankMl,
    factor: (input.normality * input.equivalentWeightG) / input.sampleMl,
  });
}

/** κ₂₅ = κ_T / (1 + α (T − 25)), µS/cm. Not for a reading that the meter has compensated. */
export const CONDUCTIVITY_ALPHA_PER_C = 0.02;
export function conductivityAt25(input: {
  readonly microSiemensPerCm: number;
  readonly temperatureC: number;
  readonly alphaPerC?: number;
}): Result<number> {
  const { microSiemensPerCm, temperatureC, alphaPerC = CONDUCTIVITY_ALPHA_PER_C } = input;
  if (!Number.isFinite(microSiemensPerCm) || microSiemensPerCm < 0) return bad("microSiemensPerCm", microSiemensPerCm);
  if (!Number.isFinite(temperatureC)) return bad("temperatureC", temperatureC);
  const divisor = 1 + alphaPerC * (temperatureC - 25);
  if (!(divisor > 0)) return err({ kind: "compensation-out-of-reach", temperatureC, alphaPerC });
  return ok(microSiemensPerCm / divisor);
}

/** Counter-flow rinse water for a dilution ratio R with n rinses and drag-out D: F = D · R^(1/n), L/h. First order, ideal mixing. */
export function rinseFlowLPerH(input: {
  readonly dragOutLPerH: number;
  readonly ratio: number;
  readonly stages: number;
}): Result<number> {
  const { dragOutLPerH, ratio, stages } = input;
  if (!(dragOutLPerH >= 0) || !Number.isFinite(dragOutLPerH)) return bad("dragOutLPerH", dragOutLPerH);
  if (!(ratio >= 1) || !Number.isFinite(ratio)) return bad("ratio", ratio);
  if (!Number.isInteger(stages) || stages < 1) return bad("stages", stages);
  return ok(dragOutLPerH * ratio ** (1 / stages));
}

/** Conversion coating weight, g/m² = (mass before stripping − after) / area. */
export function coatingWeightGPerM2(input: {
  readonly beforeG: number;
  readonly afterG: number;
  readonly areaM2: number;
}): Result<number> {
  const { beforeG, afterG, areaM2 } = input;
  if (!(beforeG > 0) || !Number.isFinite(beforeG)) return bad("beforeG", beforeG);
  if (!(afterG >= 0) || !Number.isFinite(afterG)) return bad("afterG", afterG);
  if (!(areaM2 > 0) || !Number.isFinite(areaM2)) return bad("areaM2", areaM2);
  if (afterG > beforeG) return err({ kind: "gained-mass", beforeG, afterG });
  return ok((beforeG - afterG) / areaM2);
}

/** Contact time, s = stage length / line speed, plus the seconds the line stood with the piece in the stage. */
export function contactTimeS(input: {
  readonly stageLengthM: number;
  readonly lineSpeedMPerMin: number;
  readonly stoppedS?: number;
}): Result<number> {
  if (!(input.stageLengthM > 0)) return bad("stageLengthM", input.stageLengthM);
  if (!(input.lineSpeedMPerMin > 0)) return bad("lineSpeedMPerMin", input.lineSpeedMPerMin);
  const stoppedS = input.stoppedS ?? 0;
  if (!(stoppedS >= 0)) return bad("stoppedS", stoppedS);
  return ok((60 * input.stageLengthM) / input.lineSpeedMPerMin + stoppedS);
}
