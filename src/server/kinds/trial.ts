import { loadKnowledge } from "@/core/diagnosis";
import { caseOf } from "../causes/case-of";
import { refuse } from "../outcome";
import type { Makes } from "./made";

const knowledge = loadKnowledge();

export const makes: Makes<"trial"> = {
  /** Failures: `unknown-case`, `bad-entry` where the cause is none of the defect's, or nothing would be told by the trial. */
  trial: async ({ db }, entry) => {
    const found = await caseOf(db, entry.caseNumber);
    if (!found) return refuse({ kind: "unknown-case", number: entry.caseNumber });
    if (!knowledge.defects.get(found.defect)?.causes.has(entry.cause))
      return refuse({
        kind: "bad-entry",
        field: "cause",
        why: `is not a cause of ${found.defect}`,
        value: entry.cause,
      });
    if (entry.expectWith <= entry.expectWithout)
      return refuse({
        kind: "bad-entry",
        field: "expectWith",
        why: "is not over the share without the cause: such a trial tells nothing",
        value: entry.expectWith,
      });
    return {
      ok: true,
      where: found.where,
      grade: "by-procedure",
      details: {
        trial: [
          {
            cause: entry.cause,
            plan: entry.plan,
            panels: entry.panels,
            expect_with: entry.expectWith,
            expect_without: entry.expectWithout,
            certainty: entry.certainty,
          },
        ],
      },
    };
  },
};
