import { tested } from "../bench/find-panel";
import { refuse } from "../outcome";
import { setupAt } from "../setup/setup-data";
import type { Makes } from "./made";

export const makes: Makes<"solvent-rub"> = {
  "solvent-rub": async ({ db, person }, entry) => {
    if (entry.doubleRubs > entry.limit)
      return refuse({ kind: "bad-rubs", doubleRubs: entry.doubleRubs, limit: entry.limit });
    const on = await tested(db, person, entry);
    if (!on.ok) return refuse(on.failure);
    const powder = (await setupAt(db, "powder", entry.happenedAt)).get(on.value.powderId);
    return {
      ok: true,
      where: on.value.where,
      details: {
        solvent_rub: [
          {
            double_rubs: entry.doubleRubs,
            rub_limit: entry.limit,
            grade: entry.grade,
            known_cured_grade: powder?.data.knownCuredRubGrade ?? null,
            ...on.value.panel,
          },
        ],
        ...on.value.standsFor,
      },
    };
  },
};
