import { type RawBuilder, type SqlBool, sql } from "kysely";

/** Whoever is held to one customer's work, by its id; null for the shop's own people. */
export type HeldTo = { readonly customerId: string | null };

/** What this person may see of rows that bear a customer: all for the shop's people, else their customer's. The first of several columns that is filled counts. */
export function forPerson(person: HeldTo, ...customerColumns: readonly [string, ...string[]]): RawBuilder<SqlBool> {
  if (person.customerId === null) return sql<SqlBool>`true`;
  const columns = customerColumns.map((column) => sql.ref(column));
  return sql<SqlBool>`coalesce(${sql.join(columns)}) = ${person.customerId}::uuid`;
}
