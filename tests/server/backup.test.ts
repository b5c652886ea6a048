import { spawnSync } from "node:child_process";
import { generateKeyPairSync, randomBytes } from "node:crypto";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { sql } from "kysely";
import pg from "pg";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { differences } from "../../scripts/lib/backup";
import { type TestDatabase, testDatabase } from "../support/database";

const phrase = "seven wet carts at dusk";
const where = mkdtempSync(path.join(os.tmpdir(), "sorrel-backup-"));
const here = path.join(where, "here");
const elsewhere = path.join(where, "elsewhere");
const file = path.join(where, "shop.backup");
const env = process.env as Record<string, string>;
const keys = () => {
  const { privateKey, publicKey } = generateKeyPairSync("ed25519");
  return {
    signInSecret: randomBytes(32).toString("base64url"),
    sealPrivateKey: privateKey.export({ type: "pkcs8", format: "pem" }),
    sealPublicKey: publicKey.export({ type: "spki", format: "pem" }),
  };
};
const own = { ...keys(), sealPrivateKey: env.SEAL_PRIVATE_KEY, sealPublicKey: env.SEAL_PUBLIC_KEY };
const secretsOf = (directory: string) => path.join(directory, "secrets.json");
const run = (script: string, args: readonly string[], url: string, data: string, passphrase = "") => {
  const done = spawnSync(process.execPath, ["--import", "tsx", `scripts/${script}.ts`, ...args], {
    encoding: "utf8",
    env: {
      ...process.env,
      DATABASE_URL: url,
      APP_DATABASE_URL: "",
      SORREL_DATA: data,
      SORREL_BACKUP_PASSPHRASE: passphrase,
      NODE_OPTIONS: "",
    },
  });
  return { status: done.status, said: done.stdout + done.stderr };
};
const serverUrl = env.TEST_SERVER_URL ?? "";
const named = (name: string) => {
  const url = new URL(serverUrl);
  url.pathname = `/${name}`;
  return url.toString();
};
async function ask<T extends pg.QueryResultRow>(url: string, text: string): Promise<readonly T[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<T>(text)).rows;
  } finally {
    await client.end();
  }
}
const isThere = async (name: string) =>
  (await ask(serverUrl, `select 1 as one from pg_database where datname = '${name}'`)).length === 1;

describe("a shop backed up, and brought back on another machine", { timeout: 120_000 }, () => {
  let t: TestDatabase;
  const target = `r_${randomBytes(6).toString("hex")}`;
  beforeAll(async () => {
    t = await testDatabase();
    const passwords = {
      ownerPassword: decodeURIComponent(new URL(t.ownerUrl).password),
      applicationPassword: env.APP_DATABASE_PASSWORD,
    };
    for (const [directory, made] of [
      [here, own],
      [elsewhere, keys()],
    ] as const) {
      spawnSync("mkdir", ["-p", directory]);
      writeFileSync(secretsOf(directory), JSON.stringify({ ...passwords, ...made }));
    }
    const made = run("backup", ["--to", file], t.ownerUrl, here, phrase);
    expect(made.said).toContain("encrypted");
    expect(made.status).toBe(0);
  }, 120_000);
  afterAll(async () => {
    await t.drop();
    await ask(serverUrl, `drop database if exists ${target} with (force)`);
    rmSync(where, { recursive: true, force: true });
  });

  test("is one file that only its owner reads, and says nothing of the shop without the passphrase", () => {
    expect(statSync(file).mode & 0o077).toBe(0);
    const bytes = readFileSync(file);
    for (const told of ["secrets", "manifest", "Saltmarsh", "PRIVATE KEY"]) expect(bytes.includes(told)).toBe(false);
    // Nothing of the work is left behind.
    expect(readdirSync(here)).toEqual(["secrets.json"]);
  });
  test("tells the shop of itself, so that it knows how old its newest backup is", async () => {
    const rows = await ask<{ file: string; encrypted: boolean; scheduled: boolean; size_bytes: string }>(
      t.ownerUrl,
      "select file, encrypted, scheduled, size_bytes from backup_taken",
    );
    expect(rows).toEqual([
      { file: path.basename(file), encrypted: true, scheduled: false, size_bytes: String(statSync(file).size) },
    ]);
  });
  test("is taken by itself when the shop's interval says so, and not before; the application cannot say that one was taken", async () => {
    const taken = () => ask(t.ownerUrl, "select id from backup_taken where scheduled");
    const every = (hours: number | null) =>
      ask(
        t.ownerUrl,
        `insert into setup_version (id, entity_id, valid_from, recorded_at, by_user, reason, data)
        select gen_random_uuid(), entity_id, valid_from + interval '1 second', recorded_at, by_user, 'every', data || '{"backupEveryHours": ${hours}}'
        from (select v.* from setup_version v join setup_entity e on e.id = v.entity_id where e.kind = 'site' order by valid_from desc limit 1) newest`,
      );
    await every(null);
    expect(run("keep-backups", ["--once"], t.ownerUrl, here).status).toBe(0);
    expect(await taken()).toHaveLength(0);
    await every(24);
    // One was taken just now.
    run("keep-backups", ["--once"], t.ownerUrl, here);
    expect(await taken()).toHaveLength(0);
    await ask(t.ownerUrl, "update backup_taken set taken_at = taken_at - interval '25 hours'");
    const done = run("keep-backups", ["--once"], t.ownerUrl, here);
    expect(done.said).toContain("backup taken");
    expect(await taken()).toHaveLength(1);
    expect(readdirSync(path.join(here, "backups"))).toHaveLength(1);
    rmSync(path.join(here, "backups"), { recursive: true });
    await expect(
      sql`insert into backup_taken (id, taken_at, file, size_bytes, encrypted, scheduled) values (gen_random_uuid(), now(), 'x', 1, true, true)`.execute(
        t.app,
      ),
    ).rejects.toThrow(/permission denied/);
  });
  test("is never written over", () => {
    const again = run("backup", ["--to", file], t.ownerUrl, here, phrase);
    expect(again).toMatchObject({ status: 1 });
    expect(again.said).toContain("is there already");
  });
  test.each([
    ["no passphrase", "", "It is encrypted"],
    ["another passphrase", "seven dry carts at dusk", "cannot be opened"],
  ])("with %s it is refused, and no database begun", async (_, given, said) => {
    const tried = run("restore", [file], named(target), elsewhere, given);
    expect(tried.status).toBe(1);
    expect(tried.said).toContain(said);
    expect(await isThere(target)).toBe(false);
  });
  test("changed by one bit it is refused", async () => {
    const bent = path.join(where, "bent.backup");
    const bytes = readFileSync(file);
    const middle = bytes.length >> 1;
    bytes[middle] = (bytes[middle] ?? 0) ^ 1;
    writeFileSync(bent, bytes);
    expect(run("restore", [bent], named(target), elsewhere, phrase)).toMatchObject({ status: 1 });
    expect(await isThere(target)).toBe(false);
  });
  test("comes back with all it held, by the keys it was sealed with; those that were here are kept", async () => {
    const done = run("restore", [file], named(target), elsewhere, phrase);
    expect(done.said).toContain("tables are as they were backed up");
    expect(done.said).toContain("Nothing differs.");
    expect(done.said).toContain("Restored.");
    expect(done.status).toBe(0);
    const count = "select (select count(*) from record)::int as records, (select count(*) from file)::int as files";
    expect(await ask(named(target), count)).toEqual(await ask(t.ownerUrl, count));
    expect(JSON.parse(readFileSync(secretsOf(elsewhere), "utf8"))).toMatchObject(own);
    expect(readdirSync(elsewhere).filter((name) => name.startsWith("secrets-before-"))).toHaveLength(1);
    // Keys and data do not stay unpacked.
    expect(readdirSync(elsewhere).filter((name) => name.startsWith("restore-"))).toEqual([]);
    // And the application may use it, with no more rights than it had.
    const asApplication = new URL(env.APP_DATABASE_URL ?? "");
    asApplication.pathname = `/${target}`;
    expect(await ask(asApplication.toString(), "select 1 as one from record limit 1")).toHaveLength(1);
    await expect(ask(asApplication.toString(), "delete from record")).rejects.toThrow(/permission denied/);
  });
  test("is not written over a database that is there", async () => {
    const again = run("restore", [file], named(target), elsewhere, phrase);
    expect(again.status).toBe(1);
    expect(again.said).toContain("nothing is written over it");
    expect(await isThere(target)).toBe(true);
  });
  test("without its keys it says so before it writes", async () => {
    const bare = path.join(where, "bare");
    spawnSync("mkdir", ["-p", bare]);
    const open = path.join(where, "open.backup");
    expect(run("backup", ["--to", open], t.ownerUrl, here).said).toContain("is not encrypted");
    spawnSync("tar", ["-C", bare, "-xf", open]);
    expect(existsSync(path.join(bare, "keys.json"))).toBe(true);
    const keyless = path.join(where, "keyless.backup");
    spawnSync("tar", ["-C", bare, "-cf", keyless, "manifest.json", "data.dump"]);
    const tried = run("restore", [keyless], named(`${target}_b`), elsewhere);
    expect(tried.status).toBe(1);
    expect(tried.said).toContain("keys are missing");
    expect(await isThere(`${target}_b`)).toBe(false);
    // A newer Sorrel's is refused before it is written, by name.
    const newer = {
      ...JSON.parse(readFileSync(path.join(bare, "manifest.json"), "utf8")),
      migration: "2999-01-01T000000-x",
    };
    const asMade = readFileSync(path.join(bare, "manifest.json"), "utf8");
    writeFileSync(path.join(bare, "manifest.json"), JSON.stringify(newer));
    spawnSync("tar", ["-C", bare, "-cf", `${keyless}3`, "manifest.json", "keys.json", "data.dump"]);
    const early = run("restore", [`${keyless}3`], named(`${target}_b`), elsewhere);
    expect(early.status).toBe(1);
    expect(early.said).toContain("newer Sorrel (2999-01-01T000000-x)");
    writeFileSync(path.join(bare, "manifest.json"), asMade);
    // What does not match what was summed is named and taken away again.
    const manifest = JSON.parse(readFileSync(path.join(bare, "manifest.json"), "utf8"));
    manifest.tables.record.rows += 1;
    writeFileSync(path.join(bare, "manifest.json"), JSON.stringify(manifest));
    spawnSync("tar", ["-C", bare, "-cf", `${keyless}2`, "manifest.json", "keys.json", "data.dump"]);
    const bent = run("restore", [`${keyless}2`], named(`${target}_b`), elsewhere);
    expect(bent.status).toBe(1);
    expect(bent.said).toMatch(/record has \d+ rows, the backup \d+/);
    expect(await isThere(`${target}_b`)).toBe(false);
  });
  test("what is no backup is said to be none", () => {
    const note = path.join(where, "note.txt");
    writeFileSync(note, "rack 1042 dft 72");
    expect(run("restore", [note], named(target), elsewhere).said).toContain("no backup of Sorrel");
  });
});

test("two lots of tables are told apart: one missing, one more, other rows, other values", () => {
  const sum = (rows: number, of: string) => ({ rows, sum: of });
  expect(differences({ a: sum(1, "1") }, { a: sum(1, "1") })).toEqual([]);
  expect(
    differences({ a: sum(1, "1"), b: sum(2, "1"), c: sum(3, "1") }, { b: sum(1, "1"), c: sum(3, "2"), d: sum(0, "0") }),
  ).toEqual([
    "a is missing",
    "b has 1 rows, the backup 2",
    "c holds other values than the backup",
    "d is not of the backup",
  ]);
});
