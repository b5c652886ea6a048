import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import type { NewRecord } from "@/server/record/store-record";
import { callTests } from "@/server/test-plan/call-tests";
import { noteOutcomes } from "@/server/test-plan/outcomes";

/** What the test plans asked of the racks of a job as each came, and how that came out: as the app itself keeps it. Returns how many calls. */
export async function loadTestCalls(
  trx: Kysely<Database>,
  records: readonly NewRecord[],
  jobId: string | undefined,
): Promise<number> {
  const ofJob = new Set(records.flatMap((r) => (r.kind === "coat" && r.jobId === jobId && r.rackId ? [r.rackId] : [])));
  const own = records
    .filter((r) => r.rackId && ofJob.has(r.rackId))
    .sort((a, b) => a.happenedAt.getTime() - b.happenedAt.getTime());
  for (const record of own) {
    await callTests(trx, [record], record.happenedAt);
    await noteOutcomes(trx, [record]);
  }
  return own.filter((r) => r.kind === "coat").length;
}
