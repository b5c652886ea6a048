import { type Kysely, sql } from "kysely";
import { type ChangePoint, type Contrast, changePoint, contrast, type Observed } from "@/core/comparison";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { dayIn } from "../day";
import { type RecordLine, recentRecords } from "../search/recent";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { conditionsWhenPassed } from "../trace/conditions";

export type Onset = {
  readonly day: string;
  /** When its first rack was hung. */
  readonly from: Date;
  readonly change: ChangePoint;
  /** Changes recorded from the day before to the day's end. */
  readonly near: readonly RecordLine[];
};
export type WhatDiffers = {
  readonly from: Date;
  readonly to: Date;
  /** Racks hung in that time, of which the nearest were compared. */
  readonly hung: number;
  readonly compared: number;
  readonly contrast: Contrast;
  readonly onset: Onset | null;
};

const REACH_DAYS = 30;
const DAY_MS = 86_400_000;
/** Racks compared at most, the nearest in time first; the affected are always among them. */
const MOST = 400;
/** Changes shown beside an onset. */
const NEAR = 12;
const LOOKED_AT = 200;
/** What was found and decided follows from a change; it is none. */
const outcomes: ReadonlySet<string> = new Set([
  "defect",
  "disposition",
  "certificate",
  "confirmation",
  "visit",
  "metal-mark",
]);

type RackRow = {
  id: string;
  hung_at: Date;
  affected: boolean;
  part_id: string;
  powder_id: string;
  lot_id: string | null;
  booth: string | null;
  gun: string | null;
  painter: string | null;
  kv: number | null;
  earth_mohm: number | null;
  hook_cycles: number | null;
  distance_mm: number | null;
  metal_c: number | null;
  coated_at: Date | null;
  oven_id: string | null;
  place: string | null;
  film_um: number | null;
};

/**
 * What is different about the racks that show a defect, on the line or in a structure that their pieces went into, against those hung within thirty days that do not, over all that is
 * recorded of their passage, and the day from which it shows more often. Three set-based queries and the trace's;
 * O(racks · variables), at most 400 racks. Null where no rack, or every one, shows it.
 */
export async function whatDiffers(
  db: Kysely<Database>,
  person: Person,
  about: { readonly defect: string; readonly hungAt: Date },
): Promise<WhatDiffers | null> {
  const from = new Date(about.hungAt.getTime() - REACH_DAYS * DAY_MS);
  const to = new Date(about.hungAt.getTime() + REACH_DAYS * DAY_MS);
  const { rows: hung } = await sql<{ id: string; hung_at: Date; affected: boolean }>`
    with shown as materialized (
      select coalesce(r.rack_id, p.rack_id) as rack_id from record r join defect d on d.record_id = r.id
      left join structure_piece s on s.structure_id = r.structure_id left join piece p on p.id = s.piece_id
      where r.kind = 'defect' and d.defect = ${about.defect} and ${stands("r.id")})
    select k.id, k.hung_at, exists (select 1 from shown where shown.rack_id = k.id) as affected from rack k join job j on j.id = k.job_id where k.hung_at >= ${from} and k.hung_at <= ${to} and ${forPerson(person, "j.customer_id")}
    order by k.hung_at, k.id`.execute(db);
  const affected = hung.filter((r) => r.affected);
  if (affected.length === 0 || affected.length === hung.length) return null;
  const away = (r: { readonly hung_at: Date }) => Math.abs(r.hung_at.getTime() - about.hungAt.getTime());
  const nearest = [...hung]
    .sort((a, b) => Number(b.affected) - Number(a.affected) || away(a) - away(b))
    .slice(0, Math.max(MOST, affected.length));
  const found = contrast(await observed(db, nearest, about.hungAt));
  if (!found.ok) return null;
  return {
    from: hung[0]?.hung_at ?? from,
    to: hung.at(-1)?.hung_at ?? to,
    hung: hung.length,
    compared: nearest.length,
    contrast: found.value,
    onset: await onsetOf(db, person, hung),
  };
}

async function observed(
  db: Kysely<Database>,
  racks: readonly { readonly id: string; readonly affected: boolean }[],
  at: Date,
): Promise<Observed[]> {
  const ids = racks.map((r) => r.id);
  const [{ rows }, conditions, parts, powders, lots, ovens] = await Promise.all([
    sql<Omit<RackRow, "affected">>`
      select k.id, k.hung_at, j.part_id, j.powder_id, c.*, b.oven_id, b.place, f.um as film_um from rack k join job j on j.id = k.job_id
      left join lateral (select o.lot_id, o.booth, o.gun, ${personName("r.by_user")} as painter, o.kv, o.earth_mohm, o.hook_cycles, o.distance_mm, o.metal_c, r.happened_at as coated_at
        from record r join coat o on o.record_id = r.id where r.rack_id = k.id and r.kind = 'coat' and ${stands("r.id")} order by r.happened_at desc limit 1) c on true
      left join lateral (select x.oven_id, p.place from bake_place p join record r on r.id = p.record_id join bake x on x.record_id = r.id
        where p.rack_id = k.id and ${stands("r.id")} order by r.happened_at desc limit 1) b on true
      left join lateral (select sum(w.sum_um) / nullif(sum(w.spots), 0) as um from film_face w where w.record_id = (select r.id from record r where r.rack_id = k.id and r.kind = 'thickness' and ${stands("r.id")} order by r.happened_at desc limit 1)) f on true
      where k.id = any(${ids}::uuid[])`.execute(db),
    conditionsWhenPassed(db, ids, at),
    setupAt(db, "part", at),
    setupAt(db, "powder", at),
    setupAt(db, "lot", at),
    setupAt(db, "oven", at),
  ]);
  const values = new Map(ids.map((id) => [id, new Map<string, string | number>()]));
  const put = (id: string, variable: string, value: string | number | null | undefined) => {
    if (value !== null && value !== undefined && value !== "") values.get(id)?.set(variable, value);
  };
  const lastWet = new Map<string, Date>();
  for (const p of conditions.passages) {
    put(p.rackId, `seconds:${p.stage}`, p.seconds === null ? null : Math.round(p.seconds));
    const left = p.leftAt ?? p.enteredAt;
    if (p.stage !== "booth" && p.stage !== "oven" && left > (lastWet.get(p.rackId) ?? new Date(0)))
      lastWet.set(p.rackId, left);
  }
  for (const b of conditions.baths) put(b.rackId, `bath:${b.bath}:${b.parameter}`, b.found.value);
  for (const r of rows) {
    put(r.id, "part", parts.get(r.part_id)?.data.name);
    put(r.id, "powder", powders.get(r.powder_id)?.data.name);
    put(r.id, "lot", r.lot_id && lots.get(r.lot_id)?.code);
    put(r.id, "booth", r.booth);
    put(r.id, "painter", r.painter);
    put(r.id, "gun", r.gun);
    put(r.id, "kv", r.kv);
    put(r.id, "earth", r.earth_mohm);
    put(r.id, "hooks", r.hook_cycles);
    put(r.id, "distance", r.distance_mm);
    put(r.id, "metal", r.metal_c);
    put(r.id, "oven", r.oven_id && ovens.get(r.oven_id)?.data.name);
    put(r.id, "place", r.place);
    put(r.id, "film", r.film_um);
    const wet = lastWet.get(r.id);
    // Of a rack that went back to the wash after its coat the wait is not known from the last of both.
    if (wet && r.coated_at && r.coated_at >= wet) put(r.id, "wait", (r.coated_at.getTime() - wet.getTime()) / 60_000);
  }
  return racks.map((r) => ({ affected: r.affected, values: values.get(r.id) ?? new Map() }));
}

/** The day from which more racks show it than chance would have, with what was changed about then. */
async function onsetOf(
  db: Kysely<Database>,
  person: Person,
  racks: readonly { readonly hung_at: Date; readonly affected: boolean }[],
): Promise<Onset | null> {
  const first = racks[0];
  if (!first) return null;
  const { timeZone } = await siteAt(db, first.hung_at);
  const days = new Map<string, { day: string; from: Date; defective: number; inspected: number }>();
  for (const r of racks) {
    const day = dayIn(r.hung_at, timeZone);
    const one = days.get(day) ?? { day, from: r.hung_at, defective: 0, inspected: 0 };
    days.set(day, {
      ...one,
      inspected: one.inspected + 1,
      defective: one.defective + Number(r.affected),
    });
  }
  const periods = [...days.values()];
  const change = changePoint(periods);
  const at = change.ok && change.value.onset ? periods[change.value.firstAffectedPeriod] : undefined;
  if (!change.ok || !at) return null;
  const until = new Date(at.from.getTime() + DAY_MS);
  const near = await recentRecords(db, person, until, LOOKED_AT, {
    changesSince: new Date(at.from.getTime() - DAY_MS),
  });
  return {
    day: at.day,
    from: at.from,
    change: change.value,
    near: near.filter((r) => !outcomes.has(r.kind)).slice(0, NEAR),
  };
}
