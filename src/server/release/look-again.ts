import { type Kysely, sql } from "kysely";
import { forPerson } from "@/db/queries/for-person";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { judgeRack } from "../rack/judge-rack";
import { loadRack, wholeDecision } from "../rack/load-rack";
import { sha256 } from "../record/canonical";
import { type Person, theShop } from "../sign-in/roles";
import { conditionsWhenPassed } from "../trace/conditions";
import { changedSinceDecision, itemKey } from "./changed-since";

/** What a record came for, as far as it may touch racks that are signed. */
type Came = {
  readonly id: string;
  readonly kind: string;
  readonly happenedAt: Date;
  readonly rackId?: string | null;
  readonly bathId?: string | null;
  readonly instrumentId?: string | null;
  readonly details?: {
    readonly item_closed?: readonly { readonly what: string }[];
    /** Racks that the panel it was done on stands for. */
    readonly stands_for?: readonly { readonly rack_id: string }[];
  };
};
/** One item that is not as it was signed. */
export type LookAgain = { readonly item: string; readonly was: string | null; readonly is: string };

/** Kinds whose records speak for racks that stand by this one's test. */
const tests: ReadonlySet<string> = new Set([
  "cross-cut",
  "solvent-rub",
  "cure-test",
  "pull-off",
  "look",
  "defect",
  "fit-check",
]);
/** A check reaches racks that passed the bath so long around it at the most. */
const REACH_DAYS = 14;

/**
 * Released racks that some records may touch: their own, those their panel stands for and those that stand by their test, those that met a bath between its checks, those read with a gauge.
 * A probe of an index for each. In one order, so that two who keep at once never wait for one another in a ring.
 */
async function touched(trx: Kysely<Database>, records: readonly Came[]): Promise<readonly string[]> {
  const found = new Set<string>();
  for (const record of records) {
    const racks = [
      ...(record.rackId ? [record.rackId] : []),
      ...(record.details?.stands_for ?? []).map((r) => r.rack_id),
    ];
    const { rows } = await sql<{ id: string }>`
      select s.rack_id as id from rack_standing s where s.gone_at is not null and (
        s.rack_id = any(${racks}::uuid[])
        or (${tests.has(record.kind)} and s.rack_id in (
          select y.rack_id from record x join test_call c on c.record_id = x.id join test_call d on d.plan_id = c.plan_id and d.test = c.test and d.unit = c.unit
            join record y on y.id = d.record_id where x.rack_id = any(${racks}::uuid[]) and x.kind = 'test-call'))
        or (${record.kind} in ('bath-check', 'bath-event') and s.rack_id in (
          select r.rack_id from record r join passage p on p.record_id = r.id
          where r.kind = 'passage' and p.stage = (select v.data->>'stage' from setup_version v where v.entity_id = ${record.bathId ?? null}::uuid and v.valid_from <= ${record.happenedAt} order by v.valid_from desc, v.recorded_at desc limit 1)
            and r.happened_at >= coalesce((select max(c.happened_at) from record c where c.bath_id = ${record.bathId ?? null}::uuid and c.kind = 'bath-check' and c.happened_at < ${record.happenedAt} and c.happened_at >= ${record.happenedAt}::timestamptz - make_interval(days => ${REACH_DAYS})), ${record.happenedAt}::timestamptz - make_interval(days => ${REACH_DAYS}))
            and r.happened_at <= coalesce((select min(c.happened_at) from record c where c.bath_id = ${record.bathId ?? null}::uuid and c.kind = 'bath-check' and c.happened_at > ${record.happenedAt}), ${record.happenedAt})))
        or (${record.kind} = 'gauge-check' and s.rack_id in (
          select r.rack_id from record r where r.instrument_id = ${record.instrumentId ?? null}::uuid and r.kind = 'thickness'
            and r.happened_at >= ${record.happenedAt}::timestamptz - make_interval(days => ${REACH_DAYS}) and r.happened_at <= ${record.happenedAt})))`.execute(
      trx,
    );
    for (const row of rows) found.add(row.id);
  }
  return [...found].sort();
}

/**
 * Keeps which released racks are not as they were signed, in the transaction of what came. What was signed stays; this
 * asks a lead for another look. O(racks touched), none where nothing released is.
 */
export async function noteLookAgain(trx: Kysely<Database>, records: readonly Came[], at: Date): Promise<void> {
  const concerned = records.filter(
    (r) => r.rackId || r.kind === "bath-check" || r.kind === "bath-event" || r.kind === "gauge-check",
  );
  if (concerned.length === 0) return;
  for (const id of await touched(trx, concerned)) {
    const looked = records.some((r) => r.rackId === id && r.details?.item_closed?.some((c) => c.what === "look-again"));
    await noteRack(trx, id, at, looked);
  }
}

async function noteRack(trx: Kysely<Database>, rackId: string, at: Date, looked: boolean): Promise<void> {
  const { number } = await trx.selectFrom("rack").select("number").where("id", "=", rackId).executeTakeFirstOrThrow();
  const rack = await loadRack(trx, theShop, number);
  if (!rack) return;
  const decided = wholeDecision(rack.current);
  if (!decided) return;
  const row = decided.details.disposition?.[0];
  const now = judgeRack(rack, await conditionsWhenPassed(trx, [rack.id], rack.hungAt), at).items;
  const changed = changedSinceDecision(row, now).map(
    ({ was, is }): LookAgain => ({ item: itemKey(is), was: was?.result ?? null, is: is.result }),
  );
  const known = await trx.selectFrom("look_again").selectAll().where("rack_id", "=", rackId).executeTakeFirst();
  if (changed.length === 0 && !known) return;
  const seen = sha256(JSON.stringify(changed));
  const closed = changed.length === 0 || looked || known?.closed_on === seen;
  await trx
    .insertInto("look_again")
    .values({
      rack_id: rackId,
      decision_id: decided.base.id,
      since: at,
      changed: JSON.stringify(changed),
      closed_on: closed ? seen : null,
    })
    .onConflict((c) =>
      c.column("rack_id").doUpdateSet({
        decision_id: decided.base.id,
        changed: JSON.stringify(changed),
        closed_on: closed ? seen : null,
        ...(known?.closed_on && !closed ? { since: at } : {}),
      }),
    )
    .execute();
}

/** Whether a lead is asked to look at a rack again. */
export async function lookAgainOpen(db: Kysely<Database>, rackId: string): Promise<boolean> {
  const row = await db
    .selectFrom("look_again")
    .select("rack_id")
    .where("rack_id", "=", rackId)
    .where("closed_on", "is", null)
    .executeTakeFirst();
  return row !== undefined;
}

export type ToLookAt = { readonly rack: string; readonly since: Date; readonly changed: readonly LookAgain[] };
/** Every released rack that is not as it was signed and that nobody looked at since, the oldest first. One query on an index. */
export async function toLookAt(db: Kysely<Database>, person: Person): Promise<readonly ToLookAt[]> {
  const { rows } = await sql<ToLookAt>`
    select k.number as rack, l.since, l.changed from look_again l join rack k on k.id = l.rack_id join job j on j.id = k.job_id join record d on d.id = l.decision_id
    where l.closed_on is null and ${forPerson(person, "j.customer_id")} and ${stands("d.id")} order by l.since`.execute(
    db,
  );
  return rows;
}
