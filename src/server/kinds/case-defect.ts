import { caseOf } from "../causes/case-of";
import { caseThatHas } from "../causes/defects-of";
import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"case-defect"> = {
  /**
   * Failures: `unknown-case`, `unknown-superseded` where a defect is none, `in-another-case` where it is joined to another
   * already, `bad-entry` where it is split from a case that it opened or is not in.
   */
  "case-defect": async ({ db }, entry) => {
    const found = await caseOf(db, entry.caseNumber);
    if (!found) return refuse({ kind: "unknown-case", number: entry.caseNumber });
    const ids = [...new Set(entry.defects)];
    const known = await db
      .selectFrom("record")
      .select(["id", "rack_id", "structure_id"])
      .where("id", "in", ids)
      .where("kind", "=", "defect")
      .execute();
    const missing = ids.find((id) => !known.some((k) => k.id === id));
    if (missing) return refuse({ kind: "unknown-superseded", recordId: missing });
    const owner = await db
      .selectFrom("root_cause_case")
      .select("defect_record_id")
      .where("id", "=", found.id)
      .executeTakeFirstOrThrow();
    const of = await caseThatHas(db, ids);
    for (const id of ids) {
      const has = of.get(id);
      if (entry.state === "joined" && has && has !== entry.caseNumber)
        return refuse({ kind: "in-another-case", number: has });
      if (entry.state === "split" && (has !== entry.caseNumber || id === owner.defect_record_id))
        return refuse({
          kind: "bad-entry",
          field: "defects",
          why:
            id === owner.defect_record_id
              ? "hold the defect that opened the case, which stays in it"
              : "are not all in this case",
          value: id,
        });
    }
    return {
      ok: true,
      where: found.where,
      grade: "by-procedure",
      details: {
        case_defect: ids.map((of, i) => ({ ordinal: i + 1, of, state: entry.state, why: entry.why || null })),
      },
    };
  },
};
