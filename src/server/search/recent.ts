import { type Kysely, sql } from "kysely";
import { changes, kindOf, tablesOf } from "@/core/kinds";
import { detailTables } from "@/db/detail-tables";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import { corrects } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { readDetails, type StoredDetails } from "../record/read-details";
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
  /** Why it corrects another; null where it corrects none, or only follows it. */
  readonly corrects: string | null;
  readonly details: StoredDetails;
  /** Rows of its tables that were only counted. */
  readonly counts: Readonly<Record<string, number>>;
  /** What its ids are called. */
  readonly names: Readonly<Record<string, string>>;
};
type Row = Omit<RecordLine, "details" | "counts" | "names">;

/** Whether someone has never recorded anything: they are new. One index probe. */
export async function recordedNothing(db: Kysely<Database>, username: string): Promise<boolean> {
  const row = await db.selectFrom("record").select("id").where("by_user", "=", username).limit(1).executeTakeFirst();
  return row === undefined;
}

/** The newest records up to a moment, and of that very moment those before `beforeId`, with what each says. Walks the time index backwards, then one query a table on the page; O(limit). */
export async function recentRecords(
  db: Kysely<Database>,
  person: Person,
  before: Date,
  limit: number,
  filter: {
    kind?: string | null;
    rack?: string | null;
    by?: string | null;
    changesSince?: Date | null;
    beforeId?: string | null;
  } = {},
): Promise<RecordLine[]> {
  const { rows } = await sql<Row>`
    select r.id, r.kind, r.happened_at as at, r.stored_at as "storedAt", ${personName("r.by_user")} as by, k.number as rack, coalesce(e.code, s.name) as place, r.grade, case when ${corrects("r")} then r.reason end as corrects
    from record r left join rack k on k.id = r.rack_id left join job j on j.id = r.job_id left join setup_entity e on e.id = r.bath_id left join structure s on s.id = r.structure_id
    where r.stored_at <= ${before} and ${filter.beforeId ? sql`(r.stored_at < ${before} or r.id < ${filter.beforeId}::uuid)` : sql`true`} and ${filter.kind ? sql`r.kind = ${filter.kind}` : sql`true`} and ${filter.rack ? sql`k.number = ${filter.rack}` : sql`true`} and ${filter.by ? sql`r.by_user = ${filter.by}` : sql`true`}
      and ${filter.changesSince ? sql`r.stored_at >= ${filter.changesSince} and (r.kind = any(${changes()}) or ${corrects("r")})` : sql`true`}
      and ${forPerson(person, "j.customer_id", "s.customer_id")}
    order by r.stored_at desc, r.id desc limit ${limit}`.execute(db);
  const all = [...new Set(rows.flatMap((r) => tablesOf(r.kind)))];
  const many = new Set(rows.flatMap((r) => kindOf(r.kind)?.counted ?? []));
  const ids = rows.map((r) => r.id);
  const [details, counts] = await Promise.all([
    readDetails(
      db,
      ids,
      all.filter((table) => !many.has(table)),
    ),
    countRows(db, ids, [...many]),
  ]);
  const names = await namesOf(db, [...details.values()]);
  return rows.map((row) => ({ ...row, details: details.get(row.id) ?? {}, counts: counts.get(row.id) ?? {}, names }));
}

async function countRows(db: Kysely<Database>, ids: readonly string[], tables: readonly string[]) {
  const found = new Map<string, Record<string, number>>();
  for (const table of tables) {
    const { rows } = await sql<{ record_id: string; n: number }>`
      select record_id, count(*)::int as n from ${sql.table(table)} where record_id = any(${ids}::uuid[]) group by record_id`.execute(
      db,
    );
    for (const row of rows) found.set(row.record_id, { ...found.get(row.record_id), [table]: row.n });
  }
  return found;
}

/** What the ids in some details are called: an upkeep or oven by its name, a lot by its code. One query. */
async function namesOf(db: Kysely<Database>, details: readonly StoredDetails[]): Promise<Record<string, string>> {
  const ids = new Set<string>();
  for (const one of details)
    for (const [table, rows] of Object.entries(one)) {
      const columns = Object.entries(detailTables[table] ?? {}).filter(([, type]) => type.startsWith("uuid"));
      for (const row of rows)
        for (const [column] of columns) {
          const id = (row as Record<string, unknown>)[column];
          if (typeof id === "string") ids.add(id);
        }
    }
  if (ids.size === 0) return {};
  const { rows } = await sql<{ id: string; name: string }>`
    select e.id, coalesce(v.what, e.code) as name from setup_entity e
    left join lateral (select data->>'what' as what from setup_version where entity_id = e.id order by valid_from desc, recorded_at desc limit 1) v on e.kind = 'upkeep'
    where e.id = any(${[...ids]}::uuid[])`.execute(db);
  return Object.fromEntries(rows.map((row) => [row.id, row.name]));
}
