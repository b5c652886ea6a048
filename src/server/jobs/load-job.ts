import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { forPerson } from "@/db/queries/for-person";
import type { Database } from "@/db/schema";
import { planOf } from "../plan/plan-of";
import { loadRack, type RackFile } from "../rack/load-rack";
import { planSchema, requirementSchema } from "../requirement";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { piecesOf } from "./make-job";

export const JOBS_PER_PAGE = 60;
/** Jobs this person may see, newest first, a page at a time, and how many there are. */
export async function listJobs(db: Kysely<Database>, person: Person, at: Date, page = 1) {
  const [customers, parts, powders] = await Promise.all([
    setupAt(db, "customer", at),
    setupAt(db, "part", at),
    setupAt(db, "powder", at),
  ]);
  const rows = await db
    .selectFrom("job")
    .selectAll()
    .select(({ selectFrom }) =>
      selectFrom("rack")
        .select(({ fn }) => fn.countAll<string>().as("n"))
        .whereRef("rack.job_id", "=", "job.id")
        .as("racks"),
    )
    .select(sql<boolean>`coalesce((select s.in_hand from job_standing s where s.job_id = job.id), true)`.as("in_hand"))
    .select(
      sql<string>`(select count(*) from record r join offer o on o.record_id = r.id
        join lateral (select x.taken from offer_answer x join record y on y.id = x.record_id where x.offer_id = r.id order by y.happened_at desc, y.id desc limit 1) a on not a.taken
        where r.job_id = job.id and r.kind = 'offer')`.as("declined"),
    )
    .where(forPerson(person, "customer_id"))
    .orderBy("received_at", "desc")
    .limit(JOBS_PER_PAGE)
    .offset((page - 1) * JOBS_PER_PAGE)
    .execute();
  const { total } = await db
    .selectFrom("job")
    .select(({ fn }) => fn.countAll<string>().as("total"))
    .where(forPerson(person, "customer_id"))
    .executeTakeFirstOrThrow();
  const jobs = rows.map((row) => ({
    number: row.number,
    receivedAt: row.received_at,
    dueOn: row.due_on,
    customer: customers.get(row.customer_id)?.data.name ?? "",
    part: parts.get(row.part_id)?.data.name ?? "",
    powder: `${powders.get(row.powder_id)?.code} ${powders.get(row.powder_id)?.data.name}`,
    racks: Number(row.racks ?? 0),
    declined: Number(row.declined) + v.parse(planSchema, row.plan).offered.filter((o) => !o.taken).length,
    plan: v.parse(planSchema, row.plan),
    inHand: row.in_hand,
  }));
  return { jobs, total: Number(total) };
}

export type JobFile = NonNullable<Awaited<ReturnType<typeof loadJob>>>;

/** A job with its racks by number. Null where it is not this person's. */
export async function loadJob(db: Kysely<Database>, person: Person, number: string, at: Date) {
  const row = await db
    .selectFrom("job")
    .selectAll()
    .where("number", "=", number)
    .where(forPerson(person, "customer_id"))
    .executeTakeFirst();
  if (!row) return null;
  const [customers, parts, powders] = await Promise.all([
    setupAt(db, "customer", row.received_at),
    setupAt(db, "part", row.received_at),
    setupAt(db, "powder", row.received_at),
  ]);
  const plan = await planOf(db, row, at);
  const racks = await db
    .selectFrom("rack")
    .leftJoin("rack_standing", "rack_standing.rack_id", "rack.id")
    .select(["rack.number", "rack.hung_at", "next", "result", "state", "gone_at", "readings", "asked"])
    .where("rack.job_id", "=", row.id)
    .orderBy("rack.hung_at", "desc")
    .orderBy("rack.number")
    .execute();
  const { ordered, hung } = await piecesOf(db, row, at);
  const photos = await db
    .selectFrom("record")
    .innerJoin("photo", "photo.record_id", "record.id")
    .select(["record.file_id", "record.happened_at", "photo.caption"])
    .where("record.job_id", "=", row.id)
    .where("record.kind", "=", "photo")
    .where("record.file_id", "is not", null)
    .orderBy("record.happened_at", "desc")
    .limit(24)
    .execute();
  return {
    photos,
    id: row.id,
    number: row.number,
    receivedAt: row.received_at,
    dueOn: row.due_on,
    customerOrder: row.customer_order,
    deliveryNote: row.delivery_note,
    /** Pieces ordered by its plan, where it says, and how many were hung. */
    ordered,
    hung,
    customer: customers.get(row.customer_id)?.data.name ?? "",
    part: parts.get(row.part_id),
    powder: powders.get(row.powder_id),
    requirement: v.parse(requirementSchema, row.requirement),
    plan,
    racks,
  };
}

/** The whole job as plain data for export: documented in docs/export.md. Racks are read one after another; O(racks). */
export async function exportJob(db: Kysely<Database>, person: Person, number: string, at: Date) {
  const job = await loadJob(db, person, number, at);
  if (!job) return null;
  const racks: RackFile[] = [];
  for (const { number: rackNumber } of job.racks) {
    const rack = await loadRack(db, person, rackNumber);
    if (rack) racks.push(rack);
  }
  const seal = await db
    .selectFrom("seal")
    .select(["number", "hash"])
    .orderBy("number", "desc")
    .limit(1)
    .executeTakeFirst();
  return {
    format: "sorrel-job",
    version: 1,
    newestSeal: seal ?? null,
    job: {
      number: job.number,
      customer: job.customer,
      receivedAt: job.receivedAt,
      dueOn: job.dueOn,
      customerOrder: job.customerOrder,
      deliveryNote: job.deliveryNote,
      part: job.part?.data ?? null,
      powder: job.powder ? { code: job.powder.code, ...job.powder.data } : null,
      requirement: job.requirement,
      plan: job.plan,
    },
    racks: racks.map((r) => ({
      number: r.number,
      hungAt: r.hungAt,
      pieces: r.pieces.map((p) => p.serial),
      records: r.thread.map(({ base, details, supersededBy }) => ({
        id: base.id,
        kind: base.kind,
        happenedAt: base.happened_at,
        storedAt: base.stored_at,
        by: base.by_user,
        grade: base.grade,
        supersedes: base.supersedes,
        reason: base.reason,
        supersededBy,
        contentHash: base.content_hash,
        details,
      })),
    })),
  };
}
