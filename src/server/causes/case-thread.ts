import { type Kysely, sql } from "kysely";
import type { TrialArm } from "@/core/kinds";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

/** One thing that was recorded of a case, for its time line. */
export type CaseEvent = {
  readonly recordId: string;
  readonly kind: string;
  readonly at: Date;
  readonly by: string;
  /** Of the kind: the note, the finding with its state, the cause, what was seen of the action. */
  readonly said: string;
  readonly state: string | null;
  readonly zone: string | null;
  readonly people: string | null;
};

/** Everything recorded of a case, the newest first. Index probes; O(records of the case). */
export async function caseThread(db: Kysely<Database>, caseId: string): Promise<readonly CaseEvent[]> {
  const { rows } = await sql<CaseEvent>`
    select r.id as "recordId", r.kind, r.happened_at as at, ${personName("r.by_user")} as by,
      coalesce(n.text, f.finding, c.cause, a.seen, t.plan, x.note, '') as said,
      coalesce(f.state, a.state, x.arm, (select min(d.state) from case_defect d where d.record_id = r.id)) as state,
      coalesce(f.zone, case when x.record_id is not null then x.with_it || ' of ' || x.panels end, (select count(*)::text from case_defect d where d.record_id = r.id having count(*) > 0)) as zone, n.people
    from record r
    left join case_note n on n.record_id = r.id left join finding f on f.record_id = r.id left join confirmation c on c.record_id = r.id
    left join action_check a on a.record_id = r.id left join trial t on t.record_id = r.id left join trial_result x on x.record_id = r.id
    where r.case_id = ${caseId}::uuid and ${stands("r.id")} order by r.happened_at desc, r.stored_at desc, r.id desc`.execute(
    db,
  );
  return rows;
}

/** A trial with what was counted so far. */
export type Trial = {
  readonly id: string;
  readonly cause: string;
  readonly plan: string;
  readonly panels: number;
  readonly expectWith: number;
  readonly expectWithout: number;
  readonly certainty: number;
  readonly at: Date;
  readonly by: string;
  readonly counts: Readonly<Record<TrialArm, { readonly panels: number; readonly withIt: number }>>;
};

/** The trials of a case, the newest first. O(trials and their results). */
export async function trialsOf(db: Kysely<Database>, caseId: string): Promise<readonly Trial[]> {
  const { rows } = await sql<Omit<Trial, "counts"> & { rp: number; rw: number; tp: number; tw: number }>`
    select r.id, t.cause, t.plan, t.panels, t.expect_with as "expectWith", t.expect_without as "expectWithout", t.certainty, r.happened_at as at, ${personName("r.by_user")} as by,
      coalesce(sum(x.panels) filter (where x.arm = 'repeated'), 0)::int as rp, coalesce(sum(x.with_it) filter (where x.arm = 'repeated'), 0)::int as rw,
      coalesce(sum(x.panels) filter (where x.arm = 'taken-away'), 0)::int as tp, coalesce(sum(x.with_it) filter (where x.arm = 'taken-away'), 0)::int as tw
    from record r join trial t on t.record_id = r.id
    left join (select y.* from trial_result y join record q on q.id = y.record_id where ${stands("q.id")}) x on x.trial_id = r.id
    where r.case_id = ${caseId}::uuid and r.kind = 'trial' and ${stands("r.id")}
    group by r.id, t.record_id, t.cause, t.plan, t.panels, t.expect_with, t.expect_without, t.certainty, r.happened_at, r.by_user, r.stored_at order by r.happened_at desc, r.id desc`.execute(
    db,
  );
  return rows.map(({ rp, rw, tp, tw, ...t }) => ({
    ...t,
    counts: { repeated: { panels: rp, withIt: rw }, "taken-away": { panels: tp, withIt: tw } },
  }));
}
