import { type Kysely, sql } from "kysely";
import { infraredReading, type SectionReading } from "@/core/cure";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import type { ThreadRecord } from "./thread";

/** What spot readings are called where channels have their probes' names. */
export const BY_INFRARED = "By infrared";

/**
 * Spot readings taken on the load of each bake that has no trace, s after its door. One query where there is such a bake;
 * O(readings).
 */
export async function infraredOf(
  db: Kysely<Database>,
  current: readonly ThreadRecord[],
): Promise<ReadonlyMap<string, readonly SectionReading[]>> {
  const bare = current.filter(
    (r) => r.base.kind === "bake" && !(r.details.bake_channel ?? []).some((c) => c.medium !== "air"),
  );
  if (bare.length === 0) return new Map();
  const { rows } = await sql<{
    bake: string;
    atS: number;
    valueC: number;
    emissivity: number | null;
    aim: string | null;
  }>`
    select b.record_id as bake, extract(epoch from r.happened_at - b.door_closed_at)::float8 as "atS", e.value_c as "valueC", e.emissivity, e.aim
    from bake b join bake_event e on e.oven_id = b.oven_id and e.load_no = b.load_no join record r on r.id = e.record_id
    where b.record_id = any(${bare.map((r) => r.base.id)}::uuid[]) and b.sections is null and e.event = 'infrared' and e.value_c is not null
      and r.happened_at >= b.door_closed_at and r.happened_at <= coalesce(b.pulled_at, b.door_closed_at + interval '12 hours')
      and ${stands("r.id")} order by r.happened_at`.execute(db);
  const found = new Map<string, SectionReading[]>();
  for (const { bake, ...row } of rows)
    found.set(bake, [...(found.get(bake) ?? []), { ...infraredReading(row), section: BY_INFRARED }]);
  return found;
}
