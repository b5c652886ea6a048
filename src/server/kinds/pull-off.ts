import { judgePullOff, pullOffMPa } from "@/core/bench";
import { tested } from "../bench/find-panel";
import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"pull-off"> = {
  /** The stress worked out and the shares added up before it is kept. Failures: `unknown-rack`, `bad-input`, `shares-do-not-add`. */
  "pull-off": async ({ db, person }, entry) => {
    const on = await tested(db, person, entry);
    if (!on.ok) return refuse(on.failure);
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
      where: on.value.where,
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
            ...on.value.panel,
          },
        ],
        ...on.value.standsFor,
      },
    };
  },
};
