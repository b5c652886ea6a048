import { type Kysely, sql } from "kysely";
import type { Database } from "@/db/schema";
import { canonicalText, sha256 } from "../record/canonical";

/** How a paper stands to the record: its certificate stands, was replaced by a later decision on the rack, or is not on record. */
export type PaperStanding = "stands" | "replaced" | "not-on-record";

/** What a check of a file came to, as its form shows it. */
export type CheckState = {
  readonly name: string;
  readonly standing: PaperStanding | null;
  readonly failure: { readonly kind: string; readonly [detail: string]: unknown } | null;
};

/** The digits of a mark: 80 bits, so that none is guessed. */
const MARK_DIGITS = 20;

/** What a certificate is told by: the first 80 bits of the SHA-256 of all it says, in fours. */
export const markOf = (document: unknown): string =>
  sha256(canonicalText(document))
    .slice(0, MARK_DIGITS)
    .replace(/(.{4})(?=.)/g, "$1 ");

/** Where the code on a certificate leads. */
export const checkAddress = (base: string, number: string, mark: string): string =>
  `${base}/check?number=${encodeURIComponent(number)}&mark=${mark.replaceAll(" ", "")}`;

/**
 * Whether the certificate of a number and a mark, as read off its paper, is on record and stands. A number with another
 * mark is answered as a number that never was. One probe of an index, and what came on the rack after the decision.
 */
export async function checkPaper(
  db: Kysely<Database>,
  asked: { readonly number: string; readonly mark: string },
): Promise<PaperStanding> {
  const mark = asked.mark.toLowerCase().replace(/[^0-9a-f]/g, "");
  if (mark.length !== MARK_DIGITS) return "not-on-record";
  const rows = await db
    .selectFrom("certificate")
    .select(["record_id as id", "document"])
    .where("number", "=", asked.number.trim())
    .execute();
  const kept = rows.find(({ document }) => {
    const { check, ...said } = document as { readonly check?: { readonly mark?: string } };
    return check?.mark?.replaceAll(" ", "") === mark && markOf(said) === check.mark;
  });
  return kept ? standing(db, kept.id) : "not-on-record";
}

/** As `checkPaper`, of the file itself: whether these very bytes were given out as a certificate, and still stand. */
export async function checkFile(db: Kysely<Database>, bytes: Buffer): Promise<PaperStanding> {
  const { rows } = await sql<{ id: string }>`
    select r.id from file f join record r on r.file_id = f.id and r.kind = 'certificate'
    where f.sha256 = ${sha256(bytes)} limit 1`.execute(db);
  return rows[0] ? standing(db, rows[0].id) : "not-on-record";
}

async function standing(db: Kysely<Database>, certificateId: string): Promise<PaperStanding> {
  const { rows } = await sql<{ replaced: boolean }>`
    select exists (
      select 1 from record later join disposition n on n.record_id = later.id
      where later.rack_id = c.rack_id and later.kind = 'disposition' and (later.happened_at, later.id) > (d.happened_at, d.id)
        -- What was decided on some pieces stands for them whatever becomes of the rest.
        and o.pieces is null and n.pieces is null) as replaced
    from record c join record d on d.id::text = split_part(c.idempotency_key, ':', 2) and d.rack_id = c.rack_id
    join disposition o on o.record_id = d.id
    where c.id = ${certificateId}`.execute(db);
  if (!rows[0]) return "not-on-record";
  return rows[0].replaced ? "replaced" : "stands";
}
