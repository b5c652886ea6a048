import { type Kysely, sql } from "kysely";
import { type DetailRow, type DetailTable, detailTableNames, detailTables } from "@/db/detail-tables";
import type { Database } from "@/db/schema";

export type StoredDetails = { [T in DetailTable]?: DetailRow<T>[] };

/** Detail rows of many records at once, one query per table; rows that have an ordinal come in its order. */
export async function readDetails(
  db: Kysely<Database>,
  recordIds: readonly string[],
  tables: readonly string[] = detailTableNames(),
): Promise<Map<string, StoredDetails>> {
  const found = new Map<string, StoredDetails>();
  if (recordIds.length === 0) return found;
  const read = await Promise.all(
    tables.map((table) =>
      sql<{ record_id: string }>`select * from ${sql.table(table)} where record_id = any(${recordIds}::uuid[])${
        "ordinal" in (detailTables[table] ?? {}) ? sql` order by record_id, ordinal` : sql``
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
