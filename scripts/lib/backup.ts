// What backup and restore share: the file they write and read, and the count and sum of every table.
import { spawn, spawnSync } from "node:child_process";
import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from "node:crypto";
import { closeSync, createReadStream, createWriteStream, openSync, readSync, statSync } from "node:fs";
import { pipeline } from "node:stream/promises";
import type pg from "pg";

/** One table as it stood: its rows, and the sum of their hashes, whatever their order. */
export type TableSum = { readonly rows: number; readonly sum: string };
export type Manifest = {
  readonly format: "sorrel-backup";
  readonly version: 1;
  /** When it was taken, ISO 8601, UTC. */
  readonly at: string;
  readonly shop: string;
  readonly migration: string;
  readonly tables: Readonly<Record<string, TableSum>>;
  /** Whether the keys are in it: without them the seals cannot be checked, nor new ones made. */
  readonly keys: boolean;
};
export class BackupError extends Error {}

/** Every table’s rows and sum, in the client’s own transaction. O(all rows), one pass a table. */
export async function tableSums(client: pg.Client): Promise<Record<string, TableSum>> {
  await client.query("set local timezone = 'UTC'; set local datestyle = 'ISO'; set local extra_float_digits = 1");
  const { rows: tables } = await client.query<{ name: string }>(
    "select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE' order by 1",
  );
  const sums: Record<string, TableSum> = {};
  for (const { name } of tables) {
    const { rows } = await client.query<{ rows: number; sum: string }>(
      `select count(*)::int as rows, coalesce(sum(('x' || left(md5(t::text), 15))::bit(60)::bigint), 0)::text as sum from ${client.escapeIdentifier(name)} t`,
    );
    sums[name] = rows[0] as TableSum;
  }
  return sums;
}

/** What differs between two, said table by table; empty where all is alike. */
export function differences(
  was: Readonly<Record<string, TableSum>>,
  is: Readonly<Record<string, TableSum>>,
): readonly string[] {
  return [...new Set([...Object.keys(was), ...Object.keys(is)])].sort().flatMap((table) => {
    const [before, after] = [was[table], is[table]];
    if (!before || !after) return [`${table} is ${before ? "missing" : "not of the backup"}`];
    if (before.rows !== after.rows) return [`${table} has ${after.rows} rows, the backup ${before.rows}`];
    return before.sum === after.sum ? [] : [`${table} holds other values than the backup`];
  });
}

const MAGIC = Buffer.from("SORREL1\n");
const TAG = 16;
// 128 MB and about half a second a try: who guesses pays for each guess.
const keyOf = (passphrase: string, salt: Buffer): Buffer =>
  scryptSync(passphrase.normalize("NFC"), salt, 32, { N: 2 ** 17, r: 8, p: 1, maxmem: 2 ** 28 });

/** Packs a directory’s files into one tar; with a passphrase by AES-256-GCM: magic, salt (16), nonce (12), data, tag (16). */
export async function pack(directory: string, files: readonly string[], to: string, passphrase: string | null) {
  const tar = spawn("tar", ["-C", directory, "-cf", "-", ...files], { stdio: ["ignore", "pipe", "inherit"] });
  const ended = new Promise<number | null>((resolve, reject) => tar.on("error", reject).on("close", resolve));
  const out = createWriteStream(to, { mode: 0o600, flags: "wx" });
  if (passphrase === null) await pipeline(tar.stdout, out);
  else {
    const [salt, nonce] = [randomBytes(16), randomBytes(12)];
    const cipher = createCipheriv("aes-256-gcm", keyOf(passphrase, salt), nonce);
    out.write(Buffer.concat([MAGIC, salt, nonce]));
    await pipeline(
      tar.stdout,
      async function* (source) {
        for await (const chunk of source) yield cipher.update(chunk as Buffer);
        yield cipher.final();
        yield cipher.getAuthTag();
      },
      out,
    );
  }
  if ((await ended) !== 0) throw new BackupError("The files could not be packed.");
}

/** Unpacks into a directory. Throws `BackupError` where the passphrase is missing or wrong, or the file is no backup or was changed. */
export async function unpack(file: string, directory: string, passphrase: string | null): Promise<void> {
  const head = Buffer.alloc(MAGIC.length + 28);
  const handle = openSync(file, "r");
  readSync(handle, head, 0, head.length, 0);
  closeSync(handle);
  let tarFile = file;
  if (head.subarray(0, MAGIC.length).equals(MAGIC)) {
    if (passphrase === null)
      throw new BackupError("It is encrypted. Give its passphrase in SORREL_BACKUP_PASSPHRASE and run this again.");
    const size = statSync(file).size;
    const tag = Buffer.alloc(TAG);
    const ends = openSync(file, "r");
    readSync(ends, tag, 0, TAG, size - TAG);
    closeSync(ends);
    const salt = head.subarray(MAGIC.length, MAGIC.length + 16);
    const decipher = createDecipheriv("aes-256-gcm", keyOf(passphrase, salt), head.subarray(MAGIC.length + 16));
    decipher.setAuthTag(tag);
    tarFile = `${directory}/unpacked.tar`;
    try {
      await pipeline(
        createReadStream(file, { start: head.length, end: size - TAG - 1 }),
        decipher,
        createWriteStream(tarFile, { mode: 0o600 }),
      );
    } catch {
      throw new BackupError("It cannot be opened: the passphrase is another, or the file was changed.");
    }
  }
  const done = spawnSync("tar", ["-C", directory, "-xf", tarFile, "manifest.json", "data.dump"], { encoding: "utf8" });
  if (done.status !== 0) throw new BackupError("It is no backup of Sorrel, or is cut short.");
  spawnSync("tar", ["-C", directory, "-xf", tarFile, "keys.json"], { stdio: "ignore" });
}
