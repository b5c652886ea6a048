// Makes the database where it is missing, migrates it, grants the application's role and, with --demo, loads the demo once.
import { sql } from "kysely";
import pg from "pg";
import { connect } from "../src/db/connect";
import { grantApplicationRole, migrateToLatest } from "../src/db/prepare";
import { loadDemo } from "../src/demo/load-demo";
import { completeStanding } from "../src/server/line/standing";
import { now } from "../src/server/now";

const url = process.env.DATABASE_URL ?? "";
const resetDemo = process.argv.includes("--reset-demo");
const address = new URL(url);
const name = decodeURIComponent(address.pathname.slice(1));
if (!/^[a-z][a-z0-9_]*$/.test(name)) throw new RangeError(`not a database name Sorrel would make: ${name}`);

/** Whoever is in a database that is there, and nobody of the demo: then it is a shop's own, and stays. */
async function isOwnShop(): Promise<boolean> {
  const client = new pg.Client({ connectionString: url });
  try {
    await client.connect();
    const { rows } = await client.query(
      `select count(*)::int as people, count(*) filter (where email like '%@tarnwick.invalid')::int as demo from "user"`,
    );
    return rows[0].people > 0 && rows[0].demo === 0;
  } catch {
    return false;
  } finally {
    await client.end().catch(() => {});
  }
}

async function ensureDatabase(): Promise<void> {
  const server = new URL(url);
  server.pathname = "/postgres";
  const client = new pg.Client({ connectionString: server.toString() });
  try {
    await client.connect();
    const { rowCount } = await client.query("select 1 from pg_database where datname = $1", [name]);
    if (rowCount && resetDemo) {
      await client.query(
        "select pg_terminate_backend(pid) from pg_stat_activity where datname = $1 and pid <> pg_backend_pid()",
        [name],
      );
      await client.query(`drop database "${name}"`);
    }
    if (!rowCount || resetDemo) await client.query(`create database "${name}" template template0 encoding 'UTF8'`);
  } catch (error) {
    // A managed server may not let us look; the database itself then has to be there, and migrating will tell.
    if (resetDemo) throw error;
  } finally {
    await client.end().catch(() => {});
  }
}

if (resetDemo && (await isOwnShop())) {
  console.error(`${name} is no demo: it has people of its own. Nothing was dropped.`);
  process.exit(1);
}
await ensureDatabase();
const db = connect(url, 1);
const ran = await migrateToLatest(db);
if (ran.length > 0) console.log(`Migrated: ${ran.join(", ")}`);
await grantApplicationRole(db, process.env.APP_DATABASE_PASSWORD ?? "");
if (process.argv.includes("--demo") || resetDemo) {
  const { rows } = await sql<{ empty: boolean }>`select not exists (select 1 from setup_entity) as empty`.execute(db);
  if (rows[0]?.empty) {
    const anchor = process.env.DEMO_ANCHOR ? new Date(process.env.DEMO_ANCHOR) : now();
    const loaded = await loadDemo(db, anchor, process.env.SEAL_PRIVATE_KEY ?? "", process.env.DEMO_ZONE);
    console.log(`Demo loaded: ${loaded.racks} racks, ${loaded.records} records, ${loaded.readings} readings.`);
  }
}
await completeStanding(db);
await db.destroy();
