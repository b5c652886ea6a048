import { type Kysely, sql } from "kysely";
import type { PlannedTest } from "@/core/test-plan";
import type { Database } from "@/db/schema";
import { refreshStanding } from "../line/standing";
import { loadRack } from "../rack/load-rack";
import { type BenchItem, benchItems } from "../rack/verdict/bench";
import { type NewRecord, racksOf } from "../record/store-record";
import { theShop } from "../sign-in/roles";

const testing: ReadonlySet<string> = new Set([
  "cross-cut",
  "solvent-rub",
  "cure-test",
  "pull-off",
  "look",
  "defect",
  "touch-up",
  "fit-check",
  "test-skip",
]);

export const plannedOf = (item: BenchItem): PlannedTest => (item.item === "test" ? item.test : item.item);

/**
 * Keeps beside the calls of some racks how their tests came out, in the transaction of what came: the level that the next
 * rack is asked at, and whether the rest of its unit may stand by it, follow from it. O(racks with a call).
 */
export async function noteOutcomes(trx: Kysely<Database>, records: readonly NewRecord[]): Promise<void> {
  const tests = records.filter((r) => testing.has(r.kind));
  if (tests.length === 0) return;
  const { rows } = await sql<{ id: string; number: string }>`
    select k.id, k.number from rack k where k.id = any(${await racksOf(trx, tests)}::uuid[])
      and exists (select 1 from record r where r.rack_id = k.id and r.kind = 'test-call') order by k.id`.execute(trx);
  const units = new Set<string>();
  for (const { number } of rows) for (const id of await noteRack(trx, number)) units.add(id);
  await refreshStanding(trx, [...units].sort());
}

/** Notes one rack; returns the racks on the line that stand by it, itself among them. */
async function noteRack(trx: Kysely<Database>, number: string): Promise<readonly string[]> {
  const rack = await loadRack(trx, theShop, number);
  if (!rack) return [];
  const items = new Map(benchItems(rack).items.map((item) => [plannedOf(item), item]));
  const changed: { plan_id: string; test: string; unit: string }[] = [];
  for (const call of rack.calls.values()) {
    if (!call.asked) continue;
    const item = items.get(call.test);
    const newest = rack.current.findLast((r) => item?.sources.includes(r.base.id))?.base.happened_at;
    const known = item && newest && item.result !== "unknown" && call.skipped === null;
    const good = known ? item.result !== "out" : null;
    const at = newest ?? rack.hungAt;
    await trx
      .insertInto("test_outcome")
      .values({ record_id: call.recordId, test: call.test, plan_id: call.planId, good, at })
      .onConflict((c) => c.columns(["record_id", "test"]).doUpdateSet({ good, at }))
      .execute();
    changed.push({ plan_id: call.planId, test: call.test, unit: call.unit });
  }
  const { rows } = await sql<{ id: string }>`
    select distinct s.rack_id as id from jsonb_to_recordset(${JSON.stringify(changed)}::jsonb) as u(plan_id uuid, test text, unit text)
    join test_call c on c.plan_id = u.plan_id and c.test = u.test and c.unit = u.unit join record r on r.id = c.record_id
    join rack_standing s on s.rack_id = r.rack_id where s.gone_at is null`.execute(trx);
  return [...rows.map((r) => r.id), rack.id];
}
