import { type Kysely, sql } from "kysely";
import { type Contrast, contrast, type Observed } from "@/core/comparison";
import { valueOrThrow } from "@/core/result";
import { stands } from "@/db/queries/stands";
import { zoneReadings } from "@/db/queries/zone-readings";
import type { Database } from "@/db/schema";

type Row = {
  structure_id: string;
  zone: string;
  failed: boolean;
  what: string | null;
  height_m: number | null;
  bearing_deg: number | null;
  film: number | null;
  exposure: unknown;
  site: string;
  customer: string;
  years: number | null;
  system: string | null;
  protection: string | null;
  coater: string | null;
  road_m: number | null;
  salt_m: number | null;
  water_m: number | null;
};
export type StructuresContrast = {
  /** Structures that failed somewhere against those that did not. */
  readonly structures: Contrast;
  /** Zones that failed against those that did not. */
  readonly zones: Contrast;
};

const facings = ["north", "east", "south", "west"] as const;
const facing = (deg: number): string => facings[Math.round((((deg % 360) + 360) % 360) / 90) % 4] as string;

/**
 * What is different about what failed in the field, over all structures: of zones what they are, how high, which way they face
 * and their film; of structures the rest. Each reading stands until it was read again. One set-based query; O(zones).
 */
export async function contrastStructures(db: Kysely<Database>): Promise<StructuresContrast> {
  const { rows } = await sql<Row>`
    with readings as (${zoneReadings(sql`r.structure_id is not null`)}),
    standing as (
      select structure_id, zone, bool_or(out) as failed, max(happened_at) as at from (
        select x.*, max(x.happened_at) over (partition by x.structure_id, x.zone, x.of) as last from readings x) y
      where happened_at >= last - interval '36 hours' group by 1, 2)
    select q.structure_id, q.zone, q.failed, z.what, z.height_m, z.bearing_deg, v.film, s.exposure, s.site, coalesce(c.data->>'name', '') as customer,
      extract(epoch from q.at - coalesce(s.put_up_on::timestamptz, k.coated, make_timestamptz(f.told_year, 7, 1, 12, 0, 0, 'UTC')))::float8 / 31557600 as years,
      f.told_system as system, f.told_protection as protection, f.told_coater as coater, f.road_m, f.salt_m, f.water_m
    from standing q join structure s on s.id = q.structure_id
    left join lateral (select data from setup_version where entity_id = s.customer_id order by valid_from desc, recorded_at desc limit 1) c on true
    left join lateral (select min(r.hung_at) as coated from structure_piece sp join piece p on p.id = sp.piece_id join rack r on r.id = p.rack_id where sp.structure_id = s.id) k on true
    left join lateral (select x.* from record r join structure_fact x on x.record_id = r.id where r.structure_id = s.id and r.kind = 'structure-fact' and ${stands("r.id")} order by r.happened_at desc, r.id desc limit 1) f on true
    left join lateral (select x.* from record r join structure_zone x on x.record_id = r.id where r.structure_id = s.id and r.kind = 'structure-zone' and lower(x.zone) = q.zone and ${stands("r.id")} order by r.happened_at desc, r.id desc limit 1) z on true
    left join lateral (select (select avg(u) from unnest(x.film_um) u) as film from record r join zone_visit x on x.record_id = r.id where r.structure_id = s.id and r.kind = 'zone-visit' and lower(x.zone) = q.zone and x.film_um is not null and ${stands("r.id")} order by r.happened_at desc limit 1) v on true
    where z.gone is not true`.execute(db);
  const put = (values: Map<string, string | number>, name: string, value: string | number | null) => {
    if (value !== null && value !== "") values.set(name, value);
  };
  const zones = rows.map((r): Observed => {
    const values = new Map<string, string | number>();
    put(values, "zone", r.what);
    put(values, "height", r.height_m);
    put(values, "facing", r.bearing_deg === null ? null : facing(r.bearing_deg));
    put(values, "film", r.film);
    return { affected: r.failed, values };
  });
  const by = new Map<string, Row[]>();
  for (const r of rows) by.set(r.structure_id, [...(by.get(r.structure_id) ?? []), r]);
  const structures = [...by.values()].map((own): Observed => {
    const [first] = own as [Row];
    const values = new Map<string, string | number>();
    put(values, "age", first.years === null ? null : Math.max(...own.map((r) => r.years ?? 0)));
    put(values, "system", first.system);
    put(values, "under", first.protection);
    put(values, "coater", first.coater);
    put(values, "site", first.site);
    put(values, "customer", first.customer);
    put(values, "road", first.road_m);
    put(values, "salt-water", first.salt_m);
    put(values, "standing-water", first.water_m);
    const exposure = Array.isArray(first.exposure) ? (first.exposure as unknown[]).map(String) : [];
    for (const e of ["salt", "standing-water", "knocks", "sun", "indoor"])
      values.set(`exposed:${e}`, exposure.includes(e) ? "yes" : "no");
    return { affected: own.some((r) => r.failed), values };
  });
  return { structures: valueOrThrow(contrast(structures)), zones: valueOrThrow(contrast(zones)) };
}
