import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { forPerson } from "@/db/queries/for-person";
import { lock } from "@/db/queries/locks";
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
};

export type FailingZone = {
  readonly structure: string;
  readonly name: string;
  readonly customer: string | null;
  readonly defect: string;
  readonly zones: readonly string[];
  /** The newest reading past its limit. */
  readonly at: Date;
};

/**
 * Structures on which a zone stands past its limit, by its newest reading of each kind, with no case of that defect: none falls
 * off by age. One set-based query; O(readings of zones).
 */
export async function failingZones(db: Kysely<Database>, person: Person): Promise<readonly FailingZone[]> {
  const { rows } = await sql<{
    structure: string;
    name: string;
    customer: string | null;
    zone: string;
    of: string;
    at: Date;
    cases: string[];
  }>`
    with readings as (${zoneReadings(sql`r.structure_id is not null`)}),
    newest as (select distinct on (structure_id, zone, of) * from readings where of <> 'eye' order by structure_id, zone, of, happened_at desc)
    select s.code as structure, s.name, c.data->>'name' as customer, n.zone, n.of, n.happened_at as at, coalesce((select array_agg(x.defect) from root_cause_case x where x.structure_id = s.id), '{}') as cases
    from newest n join structure s on s.id = n.structure_id
    left join lateral (select data from setup_version where entity_id = s.customer_id order by valid_from desc, recorded_at desc limit 1) c on true
    where n.out and ${forPerson(person, "s.customer_id")} order by n.happened_at desc, s.code, n.zone`.execute(db);
  const groups = new Map<string, { -readonly [K in keyof FailingZone]: FailingZone[K] } & { zones: string[] }>();
  for (const { structure, name, customer, zone, of, at, cases } of rows) {
    const defect = defectOf[of];
    if (!defect || cases.includes(defect)) continue;
    const key = `${structure} ${defect}`;
    const one = groups.get(key);
    if (one) {
      if (!one.zones.includes(zone)) one.zones.push(zone);
    } else groups.set(key, { structure, name, customer, defect, zones: [zone], at });
  }
  return [...groups.values()];
}

const schema = v.object({
  structure: filled(40),
  defect: v.picklist([...new Set(Object.values(defectOf))]),
  zone: text(80),
});

/**
 * Opens a case on a zone that stands past its limit: its defect is put on record of the structure, once for the same reading,
 * and the case is opened on it. Failures: `bad-entry`, `unknown-structure`, `no-longer-failing` where the newest reading is in.
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
  const failing = (await failingZones(db, person)).find((f) => f.structure === structure && f.defect === defect);
  const known = await findStructure(db, person, structure);
  if (!known) return refuse({ kind: "unknown-structure", name: structure });
  const open = await db
    .selectFrom("root_cause_case")
    .select("number")
    .where("structure_id", "=", known.id)
    .where("defect", "=", defect)
    .orderBy("opened_at", "desc")
    .executeTakeFirst();
  if (open) return { ok: true, href: `/causes/${open.number}` };
  if (!failing) return refuse({ kind: "no-longer-failing", structure });
  const made = await write(db, [lock.structure(structure)], clock, (trx, at) =>
    storeOne(
      trx,
      {
        id: newId(),
        kind: "defect",
        happenedAt: at,
        by: person.username,
        grade: "measured",
        idempotencyKey: `zone-defect:${structure}:${defect}:${failing.at.toISOString()}`,
        structureId: known.id,
        details: {
          defect: [
            {
              defect,
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
  if (!made.ok) return made;
  return openCase(db, person, { defectRecordId: made.recordId, zone: zone || (failing.zones[0] ?? "") }, clock);
}
