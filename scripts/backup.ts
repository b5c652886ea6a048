// npm run backup [-- --own] [-- --to FILE]: data, files and keys into one file; encrypted by SORREL_BACKUP_PASSPHRASE where it is set.
import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import pg from "pg";
import { newId, now } from "../src/server/now";
import { type Manifest, pack, tableSums } from "./lib/backup";
import { dataDir, findPostgres, secrets } from "./lib/environment.mjs";

const url = process.env.DATABASE_URL ?? "";
const passphrase = process.env.SORREL_BACKUP_PASSPHRASE || null;
const at = now();
const named = process.argv.indexOf("--to");
const to = path.resolve(
  named > 0
    ? (process.argv[named + 1] ?? "")
    : path.join(dataDir, "backups", `sorrel-${at.toISOString().slice(0, 19).replaceAll(":", "")}Z.backup`),
);
if (existsSync(to)) {
  console.error(`${to} is there already, and a backup is never written over. Name another file.`);
  process.exit(1);
}
mkdirSync(path.dirname(to), { recursive: true });
mkdirSync(dataDir, { recursive: true });
const work = mkdtempSync(path.join(dataDir, "backup-"));
const client = new pg.Client({ connectionString: url });
try {
  await client.connect();
  // What is dumped and what is summed are one moment, however much is recorded meanwhile.
  await client.query("begin isolation level repeatable read read only");
  const { rows: snapshot } = await client.query<{ id: string }>("select pg_export_snapshot() as id");
  const address = new URL(url);
  const password = decodeURIComponent(address.password);
  address.password = "";
  console.log("Reading the data …");
  const dumped = spawnSync(
    path.join(findPostgres() ?? "", "pg_dump"),
    [
      "--format=custom",
      "--no-owner",
      "--no-privileges",
      `--snapshot=${snapshot[0]?.id}`,
      `--file=${path.join(work, "data.dump")}`,
      address.toString(),
    ],
    { env: { ...process.env, PGPASSWORD: password }, stdio: ["ignore", "inherit", "inherit"] },
  );
  if (dumped.status !== 0) throw new Error("pg_dump failed; see above.");
  console.log("Summing every table …");
  const tables = await tableSums(client);
  const { rows: shop } = await client.query<{ name: string }>(
    `select v.data->>'name' as name from setup_entity e join setup_version v on v.entity_id = e.id
     where e.kind = 'site' order by v.valid_from desc limit 1`,
  );
  const { rows: newest } = await client.query<{ name: string }>(
    "select name from kysely_migration order by name desc limit 1",
  );
  await client.query("commit");
  const manifest: Manifest = {
    format: "sorrel-backup",
    version: 1,
    at: at.toISOString(),
    shop: shop[0]?.name ?? "",
    migration: newest[0]?.name ?? "",
    tables,
    keys: true,
  };
  writeFileSync(path.join(work, "manifest.json"), JSON.stringify(manifest, null, 2));
  const { signInSecret, sealPrivateKey, sealPublicKey } = secrets();
  writeFileSync(path.join(work, "keys.json"), JSON.stringify({ signInSecret, sealPrivateKey, sealPublicKey }), {
    mode: 0o600,
  });
  rmSync(`${to}.part`, { force: true });
  await pack(work, ["manifest.json", "keys.json", "data.dump"], `${to}.part`, passphrase);
  renameSync(`${to}.part`, to);
  // Told to the shop itself, so that it can say how old its newest backup is.
  await client.query(
    "insert into backup_taken (id, taken_at, file, size_bytes, encrypted, scheduled) values ($1, $2, $3, $4, $5, $6)",
    [newId(), at, path.basename(to), statSync(to).size, passphrase !== null, process.argv.includes("--scheduled")],
  );
  const rows = Object.values(tables).reduce((sum, t) => sum + t.rows, 0);
  const size = (statSync(to).size / 1e6).toFixed(1);
  console.log(
    `${manifest.shop || "A shop not begun"}: ${rows} rows of ${Object.keys(tables).length} tables, ${size} MB.`,
  );
  console.log(`Kept as ${to}${passphrase ? ", encrypted" : ""}.`);
  if (!passphrase)
    console.log("It holds people and keys, and is not encrypted: set SORREL_BACKUP_PASSPHRASE, or lock it away.");
  console.log("Copy it to another machine: a backup on the same disk is lost with it.");
} finally {
  await client.end().catch(() => {});
  rmSync(`${to}.part`, { force: true });
  rmSync(work, { recursive: true, force: true });
}
