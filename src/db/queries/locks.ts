import { type Kysely, sql } from "kysely";
import type { Database } from "../schema";

/** Everything that is locked, by its noun: two writers of one noun go one after the other, of different ones at once. */
export const lock = {
  /** An entry, photo, file or decision by its key: sent twice at once it is stored once. */
  key: (key: string) => `key ${key}`,
  /** The record that is corrected. */
  record: (id: string) => `record ${id}`,
  rack: (number: string) => `rack ${number.trim().toLowerCase()}`,
  job: (number: string) => `job ${number.trim().toLowerCase()}`,
  bath: (code: string) => `bath ${code.trim().toLowerCase()}`,
  line: (code: string) => `line ${code.trim().toLowerCase()}`,
  oven: (code: string) => `oven ${code.trim().toLowerCase()}`,
  structure: (code: string) => `structure ${code.trim().toLowerCase()}`,
  case: (number: string) => `case ${number}`,
  defect: (recordId: string) => `defect ${recordId}`,
  /** Everything set up of one kind: codes are unique within it. */
  setUp: (kind: string) => `set-up ${kind}`,
  /** Numbers that are given in turn: jobs of a delivery, cases, certificates. */
  numbers: (of: "jobs" | "cases" | "certificates") => `numbers ${of}`,
  /** The calls of the test plans: who comes next in a run is told one by one. */
  testPlans: "test plans",
  /** What is derived of a rack or a job while it is worked out anew: taken last. */
  standing: (id: string) => `standing ${id}`,
  /** Who is of the shop: that one administrator is always left is looked at with all of them held. */
  people: "people",
  seal: "seal",
} as const;

const SORREL = 7206;

/** Takes locks until the transaction ends, in one order whoever takes them, so that no two wait for each other. */
export async function take(trx: Kysely<Database>, locks: readonly string[]): Promise<void> {
  if (locks.length === 0) return;
  await sql`select pg_advisory_xact_lock(${SORREL}, h) from (select distinct hashtext(l) as h from unnest(${locks}::text[]) as l order by h) as ordered`.execute(
    trx,
  );
}
