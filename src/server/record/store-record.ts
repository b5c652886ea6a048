import type { Kysely } from "kysely";
import { kindOf } from "@/core/kinds";
import { wellFormedDeep } from "@/core/text";
import type { DetailTable } from "@/db/detail-tables";
import { personName } from "@/db/queries/person-name";
import type { Database, EvidenceGradeColumn, RecordTable } from "@/db/schema";
import { refreshStanding } from "../line/standing";
import { type EntryOutcome, refuse } from "../outcome";
import { canonicalText, sha256 } from "./canonical";
import { contentHash, type DetailRows, detailsDigest } from "./content";
import { insertDetails } from "./insert-details";

/** What a record says before it is stored. Ids are UUID v7 made by whoever caught it, so that a retry is the same record. */
export type NewRecord = {
  readonly id: string;
  readonly kind: string;
  readonly happenedAt: Date;
  readonly by: string;
  readonly grade: EvidenceGradeColumn;
  readonly idempotencyKey: string;
  readonly instrumentId?: string | null;
  readonly jobId?: string | null;
  readonly rackId?: string | null;
  readonly pieceId?: string | null;
  readonly bathId?: string | null;
  readonly bakeId?: string | null;
  readonly structureId?: string | null;
  readonly caseId?: string | null;
  readonly fileId?: string | null;
  readonly supersedes?: {
    readonly recordId: string;
    readonly reason: string;
    /** It follows in the ordinary course of things (a load pulled, a stop of the line); it corrects nothing. */
    readonly inCourse?: boolean;
  } | null;
  readonly details: DetailRows;
};
export type StoreOutcome =
  | { readonly kind: "stored" | "already-stored"; readonly recordId: string; readonly contentHash: string }
  /** The key was used for something else: refused, and the stored record named. */
  | { readonly kind: "key-conflict"; readonly recordId: string }
  /** Someone else corrected the same record first: theirs is named. */
  | { readonly kind: "already-superseded"; readonly recordId: string; readonly by: string; readonly reason: string }
  | { readonly kind: "unknown-superseded"; readonly recordId: string };

const UNIQUE_VIOLATION = "23505";

/** Hash of what was asked to be stored, without the id: the same content under the same key is a retry. */
const requestHash = (record: NewRecord, digest: string): string => {
  const { id: _, details: __, ...said } = record;
  return sha256(`${canonicalText(said)}\n${digest}`);
};

/**
 * Stores a record and its details in one transaction, or nothing. The same idempotency key with the same content
 * answers `already-stored`; with other content `key-conflict`. I/O throws.
 */
export async function storeRecord(db: Kysely<Database>, record: NewRecord, storedAt: Date): Promise<StoreOutcome> {
  const whole = async (trx: Kysely<Database>) => {
    const outcome = await storeIn(trx, record, storedAt);
    if (outcome.kind === "stored") await refreshStanding(trx, await racksOf(trx, [record]));
    return outcome;
  };
  try {
    return await (db.isTransaction ? whole(db) : db.transaction().execute(whole));
  } catch (error) {
    if ((error as { code?: string }).code !== UNIQUE_VIOLATION || db.isTransaction) throw error;
    const clash = await findClash(db, record);
    if (clash) return clash;
    throw error;
  }
}

/** Stores a record within a transaction; the answer as the outcome of what a person did. */
export async function storeOne(trx: Kysely<Database>, record: NewRecord, at: Date): Promise<EntryOutcome> {
  return outcomeOf(await storeRecord(trx, record, at));
}
/** What the store answered, as an entry's outcome. */
export const outcomeOf = (outcome: StoreOutcome): EntryOutcome =>
  outcome.kind === "stored" || outcome.kind === "already-stored"
    ? { ok: true, recordId: outcome.recordId, already: outcome.kind === "already-stored" }
    : refuse(outcome);

/** Stores one record within a transaction that keeps the racks' standing itself. */
export async function storeIn(trx: Kysely<Database>, given: NewRecord, storedAt: Date): Promise<StoreOutcome> {
  // What is hashed is what is stored: half a sign would come back as another.
  const record = wellFormedDeep(given);
  const clash = await findClash(trx, record);
  if (clash) return clash;
  const digest = detailsDigest(record.details);
  if (record.supersedes) {
    const may = kindOf(record.kind)?.superseded;
    if (may === "never" || (record.supersedes.inCourse && may !== "in-course-too"))
      throw new RangeError(`no ${record.kind} is superseded ${record.supersedes.inCourse ? "in course" : "at all"}`);
    const old = await trx
      .selectFrom("record")
      .select("kind")
      .where("id", "=", record.supersedes.recordId)
      .executeTakeFirst();
    if (old?.kind !== record.kind) return { kind: "unknown-superseded", recordId: record.supersedes.recordId };
  }
  const row = baseRow(record, storedAt, digest);
  await trx.insertInto("record").values(row).execute();
  for (const [table, rows] of Object.entries(record.details)) {
    await insertDetails(
      trx,
      table as DetailTable,
      rows.map((values) => ({ record_id: record.id, values })),
    );
  }
  return { kind: "stored", recordId: record.id, contentHash: row.content_hash };
}

/** The racks whose standing some records may change: those they are of, those that rode in their loads and those their panels stand for, as they are and as they were. */
export async function racksOf(trx: Kysely<Database>, records: readonly NewRecord[]): Promise<readonly string[]> {
  const racks = new Set(
    records.flatMap((r) => [
      ...(r.rackId ? [r.rackId] : []),
      ...(r.details.bake_place ?? []).map((p) => p.rack_id),
      ...(r.details.stands_for ?? []).map((p) => p.rack_id),
    ]),
  );
  const before = records.flatMap((r) => r.supersedes?.recordId ?? []);
  for (const table of before.length > 0 ? (["bake_place", "stands_for"] as const) : [])
    for (const { rack_id } of await trx.selectFrom(table).select("rack_id").where("record_id", "in", before).execute())
      racks.add(rack_id);
  return [...racks];
}

/** The base row as it will stand, content hash included. */
export function baseRow(record: NewRecord, storedAt: Date, digest = detailsDigest(record.details)): RecordTable {
  const base = {
    id: record.id,
    kind: record.kind,
    happened_at: record.happenedAt,
    stored_at: storedAt,
    by_user: record.by,
    grade: record.grade,
    instrument_id: record.instrumentId ?? null,
    job_id: record.jobId ?? null,
    rack_id: record.rackId ?? null,
    piece_id: record.pieceId ?? null,
    bath_id: record.bathId ?? null,
    bake_id: record.bakeId ?? null,
    structure_id: record.structureId ?? null,
    case_id: record.caseId ?? null,
    file_id: record.fileId ?? null,
    idempotency_key: record.idempotencyKey,
    request_hash: requestHash(record, digest),
    supersedes: record.supersedes?.recordId ?? null,
    reason: record.supersedes?.reason ?? null,
    in_course: record.supersedes?.inCourse ? true : null,
  };
  return { ...base, content_hash: contentHash(base, { digest }) };
}

async function findClash(db: Kysely<Database>, record: NewRecord): Promise<StoreOutcome | null> {
  const columns = [
    "id",
    "idempotency_key",
    "request_hash",
    "content_hash",
    personName("by_user").as("by_user"),
    "reason",
  ] as const;
  const answer = (same: { id: string; request_hash: string; content_hash: string }): StoreOutcome =>
    same.request_hash === requestHash(record, detailsDigest(record.details))
      ? { kind: "already-stored", recordId: same.id, contentHash: same.content_hash }
      : { kind: "key-conflict", recordId: same.id };
  const same = await db
    .selectFrom("record")
    .select(columns)
    .where("idempotency_key", "=", record.idempotencyKey)
    .executeTakeFirst();
  if (same) return answer(same);
  if (!record.supersedes) return null;
  const first = await db
    .selectFrom("record")
    .select(columns)
    .where("supersedes", "=", record.supersedes.recordId)
    .executeTakeFirst();
  if (!first) return null;
  // Sent twice at once: the other of the two was stored between these two looks.
  if (first.idempotency_key === record.idempotencyKey) return answer(first);
  return { kind: "already-superseded", recordId: first.id, by: first.by_user, reason: first.reason ?? "" };
}
