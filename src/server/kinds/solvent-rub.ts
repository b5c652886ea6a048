import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import { setupAt } from "../setup/setup-data";
import type { Makes } from "./made";

export const makes: Makes<"solvent-rub"> = {
  "solvent-rub": async ({ db, person }, entry) => {
    if (entry.doubleRubs > entry.limit)
      return refuse({ kind: "bad-rubs", doubleRubs: entry.doubleRubs, limit: entry.limit });
    const rack = await findRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    const powder = (await setupAt(db, "powder", entry.happenedAt)).get(rack.powder_id);
    return {
      ok: true,
      where: { jobId: rack.job_id, rackId: rack.id },
      details: {
        solvent_rub: [
          {
            double_rubs: entry.doubleRubs,
            rub_limit: entry.limit,
            grade: entry.grade,
            known_cured_grade: powder?.data.knownCuredRubGrade ?? null,
            on_panel: entry.onPanel,
          },
        ],
      },
    };
  },
};
