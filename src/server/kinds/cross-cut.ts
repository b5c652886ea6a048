import { crossCutFromSquares } from "@/core/bench";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import type { Makes } from "./made";

export const makes: Makes<"cross-cut"> = {
  "cross-cut": async ({ db, person }, entry) => {
    const grade = crossCutFromSquares(entry.squaresLost, entry.squares);
    if (!grade.ok) return refuse(grade.error);
    const rack = await findRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    return {
      ok: true,
      where: { jobId: rack.job_id, rackId: rack.id },
      details: {
        cross_cut: [
          {
            removed_percent: grade.value.removedPercent,
            squares_lost: entry.squaresLost,
            squares: entry.squares,
            spacing_mm: entry.spacingMm,
            iso: grade.value.iso,
            astm: grade.value.astmB,
            on_panel: entry.onPanel,
          },
        ],
      },
    };
  },
};
