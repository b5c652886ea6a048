import { type Kysely, sql } from "kysely";
import type { ActionState } from "@/core/kinds";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";

/** What was found of an action at one look. */
export type ActionCheck = {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  readonly state: ActionState;
  readonly seen: string;
  readonly sheet: string | null;
  /** A day, as the shop's calendar has it. */
  readonly againOn: string | null;
};

/** Every look after an action, the newest first. One probe by confirmation. */
export async function checksOf(db: Kysely<Database>, confirmationId: string): Promise<readonly ActionCheck[]> {
  const { rows } = await sql<ActionCheck>`
    select r.id as "recordId", r.happened_at as at, ${personName("r.by_user")} as by, a.state, a.seen, a.sheet, a.again_on::text as "againOn"
    from action_check a join record r on r.id = a.record_id
    where a.confirmation_id = ${confirmationId}::uuid and ${stands("r.id")}
    order by r.happened_at desc, r.stored_at desc, r.id desc`.execute(db);
  return rows;
}

/**
 * Whether a case's defect was recorded again on the part, or on the structure, after its action was said to have worked.
 * Names the case c, its job j and the look a. Index probes on the part's racks.
 */
export const cameBack = sql<boolean>`(a.state = 'worked' and (
  exists (select 1 from job j2 join rack k2 on k2.job_id = j2.id join record d on d.rack_id = k2.id and d.kind = 'defect' join defect x on x.record_id = d.id
    where j2.part_id = j.part_id and d.happened_at > a.happened_at and x.defect = c.defect and coalesce(x.pieces_affected, 1) > 0 and ${stands("d.id")})
  or exists (select 1 from record d join defect x on x.record_id = d.id where d.structure_id = c.structure_id and d.kind = 'defect' and d.happened_at > a.happened_at and x.defect = c.defect and ${stands("d.id")})))`;

export type OpenAction = {
  readonly caseNumber: string;
  readonly action: string;
  readonly who: string;
  /** Null where nobody has looked after it yet. */
  readonly state: Exclude<ActionState, "worked"> | null;
  /** When it is due to be looked at, as a day; null where none was said. */
  readonly dueOn: string | null;
  readonly since: Date;
};

/**
 * Corrective actions of which nobody has said that they worked, or after which the defect came back all the same, by the newest
 * confirmation of each case: none falls off by age.
 * O(cases with a cause confirmed), one probe each for the newest confirmation and the newest look.
 */
export async function openActions(db: Kysely<Database>, person: Person): Promise<readonly OpenAction[]> {
  const { rows } = await sql<OpenAction>`
    select c.number as "caseNumber", cf.corrective_action as action, cf.who, case when a.state = 'worked' then 'did-not-work' else a.state end as state, coalesce(a.again_on, cf.due_on)::text as "dueOn", coalesce(a.happened_at, cf.happened_at) as since
    from root_cause_case c left join structure s on s.id = c.structure_id left join rack k on k.id = c.rack_id left join job j on j.id = k.job_id
      join lateral (select x.id, x.happened_at, f.* from record x join confirmation f on f.record_id = x.id where x.case_id = c.id and x.kind = 'confirmation'
        order by x.happened_at desc, x.stored_at desc, x.id desc limit 1) cf on true
      left join lateral (select ac.state, ac.again_on, r.happened_at from action_check ac join record r on r.id = ac.record_id
        where ac.confirmation_id = cf.id and ${stands("r.id")} order by r.happened_at desc, r.stored_at desc, r.id desc limit 1) a on true
    where (coalesce(a.state, '') <> 'worked' or ${cameBack}) and ${forPerson(person, "s.customer_id", "j.customer_id")}
    order by "dueOn" nulls first, c.number`.execute(db);
  return rows;
}

export type SinceDone = {
  /** Racks of the part that were decided on, and those on which this defect is on record. */
  readonly after: { readonly racks: number; readonly withIt: number };
  readonly before: { readonly racks: number; readonly withIt: number };
  /** Racks of the part on which it was recorded later than a moment. */
  readonly withItSince: (moment: Date) => number;
};

/** Racks of a part hung since an action was done, and as long before it, of which somebody decided more than a hold: O(those racks). */
export async function sinceDone(
  db: Kysely<Database>,
  person: Person,
  about: { readonly defect: string; readonly partId: string; readonly doneAt: Date; readonly at: Date },
): Promise<SinceDone> {
  const from = new Date(2 * about.doneAt.getTime() - about.at.getTime());
  const { rows } = await sql<{ after: boolean; racks: number; withIt: number }>`
    select k.hung_at >= ${about.doneAt} as after, count(*)::int as racks,
      count(*) filter (where exists (select 1 from record d join defect x on x.record_id = d.id where d.rack_id = k.id and d.kind = 'defect' and x.defect = ${about.defect} and ${stands("d.id")}))::int as "withIt"
    from rack k join job j on j.id = k.job_id
    where j.part_id = ${about.partId}::uuid and k.hung_at > ${from} and k.hung_at <= ${about.at} and ${forPerson(person, "j.customer_id")}
      and exists (select 1 from record r join disposition p on p.record_id = r.id where r.rack_id = k.id and r.kind = 'disposition' and p.decision <> 'hold')
    group by 1`.execute(db);
  const { rows: seen } = await sql<{ at: Date }>`
    select max(d.happened_at) as at from rack k join job j on j.id = k.job_id join record d on d.rack_id = k.id join defect x on x.record_id = d.id
    where j.part_id = ${about.partId}::uuid and d.kind = 'defect' and x.defect = ${about.defect} and coalesce(x.pieces_affected, 1) > 0 and d.happened_at > ${about.doneAt}
      and ${stands("d.id")} and ${forPerson(person, "j.customer_id")} group by k.id`.execute(db);
  const of = (after: boolean) => {
    const row = rows.find((r) => r.after === after);
    return { racks: row?.racks ?? 0, withIt: row?.withIt ?? 0 };
  };
  return {
    after: of(true),
    before: of(false),
    withItSince: (moment) => seen.filter((s) => s.at > moment).length,
  };
}
