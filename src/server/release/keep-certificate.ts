import { type Kysely, sql } from "kysely";
import type { Json } from "@/db/detail-tables";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { newId } from "../now";
import { type Outcome, refuse } from "../outcome";
import { sha256 } from "../record/canonical";
import { storeOne } from "../record/store-record";
import { type Clock, write } from "../write";

export type KeptCertificate = {
  readonly number: string;
  readonly bytes: Buffer /** All that it says. */;
  readonly document: Json;
};
const keyOf = (dispositionId: string) => `certificate:${dispositionId}`;

/** The certificate of a decision as it was made; null where none was yet. One probe by its key. */
export async function keptCertificate(db: Kysely<Database>, dispositionId: string): Promise<KeptCertificate | null> {
  const { rows } = await sql<KeptCertificate>`
    select c.number, c.document, f.bytes from record r join certificate c on c.record_id = r.id join file f on f.id = r.file_id
    where r.kind = 'certificate' and r.idempotency_key = ${keyOf(dispositionId)}`.execute(db);
  return rows[0] ?? null;
}

/** Keeps a certificate as it was made; of two made at once the first stays, and is what both are given. */
export async function keepCertificate(
  db: Kysely<Database>,
  made: {
    readonly dispositionId: string;
    readonly number: string;
    readonly bytes: Buffer;
    readonly document: Json;
    readonly by: string;
    readonly rackId: string;
    readonly jobId: string;
  },
  clock: Clock,
): Promise<Outcome<KeptCertificate>> {
  const key = keyOf(made.dispositionId);
  return write<Outcome<KeptCertificate>>(db, [lock.key(key)], clock, async (trx, at) => {
    const first = await keptCertificate(trx, made.dispositionId);
    if (first) return { ok: true, ...first };
    const fileId = newId();
    await trx
      .insertInto("file")
      .values({
        id: fileId,
        sha256: sha256(made.bytes),
        media_type: "application/pdf",
        name: `certificate-${made.number}.pdf`,
        size_bytes: made.bytes.length,
        bytes: made.bytes,
        added_by: made.by,
        added_at: at,
      })
      .execute();
    const stored = await storeOne(
      trx,
      {
        id: newId(),
        kind: "certificate",
        happenedAt: at,
        by: made.by,
        grade: "measured",
        idempotencyKey: key,
        rackId: made.rackId,
        jobId: made.jobId,
        fileId,
        details: { certificate: [{ number: made.number, document: made.document }] },
      },
      at,
    );
    return stored.ok
      ? { ok: true, number: made.number, bytes: made.bytes, document: made.document }
      : refuse(stored.failure);
  });
}
