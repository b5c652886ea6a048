import { type Kysely, sql } from "kysely";
import { type DetailTable, detailTables } from "@/db/detail-tables";
import type { Database } from "@/db/schema";
import { insertFilmFaces } from "./film-faces";

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
  if (table === "thickness_reading") await insertFilmFaces(db, rows);
  const types: Record<string, string> = { record_id: "uuid", ...detailTables[table] };
  const columns = Object.keys(types);
  const columnValue = (row: (typeof rows)[number], column: string): unknown => {
    const value = column === "record_id" ? row.record_id : (row.values as Record<string, unknown>)[column];
    if (value === null || value === undefined) return null;
    return types[column]?.startsWith("jsonb") ? JSON.stringify(value) : value;
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
    const arrays: { column: string; literal: string }[] = [];
    const picked = columns.map((column) => {
      const type = sql.raw((types[column] as string).replace("?", ""));
      const first = columnValue(part[0] as (typeof rows)[number], column);
      if (part.length > 1 && part.every((row) => columnValue(row, column) === first)) return sql`${first}::${type}`;
      arrays.push({ column, literal: arrayLiteral(part, (row) => columnValue(row, column)) });
      return sql.ref(`part.${column}`);
    });
    if (arrays.length === 0) arrays.push({ column: "nothing", literal: arrayLiteral(part, () => null) });
    const sources = sql.join(
      arrays.map(({ column, literal }) => sql`${literal}::${sql.raw((types[column] ?? "text").replace("?", ""))}[]`),
    );
    await sql`insert into ${sql.table(table)} (${names}) select ${sql.join(picked)} from unnest(${sources}) as part (${sql.join(arrays.map((a) => sql.ref(a.column)))})`.execute(
      db,
    );
  }
}

/** A PostgreSQL array literal, sent as one parameter; grown in place, since a set can hold 100,000 rows. */
function arrayLiteral<T>(rows: readonly T[], read: (row: T) => unknown): string {
  let literal = "{";
  for (let i = 0; i < rows.length; i++) {
    const value = read(rows[i] as T);
    if (i > 0) literal += ",";
    if (value === null) literal += "NULL";
    else if (typeof value === "number" || typeof value === "boolean") literal += value;
    else {
      const text = value instanceof Date ? value.toISOString() : String(value);
      literal += /[\\"]/.test(text) ? `"${text.replace(/[\\"]/g, "\\$&")}"` : `"${text}"`;
    }
  }
  return `${literal}}`;
}
