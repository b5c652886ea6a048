import { type Kysely, sql } from "kysely";
import { localMs, shiftAt } from "@/core/shifts";
import { type Before, callFor, levelAfter, planFor, type TestPlanLine } from "@/core/test-plan";
import type { DetailRow } from "@/db/detail-tables";
import { lock, take } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { refreshStanding } from "../line/standing";
import { derivedId } from "../record/derived-id";
import { type NewRecord, storeIn } from "../record/store-record";
import { type SetupItem, setupAt, siteAt } from "../setup/setup-data";
import { newestResults } from "./plan-states";

type Plan = SetupItem<"test-plan">;
type Rack = {
  readonly id: string;
  readonly job_id: string;
  readonly job: string;
  readonly customer: string;
  readonly part: string;
  readonly exposure: string[];
  readonly lot: string | null;
  /** Tests it was called for before, with whether that was before it was sent back. */
  readonly called: readonly { readonly test: string; readonly again: boolean }[];
};

/**
 * What the test plans ask of the racks that come with some records: at the first coat, and of each load as it goes in. The
 * call is on record as it was made: a plan that changes later asks the racks that come later. A few index probes a test.
 */
export async function callTests(trx: Kysely<Database>, records: readonly NewRecord[], at: Date): Promise<void> {
  const coming = records.filter((r) => (r.kind === "coat" || r.kind === "bake") && !r.supersedes);
  if (coming.length === 0) return;
  const plans = [...(await setupAt(trx, "test-plan", at)).values()].filter((p) => !p.data.retired);
  if (plans.length === 0) return;
  // Held already where an entry brought them; taken here for whatever else stores a coat or a load.
  await take(trx, [lock.testPlans]);
  for (const record of coming) {
    const byLoad = record.kind === "bake";
    const ids = byLoad ? (record.details.bake_place ?? []).map((p) => p.rack_id) : record.rackId ? [record.rackId] : [];
    const called: string[] = [];
    for (const rack of await racksOf(trx, ids)) {
      const plan = planFor(plans, rack);
      const lines = plan?.data.lines.filter((l) => (l.every === "load") === byLoad) ?? [];
      if (plan && lines.length > 0 && (await callOne(trx, record, rack, plan, lines, at))) called.push(rack.id);
    }
    await refreshStanding(trx, called);
  }
}

async function racksOf(trx: Kysely<Database>, ids: readonly string[]): Promise<Rack[]> {
  const { rows } = await sql<Rack>`
    select k.id, k.job_id, j.number as job, ce.code as customer, pe.code as part,
      coalesce((select q.document->'exposure' from record r join job_plan q on q.record_id = r.id where r.job_id = j.id and r.kind = 'plan' order by r.happened_at desc, r.id desc limit 1), j.plan->'exposure', '[]'::jsonb) as exposure,
      (select c.lot_id::text from record r join coat c on c.record_id = r.id where r.rack_id = k.id and r.kind = 'coat' order by r.happened_at desc, r.id desc limit 1) as lot,
      coalesce((select jsonb_agg(jsonb_build_object('test', c.test, 'again', r.happened_at < w.at)) from record r join test_call c on c.record_id = r.id where r.rack_id = k.id and r.kind = 'test-call'), '[]'::jsonb) as called
    from rack k join job j on j.id = k.job_id join setup_entity ce on ce.id = j.customer_id join setup_entity pe on pe.id = j.part_id
    left join lateral (select coalesce(max(r.happened_at), '-infinity') as at from record r join disposition d on d.record_id = r.id where r.rack_id = k.id and r.kind = 'disposition' and d.decision in ('scuff-and-recoat', 'strip')) w on true
    where k.id = any(${ids}::uuid[]) order by k.hung_at, k.number`.execute(trx);
  return rows;
}

/** The call of one rack; whether there is one. */
async function callOne(
  trx: Kysely<Database>,
  record: NewRecord,
  rack: Rack,
  plan: Plan,
  lines: readonly TestPlanLine[],
  at: Date,
): Promise<boolean> {
  const rows: Omit<DetailRow<"test_call">, "record_id">[] = [];
  for (const line of lines) {
    const before = rack.called.filter((c) => c.test === line.test);
    if (before.some((c) => !c.again)) continue;
    const key = await keyOf(trx, line, rack, record);
    const { level } = levelAfter(await newestResults(trx, plan, line.test), plan.data.switching);
    const call = callFor(
      line,
      level,
      { id: rack.id, key, again: before.length > 0 },
      await callsBefore(trx, plan, line, key),
    );
    rows.push({
      ordinal: rows.length,
      plan_id: plan.id,
      version_id: plan.versionId,
      test: line.test,
      every: line.every,
      n: line.n,
      level,
      key,
      unit: call.unit,
      asked: call.asked,
      why: call.why,
      first: line.first,
    });
  }
  if (rows.length === 0) return false;
  const name = `test-call ${rack.id}`;
  await storeIn(
    trx,
    {
      id: derivedId(record.id, name),
      kind: "test-call",
      happenedAt: record.happenedAt,
      by: record.by,
      grade: "by-procedure",
      idempotencyKey: `${record.idempotencyKey}:${name}`,
      jobId: rack.job_id,
      rackId: rack.id,
      details: { test_call: rows },
    },
    at,
  );
  return true;
}

/** What makes racks one unit of a line; null where that is not on record, or none counts. */
async function keyOf(trx: Kysely<Database>, line: TestPlanLine, rack: Rack, record: NewRecord): Promise<string | null> {
  if (line.every === "lot") return rack.lot;
  if (line.every === "job") return rack.job;
  if (line.every === "load") return record.id;
  return line.every === "shift" ? shiftKey(trx, record.happenedAt) : null;
}

/** The shift a moment falls into, by the local day it began: “2026-11-29 Late shift”. Null where the shop has no shifts. */
export async function shiftKey(db: Kysely<Database>, at: Date): Promise<string | null> {
  const { shifts, timeZone } = await siteAt(db, at);
  const clock = (ms: number) => new Date(localMs(ms, timeZone)).toISOString();
  const shift = shiftAt(clock(at.getTime()).slice(11, 16), shifts);
  if (!shift.ok) return null;
  return `${clock(at.getTime() - shift.value.minutesIn * 60_000).slice(0, 10)} ${shift.value.name}`;
}

async function callsBefore(trx: Kysely<Database>, plan: Plan, line: TestPlanLine, key: string | null): Promise<Before> {
  const { rows } = await sql<{ of_key: string | null; unit: string | null; racks: number; keys: number }>`
    select (select c.unit from test_call c where c.plan_id = ${plan.id} and c.test = ${line.test} and c.key = ${key}::text order by c.record_id desc limit 1) as of_key,
      l.unit, coalesce(n.racks, 0)::int as racks, coalesce(n.keys, 0)::int as keys
    from (select 1) one
    left join lateral (select c.unit from test_call c where c.plan_id = ${plan.id} and c.test = ${line.test} and c.every = ${line.every} order by c.record_id desc limit 1) l on l.unit not like 'rack:%'
    left join lateral (select count(*) as racks, count(distinct c.key) as keys from test_call c where c.plan_id = ${plan.id} and c.test = ${line.test} and c.unit = l.unit) n on true`.execute(
    trx,
  );
  const [row] = rows;
  return {
    ofKey: row?.of_key ?? null,
    last: row?.unit ? { unit: row.unit, racks: row.racks, keys: row.keys } : null,
  };
}
