import { err, ok, type Result } from "../result";

/** Degree of rusting Ri 0–5 from the rusted share, %. Source: after ISO 4628-3. */
export function rustGrade(sharePercent: number): Result<0 | 1 | 2 | 3 | 4 | 5> {
  if (!(sharePercent >= 0 && sharePercent <= 100)) return err({ kind: "bad-share", sharePercent });
  const s = sharePercent;
  return ok(s === 0 ? 0 : s <= 0.05 ? 1 : s <= 0.5 ? 2 : s <= 1 ? 3 : s <= 8 ? 4 : 5);
}
