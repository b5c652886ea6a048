import { atMost } from "../limits";
import { err, ok, type Result } from "../result";

/** Degree of rusting Ri 0–5 from the rusted share, %. Source: after ISO 4628-3. */
export function rustGrade(sharePercent: number): Result<0 | 1 | 2 | 3 | 4 | 5> {
  if (!(sharePercent >= 0 && sharePercent <= 100)) return err({ kind: "bad-share", sharePercent });
  const upTo = (limit: number) => atMost(sharePercent, limit);
  return ok(sharePercent === 0 ? 0 : upTo(0.05) ? 1 : upTo(0.5) ? 2 : upTo(1) ? 3 : upTo(8) ? 4 : 5);
}
