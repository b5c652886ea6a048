import { err, ok, type Result } from "../result";
import { normalCdf } from "./distributions";
import { checkValues, mean, sampleSd } from "./mean";

/** Below this many values capability is refused unless asked for. */
export const CAPABILITY_LEAST_VALUES = 25;

/** A spread under this share of the mean is that of the arithmetic, not of the process. */
const NO_SPREAD = 1e-9;

export type Capability = {
  readonly kind: "capability";
  /** Null for a one-sided requirement. */
  readonly pp: number | null;
  readonly ppk: number;
  readonly shareBelowNormal: number | null;
  readonly shareBelowCounted: number | null;
  readonly flags: readonly "few-values"[];
};

/**
 * Process performance from the overall standard deviation: Pp = (M−m)/6s, Ppk = min(M−x̄, x̄−m)/3s.
 * A null limit makes it one-sided. Failures: `no-values`, `not-finite`, `no-limits`, `limits-crossed`,
 * `no-spread` (s under 1e-9 of the mean), `too-few-values` (under 25 unless `allowFew`).
 */
export function capability(
  values: readonly number[],
  limits: { readonly min: number | null; readonly max: number | null },
  options: { readonly allowFew?: boolean } = {},
): Result<Capability> {
  const checked = checkValues(values);
  if (!checked.ok) return checked;
  const { min, max } = limits;
  if (min === null && max === null) return err({ kind: "no-limits" });
  if (min !== null && max !== null && min >= max) return err({ kind: "limits-crossed", min, max });
  const few = values.length < CAPABILITY_LEAST_VALUES;
  if (values.length < 2 || (few && !options.allowFew))
    return err({ kind: "too-few-values", got: values.length, need: CAPABILITY_LEAST_VALUES });
  const centre = mean(values);
  const s = sampleSd(values);
  if (s <= NO_SPREAD * Math.abs(centre)) return err({ kind: "no-spread", value: centre });
  const sides = [min === null ? null : (centre - min) / (3 * s), max === null ? null : (max - centre) / (3 * s)];
  return ok({
    kind: "capability",
    pp: min === null || max === null ? null : (max - min) / (6 * s),
    ppk: Math.min(...sides.filter((side): side is number => side !== null)),
    shareBelowNormal: min === null ? null : normalCdf(min, centre, s),
    shareBelowCounted: min === null ? null : values.filter((value) => value < min).length / values.length,
    flags: few ? ["few-values"] : [],
  });
}
