import type { Kysely } from "kysely";
import { crossCutFromSquares } from "@/core/bench";
import type { Database } from "@/db/schema";
import { findBath } from "../baths/find-bath";
import { refuse } from "../outcome";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"panel-test"> = {
  "panel-test": ({ db }, entry) => panelTest(db, entry),
};

/** A panel that was washed at an hour, coated and tested: cross-cut, or salt spray with creep from the scribe. */
async function panelTest(db: Kysely<Database>, entry: Of<"panel-test">): Promise<Made> {
  const bath = await findBath(db, entry.bath, entry.happenedAt);
  if (!bath) return refuse({ kind: "unknown-bath", name: entry.bath });
  if (entry.washedAt > entry.happenedAt)
    return refuse({
      kind: "bad-entry",
      field: "washed at",
      value: entry.washedAt.toISOString(),
      why: "is after the test itself",
    });
  const cut = entry.test === "adhesion" ? crossCutFromSquares(entry.squaresLost ?? 0, entry.squares ?? 25) : null;
  if (cut && !cut.ok) return refuse(cut.error);
  return {
    ok: true,
    where: { bathId: bath.id },
    grade: "measured",
    details: {
      panel_test: [
        {
          test: entry.test,
          washed_at: entry.washedAt,
          removed_percent: cut?.value.removedPercent ?? null,
          iso: cut?.value.iso ?? null,
          hours: entry.test === "salt-spray" ? entry.hours : null,
          creep_mm: entry.test === "salt-spray" ? entry.creepMm : null,
          coating: entry.coating,
          note: entry.note || null,
        },
      ],
    },
  };
}
