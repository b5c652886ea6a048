import { type Kysely, sql } from "kysely";
import { gather, type Sighting } from "@/core/diagnosis";
import { stagesEscaped } from "@/core/release";
import { forPerson } from "@/db/queries/for-person";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";
import { cameBack } from "./corrective-actions";

/** How much hangs on it: it has left or is in use; it is on a good part of the work, or weakens the coat; neither. */
export const severities = ["high", "middle", "low"] as const;
export type Severity = (typeof severities)[number];

type Loose = Sighting & {
  readonly partName: string;
  readonly note: string | null;
  readonly affected: number | null;
  readonly seen: number | null;
  readonly customerName: string | null;
  readonly structureName: string | null;
  readonly complaint: boolean;
};
export type Proposal = {
  readonly defect: string;
  readonly items: readonly Loose[];
  readonly shared: readonly string[];
  readonly severity: Severity;
  readonly firstAt: Date;
  readonly lastAt: Date;
  readonly racks: number;
  readonly structures: number;
  readonly pieces: number;
};
export type CaseLine = {
  readonly number: string;
  readonly defect: string;
  readonly zone: string;
  readonly openedAt: Date;
  readonly rack: string | null;
  readonly structure: string | null;
  readonly part: string | null;
  readonly customer: string | null;
  readonly cause: string | null;
  /** How far its corrective action is; null before a cause is confirmed or anyone looked. */
  readonly action: string | null;
  readonly defects: number;
  readonly complaint: boolean;
  readonly severity: Severity;
};

/** What weakens the coat rather than its look. */
const weakens: ReadonlySet<string> = new Set([
  "adhesion-loss",
  "delamination",
  "blistering",
  "rust-creep",
  "edge-rust",
  "seam-rust",
  "pinpoint-rust",
  "filiform",
  "soft-film",
  "brittle-film",
  "flash-rust",
]);
/** From so many racks, or such a share of pieces, it is more than a single slip. */
const SEVERAL_RACKS = 3;
const GOOD_PART = 0.25;

export function severityOf(about: {
  readonly defect: string;
  readonly out: boolean;
  readonly racks: number;
  readonly share: number | null;
}): Severity {
  if (about.out) return "high";
  return weakens.has(about.defect) || about.racks >= SEVERAL_RACKS || (about.share ?? 0) >= GOOD_PART
    ? "middle"
    : "low";
}

/**
 * Defects that no case has yet, on the line, in complaints and in the field, gathered by likeness; none falls off by age or
 * number. One set-based query; O(defects without a case).
 */
export async function proposals(db: Kysely<Database>, person: Person): Promise<readonly Proposal[]> {
  const { rows } = await sql<Omit<Loose, "atMs"> & { at: Date }>`
    select r.id, r.happened_at as at, d.defect, d.face as place, d.note, d.pieces_affected as affected, d.pieces_seen as seen, k.number as rack, s.code as structure, s.name as "structureName",
      coalesce(j.part_id::text, s.code, '') as part, coalesce(pv.data->>'name', s.name, '') as "partName", coalesce(j.customer_id, s.customer_id)::text as customer, cv.data->>'name' as "customerName",
      m.met->>'lot' as lot, m.met->>'oven' as oven, r.idempotency_key like '%:defect' and exists (select 1 from record c where c.idempotency_key = replace(r.idempotency_key, ':defect', ':complaint') and c.kind = 'complaint') as complaint
    from record r join defect d on d.record_id = r.id left join rack k on k.id = r.rack_id left join job j on j.id = k.job_id left join structure s on s.id = r.structure_id left join rack_met m on m.rack_id = k.id
    left join lateral (select data from setup_version where entity_id = j.part_id order by valid_from desc, recorded_at desc limit 1) pv on true
    left join lateral (select data from setup_version where entity_id = coalesce(j.customer_id, s.customer_id) order by valid_from desc, recorded_at desc limit 1) cv on true
    where r.kind = 'defect' and coalesce(d.pieces_affected, 1) > 0 and ${stands("r.id")} and ${forPerson(person, "s.customer_id", "j.customer_id")}
      and not exists (select 1 from root_cause_case c where c.defect_record_id = r.id)
      and not coalesce((select x.state from case_defect x join record q on q.id = x.record_id where x.of = r.id order by q.happened_at desc, q.stored_at desc, q.id desc limit 1) = 'joined', false)`.execute(
    db,
  );
  const loose = rows.map(({ at, ...r }): Loose => ({ ...r, atMs: at.getTime() }));
  const byId = new Map(loose.map((l) => [l.id, l]));
  return gather(loose).map(({ defect, sightings, shared }): Proposal => {
    const items = sightings.map((s) => byId.get(s.id) as Loose);
    const racks = new Set(items.flatMap((i) => i.rack ?? [])).size;
    const structures = new Set(items.flatMap((i) => i.structure ?? [])).size;
    const affected = items.reduce((n, i) => n + (i.affected ?? 0), 0);
    const seen = items.reduce((n, i) => n + (i.seen ?? 0), 0);
    return {
      defect,
      items,
      shared,
      racks,
      structures,
      pieces: affected,
      severity: severityOf({
        defect,
        out: structures > 0 || items.some((i) => i.complaint),
        racks,
        share: seen > 0 ? affected / seen : null,
      }),
      firstAt: new Date(Math.min(...items.map((i) => i.atMs))),
      lastAt: new Date(Math.max(...items.map((i) => i.atMs))),
    };
  });
}

/** Every case with what came of it, the newest first. Index probes a case; O(cases). */
export async function casesOf(db: Kysely<Database>, person: Person): Promise<readonly CaseLine[]> {
  const { rows } = await sql<Omit<CaseLine, "severity"> & { racks: number }>`
    select c.number, c.defect, c.zone, c.opened_at as "openedAt", k.number as rack, s.name as structure, pv.data->>'name' as part, cv.data->>'name' as customer, f.cause, case when ${cameBack} then 'did-not-work' else a.state end as action,
      1 + coalesce(x.n, 0) as defects, 1 + coalesce(x.racks, 0) as racks,
      exists (select 1 from record d join record q on q.idempotency_key = replace(d.idempotency_key, ':defect', ':complaint') and q.kind = 'complaint' where d.id = c.defect_record_id and d.idempotency_key like '%:defect') as complaint
    from root_cause_case c left join rack k on k.id = c.rack_id left join job j on j.id = k.job_id left join structure s on s.id = c.structure_id
    left join lateral (select data from setup_version where entity_id = j.part_id order by valid_from desc, recorded_at desc limit 1) pv on true
    left join lateral (select data from setup_version where entity_id = coalesce(s.customer_id, j.customer_id) order by valid_from desc, recorded_at desc limit 1) cv on true
    left join lateral (select r.id, y.cause from record r join confirmation y on y.record_id = r.id where r.case_id = c.id and r.kind = 'confirmation' order by r.happened_at desc, r.stored_at desc, r.id desc limit 1) f on true
    left join lateral (select ac.state, r.happened_at from action_check ac join record r on r.id = ac.record_id where ac.confirmation_id = f.id and ${stands("r.id")} order by r.happened_at desc, r.stored_at desc, r.id desc limit 1) a on true
    left join lateral (select count(*) filter (where w.state = 'joined')::int as n, count(distinct d.rack_id) filter (where w.state = 'joined' and d.rack_id <> c.rack_id)::int as racks from (
      select distinct on (z.of) z.of, z.state from case_defect z join record r on r.id = z.record_id where r.case_id = c.id order by z.of, r.happened_at desc, r.stored_at desc, r.id desc) w join record d on d.id = w.of) x on true
    where ${forPerson(person, "s.customer_id", "j.customer_id")} order by c.opened_at desc, c.number desc`.execute(db);
  return rows.map(({ racks, ...c }) => ({
    ...c,
    severity: severityOf({ defect: c.defect, out: c.structure !== null || c.complaint, racks, share: null }),
  }));
}

/** Confirmed cases by the stage where the cause was made and where it was found. */
export type Escape = {
  readonly made: string;
  readonly found: string;
  readonly cases: number;
  readonly stages: number | null;
};

const stageOfCause: Readonly<Record<string, string>> = {
  prep: "prepare",
  pretreatment: "pretreat",
  powder: "coat",
  application: "coat",
  cure: "cure",
};

/** Where confirmed causes were made and where their defects were found: what is found late could only be stripped or recoated. O(cases). */
export async function escapes(
  db: Kysely<Database>,
  person: Person,
  stageOf: (cause: string) => string,
): Promise<readonly Escape[]> {
  const { rows } = await sql<{ cause: string; found: string }>`
    select f.cause, case when c.structure_id is not null then 'field'
        when exists (select 1 from record q where d.idempotency_key like '%:defect' and q.idempotency_key = replace(d.idempotency_key, ':defect', ':complaint') and q.kind = 'complaint') then 'field'
        when exists (select 1 from bake_place b join record q on q.id = b.record_id where b.rack_id = c.rack_id and q.happened_at <= d.happened_at) then 'test'
        when exists (select 1 from record q where q.rack_id = c.rack_id and q.kind = 'coat' and q.happened_at <= d.happened_at) then 'coat' else 'pretreat' end as found
    from root_cause_case c join record d on d.id = c.defect_record_id left join rack k on k.id = c.rack_id left join job j on j.id = k.job_id left join structure s on s.id = c.structure_id
    join lateral (select x.cause from record r join confirmation x on x.record_id = r.id where r.case_id = c.id and r.kind = 'confirmation' order by r.happened_at desc, r.stored_at desc, r.id desc limit 1) f on true
    where ${forPerson(person, "s.customer_id", "j.customer_id")}`.execute(db);
  const groups = new Map<string, { made: string; found: string; cases: number }>();
  for (const { cause, found } of rows) {
    const made = stageOfCause[stageOf(cause)];
    if (!made) continue;
    const key = `${made} ${found}`;
    const one = groups.get(key) ?? { made, found, cases: 0 };
    groups.set(key, { ...one, cases: one.cases + 1 });
  }
  return [...groups.values()]
    .map((g) => ({ ...g, stages: stagesEscaped(g.made, g.found) }))
    .sort((a, b) => b.cases - a.cases || (a.made < b.made ? -1 : 1));
}
