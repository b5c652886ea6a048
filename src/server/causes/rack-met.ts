import { type Kysely, type RawBuilder, sql } from "kysely";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { setupAt, siteAt } from "../setup/setup-data";
import { conditionsWhenPassed } from "../trace/conditions";

/** What is recorded of one rack's passage, by variable: figures in the units of the record, words as they are. */
export type Met = Readonly<Record<string, string | number>>;

type Row = {
  id: string;
  hour: number;
  weekday: number;
  part_id: string;
  powder_id: string;
  customer_id: string;
  delivery_note: string | null;
  lot_id: string | null;
  booth: string | null;
  gun: string | null;
  painter: string | null;
  kv: number | null;
  current_ua: number | null;
  gun_air_kpa: number | null;
  earth_mohm: number | null;
  hook_cycles: number | null;
  distance_mm: number | null;
  reclaim_percent: number | null;
  booth_air_m_per_s: number | null;
  metal_c: number | null;
  coat_no: number | null;
  coated_at: Date | null;
  oven_id: string | null;
  place: string | null;
  timing: string | null;
  bake_min: number | null;
  film_um: number | null;
  dried_c: number | null;
  outgas_c: number | null;
  prep: Record<string, { done: boolean; value: number | null }> | null;
  blaster: string | null;
  humidity: number | null;
  dew: number | null;
};

/** Stages a piece leaves wet. */
const wet: ReadonlySet<string> = new Set(["clean", "clean-rinse", "conversion", "rinse", "seal", "final-rinse"]);
const weekdays = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"] as const;

/**
 * What each of some racks met, as the record has it now: people, place, lot, settings, times, weather, baths at the minute
 * of passage. Two set-based queries; O(racks · variables).
 */
export async function whatTheyMet(
  db: Kysely<Database>,
  rackIds: readonly string[],
  at: Date,
): Promise<ReadonlyMap<string, Met>> {
  if (rackIds.length === 0) return new Map();
  const { timeZone } = await siteAt(db, at);
  const [{ rows }, conditions, parts, powders, lots, ovens, customers] = await Promise.all([
    sql<Row>`
      select k.id, extract(hour from k.hung_at at time zone ${timeZone})::int as hour, extract(dow from k.hung_at at time zone ${timeZone})::int as weekday,
        j.part_id, j.powder_id, j.customer_id, j.delivery_note, c.*, b.oven_id, b.place, b.timing, b.bake_min, f.um as film_um, y.metal_c as dried_c, g.held_c as outgas_c, p.prep, p.blaster, h.value as humidity, a.value as dew
      from rack k join job j on j.id = k.job_id
      left join lateral (select o.lot_id, o.booth, o.gun, ${personName("r.by_user")} as painter, o.kv, o.current_ua, o.gun_air_kpa, o.earth_mohm, o.hook_cycles, o.distance_mm, o.reclaim_percent, o.booth_air_m_per_s, o.metal_c, o.coat_no, r.happened_at as coated_at
        from record r join coat o on o.record_id = r.id where r.rack_id = k.id and r.kind = 'coat' and ${stands("r.id")} order by r.happened_at desc limit 1) c on true
      left join lateral (select x.oven_id, q.place, x.timing, extract(epoch from x.pulled_at - x.door_closed_at)::float8 / 60 as bake_min from bake_place q join record r on r.id = q.record_id join bake x on x.record_id = r.id
        where q.rack_id = k.id and ${stands("r.id")} order by r.happened_at desc limit 1) b on true
      left join lateral (select sum(w.sum_um) / nullif(sum(w.spots), 0) as um from film_face w where w.record_id = (select r.id from record r where r.rack_id = k.id and r.kind = 'thickness' and ${stands("r.id")} order by r.happened_at desc limit 1)) f on true
      left join lateral (select o.metal_c from record r join dry_off o on o.record_id = r.id where r.rack_id = k.id and r.kind = 'dry-off' and ${stands("r.id")} order by r.happened_at desc limit 1) y on true
      left join lateral (select o.held_c from record r join outgas o on o.record_id = r.id where r.rack_id = k.id and r.kind = 'outgas' and ${stands("r.id")} order by r.happened_at desc limit 1) g on true
      left join lateral (select jsonb_object_agg(s.step, jsonb_build_object('done', s.done, 'value', s.value)) as prep, min(${personName("r.by_user")}) filter (where s.step = 'blast') as blaster
        from record r join prep_step s on s.record_id = r.id where r.rack_id = k.id and r.kind = 'prep-step' and ${stands("r.id")}) p on true
      left join lateral (select o.value from record r join condition o on o.record_id = r.id where r.kind = 'condition' and o.quantity = 'humidity' and r.happened_at <= coalesce(c.coated_at, k.hung_at) and r.happened_at > coalesce(c.coated_at, k.hung_at) - interval '12 hours' order by r.happened_at desc limit 1) h on true
      left join lateral (select o.value from record r join condition o on o.record_id = r.id where r.kind = 'condition' and o.quantity = 'compressed-air-dew-point' and r.happened_at <= coalesce(c.coated_at, k.hung_at) and r.happened_at > coalesce(c.coated_at, k.hung_at) - interval '12 hours' order by r.happened_at desc limit 1) a on true
      where k.id = any(${rackIds}::uuid[])`.execute(db),
    conditionsWhenPassed(db, rackIds, at),
    setupAt(db, "part", at),
    setupAt(db, "powder", at),
    setupAt(db, "lot", at),
    setupAt(db, "oven", at),
    setupAt(db, "customer", at),
  ]);
  const met = new Map(rackIds.map((id) => [id, {} as Record<string, string | number>]));
  const put = (id: string, variable: string, value: string | number | null | undefined) => {
    const of = met.get(id);
    if (of && value !== null && value !== undefined && value !== "") of[variable] = value;
  };
  const lastWet = new Map<string, Date>();
  const passages = [...conditions.passages].sort((a, b) => a.enteredAt.getTime() - b.enteredAt.getTime());
  const before = new Map<string, (typeof passages)[0]>();
  for (const p of passages) {
    put(p.rackId, `seconds:${p.stage}`, p.seconds === null ? null : Math.round(p.seconds));
    const left = p.leftAt ?? p.enteredAt;
    if (p.stage !== "booth" && p.stage !== "oven" && left > (lastWet.get(p.rackId) ?? new Date(0)))
      lastWet.set(p.rackId, left);
    const last = before.get(p.rackId);
    if (last?.leftAt && wet.has(last.stage)) {
      const stood = Math.round((p.enteredAt.getTime() - last.leftAt.getTime()) / 1000);
      const longest = met.get(p.rackId)?.wet;
      if (stood >= 0 && (typeof longest !== "number" || stood > longest)) put(p.rackId, "wet", stood);
    }
    before.set(p.rackId, p);
  }
  for (const b of conditions.baths) put(b.rackId, `bath:${b.bath}:${b.parameter}`, b.found.value);
  for (const r of rows) {
    put(r.id, "part", parts.get(r.part_id)?.data.name);
    put(r.id, "substrate", parts.get(r.part_id)?.data.substrate);
    put(r.id, "thickness", parts.get(r.part_id)?.data.thickestMm);
    put(r.id, "powder", powders.get(r.powder_id)?.data.name);
    put(r.id, "customer", customers.get(r.customer_id)?.data.name);
    put(r.id, "delivery", r.delivery_note);
    put(r.id, "lot", r.lot_id && lots.get(r.lot_id)?.code);
    put(r.id, "hour", r.hour);
    put(r.id, "weekday", weekdays[r.weekday]);
    put(r.id, "booth", r.booth);
    put(r.id, "painter", r.painter);
    put(r.id, "blaster", r.blaster);
    put(r.id, "gun", r.gun);
    put(r.id, "kv", r.kv);
    put(r.id, "current", r.current_ua);
    put(r.id, "gun-air", r.gun_air_kpa);
    put(r.id, "earth", r.earth_mohm);
    put(r.id, "hooks", r.hook_cycles);
    put(r.id, "distance", r.distance_mm);
    put(r.id, "reclaim", r.reclaim_percent);
    put(r.id, "booth-air", r.booth_air_m_per_s);
    put(r.id, "metal", r.metal_c);
    put(r.id, "coat", r.coat_no === null ? null : r.coat_no > 1 ? "recoated" : "first coat");
    put(r.id, "oven", r.oven_id && ovens.get(r.oven_id)?.data.name);
    put(r.id, "place", r.place);
    put(r.id, "timing", r.timing?.replaceAll("-", " "));
    put(r.id, "bake", r.bake_min === null ? null : Math.round(r.bake_min * 10) / 10);
    put(r.id, "film", r.film_um);
    put(r.id, "dried", r.dried_c);
    put(r.id, "outgas", r.outgas_c);
    put(r.id, "humidity", r.humidity);
    put(r.id, "air-dew-point", r.dew);
    for (const [step, { done, value }] of Object.entries(r.prep ?? {}))
      if (value !== null) put(r.id, `prep:${step}`, value);
      else put(r.id, `done:${step}`, done ? "done" : "left out");
    const last = lastWet.get(r.id);
    // Of a rack that went back to the wash after its coat the wait is not known from the last of both.
    if (last && r.coated_at && r.coated_at >= last)
      put(r.id, "wait", (r.coated_at.getTime() - last.getTime()) / 60_000);
  }
  return met;
}

/** A later reading of a bath changes what is known of racks that passed since the reading before: so far back it is looked. */
const BATH_REACH_HOURS = 72;
/** Records on their way while an entry was made may bear an earlier moment: so far back they are counted again. */
const ON_THEIR_WAY_S = 60;
const AT_ONCE = 1000;

/**
 * Racks whose kept entry is missing, of fewer records than there are now, or older than a reading of a bath that bears on
 * them; the newest first. Index probes on what was stored since the newest entry, and one pass over racks without one.
 */
async function outOfDate(db: Kysely<Database>, most: number): Promise<readonly string[]> {
  const { rows } = await sql<{ id: string }>`
    with mark as (select coalesce(max(made_at), '-infinity'::timestamptz) as at from rack_met),
    since as materialized (select r.id, r.rack_id, r.bath_id, r.kind, r.happened_at, r.stored_at > mark.at as later from record r, mark where r.stored_at > mark.at - make_interval(secs => ${ON_THEIR_WAY_S})),
    own as (select rack_id from since where rack_id is not null union select p.rack_id from since s join bake_place p on p.record_id = s.id where s.kind = 'bake'),
    bathed as (select min(happened_at) - make_interval(hours => ${BATH_REACH_HOURS}) as at from since where later and (bath_id is not null or kind = 'condition'))
    select id from (
      select k.id, k.hung_at from rack k where not exists (select 1 from rack_met m where m.rack_id = k.id)
      union select k.id, k.hung_at from own join rack k on k.id = own.rack_id join rack_met m on m.rack_id = k.id where m.records <> ${recordsOf(sql`k.id`)}
      union select k.id, k.hung_at from bathed join rack k on k.hung_at >= bathed.at join rack_met m on m.rack_id = k.id where m.made_at < (select max(r.stored_at) from record r)) x
    order by hung_at desc limit ${most}`.execute(db);
  return rows.map((r) => r.id);
}

/** How many records bear on a rack: its own and the bakes it rode in. */
const recordsOf = (rack: RawBuilder<unknown>) =>
  sql<number>`((select count(*) from record r where r.rack_id = ${rack}) + (select count(*) from bake_place p where p.rack_id = ${rack}))::int`;

/**
 * Brings what is kept of racks up to date, a thousand at a time, until done or out of time. Returns how many are left where
 * time ran out. What is kept follows from the record alone and can be thrown away at any time.
 */
export async function keepMet(db: Kysely<Database>, at: Date, untilMs: number): Promise<{ readonly left: boolean }> {
  for (;;) {
    const { rows } = await sql<{ at: Date | null }>`select max(stored_at) as at from record`.execute(db);
    const madeAt = rows[0]?.at ?? at;
    const ids = await outOfDate(db, AT_ONCE);
    if (ids.length === 0) return { left: false };
    const counts = await sql<{
      id: string;
      records: number;
    }>`select i as id, ${recordsOf(sql`i`)} as records from unnest(${ids}::uuid[]) as u (i)`.execute(db);
    const met = await whatTheyMet(db, ids, at);
    const list = counts.rows.map((r) => ({ ...r, met: JSON.stringify(met.get(r.id) ?? {}) }));
    await sql`insert into rack_met (rack_id, made_at, records, met)
      select i, ${madeAt}, n, m from unnest(${list.map((r) => r.id)}::uuid[], ${list.map((r) => r.records)}::int[], ${list.map((r) => r.met)}::jsonb[]) as u (i, n, m)
      on conflict (rack_id) do update set made_at = excluded.made_at, records = excluded.records, met = excluded.met, turn = nextval('rack_met_turn')`.execute(
      db,
    );
    if (ids.length < AT_ONCE) return { left: false };
    if (Date.now() >= untilMs) return { left: true };
  }
}
