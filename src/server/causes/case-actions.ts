import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { loadKnowledge } from "@/core/diagnosis";
import { type TiedTo, tiedTo } from "@/core/kinds";
import { lock } from "@/db/queries/locks";
import { personName } from "@/db/queries/person-name";
import type { Database } from "@/db/schema";
import { badEntry, filled, number, said, text } from "../input";
import { newId } from "../now";
import { type EntryOutcome, type Outcome, refuse } from "../outcome";
import { storeOne } from "../record/store-record";
import { type SetupKind, setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";
import { caseThatHas } from "./defects-of";

const knowledge = loadKnowledge();

/**
 * Opens a case on a defect record, with others that are alike joined to it. One that is open already is found again, also
 * where the defect was joined to it, so that two who open one at once open one. Failures: `bad-entry`,
 * `unknown-superseded` where a defect is none, `in-another-case` where one that is to be joined has another case.
 */
export async function openCase(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly href: string }>> {
  const parsed = v.safeParse(openSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { defectRecordId, zone } = parsed.output;
  const others = [...new Set(parsed.output.alike)].filter((id) => id !== defectRecordId);
  return write<Outcome<{ readonly href: string }>>(
    db,
    [...[defectRecordId, ...others].map((id) => lock.defect(id)), lock.numbers("cases")],
    clock,
    async (trx, at) => {
      const has = await caseThatHas(trx, [defectRecordId, ...others]);
      const found = has.get(defectRecordId);
      if (found) return { ok: true, href: `/causes/${found}` };
      const taken = others.flatMap((id) => has.get(id) ?? [])[0];
      if (taken) return refuse({ kind: "in-another-case", number: taken });
      const known = await trx
        .selectFrom("record")
        .innerJoin("defect", "defect.record_id", "record.id")
        .select(["record.id", "record.rack_id", "record.structure_id", "defect.defect", "defect.face"])
        .where("record.id", "in", [defectRecordId, ...others])
        .execute();
      const defect = known.find((d) => d.id === defectRecordId);
      const missing = [defectRecordId, ...others].find((id) => !known.some((d) => d.id === id));
      if (!defect || missing) return refuse({ kind: "unknown-superseded", recordId: missing ?? defectRecordId });
      const { rows } = await sql<{
        next: number;
      }>`select coalesce(max(number::int), 0) + 1 as next from root_cause_case`.execute(trx);
      const number = String(rows[0]?.next ?? 1);
      const id = newId();
      await trx
        .insertInto("root_cause_case")
        .values({
          id,
          number,
          defect: defect.defect,
          defect_record_id: defect.id,
          rack_id: defect.rack_id,
          structure_id: defect.structure_id,
          zone: zone || (await faceName(trx, defect, at)),
          opened_at: at,
          opened_by: person.username,
        })
        .execute();
      if (others.length > 0) {
        const joined = await storeOne(
          trx,
          {
            id: newId(),
            kind: "case-defect",
            happenedAt: at,
            by: person.username,
            grade: "by-procedure",
            idempotencyKey: `case-defect:${id}`,
            caseId: id,
            rackId: defect.rack_id,
            structureId: defect.structure_id,
            details: {
              case_defect: others.map((of, n) => ({ ordinal: n + 1, of, state: "joined", why: "gathered as alike" })),
            },
          },
          at,
        );
        if (!joined.ok) return joined;
      }
      return { ok: true, href: `/causes/${number}` };
    },
  );
}
/** The face that a defect was seen on, as the part's sketch calls it; its letter where the sketch has none of it. */
async function faceName(
  trx: Kysely<Database>,
  defect: { readonly rack_id: string | null; readonly face: string | null },
  at: Date,
): Promise<string> {
  if (!defect.face || !defect.rack_id) return defect.face ?? "";
  const job = await trx
    .selectFrom("rack")
    .innerJoin("job", "job.id", "rack.job_id")
    .select("job.part_id")
    .where("rack.id", "=", defect.rack_id)
    .executeTakeFirst();
  const part = job ? (await setupAt(trx, "part", at)).get(job.part_id) : undefined;
  return part?.data.faces.find((f) => f.id === defect.face)?.name ?? defect.face;
}

const recordId = v.pipe(v.string(), v.uuid("is not a record"));
const openSchema = v.object({
  defectRecordId: recordId,
  zone: text(80),
  alike: v.optional(v.pipe(v.array(recordId), v.maxLength(500, "are more than 500")), []),
});

const confirmationSchema = v.object({
  id: v.pipe(v.string(), v.uuid()),
  caseNumber: text(20),
  cause: v.picklist([...knowledge.causes.keys()]),
  proof: said(600, "is empty: name the proof"),
  correction: text(600),
  correctiveAction: said(600, "is empty: name what keeps it away"),
  who: filled(80),
  dueOn: v.nullable(v.pipe(v.string(), v.isoDate())),
  /** Causes that act beside it, each with where on the piece and its share of what is seen, %. */
  alsoActing: v.optional(
    v.pipe(
      v.array(
        v.object({
          cause: v.picklist([...knowledge.causes.keys()]),
          zone: text(80),
          sharePercent: v.nullable(number(0, 100)),
        }),
      ),
      v.maxLength(5, "are more than five"),
    ),
    [],
  ),
  zone: v.optional(text(80), ""),
  sharePercent: v.optional(v.nullable(number(0, 100)), null),
  /** From the cause to why it was let through, a step each: at most five. */
  chain: v.optional(v.pipe(v.array(text(300)), v.maxLength(5, "are more than five steps")), []),
  tiedTo: v.optional(v.nullable(v.picklist(tiedTo)), null),
  tiedCode: v.optional(v.nullable(text(120)), null),
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
    for (const cause of [c.cause, ...c.alsoActing.map((a) => a.cause)])
      if (!knowledge.defects.get(row.defect)?.causes.has(cause))
        return refuse({ kind: "bad-entry", field: "cause", why: `is not a cause of ${row.defect}`, value: cause });
    const named = [c.cause, ...c.alsoActing.map((a) => a.cause)].map(
      (cause, i) => `${cause} ${(i === 0 ? c.zone : c.alsoActing[i - 1]?.zone) ?? ""}`,
    );
    const twice = named.find((n, i) => named.indexOf(n) !== i);
    if (twice)
      return refuse({
        kind: "bad-entry",
        field: "alsoActing",
        why: "names one cause twice at one place",
        value: twice.trim(),
      });
    const shares = [c.sharePercent, ...c.alsoActing.map((a) => a.sharePercent)].reduce<number>(
      (sum, x) => sum + (x ?? 0),
      0,
    );
    if (shares > 100.5)
      return refuse({ kind: "bad-entry", field: "sharePercent", why: "add up to more than 100 %", value: shares });
    const tied = await tiedTarget(trx, c.tiedTo, c.tiedCode, at);
    if (!tied.ok) return tied;
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
              causes: [
                { cause: c.cause, zone: c.zone, sharePercent: c.sharePercent },
                ...c.alsoActing.map((a) => ({ cause: a.cause, zone: a.zone, sharePercent: a.sharePercent })),
              ],
              chain: c.chain.filter((step) => step !== ""),
              tied_to: c.tiedTo,
              tied_code: tied.code,
            },
          ],
        },
      },
      at,
    );
  });
}

/** Which sheet, bath, task or part the action changes, by its code as it is set up; words of a person's where it is none of them. */
async function tiedTarget(
  trx: Kysely<Database>,
  to: TiedTo | null,
  code: string | null,
  at: Date,
): Promise<Outcome<{ readonly code: string | null }>> {
  if (to === null) return { ok: true, code: null };
  const kinds: Partial<Record<TiedTo, SetupKind>> = {
    "setup-sheet": "setup-sheet",
    "bath-window": "bath",
    interval: "upkeep",
    part: "part",
  };
  const kind = kinds[to];
  if (!kind) return { ok: true, code: code || null };
  const item = [...(await setupAt(trx, kind, at)).values()].find((i) => i.code.toLowerCase() === code?.toLowerCase());
  return item
    ? { ok: true, code: item.code }
    : refuse({ kind: "unknown-set-up", what: kind.replaceAll("-", " "), name: code ?? "" });
}
