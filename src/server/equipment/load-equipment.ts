import "server-only";
import { type Kysely, sql } from "kysely";
import type { EquipmentRole } from "@/core/site";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { byCode } from "../setup/by-code";
import { type SetupItem, setupAt } from "../setup/setup-data";

/** Film of what was coated with a piece of equipment, week by week. */
export type CoatedWeek = {
  /** Monday, 00:00 where the site is. */
  readonly week: Date;
  readonly racks: number;
  /** Mean film of the racks that were read, as a share of their powder's range: 0 its least, 1 its most. */
  readonly film: number | null;
  readonly read: number;
  /** Racks with a spot under the least film of their powder. */
  readonly thin: number;
};
export type EquipmentFile = {
  readonly item: SetupItem<"equipment">;
  readonly versions: readonly {
    readonly id: string;
    readonly at: Date;
    readonly by: string;
    readonly reason: string;
  }[];
  /** Null where nothing that goes through it says so on record. */
  readonly coated: readonly CoatedWeek[] | null;
};

const WEEKS = 26;
/** What of a coat says which equipment it was made with. */
const namedOnCoat: Partial<Record<EquipmentRole, "booth" | "gun">> = { booth: "booth", gun: "gun" };

/**
 * A piece of equipment with its versions, and of booths and guns what came of the racks coated with it in the last half
 * year. Three queries; O(coats of half a year). Undefined where there is none by that code.
 */
export async function loadEquipment(
  db: Kysely<Database>,
  code: string,
  timeZone: string,
  at: Date,
): Promise<EquipmentFile | undefined> {
  const item = byCode((await setupAt(db, "equipment", at)).values(), code);
  if (!item) return undefined;
  const [versions, coated] = await Promise.all([
    db
      .selectFrom("setup_version")
      .select(["id", "recorded_at", "reason", personName("by_user").as("by")])
      .where("entity_id", "=", item.id)
      .where("valid_from", "<=", at)
      .orderBy("valid_from", "desc")
      .limit(200)
      .execute(),
    coatedWith(db, item, timeZone, at),
  ]);
  return {
    item,
    versions: versions.map((r) => ({ id: r.id, at: r.recorded_at, by: r.by ?? "", reason: r.reason })),
    coated,
  };
}

async function coatedWith(
  db: Kysely<Database>,
  { code, data }: SetupItem<"equipment">,
  timeZone: string,
  at: Date,
): Promise<readonly CoatedWeek[] | null> {
  const column = namedOnCoat[data.role];
  if (!column) return null;
  const names = [code.toLowerCase(), data.name.toLowerCase()];
  const { rows } = await sql<{ week: Date; racks: number; film: number | null; read: number; thin: number }>`
    with c as materialized (
      select distinct on (r.rack_id) r.rack_id, r.happened_at, j.powder_id from record r
        join coat o on o.record_id = r.id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
      where r.kind = 'coat' and r.happened_at > ${new Date(at.getTime() - WEEKS * 7 * 86_400_000)} and r.happened_at <= ${at}
        and ${stands("r.id")} and lower(o.${sql.ref(column)}) in (${sql.join(names)})
      order by r.rack_id, r.happened_at desc),
    p as (select v.entity_id as id, (v.data->>'minUm')::float8 as least, (v.data->>'maxUm')::float8 as most from setup_entity e
      cross join lateral (select * from setup_version where entity_id = e.id and valid_from <= ${at} order by valid_from desc, recorded_at desc limit 1) v
      where e.kind = 'powder'),
    f as (
      select c.rack_id, sum(f.sum_um) / nullif(sum(f.spots), 0) as mean, min(f.lowest_um) as lowest from c
        join record r on r.rack_id = c.rack_id and r.kind = 'thickness' and r.happened_at >= c.happened_at and r.happened_at <= ${at}
        join film_face f on f.record_id = r.id
      where ${stands("r.id")} group by c.rack_id)
    select date_trunc('week', c.happened_at at time zone ${timeZone}) at time zone ${timeZone} as week, count(*)::int as racks,
      avg((f.mean - p.least) / nullif(p.most - p.least, 0)) as film, count(f.mean)::int as read,
      (count(*) filter (where f.lowest < p.least))::int as thin
    from c join p on p.id = c.powder_id left join f on f.rack_id = c.rack_id group by 1 order by 1`.execute(db);
  return rows;
}
