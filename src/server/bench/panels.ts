import { type Kysely, sql } from "kysely";
import { tablesOf } from "@/core/kinds";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import type { ThreadRecord } from "../rack/thread";
import { readDetails } from "../record/read-details";
import type { Person } from "../sign-in/roles";

/** The racks that a record stands for, as far as this person may see them: others' are none of theirs. */
const racksOf = (person: Person, recordId: string) =>
  sql`array(select k.number from stands_for s join rack k on k.id = s.rack_id join job kj on kj.id = k.job_id
    where s.record_id = ${sql.ref(recordId)} and ${forPerson(person, "kj.customer_id")} order by k.number)`;

const HOUR_MS = 3_600_000;
export type Cabinet = "salt-spray" | "humidity";
/** A panel whose next reading is known: when it has had the hours that were named at its newest. */
export type PanelDue = {
  readonly number: string;
  readonly cabinet: Cabinet;
  readonly hours: number;
  readonly nextHours: number;
  readonly dueAt: Date;
  readonly racks: readonly string[];
};

/** Panels that stand in a cabinet, each with when it is read next. O(readings of panels on record). */
export async function panelsDue(db: Kysely<Database>, person: Person): Promise<PanelDue[]> {
  const { rows } = await sql<{
    number: string;
    cabinet: Cabinet;
    hours: number;
    next_hours: number | null;
    at: Date;
    racks: string[];
  }>`
    select x.* from (
      select distinct on (lower(q.panel_no), q.cabinet) q.panel_no as number, q.cabinet, q.hours, q.next_hours, r.happened_at as at,
        ${racksOf(person, "q.record_id")} as racks
      from panel_reading q join record r on r.id = q.record_id join job j on j.id = r.job_id
      where ${stands("q.record_id")} and ${forPerson(person, "j.customer_id")}
      order by lower(q.panel_no), q.cabinet, q.hours desc) x
    where x.next_hours is not null`.execute(db);
  return rows
    .map(({ at, next_hours, ...row }) => ({
      ...row,
      nextHours: next_hours ?? 0,
      dueAt: new Date(at.getTime() + ((next_hours ?? 0) - row.hours) * HOUR_MS),
    }))
    .sort((a, b) => a.dueAt.getTime() - b.dueAt.getTime());
}

export type PanelLine = {
  readonly number: string;
  readonly metal: string;
  readonly madeFrom: string | null;
  readonly hungAt: string | null;
  readonly at: Date;
  readonly racks: readonly string[];
  /** Tests on it, readings in a cabinet among them. */
  readonly tests: number;
};

export const PANELS_A_PAGE = 60;
/** The register, newest first, a page at a time; `find` looks in numbers of panels and racks. */
export async function panelRegister(
  db: Kysely<Database>,
  person: Person,
  find: string,
  page: number,
): Promise<{ readonly rows: readonly PanelLine[]; readonly more: boolean }> {
  const like = `%${find.toLowerCase().replace(/[\\%_]/g, "\\$&")}%`;
  const { rows } = await sql<{
    number: string;
    metal: string;
    made_from: string | null;
    hung_at: string | null;
    at: Date;
    racks: string[];
    tests: number;
  }>`
    select p.number, p.metal, p.made_from, p.hung_at, r.happened_at as at, n.racks, t.tests
    from record r join panel p on p.record_id = r.id join job j on j.id = r.job_id
    cross join lateral (select ${racksOf(person, "r.id")} as racks) n
    cross join lateral (
      select count(*)::int as tests from stands_for s join record x on x.id = s.record_id
      where s.rack_id = r.rack_id and x.kind <> 'panel' and ${stands("x.id")} and exists (
        select 1 from cross_cut q where q.record_id = x.id and lower(q.panel_no) = lower(p.number)
        union all select 1 from solvent_rub q where q.record_id = x.id and lower(q.panel_no) = lower(p.number)
        union all select 1 from cure_test q where q.record_id = x.id and lower(q.panel_no) = lower(p.number)
        union all select 1 from pull_off q where q.record_id = x.id and lower(q.panel_no) = lower(p.number)
        union all select 1 from panel_reading q where q.record_id = x.id and lower(q.panel_no) = lower(p.number)
        union all select 1 from panel_film q where q.record_id = x.id and lower(q.panel_no) = lower(p.number))) t
    where r.kind = 'panel' and ${stands("r.id")} and ${forPerson(person, "j.customer_id")}
      and (${find} = '' or lower(p.number) like ${like} or exists (select 1 from unnest(n.racks) x where lower(x) like ${like}))
    order by r.happened_at desc, r.id desc limit ${PANELS_A_PAGE + 1} offset ${page * PANELS_A_PAGE}`.execute(db);
  return {
    rows: rows
      .slice(0, PANELS_A_PAGE)
      .map(({ made_from, hung_at, ...row }) => ({ ...row, madeFrom: made_from, hungAt: hung_at })),
    more: rows.length > PANELS_A_PAGE,
  };
}

export type PanelFile = {
  readonly number: string;
  readonly metal: string;
  readonly madeFrom: string | null;
  readonly hungAt: string | null;
  readonly note: string | null;
  readonly at: Date;
  readonly by: string;
  readonly racks: readonly string[];
  /** Everything done to it, in order of time. */
  readonly tests: readonly ThreadRecord[];
  readonly due: readonly PanelDue[];
};

/** One panel with everything done to it; null where there is none of that number that this person may see. */
export async function loadPanel(db: Kysely<Database>, person: Person, number: string): Promise<PanelFile | null> {
  const { rows } = await sql<{
    id: string;
    rack_id: string;
    number: string;
    metal: string;
    made_from: string | null;
    hung_at: string | null;
    note: string | null;
    at: Date;
    by: string;
    racks: string[];
  }>`
    select r.id, r.rack_id, p.number, p.metal, p.made_from, p.hung_at, p.note, r.happened_at as at, ${personName("r.by_user")} as by,
      ${racksOf(person, "r.id")} as racks
    from panel p join record r on r.id = p.record_id join job j on j.id = r.job_id
    where lower(p.number) = lower(${number}) and ${stands("r.id")} and ${forPerson(person, "j.customer_id")}`.execute(
    db,
  );
  const [found] = rows;
  if (!found) return null;
  const records = await db
    .selectFrom("record")
    .selectAll()
    .select(personName("record.by_user").as("by"))
    .where("id", "in", db.selectFrom("stands_for").select("record_id").where("rack_id", "=", found.rack_id))
    .where("kind", "<>", "panel")
    .where(stands("record.id"))
    .orderBy("happened_at")
    .orderBy("id")
    .execute();
  const tables = [...new Set(records.flatMap((r) => tablesOf(r.kind)))];
  const details = await readDetails(
    db,
    records.map((r) => r.id),
    tables,
  );
  const tests = records
    .map(({ by, ...base }) => ({ base, by, details: details.get(base.id) ?? {}, supersededBy: null }))
    .filter(({ details: d }) =>
      [d.cross_cut, d.solvent_rub, d.cure_test, d.pull_off, d.panel_reading, d.panel_film].some(
        (t) => t?.[0]?.panel_no?.toLowerCase() === found.number.toLowerCase(),
      ),
    );
  const { made_from, hung_at, id: _, rack_id: __, ...said } = found;
  return {
    ...said,
    madeFrom: made_from,
    hungAt: hung_at,
    tests,
    due: (await panelsDue(db, person)).filter((d) => d.number.toLowerCase() === found.number.toLowerCase()),
  };
}
