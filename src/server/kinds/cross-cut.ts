import { crossCutFromSquares, isoOfXCut, xCutGrade } from "@/core/bench";
import { tested } from "../bench/find-panel";
import { refuse } from "../outcome";
import type { Makes } from "./made";

/** Failures of both: `unknown-rack`, those of the core's grades and of `tested`. */
export const makes: Makes<"cross-cut" | "x-cut"> = {
  "cross-cut": async ({ db, person }, entry) => {
    const grade = crossCutFromSquares(entry.squaresLost, entry.squares);
    if (!grade.ok) return refuse(grade.error);
    const on = await tested(db, person, entry);
    if (!on.ok) return refuse(on.failure);
    return {
      ok: true,
      where: on.value.where,
      details: {
        cross_cut: [
          {
            removed_percent: grade.value.removedPercent,
            squares_lost: entry.squaresLost,
            squares: entry.squares,
            spacing_mm: entry.spacingMm,
            iso: grade.value.iso,
            astm: grade.value.astmB,
            ...on.value.panel,
          },
        ],
        ...on.value.standsFor,
      },
    };
  },
  "x-cut": async ({ db, person }, entry) => {
    const grade = xCutGrade(
      entry.off === "tear" ? { off: "tear", mm: entry.tearMm ?? Number.NaN } : { off: entry.off },
    );
    if (!grade.ok) return refuse(grade.error);
    const on = await tested(db, person, entry);
    if (!on.ok) return refuse(on.failure);
    return {
      ok: true,
      kind: "cross-cut",
      where: on.value.where,
      details: {
        cross_cut: [
          {
            iso: isoOfXCut(grade.value),
            astm: grade.value,
            method: "x-cut",
            tear_mm: entry.off === "tear" ? entry.tearMm : null,
            ...on.value.panel,
          },
        ],
        ...on.value.standsFor,
      },
    };
  },
};
