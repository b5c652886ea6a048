import { type Kysely, type RawBuilder, type SqlBool, sql } from "kysely";
import type { Database } from "../schema";

/** Of a record named by a column that holds its id: nothing corrects it. An index probe a row. */
export const stands = (idColumn: string): RawBuilder<SqlBool> =>
  sql<SqlBool>`not exists (select 1 from record later where later.supersedes = ${sql.ref(idColumn)})`;

/** What corrects each of some records: corrected id → the id and key of the one that corrects it. One query. */
export async function correctionsOf(
  db: Kysely<Database>,
  recordIds: readonly string[],
): Promise<ReadonlyMap<string, { readonly id: string; readonly key: string }>> {
  const { rows } = await sql<{ id: string; key: string; supersedes: string }>`
    select id, idempotency_key as key, supersedes from record where supersedes = any(${recordIds}::uuid[])`.execute(db);
  return new Map(rows.map(({ supersedes, ...one }) => [supersedes, one]));
}

/** Of a record named by its alias: it corrects another, rather than following it in the ordinary course of things. */
export const corrects = (alias: string): RawBuilder<SqlBool> =>
  sql<SqlBool>`(${sql.ref(`${alias}.supersedes`)} is not null and ${sql.ref(`${alias}.in_course`)} is not true)`;
