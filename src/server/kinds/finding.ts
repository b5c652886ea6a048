import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"finding"> = {
  finding: async ({ db }, entry) => {
    const found = await db
      .selectFrom("root_cause_case")
      .select(["id", "rack_id", "structure_id"])
      .where("number", "=", entry.caseNumber)
      .executeTakeFirst();
    if (!found) return refuse({ kind: "unknown-case", number: entry.caseNumber });
    return {
      ok: true,
      where: {
        caseId: found.id,
        ...(found.rack_id ? { rackId: found.rack_id } : {}),
        ...(found.structure_id ? { structureId: found.structure_id } : {}),
      },
      details: { finding: [{ finding: entry.finding, state: entry.state, note: entry.note || null }] },
    };
  },
};
