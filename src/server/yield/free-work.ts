import { type Kysely, sql } from "kysely";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

export type ExtraWorkSum = {
  readonly what: string;
  readonly racks: number;
  readonly minutes: number;
  readonly freeMinutes: number;
  /** Of what nobody pays, by the rates of those days; null where the shop had none. */
  readonly freeCost: number | null;
};

/** Work that nobody ordered over a span, by what was done, the dearest first. One query by kind and time. */
export async function extraWorkOf(
  db: Kysely<Database>,
  ask: { readonly at: Date; readonly days: number },
): Promise<readonly ExtraWorkSum[]> {
  const from = new Date(ask.at.getTime() - ask.days * 86_400_000);
  const { rows } = await sql<ExtraWorkSum>`
    select min(w.what) as what, count(distinct r.rack_id)::int as racks, sum(w.minutes) as minutes,
      coalesce(sum(w.minutes) filter (where not w.charged), 0) as "freeMinutes", sum(w.cost) filter (where not w.charged) as "freeCost"
    from record r join extra_work w on w.record_id = r.id
    where r.kind = 'extra-work' and r.happened_at > ${from} and r.happened_at <= ${ask.at} and ${stands("r.id")}
    group by lower(w.what) order by 4 desc, 1`.execute(db);
  return rows;
}

/** What such work is called here, the most frequent first: offered as one types. */
export async function usualExtraWork(db: Kysely<Database>): Promise<readonly string[]> {
  const { rows } = await sql<{ what: string }>`
    select w.what from extra_work w group by 1 order by count(*) desc, 1 limit 20`.execute(db);
  return rows.map((r) => r.what);
}
