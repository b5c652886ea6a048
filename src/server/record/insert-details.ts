import { type Kysely, sql } from "kysely";
import { type DetailTable, detailTables } from "@/db/detail-tables";
import type { Database } from "@/db/schema";

/** Rows sent in one statement; PostgreSQL takes arrays of this length without strain. */
const ROWS_PER_STATEMENT = 50_000;

/**
 * Inserts detail rows, one array per column (unnest), so that a hundred thousand readings go in a handful of
 * statements; a column with one value throughout goes as that value. Tables that hold arrays themselves go row by row.
 * Values travel as parameters, never in the text of the statement. O(rows).
 */
export async function insertDetails(
  db: Kysely<Database>,
  table: DetailTable,
  rows: readonly { record_id: string; values: object }[],
): Promise<void> {
  if (rows.length === 0) return;
  const types: Record<string, string> = { record_id: "uuid", ...detailTables[table] };
  const columns = Object.keys(types);
  const columnValue = (row: (typeof rows)[number], column: string): unknown => {
    const value = column === "record_id" ? row.record_id : (row.values as Record<string, unknown>)[column];
    return types[column]?.startsWith("jsonb") ? JSON.stringify(value ?? null) : (value ?? null);
  };
  const names = sql.join(columns.map((column) => sql.ref(column)));
  if (Object.values(types).some((type) => type.includes("[]"))) {
    for (const row of rows)
      await sql`insert into ${sql.table(table)} (${names}) values (${sql.join(columns.map((column) => sql`${columnValue(row, column)}`))})`.execute(
        db,
      );
    return;
  }
  for (let start = 0; start < rows.length; start += ROWS_PER_STATEMENT) {
    const part = rows.slice(start, start + ROWS_PER_STATEMENT);
    const arrays: { column: string; values: unknown[] }[] = [];
    const picked = columns.map((column) => {
      const values = part.map((row) => columnValue(row, column));
      const type = sql.raw((types[column] as string).replace("?", ""));
      if (part.length > 1 && values.every((value) => value === values[0])) return sql`${values[0]}::${type}`;
      arrays.push({ column, values });
      return sql.ref(`part.${column}`);
    });
    if (arrays.length === 0) arrays.push({ column: "nothing", values: part.map(() => null) });
    const sources = sql.join(
      arrays.map(
        ({ column, values }) => sql`${arrayLiteral(values)}::${sql.raw((types[column] ?? "text").replace("?", ""))}[]`,
      ),
    );
    await sql`insert into ${sql.table(table)} (${names}) select ${sql.join(picked)} from unnest(${sources}) as part (${sql.join(arrays.map((a) => sql.ref(a.column)))})`.execute(
      db,
    );
  }
}

/** A PostgreSQL array literal, sent as one parameter. */
function arrayLiteral(values: readonly unknown[]): string {
  return `{${values.map((value) => (value === null ? "NULL" : typeof value === "number" || typeof value === "boolean" ? String(value) : `"${(value instanceof Date ? value.toISOString() : String(value)).replace(/[\\"]/g, "\\$&")}"`)).join(",")}}`;
}
