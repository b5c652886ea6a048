import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import type { Database, RecordTable } from "@/db/schema";
import { doubtedSets } from "../film/gauge-checks";
import { planOf } from "../plan/plan-of";
import { readDetails, type StoredDetails, tablesOfKind } from "../record/read-details";
import { requirementSchema } from "../requirement";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { baseOf } from "./base-of";
import { findRack } from "./find-rack";
import { evidenceFor, passesOf } from "./passes";

export type ThreadRecord = {
  readonly base: RecordTable;
  readonly details: StoredDetails /** The record that corrects this one, if any. */;
  readonly supersededBy: string | null;
};
export type RackFile = NonNullable<Awaited<ReturnType<typeof loadRack>>>;

/** Everything about one rack: its job, part, powder and thread in order of time, bakes it rode in included. Null where it does not exist for this person. */
export async function loadRack(db: Kysely<Database>, person: Person, number: string) {
  const rack = await findRack(db, person, number);
  if (!rack) return null;
  const [site, job, parts, powders, customers, pieces, thread] = await Promise.all([
    siteAt(db, rack.hung_at),
    db.selectFrom("job").selectAll().where("id", "=", rack.job_id).executeTakeFirstOrThrow(),
    setupAt(db, "part", rack.hung_at),
    setupAt(db, "powder", rack.hung_at),
    setupAt(db, "customer", rack.hung_at),
    db
      .selectFrom("piece")
      .select(["id", "serial", "position"])
      .where("rack_id", "=", rack.id)
      .orderBy("position")
      .execute(),
    threadOf(db, rack.id),
  ]);
  // As the plan stood when the rack was hung: a later version is not held against it.
  const plan = await planOf(db, job, rack.hung_at);
  const part = parts.get(job.part_id);
  const powder = powders.get(job.powder_id);
  if (!part || !powder)
    throw new Error(`rack ${number}: its part or powder has no version at ${rack.hung_at.toISOString()}`);
  const current = thread.filter((r) => r.supersededBy === null);
  const passes = passesOf(current);
  const evidence = evidenceFor(passes, passes.length - 1);
  const doubted = await doubtedSets(
    db,
    current.filter((r) => r.base.kind === "thickness" && r.base.instrument_id !== null).map((r) => r.base.id),
  );
  return {
    id: rack.id,
    number: rack.number,
    hungAt: rack.hung_at,
    pieces,
    job: {
      id: job.id,
      number: job.number,
      receivedAt: job.received_at,
      dueOn: job.due_on,
      requirement: v.parse(requirementSchema, job.requirement),
      plan,
    },
    customer: customers.get(job.customer_id)?.data.name ?? "",
    part,
    powder,
    thread,
    /** Everything that stands, corrections applied. */
    current,
    passes,
    /** The pass being judged, its records, and what the metal under it has seen; the newest unless `atPass` chose another. */
    pass: passes.length - 1,
    latest: passes.at(-1)?.records ?? [],
    evidence,
    /** What the bare metal adds to its readings. */
    base: baseOf(evidence, site),
    /** Sets read with a gauge that then failed its shims. */
    doubted,
  };
}

/** The same rack as it stood at the end of one of its passes: a defect seen before a recoat is traced in what led to it. */
export const atPass = (rack: RackFile, index: number): RackFile => ({
  ...rack,
  pass: index,
  latest: rack.passes[index]?.records ?? [],
  evidence: evidenceFor(rack.passes, index),
});

async function threadOf(db: Kysely<Database>, rackId: string): Promise<ThreadRecord[]> {
  const bakes = db.selectFrom("bake_place").select("record_id").where("rack_id", "=", rackId);
  const records = await db
    .selectFrom("record")
    .selectAll()
    .where(({ or, eb }) => or([eb("rack_id", "=", rackId), eb("id", "in", bakes)]))
    .orderBy("happened_at")
    .orderBy("id")
    .execute();
  const later = await sql<{
    id: string;
    supersedes: string;
  }>`select id, supersedes from record where supersedes = any(${records.map((r) => r.id)}::uuid[])`.execute(db);
  const supersededBy = new Map(later.rows.map((row) => [row.supersedes, row.id]));
  const tables = [...new Set(records.flatMap((r) => tablesOfKind[r.kind] ?? []))];
  const details = await readDetails(
    db,
    records.map((r) => r.id),
    tables,
  );
  return records.map((base) => ({
    base,
    details: details.get(base.id) ?? {},
    supersededBy: supersededBy.get(base.id) ?? null,
  }));
}

/** The newest record of a kind among some; undefined when there is none. */
export const newestOf = (records: readonly ThreadRecord[], kind: string): ThreadRecord | undefined =>
  records.findLast((r) => r.base.kind === kind);
/** The newest record of a kind in the pass being judged. */
export const newest = (rack: Pick<RackFile, "latest">, kind: string): ThreadRecord | undefined =>
  newestOf(rack.latest, kind);
