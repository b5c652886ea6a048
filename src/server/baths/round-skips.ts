import { type Kysely, sql } from "kysely";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

export type RoundSkip = { readonly at: Date; readonly by: string; readonly reason: string };

/** Rounds left out in the last day, by bath, where no check has followed. One query on (kind, time). */
export async function openSkips(db: Kysely<Database>, at: Date): Promise<ReadonlyMap<string, RoundSkip>> {
  const since = new Date(at.getTime() - 24 * 3_600_000);
  const { rows } = await sql<RoundSkip & { bath_id: string }>`
    select distinct on (r.bath_id) r.bath_id, r.happened_at as at, ${personName("r.by_user")} as by, k.reason from record r join round_skip k on k.record_id = r.id
    where r.kind = 'round-skip' and r.happened_at > ${since} and r.happened_at <= ${at}
      and not exists (select 1 from record c where c.bath_id = r.bath_id and c.kind = 'bath-check' and c.happened_at > r.happened_at and c.happened_at <= ${at})
      and ${stands("r.id")}
    order by r.bath_id, r.happened_at desc`.execute(db);
  return new Map(rows.map(({ bath_id, ...skip }) => [bath_id, skip]));
}
