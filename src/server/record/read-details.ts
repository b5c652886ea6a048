import { type Kysely, sql } from "kysely";
import { type DetailRow, type DetailTable, detailTableNames, detailTables } from "@/db/detail-tables";
import type { Database } from "@/db/schema";

export type StoredDetails = { [T in DetailTable]?: DetailRow<T>[] };

/** Which detail tables a record kind writes to; the verifier reads all, the application only these. */
export const tablesOfKind: Record<string, readonly DetailTable[]> = {
  passage: ["passage"],
  "bath-check": ["bath_check"],
  "bath-event": ["bath_event"],
  "line-stop": ["line_stop"],
  "round-skip": ["round_skip"],
  "wash-panel": ["wash_panel"],
  sludge: ["sludge"],
  "dry-off": ["dry_off"],
  outgas: ["outgas", "bake_channel"],
  "metal-mark": ["metal_mark"],
  "panel-test": ["panel_test"],
  upkeep: ["upkeep_done"],
  "pre-flight": ["pre_flight", "pre_flight_item"],
  "lamp-check": ["lamp_check", "light_spot"],
  "powder-height": ["powder_height"],
  "first-panel": ["first_panel"],
  "gauge-check": ["gauge_check", "gauge_shim"],
  "base-metal": ["base_metal"],
  "film-plan": ["film_plan"],
  thickness: ["thickness_set", "thickness_reading"],
  bake: ["bake", "bake_place", "bake_channel"],
  "bake-event": ["bake_event"],
  "oven-survey": ["oven_survey", "survey_place"],
  "cure-trial": ["cure_trial"],
  "cure-test": ["cure_test"],
  coat: ["coat"],
  "prep-step": ["prep_step"],
  condition: ["condition"],
  "cross-cut": ["cross_cut"],
  "solvent-rub": ["solvent_rub"],
  defect: ["defect"],
  disposition: ["disposition"],
  certificate: ["certificate"],
  visit: ["visit", "creep_measure"],
  finding: ["finding"],
  confirmation: ["confirmation"],
  photo: ["photo"],
  plan: ["job_plan"],
  offer: ["offer"],
  "offer-answer": ["offer_answer"],
  "job-start": ["job_start"],
};

/** Detail rows of many records at once, one query per table; rows that have an ordinal come in its order. */
export async function readDetails(
  db: Kysely<Database>,
  recordIds: readonly string[],
  tables: readonly DetailTable[] = detailTableNames,
): Promise<Map<string, StoredDetails>> {
  const found = new Map<string, StoredDetails>();
  if (recordIds.length === 0) return found;
  const read = await Promise.all(
    tables.map((table) =>
      sql<{ record_id: string }>`select * from ${sql.table(table)} where record_id = any(${recordIds}::uuid[])${
        "ordinal" in detailTables[table] ? sql` order by record_id, ordinal` : sql``
      }`.execute(db),
    ),
  );
  for (const [i, table] of tables.entries())
    for (const row of read[i]?.rows ?? []) {
      const details = (found.get(row.record_id) ?? {}) as Record<string, object[]>;
      details[table] ??= [];
      details[table].push(row);
      found.set(row.record_id, details as StoredDetails);
    }
  return found;
}
