import { type Kysely, type RawBuilder, sql } from "kysely";
import { stagesEscaped } from "@/core/release";
import { shiftAt } from "@/core/shifts";
import { type FirstPass, firstPass, pareto } from "@/core/yield";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { setupAt, siteAt } from "../setup/setup-data";
import { type Person, seesPainters } from "../sign-in/roles";

export const yieldGroups = ["week", "part", "powder", "booth", "shift", "painter"] as const;
export type YieldGroup = (typeof yieldGroups)[number];
export type YieldRow = {
  readonly group: YieldGroup;
  /** What asks for its racks again. */
  readonly key: string;
  readonly name: string;
  readonly yield: FirstPass;
};
export type Yield = {
  readonly from: Date;
  readonly whole: FirstPass | null;
  readonly rows: readonly YieldRow[];
  /** Racks hung in the span that nobody decided on yet: in no figure here. */
  readonly undecided: number;
  readonly defects: readonly {
    readonly defect: string;
    readonly count: number;
    readonly pieces: number;
    readonly share: number;
    readonly upTo: number;
    /** What was spent to do these racks again, by the rates of those days; null where nobody reckoned it. */
    readonly cost: number | null;
  }[];
  /** Faults by where they were made and where they were found, the furthest first; decisions alone say so. */
  readonly escapes: readonly {
    readonly made: string;
    readonly found: string;
    readonly stages: number;
    readonly racks: number;
    readonly cost: number | null;
  }[];
  readonly currency: string;
};
export type DecidedRack = { readonly number: string; readonly decision: string; readonly at: Date };

/** Racks on a page of those behind a figure. */
export const YIELD_PAGE = 100;

/** Each rack whose first decision falls in the span. */
const decided = (from: Date, at: Date): RawBuilder<unknown> => sql`
  first_decision as materialized (
    select distinct on (r.rack_id) r.rack_id, r.happened_at, r.id from record r
    where r.kind = 'disposition' and r.rack_id is not null and r.happened_at <= ${at} order by r.rack_id, r.happened_at, r.id),
  p as materialized (
    select f.rack_id, f.happened_at, case when d.pieces is null then d.decision else 'part' end as decision from first_decision f join disposition d on d.record_id = f.id where f.happened_at > ${from})`;

/** The same with what each is grouped by. The first coat that stands says painter, booth and shift. */
const grouped = (from: Date, at: Date, timeZone: string, person: Person): RawBuilder<unknown> => sql`
  ${decided(from, at)},
  c as materialized (
    select distinct on (x.rack_id) x.rack_id, x.happened_at, x.id, x.by_user from record x
    where x.kind = 'coat' and x.rack_id is not null and ${stands("x.id")} order by x.rack_id, x.happened_at, x.id),
  j as (
    select p.rack_id, p.happened_at, p.decision, k.number, w.part_id as part, w.powder_id as powder, o.booth,
      case when ${seesPainters(person)} or c.by_user = ${person.username} then c.by_user end as painter,
      date_trunc('week', p.happened_at at time zone ${timeZone})::date as week,
      (extract(hour from c.happened_at at time zone ${timeZone}) * 60 + extract(minute from c.happened_at at time zone ${timeZone}))::int as minute
    from p join rack k on k.id = p.rack_id join job w on w.id = k.job_id left join c on c.rack_id = p.rack_id left join coat o on o.record_id = c.id)`;

/**
 * First-pass yield of the racks first decided in the span: of all, and by week, part, powder, booth, shift and painter, with
 * the defects that stand on those racks and where faults were made and found. A painter is told only to a lead, and to themselves. Four queries;
 * O(decisions and coats on record), each by an index of its own.
 */
export async function firstPassYield(
  db: Kysely<Database>,
  person: Person,
  at: Date,
  ask: { readonly days: number },
): Promise<Yield> {
  const from = new Date(at.getTime() - ask.days * 86_400_000);
  const [site, parts, powders] = await Promise.all([
    siteAt(db, at),
    setupAt(db, "part", at),
    setupAt(db, "powder", at),
  ]);
  const base = grouped(from, at, site.timeZone, person);
  const [groups, defects, waiting, escaped] = await Promise.all([
    sql<{ g: YieldGroup | "minute" | "all"; key: string | null; said: string | null; racks: number; passed: number }>`
      with ${base}
      select case when grouping(week) = 0 then 'week' when grouping(part) = 0 then 'part' when grouping(powder) = 0 then 'powder'
          when grouping(booth) = 0 then 'booth' when grouping(minute) = 0 then 'minute' when grouping(painter) = 0 then 'painter' else 'all' end as g,
        coalesce(week::text, part::text, powder::text, booth, minute::text, painter) as key,
        case when grouping(painter) = 0 then ${personName("j.painter")} end as said,
        count(*)::int as racks, (count(*) filter (where decision = 'accept'))::int as passed
      from j group by grouping sets ((week), (part), (powder), (booth), (minute), (painter), ()) order by 1, 2`.execute(
      db,
    ),
    sql<{ defect: string; count: number; pieces: number; cost: number | null }>`
      with ${decided(from, at)}
      select f.defect, count(distinct r.rack_id)::int as count, coalesce(sum(f.pieces_affected), 0)::int as pieces,
        (select sum(d.cost) from record q join disposition d on d.record_id = q.id where q.kind = 'disposition' and d.cost is not null and q.rack_id = any(array_agg(distinct r.rack_id))) as cost
      from record r join defect f on f.record_id = r.id
      where r.kind = 'defect' and r.rack_id in (select rack_id from p) and ${stands("r.id")} group by 1 order by 2 desc, 1`.execute(
      db,
    ),
    sql<{ n: number }>`
      select count(*)::int as n from rack k where k.hung_at > ${from} and k.hung_at <= ${at}
        and not exists (select 1 from record r where r.rack_id = k.id and r.kind = 'disposition' and r.happened_at <= ${at})`.execute(
      db,
    ),
    sql<{ made: string; found: string; racks: number; cost: number | null }>`
      select d.made_at as made, d.found_at as found, count(distinct r.rack_id)::int as racks, sum(d.cost) as cost
      from record r join disposition d on d.record_id = r.id
      where r.kind = 'disposition' and r.happened_at > ${from} and r.happened_at <= ${at} and d.made_at is not null and d.found_at is not null
      group by 1, 2`.execute(db),
  ]);
  const counted = (racks: number, passed: number): FirstPass | null => {
    const one = firstPass(passed, racks);
    return one.ok ? one.value : null;
  };
  const inShift = new Map<string, { racks: number; passed: number }>();
  const rows: YieldRow[] = [];
  for (const { g, key, said, racks, passed } of groups.rows) {
    if (key === null || g === "all") continue;
    if (g === "minute") {
      const shift = shiftAt(clockOf(Number(key)), site.shifts);
      if (!shift.ok) continue;
      const so = inShift.get(shift.value.name) ?? { racks: 0, passed: 0 };
      inShift.set(shift.value.name, { racks: so.racks + racks, passed: so.passed + passed });
      continue;
    }
    const own = counted(racks, passed);
    const name =
      (g === "part" ? parts.get(key)?.data.name : g === "powder" ? powderName(powders.get(key)) : said) ?? key;
    if (own) rows.push({ group: g, key, name, yield: own });
  }
  for (const { name } of site.shifts) {
    const so = inShift.get(name);
    const own = so && counted(so.racks, so.passed);
    if (own) rows.push({ group: "shift", key: name, name, yield: own });
  }
  const all = groups.rows.find((r) => r.g === "all");
  return {
    from,
    whole: all ? counted(all.racks, all.passed) : null,
    rows: rows.sort((a, b) => yieldGroups.indexOf(a.group) - yieldGroups.indexOf(b.group) || order(a, b)),
    undecided: waiting.rows[0]?.n ?? 0,
    defects: pareto(defects.rows),
    escapes: escaped.rows
      .flatMap((e) => {
        const stages = stagesEscaped(e.made, e.found);
        return stages === null ? [] : [{ ...e, stages }];
      })
      .sort((a, b) => b.stages - a.stages || b.racks - a.racks),
    currency: site.rates?.currency ?? "",
  };
}

/** Parts and powders by how many racks; people by name, since theirs is no ranking; weeks and shifts as they follow. */
const order = (a: YieldRow, b: YieldRow): number =>
  a.group === "painter"
    ? a.name.localeCompare(b.name)
    : a.group === "week" || a.group === "shift"
      ? 0
      : b.yield.racks - a.yield.racks || a.name.localeCompare(b.name);
const powderName = (powder: { readonly code: string; readonly data: { readonly name: string } } | undefined) =>
  powder && `${powder.code} ${powder.data.name}`;

/** The racks behind a figure, those that did not pass first, newest first; a page of them, and how many there are. */
export async function racksBehind(
  db: Kysely<Database>,
  person: Person,
  at: Date,
  ask: {
    readonly days: number;
    readonly of: { readonly group: YieldGroup | "defect"; readonly key: string };
    readonly page: number;
  },
): Promise<{ readonly racks: readonly DecidedRack[]; readonly total: number }> {
  const from = new Date(at.getTime() - ask.days * 86_400_000);
  const site = await siteAt(db, at);
  const { group, key } = ask.of;
  const which =
    group === "defect"
      ? sql`rack_id in (select r.rack_id from record r join defect f on f.record_id = r.id where r.kind = 'defect' and f.defect = ${key} and ${stands("r.id")})`
      : group === "shift"
        ? sql`minute = any(${minutesOf(key, site.shifts)}::int[])`
        : sql`${sql.ref(`j.${group}`)}::text = ${key}`;
  const { rows } = await sql<DecidedRack & { total: number }>`
    with ${grouped(from, at, site.timeZone, person)}
    select number, decision, happened_at as at, (count(*) over ())::int as total from j where ${which}
    order by decision = 'accept', happened_at desc, number limit ${YIELD_PAGE} offset ${(ask.page - 1) * YIELD_PAGE}`.execute(
    db,
  );
  return { racks: rows.map(({ total: _, ...rack }) => rack), total: rows[0]?.total ?? 0 };
}

/** A minute of the day as "HH:MM". */
const clockOf = (minute: number): string =>
  [Math.floor(minute / 60), minute % 60].map((n) => String(n).padStart(2, "0")).join(":");
/** Each minute of the day that a shift covers. */
const minutesOf = (shift: string, shifts: Parameters<typeof shiftAt>[1]): readonly number[] =>
  Array.from({ length: 1440 }, (_, minute) => minute).filter((minute) => {
    const at = shiftAt(clockOf(minute), shifts);
    return at.ok && at.value.name === shift;
  });
