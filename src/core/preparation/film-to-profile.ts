import { err, ok, type Result } from "../result";
import type { VerdictResult } from "../verdict";

/** A film this many times the profile covers its peaks with something to spare; at once its depth they come through. */
export const FILM_TO_PROFILE_LEAST = 1.5;

/**
 * Film over blast profile, as a ratio: under 1 the peaks stand out of the film and rust first (out), under the least
 * ratio they come near its face (watch). Failures: `bad-input` (either not over 0). Source: calculations, section 2; the
 * limits are shop practice, docs/methods.md.
 */
export function filmToProfile(
  filmUm: number,
  profileUm: number,
  least: number = FILM_TO_PROFILE_LEAST,
): Result<{ readonly ratio: number; readonly result: VerdictResult }> {
  if (!(filmUm > 0) || !Number.isFinite(filmUm)) return err({ kind: "bad-input", name: "filmUm", value: filmUm });
  if (!(profileUm > 0) || !Number.isFinite(profileUm))
    return err({ kind: "bad-input", name: "profileUm", value: profileUm });
  const ratio = filmUm / profileUm;
  return ok({ ratio, result: ratio < 1 ? "out" : ratio < least ? "watch" : "in" });
}
