import { sql } from "kysely";
import { findStructure } from "../field/find-structure";
import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"site-plan"> = {
  /** Failures: `unknown-structure` (its own, or one that is marked and stands elsewhere), `not-of-this-site` (the picture). */
  "site-plan": async ({ db, person }, entry) => {
    const own = await findStructure(db, person, entry.structure);
    if (!own) return refuse({ kind: "unknown-structure", name: entry.structure });
    const there = await db
      .selectFrom("structure")
      .select(["id", "code"])
      .where("customer_id", "=", own.customer_id)
      .where(sql`lower(site)`, "=", own.site.toLowerCase())
      .execute();
    const codes = new Map(there.map((s) => [s.code.toLowerCase(), s.code]));
    for (const mark of entry.document.marks)
      if (!codes.has(mark.structure.toLowerCase())) return refuse({ kind: "unknown-structure", name: mark.structure });
    if (entry.picture !== null) {
      const photo = await db
        .selectFrom("record")
        .select("structure_id")
        .where("id", "=", entry.picture)
        .where("kind", "=", "photo")
        .executeTakeFirst();
      if (!there.some((s) => s.id === photo?.structure_id)) return refuse({ kind: "not-of-this-site", site: own.site });
    }
    return {
      ok: true,
      where: { structureId: own.id },
      grade: "by-procedure",
      details: {
        site_plan: [
          {
            customer_id: own.customer_id,
            site: own.site,
            picture: entry.picture,
            document: {
              ...entry.document,
              marks: entry.document.marks.map((m) => ({
                ...m,
                structure: codes.get(m.structure.toLowerCase()) ?? m.structure,
              })),
            },
            note: entry.note || null,
          },
        ],
      },
    };
  },
};
