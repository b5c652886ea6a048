import { type RawBuilder, sql } from "kysely";

/** A person's name by the column that holds their sign-in; the sign-in itself where nobody goes by it any more. */
export const personName = (column: string): RawBuilder<string> =>
  sql<string>`coalesce((select known.name from "user" known where known.username = ${sql.ref(column)}), ${sql.ref(column)})`;
