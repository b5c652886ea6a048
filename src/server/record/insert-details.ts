import { type Kysely, sql } from "kysely";
import { type DetailTable, detailTables } from "@/db/detail-tables";
import type { Database } from "@/db/schema";

/** Rows sent in one statement; PostgreSQL takes arrays of this length without strain. */
const ROWS_PER_STATEMENT = 20_000;

/**
 * Inserts detail rows, one array per column (unnest), so that a hundred thousand readings go in a handful of
 * statements. Tables that hold arrays themselves go row by row. O(rows).
 */
export async function insertDetails(
  db: Kysely<Database>,
  table: DetailTable,
  rows: readonly { record_id: string; values: object }[],
): Promise<void> {
  const types: Record<string, string> = { record_id: "uuid", ...detailTables[table] };
  const columns = Object.keys(types);
  const columnValue = (row: (typeof rows)[number], column: string): unknown => {
    const value = column === "record_id" ? row.record_id : (row.values as Record<string, unknown>)[column];
    return types[column]?.startsWith("jsonb") ? JSON.stringify(value ?? null) : (value ?? null);
  };
  const names = sql.join(columns.map((column) => sql.ref(column)));
  if (Object.values(types).some((type) => type.includes("[]"))) {
    for (const row of rows) {
      await sql`insert into ${sql.table(table)} (${names}) values (${sql.join(columns.map((column) => sql`${columnValue(row, column)}`))})`.execute(
        db,
      );
    }
    return;
  }
  for (let start = 0; start < rows.length; start += ROWS_PER_STATEMENT) {
    const part = rows.slice(start, start + ROWS_PER_STATEMENT);
    const arrays = columns.map(
      (column) =>
        sql`${part.map((row) => columnValue(row, column))}::${sql.raw((types[column] as string).replace("?", ""))}[]`,
    );
    await sql`insert into ${sql.table(table)} (${names}) select * from unnest(${sql.join(arrays)})`.execute(db);
  }
}
