import { atLeast } from "../limits";
import { err, ok, type Result } from "../result";

/** Pull-off stress, MPa = F (N) / (π d²/4 mm²). Failures: `bad-input`. Source: ISO 4624. */
export function pullOffMPa(input: { readonly forceN: number; readonly dollyMm: number }): Result<number> {
  if (!(input.forceN >= 0) || !Number.isFinite(input.forceN))
    return err({ kind: "bad-input", name: "forceN", value: input.forceN });
  if (!(input.dollyMm > 0) || !Number.isFinite(input.dollyMm))
    return err({ kind: "bad-input", name: "dollyMm", value: input.dollyMm });
  return ok(input.forceN / ((Math.PI * input.dollyMm ** 2) / 4));
}

/** Failures: `bad-input` (a share or stress that is no number of 0 or more), `shares-do-not-add`. At or above the requirement passes in any mode; below it a glue share of half or more is no result, else fail. */
export function judgePullOff(input: {
  readonly stressMPa: number;
  readonly requiredMPa: number;
  readonly adhesivePercent: number;
  readonly cohesivePercent: number;
  readonly gluePercent: number;
}): Result<"pass" | "fail" | "no-result"> {
  for (const name of ["stressMPa", "requiredMPa", "adhesivePercent", "cohesivePercent", "gluePercent"] as const)
    if (!(input[name] >= 0) || !Number.isFinite(input[name]))
      return err({ kind: "bad-input", name, value: input[name] });
  const sum = input.adhesivePercent + input.cohesivePercent + input.gluePercent;
  if (Math.abs(sum - 100) > 1e-6) return err({ kind: "shares-do-not-add", sum });
  if (atLeast(input.stressMPa, input.requiredMPa)) return ok("pass");
  return ok(input.gluePercent >= 50 ? "no-result" : "fail");
}
