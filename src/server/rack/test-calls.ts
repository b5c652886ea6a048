import { type Kysely, sql } from "kysely";
import { benchTests } from "@/core/bench";
import { tablesOf } from "@/core/kinds";
import type { CallReason, Frequency, Level, PlannedTest } from "@/core/test-plan";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { readDetails } from "../record/read-details";
import type { ThreadRecord } from "./thread";

/** Another rack of the unit that was tested for it. */
export type Sample = {
  /** Null where it is another customer's. */
  readonly rack: string | null;
  readonly records: readonly ThreadRecord[];
};
/** What a test plan asks of a rack for one test. */
export type TestCall = {
  readonly recordId: string;
  readonly planId: string;
  readonly test: PlannedTest;
  readonly every: Frequency;
  readonly n: number | null;
  readonly level: Level;
  readonly unit: string;
  readonly asked: boolean;
  readonly why: CallReason;
  /** Racks called for it in the same unit, those of other customers as null. */
  readonly askedOf: readonly (string | null)[];
  readonly samples: readonly Sample[];
  readonly skipped: { readonly reason: string; readonly by: string; readonly recordId: string } | null;
};
export type TestCalls = ReadonlyMap<PlannedTest, TestCall>;

/** Kinds of record that say how a planned test came out. */
const kindsFor = (test: PlannedTest): readonly string[] =>
  test === "adhesion"
    ? ["cross-cut"]
    : test === "rub"
      ? ["solvent-rub"]
      : test === "appearance"
        ? ["look", "defect", "touch-up"]
        : test === "fits"
          ? ["fit-check"]
          : test === "pull-off"
            ? ["pull-off"]
            : ["cure-test"];
/** Whether a record is of a planned test. */
export const isOfTest = (r: ThreadRecord, test: PlannedTest): boolean =>
  kindsFor(test).includes(r.base.kind) &&
  (r.base.kind !== "cure-test" || r.details.cure_test?.[0]?.test === test || !benchTests.some((t) => t === test));

const noCalls: TestCalls = new Map();

/** The calls of a rack, the newest of each test. Nothing is asked of the database where its thread has none; else O(racks of its units). */
export async function callsOf(
  db: Kysely<Database>,
  rack: { readonly id: string; readonly customer_id: string },
  current: readonly ThreadRecord[],
): Promise<TestCalls> {
  const rows = current.flatMap((r) => (r.details.test_call ?? []).map((row) => ({ row, record: r })));
  if (rows.length === 0) return noCalls;
  const newest = new Map(rows.map((r) => [r.row.test, r]));
  const calls = new Map<PlannedTest, TestCall>();
  const others = await samplesOf(
    db,
    rack,
    [...newest.values()].flatMap(({ row }) => (row.asked ? [] : [row])),
  );
  for (const { row, record } of newest.values()) {
    const test = row.test as PlannedTest;
    const skip = current.findLast(
      (r) => r.details.test_skip?.[0]?.test === test && r.base.happened_at >= record.base.happened_at,
    );
    const unit = others.filter((o) => o.test === test);
    calls.set(test, {
      recordId: record.base.id,
      planId: row.plan_id,
      test,
      every: row.every as Frequency,
      n: row.n,
      level: row.level as Level,
      unit: row.unit,
      asked: row.asked,
      why: row.why as CallReason,
      askedOf: unit.flatMap((o) => (o.asked ? [o.rack] : [])),
      samples: unit.flatMap(({ rack: number, records }) => (records.length > 0 ? [{ rack: number, records }] : [])),
      skipped: skip ? { reason: skip.details.test_skip?.[0]?.reason ?? "", by: skip.by, recordId: skip.base.id } : null,
    });
  }
  return calls;
}

type OfUnit = {
  readonly test: string;
  readonly asked: boolean;
  readonly rack: string | null;
  readonly records: ThreadRecord[];
};

/** The other racks of some units, with the tests on them since they were called. */
async function samplesOf(
  db: Kysely<Database>,
  rack: { readonly id: string; readonly customer_id: string },
  units: readonly { readonly plan_id: string; readonly test: string; readonly unit: string }[],
): Promise<readonly OfUnit[]> {
  if (units.length === 0) return [];
  const { rows } = await sql<{ test: string; id: string; number: string; own: boolean; asked: boolean; since: Date }>`
    select u.test, k.id, k.number, j.customer_id = ${rack.customer_id} as own, c.asked, r.happened_at as since
    from jsonb_to_recordset(${JSON.stringify(units)}::jsonb) as u(plan_id uuid, test text, unit text)
    join test_call c on c.plan_id = u.plan_id and c.test = u.test and c.unit = u.unit
    join record r on r.id = c.record_id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
    where k.id <> ${rack.id} order by r.happened_at, r.id`.execute(db);
  if (rows.length === 0) return [];
  const ids = [...new Set(rows.map((r) => r.id))];
  const kinds = [...new Set(units.flatMap((u) => kindsFor(u.test as PlannedTest)))];
  const found = await sql<{ id: string; of: string }>`
    select r.id, r.rack_id as of from record r where r.rack_id = any(${ids}::uuid[]) and r.kind = any(${kinds}::text[]) and ${stands("r.id")}
    union select r.id, s.rack_id as of from stands_for s join record r on r.id = s.record_id where s.rack_id = any(${ids}::uuid[]) and r.kind = any(${kinds}::text[]) and ${stands("r.id")}`.execute(
    db,
  );
  const recordIds = [...new Set(found.rows.map((r) => r.id))];
  if (recordIds.length === 0)
    return rows.map(({ test, asked, own, number }) => ({ test, asked, rack: own ? number : null, records: [] }));
  const records = await db
    .selectFrom("record")
    .selectAll()
    .select(personName("record.by_user").as("by"))
    .where("id", "in", recordIds)
    .orderBy("happened_at")
    .orderBy("id")
    .execute();
  const details = await readDetails(db, recordIds, [...new Set(kinds.flatMap(tablesOf))]);
  const threads = records.map(
    ({ by, ...base }): ThreadRecord => ({ base, by, details: details.get(base.id) ?? {}, supersededBy: null }),
  );
  return rows.map((row) => {
    const own = new Set(found.rows.flatMap((f) => (f.of === row.id ? [f.id] : [])));
    return {
      test: row.test,
      asked: row.asked,
      rack: row.own ? row.number : null,
      records: threads.filter(
        (t) => own.has(t.base.id) && t.base.happened_at >= row.since && isOfTest(t, row.test as PlannedTest),
      ),
    };
  });
}
