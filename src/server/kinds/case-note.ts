import { caseOf } from "../causes/case-of";
import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"case-note"> = {
  /** Failure: `unknown-case`. */
  "case-note": async ({ db }, entry) => {
    const found = await caseOf(db, entry.caseNumber);
    if (!found) return refuse({ kind: "unknown-case", number: entry.caseNumber });
    return {
      ok: true,
      where: found.where,
      grade: "by-procedure",
      details: { case_note: [{ text: entry.text, people: entry.people || null }] },
    };
  },
};
