import { findBath } from "../baths/find-bath";
import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"sludge"> = {
  sludge: async ({ db }, entry) => {
    const bath = await findBath(db, entry.bath, entry.happenedAt);
    if (!bath) return refuse({ kind: "unknown-bath", name: entry.bath });
    return {
      ok: true,
      where: { bathId: bath.id },
      grade: entry.depthMm === null ? "by-procedure" : "measured",
      details: { sludge: [{ what: entry.what, depth_mm: entry.depthMm, note: entry.note || null }] },
    };
  },
};
