import { atMost } from "../limits";
import { err, ok, type Result } from "../result";

/** Degree of flaking 0–5 from the flaked share, %. Failures: `bad-share`. Source: after ISO 4628-5. */
export function flakingGrade(sharePercent: number): Result<0 | 1 | 2 | 3 | 4 | 5> {
  if (!(sharePercent >= 0 && sharePercent <= 100)) return err({ kind: "bad-share", sharePercent });
  const upTo = (limit: number) => atMost(sharePercent, limit);
  return ok(sharePercent === 0 ? 0 : upTo(0.1) ? 1 : upTo(0.3) ? 2 : upTo(1) ? 3 : upTo(3) ? 4 : 5);
}

/** Blisters by how many there are (0 none … 5 dense) and how large (2 seen under a glass … 5 over 5 mm). */
export type Blisters = { readonly density: number; readonly size: number | null };
/** Failures: `bad-input` (density), `blisters-need-size`. Source: after ISO 4628-2. */
export function checkBlisters({ density, size }: Blisters): Result<Blisters> {
  if (!Number.isInteger(density) || density < 0 || density > 5)
    return err({ kind: "bad-input", name: "density", value: density });
  if (density > 0 && (size === null || !Number.isInteger(size) || size < 2 || size > 5))
    return err({ kind: "blisters-need-size", density, size });
  return ok({ density, size: density === 0 ? null : size });
}

/** Gloss kept of what it had, %. Failures: `bad-input` (under nothing, or nothing to begin with). Source: ISO 2813 readings, the earlier as 100. */
export function glossRetention(nowGu: number, beforeGu: number): Result<number> {
  if (!(nowGu >= 0) || !Number.isFinite(nowGu)) return err({ kind: "bad-input", name: "nowGu", value: nowGu });
  if (!(beforeGu > 0) || !Number.isFinite(beforeGu))
    return err({ kind: "bad-input", name: "beforeGu", value: beforeGu });
  return ok((nowGu / beforeGu) * 100);
}

/** Length of a seam or edge that rusts, of all of it, %. Failures: `bad-input`, `longer-than-all`. */
export function rustedLength(rustedMm: number, ofMm: number): Result<number> {
  if (!(rustedMm >= 0)) return err({ kind: "bad-input", name: "rustedMm", value: rustedMm });
  if (!(ofMm > 0)) return err({ kind: "bad-input", name: "ofMm", value: ofMm });
  if (rustedMm > ofMm * (1 + 1e-9)) return err({ kind: "longer-than-all", rustedMm, ofMm });
  return ok(Math.min(100, (rustedMm / ofMm) * 100));
}
