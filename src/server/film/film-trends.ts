import { rollup } from "d3";
import { type Kysely, sql } from "kysely";
import { type SubgroupChart, xbarSChart } from "@/core/control-charts";
import {
  type CapabilityInterval,
  capabilityOf,
  type NestedMoments,
  type NestedSummary,
  nestedSummaryOf,
} from "@/core/statistics";
import { type OverBuild, overBuild } from "@/core/thickness";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { setupAt, siteAt } from "../setup/setup-data";
import { type Person, seesPainters } from "../sign-in/roles";

export const trendGroups = ["painter", "gun", "part", "face", "oven-place", "hour"] as const;
export type TrendGroup = (typeof trendGroups)[number];
export type TrendRow = {
  readonly group: TrendGroup;
  readonly name: string;
  readonly racks: number;
  readonly summary: NestedSummary;
  /** Sets with a spot under the least film asked, as a share. */
  readonly shareWithThinSpot: number;
};
export type FilmTrends = {
  readonly from: Date;
  readonly sets: number;
  readonly readings: number;
  readonly all: NestedSummary | null;
  readonly rows: readonly TrendRow[];
  readonly capability: CapabilityInterval | null;
  readonly limits: { readonly minUm: number; readonly maxUm: number } | null;
  readonly chart: { readonly chart: SubgroupChart; readonly racks: readonly string[]; readonly face: string } | null;
  readonly over: (OverBuild & { readonly targetUm: number }) | null;
};
type Row = NestedMoments & { g: string; name: string; thin: number; readings: number };

const momentsOf = ({ g: _, name: __, thin: ___, readings: ____, ...sums }: Row): NestedMoments => sums;

/** Racks on the chart of subgroups. */
const CHARTED = 40;

/**
 * Film over a span by gun, painter (each to a lead, their own to anyone else), part, face, place in the oven and hour, for all powders or one, for all parts or one.
 * Reads what each set came to on each face (see film-faces), never the readings: three queries; O(sets in the span).
 * Spots of one rack are not independent: each figure is of racks, and of spots within them. Capability, chart and
 * over-build need one powder, since each has limits of its own.
 */
export async function filmTrends(
  db: Kysely<Database>,
  person: Person,
  at: Date,
  ask: { readonly days: number; readonly powderId: string | null; readonly partId: string | null },
): Promise<FilmTrends> {
  const from = new Date(at.getTime() - ask.days * 86_400_000);
  const [powders, parts, site] = await Promise.all([
    setupAt(db, "powder", at),
    setupAt(db, "part", at),
    siteAt(db, at),
  ]);
  const powder = ask.powderId ? powders.get(ask.powderId) : undefined;
  const limits = powder ? { minUm: powder.data.minUm, maxUm: powder.data.maxUm } : null;
  const sets = sql`
    select f.face, f.spots, f.readings, f.sum_um, f.sum_sq_um, f.lowest_um, r.id, r.happened_at, r.rack_id, j.part_id, j.powder_id
    from record r join rack k on k.id = r.rack_id join job j on j.id = k.job_id join film_face f on f.record_id = r.id
    where r.kind = 'thickness' and r.happened_at > ${from} and r.happened_at <= ${at}
      and (${ask.powderId}::uuid is null or j.powder_id = ${ask.powderId}::uuid) and (${ask.partId}::uuid is null or j.part_id = ${ask.partId}::uuid)
      and ${stands("r.id")}`;
  const leastUm = limits?.minUm ?? null;
  const { rows } = await sql<Row>`
    with s as materialized (${sets}),
    c as materialized (
      select distinct on (x.rack_id) x.rack_id, case when ${seesPainters(person)} or x.by_user = ${person.username} then ${personName("x.by_user")} end as painter, coalesce(o.gun, 'not named') as gun from record x join coat o on o.record_id = x.id
      where x.kind = 'coat' and x.happened_at > ${from}::timestamptz - interval '14 days' and x.happened_at <= ${at} order by x.rack_id, x.happened_at desc),
    b as materialized (
      select distinct on (p.rack_id) p.rack_id, p.place from record x join bake_place p on p.record_id = x.id
      where x.kind = 'bake' and x.happened_at > ${from}::timestamptz - interval '14 days' and x.happened_at <= ${at} order by p.rack_id, x.happened_at desc),
    j as materialized (select s.*, c.painter, c.gun, b.place, extract(hour from s.happened_at at time zone ${site.timeZone})::int as hour from s left join c on c.rack_id = s.rack_id left join b on b.rack_id = s.rack_id),
    p as materialized (
      select case when grouping(j.painter) = 0 then 'painter' when grouping(j.gun) = 0 then 'gun' when grouping(j.part_id) = 0 then 'part' when grouping(j.face) = 0 then 'face'
          when grouping(j.place) = 0 then 'oven-place' when grouping(j.hour) = 0 then 'hour' else 'all' end as g,
        coalesce(j.painter, j.gun, j.part_id::text, j.face, j.place, lpad(j.hour::text, 2, '0'), '') as name,
        sum(j.spots)::float8 as n, sum(j.sum_um) as total, sum(j.sum_sq_um) as squares, sum(j.readings)::int as readings,
        (count(*) filter (where j.lowest_um < ${leastUm}::float8))::int as thin
      from j group by grouping sets ((j.rack_id, j.painter), (j.rack_id, j.gun), (j.rack_id, j.part_id), (j.rack_id, j.face), (j.rack_id, j.place), (j.rack_id, j.hour), (j.rack_id)) having sum(j.spots) > 0)
    select g, name, count(*)::int as groups, sum(n)::int as n, sum(total / n) as "sumOfMeans", sum((total / n) ^ 2) as "sumOfSquaredMeans", sum(1 / n) as "sumOfInverseSizes",
      sum(greatest(0, squares - total ^ 2 / n)) as "squaresWithin", sum(readings)::int as readings, sum(thin)::int as thin
    from p group by g, name order by 1, 2`.execute(db);
  const whole = rows.find((r) => r.g === "all");
  const all = whole && whole.n > 0 ? nestedSummaryOf(momentsOf(whole)) : null;
  const summary = all?.ok ? all.value : null;
  const capability = summary && limits ? capabilityOf(summary, { min: limits.minUm, max: limits.maxUm }) : null;
  return {
    from,
    sets: whole?.groups ?? 0,
    readings: whole?.readings ?? 0,
    all: summary,
    rows: rows.flatMap((r): TrendRow[] => {
      const own = r.g === "all" || r.name === "" ? null : nestedSummaryOf(momentsOf(r));
      return own?.ok
        ? [
            {
              group: r.g as TrendGroup,
              name: r.g === "part" ? (parts.get(r.name)?.data.name ?? r.name) : r.name,
              racks: r.groups,
              summary: own.value,
              shareWithThinSpot: r.thin / Math.max(1, r.groups),
            },
          ]
        : [];
    }),
    capability: capability?.ok ? capability.value : null,
    limits,
    chart: powder && ask.partId ? await chartOf(db, sets) : null,
    over: powder && limits ? await overOf(db, sets, (limits.minUm + limits.maxUm) / 2) : null,
  };

  async function overOf(conn: Kysely<Database>, of: typeof sets, targetUm: number): Promise<FilmTrends["over"]> {
    const { rows: racks } = await sql<{ part_id: string; um: number; pieces: number }>`
      select s.part_id, s.um, (select count(*)::int from piece p where p.rack_id = s.rack_id) as pieces
      from (select rack_id, part_id, sum(sum_um) / sum(spots) as um from (${of}) x group by rack_id, part_id) s`.execute(
      conn,
    );
    const measured = racks.flatMap((r) => {
      const areaM2 = parts.get(r.part_id)?.data.measures?.areaM2;
      return areaM2 && r.pieces > 0
        ? [
            {
              areaM2: areaM2 * r.pieces,
              meanUm: r.um,
              specificGravity: powder?.data.specificGravity ?? 1.6,
              pricePerKg: powder?.data.pricePerKg ?? null,
            },
          ]
        : [];
    });
    const found = overBuild(measured, targetUm, site.rates?.transferEfficiency ?? 0.6);
    return found.ok && measured.length > 0 ? { ...found.value, targetUm } : null;
  }
}

/** x̄–s of the newest racks: the means of the spots of one face are the subgroup, alike in number from rack to rack. */
async function chartOf(db: Kysely<Database>, sets: ReturnType<typeof sql>): Promise<FilmTrends["chart"]> {
  const { rows } = await sql<{ number: string; face: string; values: number[] }>`
    select k.number, x.face, (select array_agg(m.um order by m.spot) from (select t.spot, avg(t.value_um) as um from thickness_reading t where t.record_id = x.id and t.face = x.face and t.rejected_reason is null group by t.spot) m) as values
    from (select y.* from (${sets}) y where y.face = (select z.face from (${sets}) z group by z.face order by count(*) desc, z.face limit 1) order by y.happened_at desc limit ${CHARTED}) x
    join rack k on k.id = x.rack_id order by x.happened_at`.execute(db);
  // A set still in hand has fewer spots than the others: what most have is the subgroup.
  const counts = rollup(
    rows,
    (of) => of.length,
    (r) => r.values?.length ?? 0,
  );
  const size = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
  const alike = rows.filter((r) => r.values?.length === size);
  const chart = xbarSChart(alike.map((r) => r.values));
  return chart.ok ? { chart: chart.value, racks: alike.map((r) => r.number), face: alike[0]?.face ?? "" } : null;
}
