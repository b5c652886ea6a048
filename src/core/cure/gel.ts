import { atLeast, atMost } from "../limits";
import { err, ok, type Result } from "../result";
import type { BakeVerdict, PowderSchedule } from "./judge-bake";
import { fitCureCurve, requiredMinutes } from "./schedule";

/** A primer part-cured before its top coat: metal temperature, °C, and the least and most minutes at it. */
export type GelTarget = { readonly metalC: number; readonly leastMin: number; readonly mostMin: number };

/** Far enough above the gel's own point that two points carry the slope of the primer's curve, K. */
const SLOPE_K = 20;

/**
 * A gel as a schedule of its own: 100 of its index is gelled, 100 of its over-bake is as far as the top coat still bonds.
 * Hotter metal gels sooner by the slope of the primer's own cure curve. Failures: those of the curve, `bad-gel` with the
 * target.
 * @example gelSchedule({ metalC: 150, leastMin: 5, mostMin: 12 }, [{ metalC: 180, minutes: 20 }]) // points at 150 and 170 °C
 */
export function gelSchedule(gel: GelTarget, points: PowderSchedule["points"]): Result<PowderSchedule> {
  const curve = fitCureCurve(points);
  if (!curve.ok) return curve;
  if (!(gel.leastMin > 0 && gel.mostMin > gel.leastMin && Number.isFinite(gel.mostMin)))
    return err({ kind: "bad-gel", ...gel });
  const full = requiredMinutes(curve.value, gel.metalC);
  // As much heat as the whole cure is no gel: the top coat would be sprayed on a cured film.
  if (!(gel.mostMin < full)) return err({ kind: "bad-gel", ...gel, cureMin: full });
  const hotter = gel.metalC + SLOPE_K;
  const share = gel.leastMin / full;
  return ok({
    points: [
      { metalC: gel.metalC, minutes: gel.leastMin },
      { metalC: hotter, minutes: requiredMinutes(curve.value, hotter) * share },
    ],
    overbake: [{ metalC: gel.metalC, minutes: gel.mostMin }],
    onsetC: null,
  });
}

export type GelState = "short" | "gelled" | "too-far";

/** What a bake judged by a gel's schedule came to: short on the slowest channel, too far on the hottest, else gelled. */
export function gelState(verdict: Pick<BakeVerdict, "decidingIndex" | "channels">): GelState {
  const hottest = Math.max(
    0,
    ...verdict.channels.flatMap((c) =>
      c.medium === "metal" && c.deadFromS === null && c.overbakeIndex !== null ? [c.overbakeIndex] : [],
    ),
  );
  if (!atMost(hottest, 100)) return "too-far";
  return atLeast(verdict.decidingIndex, 100) ? "gelled" : "short";
}
