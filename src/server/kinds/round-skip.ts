import { findBath } from "../baths/find-bath";
import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"round-skip"> = {
  "round-skip": async ({ db }, entry) => {
    const bath = await findBath(db, entry.bath, entry.happenedAt);
    if (!bath) return refuse({ kind: "unknown-bath", name: entry.bath });
    return {
      ok: true,
      where: { bathId: bath.id },
      grade: "unknown",
      details: { round_skip: [{ reason: entry.reason }] },
    };
  },
};
