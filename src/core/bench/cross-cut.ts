import { atMost } from "../limits";
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

/** What an X-cut looked like after the tape, best first: nothing came off … past the X. */
export const xCutGrades = ["5A", "4A", "3A", "2A", "1A", "0A"] as const;
export type XCutGrade = (typeof xCutGrades)[number];
/** Widest that the film may have come off along the cuts, mm, for 3A and 2A. */
export const X_CUT_TEAR_MM = { "3A": 1.6, "2A": 3.2 } as const;

/**
 * The grade of an X-cut from what came off: nothing, a trace along the cuts, or a tear so wide to one side of a cut; past the
 * arms it is most of the X, or beyond it. Failures: `bad-input` (a width that is none). Source: after ASTM D3359 method A.
 */
export function xCutGrade(
  came: { readonly off: "none" | "trace" | "most" | "beyond" } | { readonly off: "tear"; readonly mm: number },
): Result<XCutGrade> {
  if (came.off !== "tear") return ok(({ none: "5A", trace: "4A", most: "1A", beyond: "0A" } as const)[came.off]);
  if (!(came.mm > 0) || !Number.isFinite(came.mm)) return err({ kind: "bad-input", name: "tear, mm", value: came.mm });
  return ok(atMost(came.mm, X_CUT_TEAR_MM["3A"]) ? "3A" : atMost(came.mm, X_CUT_TEAR_MM["2A"]) ? "2A" : "1A");
}
/** The grade 0 to 5 of the lattice that an X-cut stands for where a job asks in that scale: 5A as 0, 0A as 5. */
export const isoOfXCut = (grade: XCutGrade): IsoCrossCutGrade => xCutGrades.indexOf(grade) as IsoCrossCutGrade;

/** Which of the two families of standards a shop grades adhesion by. */
export const adhesionScales = ["iso", "astm"] as const;
export type AdhesionScale = (typeof adhesionScales)[number];
export type AdhesionMethod =
  | { readonly method: "cross-cut"; readonly spacingMm: 1 | 2 | 3; readonly cuts: 6 | 11; readonly squares: 25 | 100 }
  | { readonly method: "x-cut" };

/**
 * How adhesion is cut for this film and metal by the shop's scale: lattice with its spacing and number, or the X-cut where the
 * film is too thick for it. Failure: `bad-input`. Source: after ISO 2409, and after ASTM D3359 (B up to 125 µm, A above).
 */
export function adhesionMethod(
  filmUm: number,
  substrate: "hard" | "soft",
  scale: AdhesionScale,
): Result<AdhesionMethod> {
  if (scale === "iso") {
    const chosen = crossCutSpacingMm(filmUm, substrate);
    if (!chosen.ok) return chosen;
    return ok(chosen.value.method === "x-cut" ? chosen.value : { ...chosen.value, cuts: 6, squares: 25 });
  }
  if (!(filmUm > 0) || !Number.isFinite(filmUm)) return err({ kind: "bad-input", name: "filmUm", value: filmUm });
  if (!atMost(filmUm, 125)) return ok({ method: "x-cut" });
  return ok(
    atMost(filmUm, 50)
      ? { method: "cross-cut", spacingMm: 1, cuts: 11, squares: 100 }
      : { method: "cross-cut", spacingMm: 2, cuts: 6, squares: 25 },
  );
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
