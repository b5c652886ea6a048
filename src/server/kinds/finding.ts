import { caseOf } from "../causes/case-of";
import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"finding"> = {
  finding: async ({ db }, entry) => {
    const found = await caseOf(db, entry.caseNumber);
    if (!found) return refuse({ kind: "unknown-case", number: entry.caseNumber });
    return {
      ok: true,
      where: found.where,
      details: {
        finding: [
          { finding: entry.finding, state: entry.state, note: entry.note || null, zone: entry.zone?.trim() || null },
        ],
      },
    };
  },
};
