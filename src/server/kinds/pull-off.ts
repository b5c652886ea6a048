import { judgePullOff, pullOffMPa } from "@/core/bench";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import type { Makes } from "./made";

export const makes: Makes<"pull-off"> = {
  /** The stress worked out and the shares added up before it is kept. Failures: `unknown-rack`, `bad-input`, `shares-do-not-add`. */
  "pull-off": async ({ db, person }, entry) => {
    const rack = await findRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    const { adhesivePercent, cohesivePercent, gluePercent, askedMPa } = entry;
    const stress = pullOffMPa(entry);
    if (!stress.ok) return refuse(stress.error);
    const judged = judgePullOff({
      stressMPa: stress.value,
      requiredMPa: askedMPa ?? stress.value,
      adhesivePercent,
      cohesivePercent,
      gluePercent,
    });
    if (!judged.ok) return refuse(judged.error);
    return {
      ok: true,
      where: { jobId: rack.job_id, rackId: rack.id },
      details: {
        pull_off: [
          {
            dolly_mm: entry.dollyMm,
            force_n: entry.forceN,
            stress_mpa: stress.value,
            adhesive_percent: adhesivePercent,
            cohesive_percent: cohesivePercent,
            glue_percent: gluePercent,
            asked_mpa: askedMPa,
            on_panel: entry.onPanel,
          },
        ],
      },
    };
  },
};
