import type { Kysely } from "kysely";
import { measureHolds } from "@/core/upkeep";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { setupAt } from "../setup/setup-data";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"upkeep"> = {
  upkeep: ({ db }, entry) => upkeep(db, entry),
};

/**
 * Upkeep that was done. A value beyond its limits cannot be called in order (`upkeep-not-in-order`: name, value, limits);
 * what others do wants their name, and a supplier's visit what came of it (`upkeep-without`).
 */
async function upkeep(db: Kysely<Database>, entry: Of<"upkeep">): Promise<Made> {
  const item = [...(await setupAt(db, "upkeep", entry.happenedAt)).values()].find(
    (u) => u.code.toLowerCase() === entry.item.toLowerCase(),
  );
  if (!item || item.data.retired) return refuse({ kind: "unknown-set-up", what: "upkeep", name: entry.item });
  const { measure, hands, what } = item.data;
  if (entry.value !== null && !measure)
    return refuse({ kind: "bad-entry", field: "value", value: entry.value, why: "has no place here" });
  if (hands !== "line" && entry.who === "") return refuse({ kind: "upkeep-without", what, lacks: "who" });
  if (hands === "supplier" && entry.note === "") return refuse({ kind: "upkeep-without", what, lacks: "note" });
  if (entry.result === "in-order" && measure && measureHolds(measure, entry.value) === false)
    return refuse({ kind: "upkeep-not-in-order", value: entry.value, ...measure });
  return {
    ok: true,
    where: {},
    grade: entry.value === null ? "by-procedure" : "measured",
    details: {
      upkeep_done: [
        {
          item_id: item.id,
          result: entry.result,
          value: entry.value,
          unit: entry.value === null ? null : (measure?.unit ?? null),
          who: entry.who || null,
          note: entry.note || null,
        },
      ],
    },
  };
}
