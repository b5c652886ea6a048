import { Kysely, PostgresDialect } from "kysely";
import pg from "pg";
import type { Database } from "./schema";

// A date without a time stays text: turning it into a moment would move it across time zones.
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);

/** Compiling a query for the machine costs half a second where its rows are guessed too many, more than any query here takes. */
const SETTINGS = "-c jit=off";

/** Opens a pool on a connection address. Give it back with `destroy()`. */
export function connect(connectionString: string, most = 10): Kysely<Database> {
  const pool = new pg.Pool({ connectionString, max: most, connectionTimeoutMillis: 10_000, options: SETTINGS });
  // An idle connection that the server drops is not a reason to stop the application; the next query opens another.
  pool.on("error", () => {});
  return new Kysely<Database>({ dialect: new PostgresDialect({ pool }) });
}
export type Db = Kysely<Database>;

/** One connection of its own, with the query builder over it: for copying rows in, which a pool cannot do. End it with `end()`. */
export async function connectAlone(
  connectionString: string,
): Promise<{ readonly client: pg.Client; readonly db: Kysely<Database>; readonly end: () => Promise<void> }> {
  const client = new pg.Client({ connectionString, connectionTimeoutMillis: 10_000 });
  await client.connect();
  const pool = { connect: async () => Object.assign(client, { release: () => {} }), end: async () => {} };
  const db = new Kysely<Database>({ dialect: new PostgresDialect({ pool: pool as unknown as pg.Pool }) });
  return { client, db, end: () => client.end() };
}
