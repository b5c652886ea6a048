import type { Kysely } from "kysely";
import { preFlightMeasures } from "@/core/coating";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { loadRack } from "../rack/load-rack";
import { byCode } from "../setup/by-code";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"pre-flight"> = {
  "pre-flight": ({ db, person }, entry) => preFlight(db, person, entry),
};

/** What was looked at before powder goes on. Measured where anything was read. Failures: `unknown-rack`, `unknown-set-up`. */
async function preFlight(db: Kysely<Database>, person: Person, entry: Of<"pre-flight">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const [sheets, lots] = await Promise.all([
    setupAt(db, "setup-sheet", entry.happenedAt),
    setupAt(db, "lot", entry.happenedAt),
  ]);
  const sheet = byCode(sheets.values(), entry.sheet);
  if (entry.sheet && !sheet) return refuse({ kind: "unknown-set-up", what: "set-up sheet", name: entry.sheet });
  const lot = byCode(lots.values(), entry.lot);
  if (entry.lot && !lot) return refuse({ kind: "unknown-set-up", what: "lot", name: entry.lot });
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    grade: entry.items.some((i) => i.how === "measured")
      ? "measured"
      : entry.items.some((i) => i.how === "by-procedure")
        ? "by-procedure"
        : "unknown",
    details: {
      pre_flight: [{ situation: entry.situation, sheet_id: sheet?.id ?? null, lot_id: lot?.id ?? null }],
      pre_flight_item: entry.items.map((i, n) => ({
        ordinal: n + 1,
        item: i.item,
        how: i.how,
        value: i.how === "skipped" ? null : i.value,
        unit: i.value === null ? null : (preFlightMeasures[i.item]?.unit ?? null),
        good: i.how === "skipped" ? null : i.good,
        note: i.note || null,
      })),
    },
  };
}
