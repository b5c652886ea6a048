import { err, ok, type Result } from "../result";

export type IsoCrossCutGrade = 0 | 1 | 2 | 3 | 4 | 5;
export type AstmTapeGrade = "5B" | "4B" | "3B" | "2B" | "1B" | "0B";
export type CrossCut = {
  readonly kind: "cross-cut";
  readonly removedPercent: number;
  readonly iso: IsoCrossCutGrade;
  readonly astmB: AstmTapeGrade;
};
/** Above this film, µm, the cross-cut gives way to the X-cut. */
export const CROSS_CUT_THICKEST_UM = 250;

/** Both scales from the share of the lattice removed. Failure: `bad-share`. Source: after ISO 2409 and ASTM D3359 method B. */
export function crossCutGrade(removedPercent: number): Result<CrossCut> {
  if (!(removedPercent >= 0 && removedPercent <= 100)) return err({ kind: "bad-share", removedPercent });
  const p = removedPercent;
  const iso: IsoCrossCutGrade = p === 0 ? 0 : p <= 5 ? 1 : p <= 15 ? 2 : p <= 35 ? 3 : p <= 65 ? 4 : 5;
  const astmB: AstmTapeGrade = p === 0 ? "5B" : p < 5 ? "4B" : p <= 15 ? "3B" : p <= 35 ? "2B" : p <= 65 ? "1B" : "0B";
  return ok({ kind: "cross-cut", removedPercent: p, iso, astmB });
}

/** The same from squares lost of those in the lattice (25 for six cuts, 100 for eleven). Failure: `bad-squares`. */
export function crossCutFromSquares(squaresLost: number, squares: number): Result<CrossCut> {
  if (!Number.isInteger(squares) || squares <= 0 || !(squaresLost >= 0 && squaresLost <= squares))
    return err({ kind: "bad-squares", squaresLost, squares });
  return crossCutGrade((100 * squaresLost) / squares);
}

/** Spacing, mm, by film and substrate hardness; above 250 µm use the X-cut. Source: after ISO 2409. */
export function crossCutSpacingMm(
  filmUm: number,
  substrate: "hard" | "soft",
): Result<{ readonly method: "cross-cut"; readonly spacingMm: 1 | 2 | 3 } | { readonly method: "x-cut" }> {
  if (!(filmUm > 0) || !Number.isFinite(filmUm)) return err({ kind: "bad-input", name: "filmUm", value: filmUm });
  if (filmUm > CROSS_CUT_THICKEST_UM) return ok({ method: "x-cut" });
  return ok({ method: "cross-cut", spacingMm: filmUm > 120 ? 3 : filmUm > 60 || substrate === "soft" ? 2 : 1 });
}
