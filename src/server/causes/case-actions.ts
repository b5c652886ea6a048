import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { loadKnowledge } from "@/core/diagnosis";
import { lock } from "@/db/queries/locks";
import { personName } from "@/db/queries/person-name";
import type { Database } from "@/db/schema";
import { badEntry, filled, said, text } from "../input";
import { newId } from "../now";
import { type EntryOutcome, type Outcome, refuse } from "../outcome";
import { storeOne } from "../record/store-record";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";

const knowledge = loadKnowledge();

/** Opens a case on a defect record; one that is open already is found again, so that a double submit opens one case. */
export async function openCase(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly href: string }>> {
  const parsed = v.safeParse(openSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { defectRecordId, zone } = parsed.output;
  return write<Outcome<{ readonly href: string }>>(
    db,
    [lock.defect(defectRecordId), lock.numbers("cases")],
    clock,
    async (trx, at) => {
      const found = await trx
        .selectFrom("root_cause_case")
        .select("number")
        .where("defect_record_id", "=", defectRecordId)
        .executeTakeFirst();
      if (found) return { ok: true, href: `/causes/${found.number}` };
      const defect = await trx
        .selectFrom("record")
        .innerJoin("defect", "defect.record_id", "record.id")
        .select(["record.id", "record.rack_id", "record.structure_id", "defect.defect", "defect.face"])
        .where("record.id", "=", defectRecordId)
        .executeTakeFirst();
      if (!defect) return refuse({ kind: "unknown-superseded", recordId: defectRecordId });
      const { rows } = await sql<{
        next: number;
      }>`select coalesce(max(number::int), 0) + 1 as next from root_cause_case`.execute(trx);
      const number = String(rows[0]?.next ?? 1);
      await trx
        .insertInto("root_cause_case")
        .values({
          id: newId(),
          number,
          defect: defect.defect,
          defect_record_id: defect.id,
          rack_id: defect.rack_id,
          structure_id: defect.structure_id,
          zone: zone || defect.face || "",
          opened_at: at,
          opened_by: person.username,
        })
        .execute();
      return { ok: true, href: `/causes/${number}` };
    },
  );
}
const openSchema = v.object({ defectRecordId: v.pipe(v.string(), v.uuid("is not a record")), zone: text(80) });

const confirmationSchema = v.object({
  id: v.pipe(v.string(), v.uuid()),
  caseNumber: text(20),
  cause: v.picklist([...knowledge.causes.keys()]),
  proof: said(600, "is empty: name the proof"),
  correction: text(600),
  correctiveAction: said(600, "is empty: name what keeps it away"),
  who: filled(80),
  dueOn: v.nullable(v.pipe(v.string(), v.isoDate())),
  /** The confirmation that was on screen; null where there was none. */
  seen: v.optional(v.nullable(v.pipe(v.string(), v.uuid())), null),
});

/**
 * A person confirms the cause, with the proof and what is done now and for good. Failures: `bad-entry`, `unknown-case`,
 * `confirmed-meanwhile` where somebody confirmed a cause that this person had not seen: of two at once the second is shown the first.
 */
export async function confirmCause(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<EntryOutcome> {
  const parsed = v.safeParse(confirmationSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const c = parsed.output;
  return write(db, [lock.case(c.caseNumber)], clock, async (trx, at) => {
    const row = await trx
      .selectFrom("root_cause_case")
      .selectAll()
      .where("number", "=", c.caseNumber)
      .executeTakeFirst();
    if (!row) return refuse({ kind: "unknown-case", number: c.caseNumber });
    if (!knowledge.defects.get(row.defect)?.causes.has(c.cause))
      return refuse({ kind: "bad-entry", field: "cause", why: `is not a cause of ${row.defect}`, value: c.cause });
    const newest = await trx
      .selectFrom("record")
      .innerJoin("confirmation", "confirmation.record_id", "record.id")
      .select(["record.id", "confirmation.cause", "record.happened_at", personName("record.by_user").as("by")])
      .where("record.case_id", "=", row.id)
      .where("record.kind", "=", "confirmation")
      .orderBy("record.happened_at", "desc")
      .orderBy("record.stored_at", "desc")
      .orderBy("record.id", "desc")
      .executeTakeFirst();
    // Sent again, it is the same one.
    if (newest && newest.id !== c.id && newest.id !== c.seen)
      return refuse({
        kind: "confirmed-meanwhile",
        by: newest.by,
        cause: knowledge.causes.get(newest.cause)?.label ?? newest.cause,
        at: newest.happened_at.toISOString(),
      });
    return storeOne(
      trx,
      {
        id: c.id,
        kind: "confirmation",
        happenedAt: at,
        by: person.username,
        grade: "measured",
        idempotencyKey: `confirmation:${c.id}`,
        caseId: row.id,
        rackId: row.rack_id,
        structureId: row.structure_id,
        details: {
          confirmation: [
            {
              cause: c.cause,
              proof: c.proof,
              correction: c.correction,
              corrective_action: c.correctiveAction,
              who: c.who,
              due_on: c.dueOn,
            },
          ],
        },
      },
      at,
    );
  });
}
