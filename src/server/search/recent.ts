import { type Kysely, sql } from "kysely";
import { changes } from "@/core/kinds";
import { forPerson } from "@/db/queries/for-person";
import { corrects } from "@/db/queries/stands";
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
  filter: { kind?: string | null; rack?: string | null; changesSince?: Date | null } = {},
): Promise<RecordLine[]> {
  // The page first, then one look-up per record by its kind: fifteen joins would take longer to plan than to run.
  const { rows } = await sql<RecordLine>`
    select p.*, case p.kind
        when 'cross-cut' then (select x.iso::float8 from cross_cut x where x.record_id = p.id) when 'prep-step' then (select x.value from prep_step x where x.record_id = p.id)
        when 'condition' then (select x.value from condition x where x.record_id = p.id) when 'thickness' then (select count(*)::float8 from thickness_reading x where x.record_id = p.id) end as number,
      case p.kind
        when 'passage' then (select x.stage from passage x where x.record_id = p.id) when 'prep-step' then (select x.step from prep_step x where x.record_id = p.id)
        when 'condition' then (select x.quantity from condition x where x.record_id = p.id) when 'defect' then (select x.defect from defect x where x.record_id = p.id)
        when 'disposition' then (select x.decision from disposition x where x.record_id = p.id) when 'finding' then (select x.finding || ' ' || x.state from finding x where x.record_id = p.id)
        when 'bath-event' then (select concat_ws(' ', x.event, round(x.amount_l::numeric, 1) || ' L', x.product) from bath_event x where x.record_id = p.id)
        when 'line-stop' then (select round(extract(epoch from x.to_at - x.from_at) / 60) || ' min, ' || x.cause from line_stop x where x.record_id = p.id) when 'round-skip' then (select x.reason from round_skip x where x.record_id = p.id)
        when 'wash-panel' then (select coalesce(round(x.g_per_m2::numeric, 2) || ' g/m²', x.colour) || ', ' || x.look from wash_panel x where x.record_id = p.id) when 'sludge' then (select concat_ws(', ', x.what, x.depth_mm || ' mm') from sludge x where x.record_id = p.id)
        when 'dry-off' then (select case when x.parts_dry then 'dry' else 'damp' end from dry_off x where x.record_id = p.id) when 'outgas' then (select coalesce('metal held at ' || round(x.held_c::numeric) || ' °C', 'not held') from outgas x where x.record_id = p.id)
        when 'metal-mark' then (select x.what from metal_mark x where x.record_id = p.id) when 'panel-test' then (select case x.test when 'adhesion' then 'cross-cut grade ' || x.iso else 'salt spray ' || round(x.hours::numeric) || ' h' end from panel_test x where x.record_id = p.id)
        when 'upkeep' then (select (select v.data->>'what' from setup_version v where v.entity_id = x.item_id order by v.valid_from desc limit 1) || ': ' || x.result from upkeep_done x where x.record_id = p.id)
        when 'pre-flight' then (select count(*) filter (where x.how <> 'skipped') || ' looked at' || case when count(*) filter (where x.good is false) > 0 then ', ' || count(*) filter (where x.good is false) || ' off' else '' end from pre_flight_item x where x.record_id = p.id)
        when 'lamp-check' then (select case when x.bumped then 'bumped' else (select count(*) || ' light places' from light_spot l where l.record_id = x.record_id) end from lamp_check x where x.record_id = p.id)
        when 'first-panel' then (select x.result from first_panel x where x.record_id = p.id) when 'gauge-check' then (select case when x.holds then 'holds' else 'fails' end from gauge_check x where x.record_id = p.id)
        when 'bake-event' then (select x.event || coalesce(' · ' || x.section, '') from bake_event x where x.record_id = p.id) when 'cure-test' then (select x.test || ' ' || round(x.value::numeric, 1) from cure_test x where x.record_id = p.id) when 'cure-trial' then (select x.question from cure_trial x where x.record_id = p.id)
        when 'bake' then (select x.load_no from bake x where x.record_id = p.id) end as text
    from (
      select r.id, r.kind, r.happened_at as at, r.stored_at as "storedAt", r.by_user as by, k.number as rack, coalesce(e.code, s.name) as place, r.grade, r.supersedes, r.reason
      from record r left join rack k on k.id = r.rack_id left join job j on j.id = r.job_id left join setup_entity e on e.id = r.bath_id left join structure s on s.id = r.structure_id
      where r.stored_at <= ${before} and (${filter.kind ?? null}::text is null or r.kind = ${filter.kind ?? null}) and (${filter.rack ?? null}::text is null or k.number = ${filter.rack ?? null})
        and (${filter.changesSince ?? null}::timestamptz is null or r.stored_at >= ${filter.changesSince ?? null} and (r.kind = any(${changes()}) or ${corrects("r")}))
        and (${forPerson(person, "j.customer_id", "s.customer_id")})
      order by r.stored_at desc, r.id desc limit ${limit}) p
    order by p."storedAt" desc, p.id desc`.execute(db);
  return rows;
}
