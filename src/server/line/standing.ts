import { type Kysely, sql } from "kysely";
import { type Standing, type StandingFacts, standingOf } from "@/core/line";
import { lock, take } from "@/db/queries/locks";
import { stands } from "@/db/queries/stands";
import type { Database, RackStandingTable } from "@/db/schema";

type FactRow = {
  rack_id: string;
  number: string;
  job_id: string;
  customer_id: string;
  part_id: string;
  hung_at: Date;
  route: string[] | null;
  worst_iso: number;
  spots: number;
  decision: string | null;
  decided_at: Date | null;
  reworked_at: Date | null;
  stage: string | null;
  entered_at: Date | null;
  left_at: Date | null;
  blasted_at: Date | null;
  converted_at: Date | null;
  wiped_at: Date | null;
  layer: string | null;
  coated_at: Date | null;
  bake_id: string | null;
  closed_at: Date | null;
  pulled_at: Date | null;
  traced: boolean;
  readings: number;
  iso: number | null;
  rubbed: boolean;
  touched_up_at: Date | null;
  defect: string | null;
  covered: string[];
  tests_due: string[];
  sample_due: string[];
};
/** Readings asked for on each spot of the part, where no plan of reading says otherwise. */
const READINGS_PER_SPOT = 3;

/** Records of the rack, and of panels that stood for it: each by an index of its own. */
const speaksFor = sql`(select o.id, o.kind, o.happened_at from record o where o.rack_id = k.id
  union select o.id, o.kind, o.happened_at from stands_for m join record o on o.id = m.record_id where m.rack_id = k.id)`;

/** Of a defect: not touched up since, and on a piece that is still on the rack where it says on which. */
const stillThere = sql`not exists (select 1 from touch_up t where t.defect_id = r.id and t.done and ${stands("t.record_id")})
  and (f.pieces is null or exists (select 1 from jsonb_array_elements_text(f.pieces) s join piece x on x.serial = s.value
    where x.rack_id = k.id and not exists (select 1 from disposition_piece g where g.piece_id = x.id)))`;

/** Of the newest call for each test: those that are done with here or by the unit's sample, those asked and open, those that wait for the sample. */
const calledFor = sql`select coalesce(array_agg(c.test order by c.test) filter (where c.skipped or (not c.asked and c.sampled)), '{}') as covered,
    coalesce(array_agg(c.test order by c.test) filter (where c.asked and not c.skipped and not c.done), '{}') as tests_due,
    coalesce(array_agg(c.test order by c.test) filter (where not c.asked and not c.skipped and not c.sampled and not c.done), '{}') as sample_due
  from (select distinct on (c.test) c.test, c.asked,
      exists (select 1 from record y join test_skip z on z.record_id = y.id where y.rack_id = k.id and y.kind = 'test-skip' and z.test = c.test and y.happened_at >= r.happened_at and ${stands("y.id")}) as skipped,
      exists (select 1 from test_outcome e where e.record_id = c.record_id and e.test = c.test and e.good is not null) as done,
      coalesce((select bool_and(e.good) from test_call m join test_outcome e on e.record_id = m.record_id and e.test = m.test where m.plan_id = c.plan_id and m.test = c.test and m.unit = c.unit), false) as sampled
    from record r join test_call c on c.record_id = r.id where r.rack_id = k.id and r.kind = 'test-call' order by c.test, r.happened_at desc, r.id desc) c`;

/** What is on record of some racks, a few index probes each. O(racks). */
async function factsOf(db: Kysely<Database>, rackIds: readonly string[]): Promise<FactRow[]> {
  const { rows } = await sql<FactRow>`
    select k.id as rack_id, k.number, k.job_id, j.customer_id, j.part_id, k.hung_at, coalesce(pl.route, (select array_agg(x.value) from jsonb_array_elements_text(j.plan->'stages') x)) as route,
      coalesce((j.requirement->>'adhesionWorstIso')::int, 1) as worst_iso,
      coalesce((select sum(jsonb_array_length(face->'spots')) from jsonb_array_elements(v.data->'faces') as face), 0)::int as spots,
      d.decision, d.at as decided_at, w.at as reworked_at, p.stage, p.entered_at, p.left_at, b.blasted_at, b.converted_at, u.wiped_at, c.layer, c.at as coated_at,
      o.record_id as bake_id, o.door_closed_at as closed_at, o.pulled_at, coalesce(o.traced, false) as traced, t.readings, x.iso, u.rubbed, u.touched_up_at, f.defect, a.covered, a.tests_due, a.sample_due
    from rack k join job j on j.id = k.job_id
    left join lateral (select data from setup_version where entity_id = j.part_id order by valid_from <= k.hung_at desc, case when valid_from <= k.hung_at then valid_from end desc, valid_from, recorded_at desc limit 1) v on true
    left join lateral (select (select array_agg(s.value) from jsonb_array_elements_text(q.document->'stages') s) as route from record r join job_plan q on q.record_id = r.id where r.job_id = j.id and r.kind = 'plan' and (r.happened_at <= k.hung_at or q.document->'moved' ? k.id::text) order by r.happened_at desc, r.id desc limit 1) pl on true
    left join lateral (select d.decision, r.happened_at as at from record r join disposition d on d.record_id = r.id where r.rack_id = k.id and r.kind = 'disposition' and d.pieces is null order by r.happened_at desc, r.id desc limit 1) d on true
    left join lateral (select max(r.happened_at) as at, coalesce(max(r.happened_at), '-infinity') as since, coalesce(max(r.happened_at) filter (where d.decision <> 'wipe-off'), '-infinity') as metal_since from record r join disposition d on d.record_id = r.id where r.rack_id = k.id and r.kind = 'disposition' and d.decision in ('wipe-off', 'scuff-and-recoat', 'strip')) w on true
    left join lateral (select q.stage, q.entered_at, q.left_at from record r join passage q on q.record_id = r.id where r.rack_id = k.id and r.kind = 'passage' and r.happened_at > w.since and ${stands("r.id")} order by r.happened_at desc, r.id desc limit 1) p on true
    left join lateral (select x.iso from ${speaksFor} r join cross_cut x on x.record_id = r.id where r.kind = 'cross-cut' and r.happened_at > w.since and ${stands("r.id")} order by x.iso desc limit 1) x on true
    left join lateral (select f.defect from record r join defect f on f.record_id = r.id where r.rack_id = k.id and r.kind = 'defect' and f.pieces_affected is distinct from 0 and r.happened_at > w.since and ${stands("r.id")} and ${stillThere} order by r.happened_at desc, r.id desc limit 1) f on true
    left join lateral (select max(coalesce(q.left_at, q.entered_at)) filter (where q.stage = 'blast') as blasted_at, max(coalesce(q.left_at, q.entered_at)) filter (where q.stage = 'conversion') as converted_at from record r join passage q on q.record_id = r.id where r.rack_id = k.id and r.kind = 'passage' and q.stage in ('blast', 'conversion') and r.happened_at > w.metal_since and ${stands("r.id")}) b on true
    left join lateral (select c.layer, r.happened_at as at from record r join coat c on c.record_id = r.id where r.rack_id = k.id and r.kind = 'coat' and r.happened_at > w.since and ${stands("r.id")} order by r.happened_at desc, r.id desc limit 1) c on true
    left join lateral (select coalesce(sum(s.readings), 0)::int as readings from record r join film_face s on s.record_id = r.id where r.rack_id = k.id and r.kind = 'thickness' and r.happened_at > w.since and (c.at is null or r.happened_at >= c.at) and ${stands("r.id")}) t on true
    left join lateral (select coalesce(bool_or(r.kind = 'solvent-rub'), false) as rubbed, max(r.happened_at) filter (where r.kind = 'touch-up') as touched_up_at, max(r.happened_at) filter (where q.step = 'solvent-wipe' and q.done) as wiped_at from ${speaksFor} r left join prep_step q on q.record_id = r.id where r.kind in ('solvent-rub', 'prep-step', 'touch-up') and r.happened_at > w.since and ${stands("r.id")}) u on true
    left join lateral (select q.record_id, q.door_closed_at, q.pulled_at, (q.sections is not null or exists (select 1 from bake_channel h where h.record_id = q.record_id and h.medium = 'metal')) as traced from bake_place m join bake q on q.record_id = m.record_id where m.rack_id = k.id and q.door_closed_at > w.since and ${stands("q.record_id")} order by q.door_closed_at desc, q.record_id desc limit 1) o on true
    left join lateral (${calledFor}) a on true
    where k.id = any(${rackIds}::uuid[])`.execute(db);
  return rows;
}

const ms = (at: Date | null): number | null => at?.getTime() ?? null;
const date = (at: number | null): Date | null => (at === null ? null : new Date(at));
const asFacts = (row: FactRow): StandingFacts => ({
  hungMs: row.hung_at.getTime(),
  passage:
    row.stage !== null && row.entered_at
      ? { stage: row.stage, enteredMs: row.entered_at.getTime(), leftMs: ms(row.left_at) }
      : null,
  decision: row.decision !== null && row.decided_at ? { what: row.decision, atMs: row.decided_at.getTime() } : null,
  reworkedMs: ms(row.reworked_at),
  touchedUpMs: ms(row.touched_up_at),
  route: row.route ?? [],
  blastedMs: ms(row.blasted_at),
  convertedMs: ms(row.converted_at),
  wipedMs: ms(row.wiped_at),
  coat: row.layer !== null && row.coated_at ? { layer: row.layer, atMs: row.coated_at.getTime() } : null,
  bake: row.closed_at ? { closedMs: row.closed_at.getTime(), pulledMs: ms(row.pulled_at), traced: row.traced } : null,
  readings: row.readings,
  asked: READINGS_PER_SPOT * row.spots,
  iso: row.iso,
  worstIso: row.worst_iso,
  rubbed: row.rubbed,
  covered: row.covered,
  testsDue: row.tests_due.length + row.sample_due.length,
  defect: row.defect,
});
const asRow = (row: FactRow, s: Standing): RackStandingTable => ({
  rack_id: row.rack_id,
  number: row.number,
  job_id: row.job_id,
  customer_id: row.customer_id,
  part_id: row.part_id,
  hung_at: row.hung_at,
  stage: s.stage,
  passage: s.passage,
  since: new Date(s.sinceMs),
  open: s.open,
  state: s.state,
  result: s.result,
  next: s.next,
  next_since: new Date(s.nextSinceMs),
  held_by: s.heldBy,
  readings: row.readings,
  asked: READINGS_PER_SPOT * row.spots,
  defect: row.defect,
  iso: row.iso,
  bare_since: date(s.bareSinceMs),
  unsealed_since: date(s.unsealedSinceMs),
  wiped_at: date(s.wipedMs),
  tests_due: row.tests_due,
  sample_due: row.sample_due,
  bake_id: row.bake_id && row.pulled_at === null && s.next === "pull" ? row.bake_id : null,
  gone_at: date(s.goneMs),
});

/** How some racks stand by their records. */
export async function standingFromRecords(
  db: Kysely<Database>,
  rackIds: readonly string[],
): Promise<RackStandingTable[]> {
  return (await factsOf(db, rackIds)).map((row) => asRow(row, standingOf(asFacts(row))));
}

const columns = [
  "stage",
  "passage",
  "since",
  "open",
  "state",
  "result",
  "next",
  "next_since",
  "held_by",
  "readings",
  "asked",
  "defect",
  "iso",
  "bare_since",
  "unsealed_since",
  "wiped_at",
  "tests_due",
  "sample_due",
  "bake_id",
  "gone_at",
] as const;
const BATCH = 500;

/** A load of more racks at once than this is no work of a shift: it is not locked rack by rack. */
const MOST_LOCKED = 200;
/** Two who change the same racks or jobs at once work them out one after the other: the second sees what the first did. */
const oneByOne = (trx: Kysely<Database>, ids: readonly string[]) =>
  ids.length <= MOST_LOCKED ? take(trx, ids.map(lock.standing)) : undefined;

/** Keeps how some racks stand beside them, in the transaction of what changed it. O(racks). */
export async function refreshStanding(trx: Kysely<Database>, rackIds: readonly string[]): Promise<void> {
  await oneByOne(trx, rackIds);
  for (let i = 0; i < rackIds.length; i += BATCH) {
    const rows = await standingFromRecords(trx, rackIds.slice(i, i + BATCH));
    if (rows.length === 0) continue;
    await trx
      .insertInto("rack_standing")
      .values(rows)
      .onConflict((conflict) =>
        conflict
          .column("rack_id")
          .doUpdateSet((eb) => Object.fromEntries(columns.map((column) => [column, eb.ref(`excluded.${column}`)]))),
      )
      .execute();
    await refreshJobs(trx, [...new Set(rows.map((row) => row.job_id))]);
  }
}

/** How far jobs are, from their plans, pieces and racks. A job is in hand while a rack of it is on the line, none hangs yet, or pieces are still to hang. */
const jobFacts = (jobIds: readonly string[]) => sql`
  select j.id as job_id, j.customer_id, j.due_on, o.ordered, p.hung, w.on_line, (w.on_line > 0 or p.hung = 0 or p.hung < coalesce(o.ordered, 0)) as in_hand
  from job j
  left join lateral (select coalesce((select (q.document->>'pieces')::int from record r join job_plan q on q.record_id = r.id where r.job_id = j.id and r.kind = 'plan' order by r.happened_at desc, r.id desc limit 1), (j.plan->>'pieces')::int) as ordered) o on true
  left join lateral (select count(*)::int as hung from piece x join rack k on k.id = x.rack_id where k.job_id = j.id) p on true
  left join lateral (select count(*)::int as on_line from rack_standing s where s.job_id = j.id and s.gone_at is null) w on true
  where j.id = any(${jobIds}::uuid[]) order by j.id`;

/** Keeps how far some jobs are beside them. O(racks and pieces of those jobs). */
export async function refreshJobs(trx: Kysely<Database>, jobIds: readonly string[]): Promise<void> {
  if (jobIds.length === 0) return;
  await oneByOne(trx, jobIds);
  await sql`
    insert into job_standing (job_id, customer_id, due_on, ordered, hung, on_line, in_hand) ${jobFacts(jobIds)}
    on conflict (job_id) do update set ordered = excluded.ordered, hung = excluded.hung, on_line = excluded.on_line, in_hand = excluded.in_hand`.execute(
    trx,
  );
}

/** Racks whose standing is not on record yet get it: after a migration, after a load of many. Returns how many. */
export async function completeStanding(db: Kysely<Database>): Promise<number> {
  const { rows } = await sql<{ id: string }>`
    select k.id from rack k where not exists (select 1 from rack_standing s where s.rack_id = k.id)`.execute(db);
  await refreshStanding(
    db,
    rows.map((row) => row.id),
  );
  const jobs = await sql<{ id: string }>`
    select j.id from job j where not exists (select 1 from job_standing s where s.job_id = j.id)`.execute(db);
  await refreshJobs(
    db,
    jobs.rows.map((row) => row.id),
  );
  return rows.length;
}

const told = (value: unknown) => (value instanceof Date ? value.toISOString() : String(value));
/** Jobs whose kept standing is not what their plans, pieces and racks say. O(jobs and their racks). */
export async function wrongJobs(db: Kysely<Database>): Promise<readonly string[]> {
  const ids = (await db.selectFrom("job").select("id").execute()).map((j) => j.id);
  const { rows } = await sql<{ number: string }>`
    select j.number from (${jobFacts(ids)}) f join job j on j.id = f.job_id left join job_standing s on s.job_id = f.job_id
    where (s.ordered, s.hung, s.on_line, s.in_hand) is distinct from (f.ordered, f.hung, f.on_line, f.in_hand) order by j.number`.execute(
    db,
  );
  return rows.map((row) => row.number);
}

/** Racks whose kept standing is not what their records say: number, and the columns that differ. O(racks). */
export async function wrongStanding(
  db: Kysely<Database>,
): Promise<readonly { readonly number: string; readonly columns: readonly string[] }[]> {
  const ids = (await db.selectFrom("rack").select("id").orderBy("id").execute()).map((r) => r.id);
  const wrong: { number: string; columns: string[] }[] = [];
  for (let i = 0; i < ids.length; i += BATCH) {
    const part = ids.slice(i, i + BATCH);
    const kept = new Map(
      (await db.selectFrom("rack_standing").selectAll().where("rack_id", "in", part).execute()).map((r) => [
        r.rack_id,
        r,
      ]),
    );
    for (const row of await standingFromRecords(db, part)) {
      const mine = kept.get(row.rack_id);
      const differ = mine ? columns.filter((c) => told(mine[c]) !== told(row[c])) : ["missing"];
      if (differ.length > 0) wrong.push({ number: row.number, columns: differ });
    }
  }
  return wrong;
}
