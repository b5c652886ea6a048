import { type Kysely, type RawBuilder, type SqlBool, sql } from "kysely";
import * as v from "valibot";
import { forPerson } from "@/db/queries/for-person";
import { lock } from "@/db/queries/locks";
import { stands } from "@/db/queries/stands";
import { zoneReadings } from "@/db/queries/zone-readings";
import type { Database } from "@/db/schema";
import { findStructure } from "../field/find-structure";
import { badEntry, filled, text } from "../input";
import { newId } from "../now";
import { type Outcome, refuse } from "../outcome";
import { storeOne } from "../record/store-record";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";
import { openCase } from "./case-actions";

/** What a reading past its limit is called as a defect. */
const defectOf: Readonly<Record<string, string>> = {
  creep: "rust-creep",
  rust: "pinpoint-rust",
  tape: "delamination",
  flaking: "delamination",
  blisters: "blistering",
  seam: "seam-rust",
  chalk: "chalking",
  colour: "chalking",
  gloss: "chalking",
};

/**
 * Every reading that says whether the finish has faded: chalk, colour, and gloss beside that of the sheltered zone of the same
 * round, each against the limit that `judgeZone` has. One index probe a record.
 */
const fadedReadings = sql`
  select r.structure_id, lower(z.zone) as zone, v.of, r.happened_at, null::int as rating, v.out from record r join zone_visit z on z.record_id = r.id
    left join lateral (select avg(u) as gu from unnest(z.gloss_gu) u) g on true
    left join lateral (select avg(u) as gu from zone_visit s join record q on q.id = s.record_id cross join lateral unnest(s.gloss_gu) u
      where s.round_id = z.round_id and s.gloss_deg = z.gloss_deg and q.structure_id = r.structure_id and ${stands("q.id")}
        and exists (select 1 from record k join structure_zone x on x.record_id = k.id where k.structure_id = r.structure_id and k.kind = 'structure-zone' and lower(x.zone) = lower(s.zone) and x.what = 'sheltered' and ${stands("k.id")})) b on true
    cross join lateral (values ('chalk', z.chalk > 2), ('colour', z.delta_e > 5), ('gloss', g.gu < 0.5 * b.gu)) v(of, out)
    where v.out is not null and r.kind = 'zone-visit' and r.structure_id is not null and ${stands("r.id")}`;

export type FailingZone = {
  readonly structure: string;
  readonly name: string;
  readonly site: string;
  readonly customer: string | null;
  readonly defect: string;
  readonly zones: readonly string[];
  /** The newest reading past its limit. */
  readonly at: Date;
};

/** Whether a case, named x, is of a structure: opened on it, or one of its defects joined to it and not split off since. One index probe a case. */
const covers = (
  structure: RawBuilder<unknown>,
): RawBuilder<SqlBool> => sql<SqlBool>`(x.structure_id = ${structure} or exists (
  select 1 from (select distinct on (j.of) j.of, j.state from case_defect j join record q on q.id = j.record_id where q.case_id = x.id order by j.of, q.happened_at desc, q.stored_at desc, q.id desc) w
    join record d on d.id = w.of where w.state = 'joined' and d.structure_id = ${structure}))`;

/**
 * Structures on which a zone stands past its limit, by its newest reading of each kind, with no case of that defect: none falls
 * off by age. One set-based query; O(readings of zones).
 */
export async function failingZones(db: Kysely<Database>, person: Person): Promise<readonly FailingZone[]> {
  const { rows } = await sql<{
    structure: string;
    name: string;
    site: string;
    customer: string | null;
    zone: string;
    of: string;
    at: Date;
    cases: string[];
  }>`
    with readings as (${zoneReadings(sql`r.structure_id is not null`)} union all ${fadedReadings}),
    newest as (select distinct on (structure_id, zone, of) * from readings where of <> 'eye' order by structure_id, zone, of, happened_at desc)
    select s.code as structure, s.name, s.site, c.data->>'name' as customer, n.zone, n.of, n.happened_at as at, coalesce((select array_agg(x.defect) from root_cause_case x where ${covers(sql`s.id`)}), '{}') as cases
    from newest n join structure s on s.id = n.structure_id
    left join lateral (select data from setup_version where entity_id = s.customer_id order by valid_from desc, recorded_at desc limit 1) c on true
    where n.out and ${forPerson(person, "s.customer_id")} order by n.happened_at desc, s.code, n.zone`.execute(db);
  const groups = new Map<string, { -readonly [K in keyof FailingZone]: FailingZone[K] } & { zones: string[] }>();
  for (const { structure, name, site, customer, zone, of, at, cases } of rows) {
    const defect = defectOf[of];
    if (!defect || cases.includes(defect)) continue;
    const key = `${structure} ${defect}`;
    const one = groups.get(key);
    if (one) {
      if (!one.zones.includes(zone)) one.zones.push(zone);
    } else groups.set(key, { structure, name, site, customer, defect, zones: [zone], at });
  }
  return [...groups.values()];
}

/** Structures of one site on which the same defect stands, gathered; the largest first. Pure; O(zones). */
export function bySite(zones: readonly FailingZone[]): readonly (readonly FailingZone[])[] {
  const groups = new Map<string, FailingZone[]>();
  for (const z of zones) {
    const key = `${z.customer ?? ""} ${z.site.toLowerCase()} ${z.defect}`;
    groups.set(key, [...(groups.get(key) ?? []), z]);
  }
  return [...groups.values()].sort(
    (a, b) => b.length - a.length || (b[0]?.at.getTime() ?? 0) - (a[0]?.at.getTime() ?? 0),
  );
}

const schema = v.object({
  structure: filled(40),
  defect: v.picklist([...new Set(Object.values(defectOf))]),
  zone: text(80),
  /** Others on which the same stands, taken into the same case. */
  alike: v.optional(v.pipe(v.array(filled(40)), v.maxLength(200, "are more than 200")), []),
});

/**
 * Opens a case on a zone that stands past its limit: its defect is put on record of the structure, once for the same reading,
 * and the case is opened on it, with that of other structures joined to it. Failures: `bad-entry`, `unknown-structure`,
 * `no-longer-failing` where the newest reading is in, `in-another-case`.
 */
export async function openZoneCase(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly href: string }>> {
  const parsed = v.safeParse(schema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { structure, defect, zone } = parsed.output;
  const failing = await failingZones(db, person);
  const open = await openOf(db, person, structure, defect);
  if (!open.ok) return open;
  if (open.number) return { ok: true, href: `/causes/${open.number}` };
  // All are looked at before anything is put on record.
  const owns: FailingZone[] = [];
  for (const code of new Set([structure, ...parsed.output.alike])) {
    const own = failing.find((f) => f.structure === code && f.defect === defect);
    if (!own) return refuse({ kind: "no-longer-failing", structure: code });
    owns.push(own);
  }
  const ids: string[] = [];
  for (const own of owns) {
    const made = await defectOnRecord(db, person, own, clock);
    if (!made.ok) return made;
    ids.push(made.recordId);
  }
  const [first, ...others] = ids as [string, ...string[]];
  return openCase(db, person, { defectRecordId: first, zone: zone || (owns[0]?.zones[0] ?? ""), alike: others }, clock);
}

/** The case that a structure has of a defect already. */
async function openOf(db: Kysely<Database>, person: Person, structure: string, defect: string) {
  const known = await findStructure(db, person, structure);
  if (!known) return refuse({ kind: "unknown-structure", name: structure });
  const { rows } = await sql<{
    number: string;
  }>`select x.number from root_cause_case x where x.defect = ${defect} and ${covers(sql`${known.id}::uuid`)} order by x.opened_at desc limit 1`.execute(
    db,
  );
  const [open] = rows;
  return { ok: true as const, number: open?.number ?? null };
}

/** Puts what was read on record as a defect of the structure; the same reading once. */
async function defectOnRecord(db: Kysely<Database>, person: Person, failing: FailingZone, clock: Clock) {
  const known = await findStructure(db, person, failing.structure);
  if (!known) return refuse({ kind: "unknown-structure", name: failing.structure });
  return write(db, [lock.structure(known.id)], clock, (trx, at) =>
    storeOne(
      trx,
      {
        id: newId(),
        kind: "defect",
        happenedAt: at,
        by: person.username,
        grade: "measured",
        idempotencyKey: `zone-defect:${failing.structure}:${failing.defect}:${failing.at.toISOString()}`,
        structureId: known.id,
        details: {
          defect: [
            {
              defect: failing.defect,
              face: null,
              x: null,
              y: null,
              extent_percent: null,
              pieces_affected: null,
              pieces_seen: null,
              sub_kind: null,
              size_mm: null,
              count: null,
              pieces: null,
              note: `past its limit as read on the round: ${failing.zones.join(", ")}`,
            },
          ],
        },
      },
      at,
    ),
  );
}
