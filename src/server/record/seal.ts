import { createPrivateKey, createPublicKey, sign, verify } from "node:crypto";
import { type Kysely, sql } from "kysely";
import { lock, take } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { canonicalText, merkleRoot, sha256 } from "./canonical";
import { contentHash, type DetailRows } from "./content";
import { readDetails } from "./read-details";

export const FIRST_PREVIOUS_HASH = "0".repeat(64);

type SealHead = { number: number; sealed_at: Date; member_count: number; merkle_root: string; previous_hash: string };
const sealHash = (seal: SealHead): string =>
  sha256(
    canonicalText({
      number: seal.number,
      sealed_at: seal.sealed_at,
      member_count: seal.member_count,
      merkle_root: seal.merkle_root,
      previous_hash: seal.previous_hash,
    }),
  );

/**
 * Seals every record that no seal lists yet: members by row, a Merkle root over their content hashes, the hash of the
 * seal before, signed with an Ed25519 key kept outside the database. Returns null when there is nothing to seal.
 */
export async function sealRecords(
  db: Kysely<Database>,
  privateKeyPem: string,
  sealedAt: Date,
): Promise<{ number: number; hash: string; members: number } | null> {
  return db.transaction().execute(async (trx) => {
    // Only one sealer at a time; writers are never held up by it.
    await take(trx, [lock.seal]);
    const members = await trx
      .selectFrom("record")
      .select(["id", "content_hash"])
      .where(({ not, exists, selectFrom }) =>
        not(
          exists(
            selectFrom("seal_member")
              .select("seal_member.record_id")
              .whereRef("seal_member.record_id", "=", "record.id"),
          ),
        ),
      )
      .orderBy("stored_at")
      .orderBy("id")
      .execute();
    if (members.length === 0) return null;
    const last = await trx
      .selectFrom("seal")
      .select(["number", "hash"])
      .orderBy("number", "desc")
      .limit(1)
      .executeTakeFirst();
    const head: SealHead = {
      number: (last?.number ?? 0) + 1,
      sealed_at: sealedAt,
      member_count: members.length,
      merkle_root: merkleRoot(members.map((m) => `${m.id}:${m.content_hash}`)),
      previous_hash: last?.hash ?? FIRST_PREVIOUS_HASH,
    };
    const hash = sealHash(head);
    const signature = sign(null, Buffer.from(hash, "hex"), createPrivateKey(privateKeyPem)).toString("base64");
    await trx
      .insertInto("seal")
      .values({ ...head, hash, signature })
      .execute();
    await sql`insert into seal_member (record_id, seal_number, position, content_hash)
      select id, ${head.number}, ordinality - 1, hash from unnest(${members.map((m) => m.id)}::uuid[], ${members.map((m) => m.content_hash)}::text[]) with ordinality as m (id, hash, ordinality)`.execute(
      trx,
    );
    return { number: head.number, hash, members: members.length };
  });
}

export type Discrepancy =
  | {
      readonly kind: "changed" | "removed" | "slipped-in" | "file-changed";
      readonly recordId: string;
      readonly seal: number | null;
    }
  | { readonly kind: "member-altered"; readonly recordId: string; readonly seal: number }
  | { readonly kind: "seal-altered" | "seal-missing" | "signature-wrong" | "chain-broken"; readonly seal: number };
export type Verification = {
  readonly records: number;
  readonly seals: number;
  readonly unsealed: number;
  readonly newestSeal: string | null;
  readonly discrepancies: readonly Discrepancy[];
};

/**
 * Recomputes every record's content hash from base and detail rows, every Merkle root and the chain of signed seals,
 * and names whatever differs. A record stored before the second-newest seal and yet in none was slipped in.
 * O(records), read in pages. Someone with the database, the key and every printed seal could still hide a change.
 */
export async function verifyRecord(db: Kysely<Database>, publicKeyPem: string): Promise<Verification> {
  const seals = await db.selectFrom("seal").selectAll().orderBy("number").execute();
  const discrepancies: Discrepancy[] = [];
  let previousHash = FIRST_PREVIOUS_HASH;
  let expectedNumber = 1;
  for (const seal of seals) {
    while (expectedNumber < seal.number) discrepancies.push({ kind: "seal-missing", seal: expectedNumber++ });
    expectedNumber++;
    if (sealHash(seal) !== seal.hash) discrepancies.push({ kind: "seal-altered", seal: seal.number });
    if (seal.previous_hash !== previousHash) discrepancies.push({ kind: "chain-broken", seal: seal.number });
    if (
      !verify(null, Buffer.from(seal.hash, "hex"), createPublicKey(publicKeyPem), Buffer.from(seal.signature, "base64"))
    )
      discrepancies.push({ kind: "signature-wrong", seal: seal.number });
    previousHash = seal.hash;
    const members = await db
      .selectFrom("seal_member")
      .select(["record_id", "content_hash"])
      .where("seal_number", "=", seal.number)
      .orderBy("position")
      .execute();
    if (
      members.length !== seal.member_count ||
      merkleRoot(members.map((m) => `${m.record_id}:${m.content_hash}`)) !== seal.merkle_root
    )
      discrepancies.push({ kind: "seal-altered", seal: seal.number });
  }
  const { rows: removed } = await sql<{
    record_id: string;
    seal_number: number;
  }>`select m.record_id, m.seal_number from seal_member m left join record r on r.id = m.record_id where r.id is null`.execute(
    db,
  );
  for (const row of removed) discrepancies.push({ kind: "removed", recordId: row.record_id, seal: row.seal_number });
  const secondNewest = seals[seals.length - 2]?.sealed_at ?? null;
  let records = 0;
  let unsealed = 0;
  let after = "00000000-0000-0000-0000-000000000000";
  for (;;) {
    const page = await db
      .selectFrom("record")
      .leftJoin("seal_member", "seal_member.record_id", "record.id")
      .selectAll("record")
      .select(["seal_member.seal_number", "seal_member.content_hash as sealed_hash"])
      .where("record.id", ">", after)
      .orderBy("record.id")
      .limit(500)
      .execute();
    if (page.length === 0) break;
    const details = await readDetails(
      db,
      page.map((row) => row.id),
    );
    for (const row of page) {
      records++;
      const { seal_number, sealed_hash, content_hash, ...base } = row;
      const said = (details.get(row.id) ?? {}) as DetailRows;
      const wanted = seal_number === null ? content_hash : sealed_hash;
      const found = contentHash(base, said);
      const hash = found !== wanted && wanted !== null && lostHalf(base, said, wanted) ? wanted : found;
      if (seal_number === null) {
        unsealed++;
        if (hash !== content_hash) discrepancies.push({ kind: "changed", recordId: row.id, seal: null });
        else if (secondNewest && row.stored_at < secondNewest)
          discrepancies.push({ kind: "slipped-in", recordId: row.id, seal: null });
      } else if (hash !== sealed_hash) discrepancies.push({ kind: "changed", recordId: row.id, seal: seal_number });
    }
    after = (page[page.length - 1] as { id: string }).id;
  }
  discrepancies.push(...(await changedFiles(db)));
  return { records, seals: seals.length, unsealed, newestSeal: seals[seals.length - 1]?.hash ?? null, discrepancies };
}

/**
 * Whether a record is as it was but for half a sign that the database could not keep: records of before text was made well
 * formed. Each half there is, put back in the one place where it was lost, is tried against the hash. O(2048 · record), only
 * for a record that holds the sign for what is lost.
 */
function lostHalf(base: Parameters<typeof contentHash>[0], details: DetailRows, wanted: string): boolean {
  const text = JSON.stringify([base, details]);
  if (text.split("\uFFFD").length !== 2) return false;
  const put = (half: string) => (_: string, value: unknown) =>
    typeof value === "string" ? value.replace("\uFFFD", half) : value;
  for (let code = 0xd800; code <= 0xdfff; code++) {
    const half = String.fromCharCode(code);
    const head = Object.fromEntries(
      Object.entries(base).map(([key, value]) => [key, put(half)(key, value)]),
    ) as unknown as typeof base;
    const rows = Object.fromEntries(
      Object.entries(details).map(([table, of]) => [
        table,
        (of as readonly object[]).map((row) =>
          Object.fromEntries(Object.entries(row).map(([key, value]) => [key, put(half)(key, value)])),
        ),
      ]),
    ) as DetailRows;
    if (contentHash(head, rows) === wanted) return true;
  }
  return false;
}

async function changedFiles(db: Kysely<Database>): Promise<Discrepancy[]> {
  const { rows } = await sql<{
    id: string;
  }>`select r.id from file f join record r on r.file_id = f.id where encode(sha256(f.bytes), 'hex') <> f.sha256`.execute(
    db,
  );
  return rows.map((row) => ({ kind: "file-changed", recordId: row.id, seal: null }));
}
