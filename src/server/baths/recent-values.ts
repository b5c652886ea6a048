import { type Kysely, sql } from "kysely";
import type { BathParameter, BathSeen } from "@/core/bath";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

/** Checks that say what a bath usually reads, and how far back they may lie. */
const CHECKS = 24;
const DAYS = 30;

/** What each bath read at its last checks before a moment, oldest first. One query on (bath, time); O(baths × checks). */
export async function recentValues(
  db: Kysely<Database>,
  baths: readonly { readonly id: string; readonly code: string }[],
  before: Date,
): Promise<readonly BathSeen[]> {
  const since = new Date(before.getTime() - DAYS * 86_400_000);
  const { rows } = await sql<{ bath_id: string; parameter: BathParameter; values: number[] }>`
    select b.id as bath_id, k.parameter, (array_agg(k.value order by c.happened_at))[greatest(1, count(*) - ${CHECKS - 1}::int):] as values
    from unnest(${baths.map((b) => b.id)}::uuid[]) as b(id)
    join record c on c.bath_id = b.id and c.kind = 'bath-check' and c.happened_at >= ${since} and c.happened_at < ${before}
    join bath_check k on k.record_id = c.id
    where ${stands("c.id")}
    group by b.id, k.parameter`.execute(db);
  return baths.map(({ id, code }) => ({
    code,
    before: Object.fromEntries(rows.filter((r) => r.bath_id === id).map((r) => [r.parameter, r.values])),
  }));
}

export type BathStanding = {
  /** Since when it stands empty; null while it is filled. */
  readonly emptySince: Date | null;
  readonly lastChange: Date | null;
};
/** Whether a bath was dumped and not recharged at a moment, and when it was last changed. One query on (bath, time). */
export async function standingOf(db: Kysely<Database>, bathId: string, at: Date): Promise<BathStanding> {
  const { rows } = await sql<{ event: string; at: Date }>`
    select e.event, r.happened_at as at from record r join bath_event e on e.record_id = r.id
    where r.bath_id = ${bathId} and r.kind = 'bath-event' and r.happened_at <= ${at} and ${stands("r.id")}
    order by r.happened_at desc limit 40`.execute(db);
  const last = rows.find((r) => r.event === "dump" || r.event === "recharge");
  return { emptySince: last?.event === "dump" ? last.at : null, lastChange: rows[0]?.at ?? null };
}
