import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"trial-result"> = {
  /** Failure: `bad-entry` where there is no such trial. */
  "trial-result": async ({ db }, entry) => {
    const trial = await db
      .selectFrom("record")
      .select(["id", "case_id", "rack_id", "structure_id"])
      .where("id", "=", entry.trial)
      .where("kind", "=", "trial")
      .executeTakeFirst();
    if (!trial?.case_id)
      return refuse({ kind: "bad-entry", field: "trial", why: "is not a trial on record", value: entry.trial });
    return {
      ok: true,
      where: {
        caseId: trial.case_id,
        ...(trial.rack_id ? { rackId: trial.rack_id } : {}),
        ...(trial.structure_id ? { structureId: trial.structure_id } : {}),
      },
      details: {
        trial_result: [
          { trial_id: trial.id, arm: entry.arm, panels: entry.panels, with_it: entry.withIt, note: entry.note || null },
        ],
      },
    };
  },
};
