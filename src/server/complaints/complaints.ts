import { format, parseISO } from "date-fns";
import { type Kysely, sql } from "kysely";
import { type AnswerFacts, answerDraft } from "@/core/complaints";
import { loadKnowledge } from "@/core/diagnosis";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { openCase } from "../causes/case-actions";
import { storeEntry } from "../entries/store-entry";
import { type Outcome, refuse } from "../outcome";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, momentOf } from "../write";

const knowledge = loadKnowledge();
/** A day as a letter has it: 3 November 2026. */
const written = (day: string): string => format(parseISO(day), "d MMMM yyyy");

/**
 * A complaint kept, with the defect it tells of, and a case opened on that. Sent again it is the same complaint and the
 * same case. Failures: those of the entry, and of opening a case.
 */
export async function receiveComplaint(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly href: string }>> {
  const entry = { ...(input as object), kind: "complaint" };
  const key = String((input as { idempotencyKey?: unknown } | null)?.idempotencyKey ?? "");
  const stored = await storeEntry(db, person, entry, clock);
  if (!stored.ok) return stored;
  const own = await db
    .selectFrom("record")
    .select(["id", "kind"])
    .where("idempotency_key", "in", [`${key}:complaint`, `${key}:defect`])
    .execute();
  const complaint = own.find((r) => r.kind === "complaint");
  const defect = own.find((r) => r.kind === "defect");
  if (!complaint || !defect) return refuse({ kind: "unknown-complaint" });
  const opened = await openCase(db, person, { defectRecordId: defect.id, zone: "as the customer says" }, clock);
  return opened.ok ? { ok: true, href: `/causes/complaints/${complaint.id}` } : opened;
}

export type ComplaintLine = {
  readonly id: string;
  readonly at: Date;
  readonly saidBy: string;
  readonly theirNumber: string | null;
  readonly what: string;
  readonly rack: string;
  readonly customer: string;
  readonly caseNumber: string | null;
  readonly confirmed: boolean;
  readonly answeredAt: Date | null;
};
const lines = (db: Kysely<Database>, person: Person, which: ReturnType<typeof sql<boolean>>, at: Date, most: number) =>
  sql<ComplaintLine & { customer_id: string }>`
    select r.id, r.happened_at as at, c.said_by as "saidBy", c.their_number as "theirNumber", c.what, k.number as rack, j.customer_id,
      rc.number as "caseNumber", exists (select 1 from record x where x.kind = 'confirmation' and x.case_id = rc.id) as confirmed,
      (select max(ar.happened_at) from complaint_answer a join record ar on ar.id = a.record_id where a.complaint_id = r.id and ${stands("ar.id")}) as "answeredAt"
    from record r join complaint c on c.record_id = r.id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
      left join record d on d.idempotency_key = replace(r.idempotency_key, ':complaint', ':defect')
      left join root_cause_case rc on rc.defect_record_id = d.id
    where r.kind = 'complaint' and r.happened_at <= ${at} and ${stands("r.id")} and ${forPerson(person, "j.customer_id")} and ${which}
    order by r.happened_at desc limit ${most}`.execute(db);
const named = async (db: Kysely<Database>, rows: readonly (ComplaintLine & { customer_id: string })[], at: Date) => {
  const customers = await setupAt(db, "customer", at);
  return rows.map(({ customer_id, ...row }) => ({ ...row, customer: customers.get(customer_id)?.data.name ?? "" }));
};

const SHOWN = 200;
/** Nothing that waits for an answer drops off by its number. */
const EVERY = 100_000;
/** Complaints, the newest first. Two queries; O(complaints shown). */
export async function listComplaints(
  db: Kysely<Database>,
  person: Person,
  at: Date,
): Promise<readonly ComplaintLine[]> {
  return named(db, (await lines(db, person, sql<boolean>`true`, at, SHOWN)).rows, at);
}
/** Those that nobody has answered, whatever their age. Two queries. */
export async function openComplaints(
  db: Kysely<Database>,
  person: Person,
  at: Date,
): Promise<readonly ComplaintLine[]> {
  const open = sql<boolean>`not exists (
    select 1 from complaint_answer a join record ar on ar.id = a.record_id where a.complaint_id = r.id and ${stands("ar.id")})`;
  return named(db, (await lines(db, person, open, at, EVERY)).rows, at);
}

export type ComplaintFile = ComplaintLine & {
  readonly saidOn: string;
  readonly by: string;
  readonly wants: string;
  readonly defect: string;
  readonly piecesReturned: number | null;
  readonly piecesAffected: number | null;
  readonly jobNumber: string;
  readonly part: string;
  readonly answers: readonly {
    readonly id: string;
    readonly at: Date;
    readonly by: string;
    readonly answer: string;
    readonly sentTo: string;
    readonly sentBy: string;
  }[];
  readonly photos: readonly { readonly id: string; readonly caption: string; readonly at: Date }[];
  /** A first wording of the answer, by what the case has come to. */
  readonly draft: string;
};

/** A complaint with its case, photos taken since, answers, and a first wording of the next. Null where it is not this person's to see. */
export async function loadComplaint(
  db: Kysely<Database>,
  person: Person,
  id: string,
  clock: Clock,
): Promise<ComplaintFile | null> {
  const at = momentOf(clock);
  const [row] = (await lines(db, person, sql<boolean>`r.id = ${id}::uuid`, at, 1)).rows;
  if (!row) return null;
  const [[line], more, answers, photos, site, parts] = await Promise.all([
    named(db, [row], at),
    sql<{
      said_on: string;
      wants: string;
      by: string;
      pieces_returned: number | null;
      pieces_affected: number | null;
      job: string;
      part_id: string;
      customer_order: string | null;
      defect: string | null;
      cause: string | null;
      proof: string | null;
      correction: string | null;
      corrective_action: string | null;
      due_on: string | null;
    }>`
      select c.said_on::text, c.wants, ${personName("r.by_user")} as by, c.pieces_returned, c.pieces_affected, j.number as job, j.part_id,
        j.customer_order, df.defect, cf.cause, cf.proof, cf.correction, cf.corrective_action, cf.due_on::text
      from record r join complaint c on c.record_id = r.id join job j on j.id = r.job_id
        left join record d on d.idempotency_key = replace(r.idempotency_key, ':complaint', ':defect') left join defect df on df.record_id = d.id
        left join root_cause_case rc on rc.defect_record_id = d.id
        left join lateral (select f.* from record x join confirmation f on f.record_id = x.id where x.case_id = rc.id order by x.happened_at desc limit 1) cf on true
      where r.id = ${id}::uuid`.execute(db),
    db
      .selectFrom("complaint_answer")
      .innerJoin("record", "record.id", "complaint_answer.record_id")
      .select(["record.id", "happened_at", "answer", "sent_to", "sent_by", personName("record.by_user").as("by")])
      .where("complaint_id", "=", id)
      .where(sql<boolean>`${stands("record.id")}`)
      .orderBy("happened_at", "desc")
      .execute(),
    sql<{ id: string; caption: string; at: Date }>`
      select p.file_id as id, ph.caption, p.happened_at as at from record r join record p on p.rack_id = r.rack_id and p.kind = 'photo' and p.happened_at >= r.happened_at
        join photo ph on ph.record_id = p.id where r.id = ${id}::uuid and p.file_id is not null order by p.happened_at desc limit 60`.execute(
      db,
    ),
    siteAt(db, at),
    setupAt(db, "part", at),
  ]);
  const own = more.rows[0];
  if (!line || !own) return null;
  const part = parts.get(own.part_id)?.data.name ?? "";
  const facts: AnswerFacts = {
    shop: site.name,
    theirNumber: line.theirNumber,
    saidOn: written(own.said_on),
    part,
    rack: line.rack,
    jobNumber: own.job,
    customerOrder: own.customer_order ?? "",
    what: line.what,
    piecesReturned: own.pieces_returned,
    piecesAffected: own.pieces_affected,
    cause: own.cause
      ? {
          label: knowledge.causes.get(own.cause)?.label ?? own.cause,
          proof: own.proof ?? "",
          now: own.correction ?? "",
          forGood: own.corrective_action ?? "",
          byWhen: own.due_on === null ? null : written(own.due_on),
        }
      : null,
  };
  return {
    ...line,
    saidOn: own.said_on,
    by: own.by,
    wants: own.wants,
    defect: own.defect ?? "",
    piecesReturned: own.pieces_returned,
    piecesAffected: own.pieces_affected,
    jobNumber: own.job,
    part,
    answers: answers.map((a) => ({
      id: a.id,
      at: a.happened_at,
      by: a.by,
      answer: a.answer,
      sentTo: a.sent_to,
      sentBy: a.sent_by,
    })),
    photos: photos.rows,
    draft: answerDraft(facts),
  };
}
