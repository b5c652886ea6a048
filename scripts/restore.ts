// npm run restore -- FILE [--own]: a backup into a database that is not there yet; compared table by table, then verified.
import { spawnSync } from "node:child_process";
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import pg from "pg";
import { migrationProvider } from "../src/db/migrations";
import { BackupError, differences, type Manifest, tableSums, unpack } from "./lib/backup";
import { dataDir, environmentFor, findPostgres, runTs, secrets } from "./lib/environment.mjs";

type Keys = { readonly signInSecret: string; readonly sealPrivateKey: string; readonly sealPublicKey: string };
const url = process.env.DATABASE_URL ?? "";
const passphrase = process.env.SORREL_BACKUP_PASSPHRASE || null;
const file = process.argv.slice(2).find((word) => !word.startsWith("--"));
const name = decodeURIComponent(new URL(url).pathname.slice(1));
const server = new URL(url);
server.pathname = "/postgres";

async function restore(from: string, work: string): Promise<void> {
  if (!existsSync(from)) throw new BackupError(`There is no ${from}.`);
  if (!/^[a-z][a-z0-9_]*$/.test(name)) throw new BackupError(`${name} is no database name Sorrel would make.`);
  await unpack(from, work, passphrase);
  const manifest = JSON.parse(readFileSync(path.join(work, "manifest.json"), "utf8")) as Manifest;
  if (manifest.format !== "sorrel-backup" || manifest.version !== 1)
    throw new BackupError("It is a backup of another version of Sorrel.");
  if (!(manifest.migration in (await migrationProvider.getMigrations())))
    throw new BackupError(
      `It was made by a newer Sorrel (${manifest.migration}). Bring this one to that version, then restore.`,
    );
  console.log(`${manifest.shop || "A shop not begun"}, backed up at ${manifest.at}.`);
  const keysFile = path.join(work, "keys.json");
  if (!existsSync(keysFile) && !process.argv.includes("--without-keys"))
    throw new BackupError(
      "Its keys are missing: what was sealed could not be checked. Bring the secrets.json it was sealed with, and add --without-keys.",
    );
  await makeDatabase();
  try {
    await fill(work, manifest, keysFile);
  } catch (error) {
    // Half a shop is none: what was begun here is taken away again.
    await onServer((client) => client.query(`drop database ${client.escapeIdentifier(name)} with (force)`));
    throw error;
  }
}

/** The data written and compared with what was backed up, then the keys in their place. */
async function fill(work: string, manifest: Manifest, keysFile: string): Promise<void> {
  console.log("Writing the data …");
  const address = new URL(url);
  const password = decodeURIComponent(address.password);
  address.password = "";
  const written = spawnSync(
    path.join(findPostgres() ?? "", "pg_restore"),
    ["--exit-on-error", "--no-owner", "--no-privileges", `--dbname=${address}`, path.join(work, "data.dump")],
    { env: { ...process.env, PGPASSWORD: password }, stdio: ["ignore", "inherit", "inherit"] },
  );
  if (written.status !== 0) throw new BackupError("pg_restore failed; see above.");
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query("begin read only");
  const sums = await tableSums(client);
  await client.end();
  const differ = differences(manifest.tables, sums);
  if (differ.length > 0) throw new BackupError(`It is not what was backed up: ${differ.join("; ")}.`);
  console.log(`All ${Object.keys(sums).length} tables are as they were backed up.`);
  if (existsSync(keysFile)) keepKeys(JSON.parse(readFileSync(keysFile, "utf8")) as Keys);
}

async function onServer<T>(work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: server.toString() });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** A database that is there is never written over. */
const makeDatabase = (): Promise<unknown> =>
  onServer(async (client) => {
    const { rowCount } = await client.query("select 1 from pg_database where datname = $1", [name]);
    if (rowCount) {
      const aside = `${name}_before_${new Date().toISOString().slice(0, 10).replaceAll("-", "")}`;
      throw new BackupError(
        `${name} is there already, and nothing is written over it. Stop Sorrel, then set it aside: alter database ${name} rename to ${aside}`,
      );
    }
    return client.query(`create database ${client.escapeIdentifier(name)} template template0 encoding 'UTF8'`);
  });

/** The keys it was sealed with take the place of this machine’s, which are kept beside them. */
function keepKeys(keys: Keys): void {
  const here = secrets();
  if (here.sealPrivateKey === keys.sealPrivateKey && here.signInSecret === keys.signInSecret) return;
  const secretsFile = path.join(dataDir, "secrets.json");
  const aside = path.join(dataDir, `secrets-before-${new Date().toISOString().slice(0, 19).replaceAll(":", "")}Z.json`);
  copyFileSync(secretsFile, aside);
  writeFileSync(secretsFile, JSON.stringify({ ...here, ...keys }, null, 2), { mode: 0o600 });
  console.log(`The shop’s keys are in place; those that were here are kept as ${aside}.`);
  console.log("Another shop or demo on this machine was sealed with those, and does not verify by the new ones.");
}

if (!file) {
  console.error("Name the backup: npm run restore -- FILE");
  process.exit(1);
}
mkdirSync(dataDir, { recursive: true });
const work = mkdtempSync(path.join(dataDir, "restore-"));
try {
  await restore(path.resolve(file), work);
} catch (error) {
  if (!(error instanceof BackupError)) throw error;
  console.error(error.message);
  process.exitCode = 1;
} finally {
  rmSync(work, { recursive: true, force: true });
}
if (process.exitCode !== 1) {
  // Only now: either ends the process where it fails, and keys must not stay unpacked.
  const env = environmentFor(url);
  runTs("scripts/prepare-database.ts", [], env);
  runTs("scripts/verify-record.ts", [], env);
  console.log("Restored.");
}
