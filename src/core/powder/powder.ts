import { err, ok, type Result } from "../result";

/** Theoretical coverage, m²/kg = 1000 / (specific gravity × thickness µm). */
export function coverageM2PerKg(input: {
  readonly specificGravity: number;
  readonly thicknessUm: number;
}): Result<number> {
  for (const [name, value] of Object.entries(input))
    if (!(value > 0) || !Number.isFinite(value)) return err({ kind: "bad-input", name, value });
  return ok(1000 / (input.specificGravity * input.thicknessUm));
}

/** Powder for a job, kg = area × thickness µm × SG × 10⁻³ / (transfer efficiency × (1 − loss)). Efficiency in (0, 1], loss in [0, 1). */
export function powderKg(input: {
  readonly areaM2: number;
  readonly thicknessUm: number;
  readonly specificGravity: number;
  readonly transferEfficiency: number;
  readonly loss: number;
}): Result<number> {
  const { areaM2, thicknessUm, specificGravity, transferEfficiency, loss } = input;
  for (const [name, value] of Object.entries({ areaM2, thicknessUm, specificGravity }))
    if (!(value > 0) || !Number.isFinite(value)) return err({ kind: "bad-input", name, value });
  if (!(transferEfficiency > 0 && transferEfficiency <= 1))
    return err({ kind: "bad-input", name: "transferEfficiency", value: transferEfficiency });
  if (!(loss >= 0 && loss < 1)) return err({ kind: "bad-input", name: "loss", value: loss });
  return ok((areaM2 * thicknessUm * specificGravity * 1e-3) / (transferEfficiency * (1 - loss)));
}
