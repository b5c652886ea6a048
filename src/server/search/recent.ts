import { type Kysely, sql } from "kysely";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";

export type RecordLine = {
  readonly id: string;
  readonly kind: string;
  readonly at: Date;
  readonly storedAt: Date;
  readonly by: string;
  readonly rack: string | null;
  readonly place: string | null;
  readonly grade: string;
  readonly supersedes: string | null;
  readonly reason: string | null;
  readonly number: number | null;
  readonly text: string | null;
};

/** The newest records before a moment, one line each. Walks the time index backwards; O(limit). */
export async function recentRecords(
  db: Kysely<Database>,
  person: Person,
  before: Date,
  limit: number,
  filter: { kind?: string | null; rack?: string | null } = {},
): Promise<RecordLine[]> {
  const { rows } = await sql<RecordLine>`
    select r.id, r.kind, r.happened_at as at, r.stored_at as "storedAt", r.by_user as by, k.number as rack, coalesce(e.code, s.name, c.place) as place, r.grade, r.supersedes, r.reason,
      coalesce(x.iso::float8, p.value, c.value, t.n::float8) as number, coalesce(g.stage, p.step, c.quantity, d.defect, o.decision, f.finding || ' ' || f.state, bk.load_no) as text
    from record r
    left join rack k on k.id = r.rack_id left join job j on j.id = r.job_id left join setup_entity e on e.id = r.bath_id left join structure s on s.id = r.structure_id
    left join cross_cut x on x.record_id = r.id left join passage g on g.record_id = r.id left join prep_step p on p.record_id = r.id left join condition c on c.record_id = r.id
    left join defect d on d.record_id = r.id left join disposition o on o.record_id = r.id left join finding f on f.record_id = r.id left join bake bk on bk.record_id = r.id
    left join lateral (select count(*) as n from thickness_reading t where t.record_id = r.id and r.kind = 'thickness') t on r.kind = 'thickness'
    where r.stored_at <= ${before} and (${filter.kind ?? null}::text is null or r.kind = ${filter.kind ?? null}) and (${filter.rack ?? null}::text is null or k.number = ${filter.rack ?? null})
      and (${person.customerId}::uuid is null or coalesce(j.customer_id, s.customer_id) = ${person.customerId}::uuid)
    order by r.stored_at desc, r.id desc limit ${limit}`.execute(db);
  return rows;
}
