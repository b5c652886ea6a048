import type { Kysely } from "kysely";
import { coatingWeightGPerM2 } from "@/core/bath";
import type { Database } from "@/db/schema";
import { findBath } from "../baths/find-bath";
import { refuse } from "../outcome";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"wash-panel"> = {
  "wash-panel": ({ db }, entry) => washPanel(db, entry),
};

/** A panel of the conversion coat. Weighed it is measured, by colour alone it is by procedure: a band, not a number. */
async function washPanel(db: Kysely<Database>, entry: Of<"wash-panel">): Promise<Made> {
  const bath = await findBath(db, entry.bath, entry.happenedAt);
  if (!bath) return refuse({ kind: "unknown-bath", name: entry.bath });
  const { beforeG, afterG, areaM2 } = entry;
  const weight =
    beforeG !== null && afterG !== null && areaM2 !== null ? coatingWeightGPerM2({ beforeG, afterG, areaM2 }) : null;
  if (weight && !weight.ok) return refuse(weight.error);
  return {
    ok: true,
    where: { bathId: bath.id },
    grade: weight ? "measured" : "by-procedure",
    details: {
      wash_panel: [
        {
          before_g: beforeG,
          after_g: afterG,
          area_m2: areaM2,
          g_per_m2: weight?.value ?? null,
          colour: entry.colour,
          look: entry.look,
          note: entry.note || null,
        },
      ],
    },
  };
}
