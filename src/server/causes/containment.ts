import { type Kysely, sql } from "kysely";
import { loadKnowledge } from "@/core/diagnosis";
import { forPerson } from "@/db/queries/for-person";
import type { Database } from "@/db/schema";
import { loadRack, type RackFile } from "../rack/load-rack";
import { type Person, seesCustomer } from "../sign-in/roles";
import { conditionsWhenPassed } from "../trace/conditions";
import { establish } from "./establish";
import { ofTheRun } from "./findings/pattern";
import type { EstablishedFinding } from "./findings-from-record";
import { type Held, heldColumns } from "./held-columns";

const knowledge = loadKnowledge();

/** Where something is that passed like the rack of a case: what can be done about it follows from that. */
export const riskPlaces = ["stoppable", "in-shop", "shipped", "in-field"] as const;
export type RiskPlace = (typeof riskPlaces)[number];
export type AtRisk = {
  readonly rackId: string;
  readonly number: string;
  readonly hungAt: Date;
  readonly part: string;
  readonly customer: string;
  readonly customerId: string;
  readonly pieces: number;
  readonly place: RiskPlace;
  readonly onHold: boolean;
  readonly stage: string;
  readonly structures: readonly string[];
  /** Shows the same defect by now. */
  readonly showsIt: boolean;
};
export type Shared = { readonly finding: string; readonly label: string };
export type Candidates = {
  /** The conditions by which racks are held to the case’s: of its rack, established, and speaking for the cause. */
  readonly shared: readonly Shared[];
  /** Of those, the ones by which racks were picked at once; the others are looked into rack by rack. */
  readonly byColumns: readonly string[];
  /** Racks that may have passed like it, the nearest in time first. */
  readonly ids: readonly string[];
  /** Of those, the ones of which what is kept could not tell: they are looked into for every condition. */
  readonly untold: ReadonlySet<string>;
  /** Racks held to it. */
  readonly among: number;
};

/** A finding speaks for a cause this much before racks are held to it. */
const SPEAKS = 1;
/** Racks looked into one by one at most; how many are left is said. */
const LOOKED_INTO = 400;
/** Those of the candidates that are looked into, and how many are not: where all was told by what is kept of each, every one. */
export const lookedInto = (found: Candidates): { readonly ids: readonly string[]; readonly left: number } => {
  const most = found.byColumns.length === found.shared.length ? found.ids.length : LOOKED_INTO;
  return { ids: found.ids.slice(0, most), left: Math.max(0, found.ids.length - most) };
};
const AT_ONCE = 6;

/** Conditions that the case’s rack and the cause have in common. */
export function sharedConditions(
  established: readonly EstablishedFinding[],
  defect: string,
  cause: string,
): readonly EstablishedFinding[] {
  const rows = knowledge.defects.get(defect)?.evidence.get(cause) ?? [];
  return established.filter(
    (f) =>
      f.state === "present" &&
      !ofTheRun.has(f.finding) &&
      rows.some((e) => e.finding === f.finding && e.whenPresent >= SPEAKS),
  );
}

type Test = (place: number) => boolean | null;

/** Whether a rack bears a finding out, by what is kept of each; null where that cannot tell. A finding without such a test is looked into rack by rack. */
function testOf(held: Held, finding: EstablishedFinding): Test | null {
  const { what } = finding;
  const figure = (variable: string): ((i: number) => number | null) | null => {
    const column = held.columns.find((c) => c.variable === variable);
    if (column?.kind !== "figure") return null;
    return (i) => (Number.isNaN(column.values[i] as number) ? null : (column.values[i] as number));
  };
  const category = (variable: string, value: string): Test | null => {
    const column = held.columns.find((c) => c.variable === variable);
    if (column?.kind !== "category") return null;
    const code = column.labels.indexOf(value);
    return (i) => ((column.codes[i] as number) < 0 ? null : column.codes[i] === code);
  };
  if (finding.finding === "existing-coating-under") return category("coat", "recoated");
  if (finding.finding === "timed-from-door") return category("timing", "door close");
  if (what.kind === "job-says" && what.feature === null) return category("substrate", what.substrate);
  const condition = conditionOf(finding);
  const values = condition ? figure(condition.variable) : null;
  if (!condition || !values) return null;
  const { over, under } = condition;
  return (i) => {
    const value = values(i);
    if (value === null) return null;
    return (under !== null && value < under) || (over !== null && value > over);
  };
}

/** What a finding says of one variable of what racks met: over one figure, or under another; null where it says no such thing. */
export function conditionOf({ finding, what }: EstablishedFinding): {
  readonly variable: string;
  readonly over: number | null;
  readonly under: number | null;
} | null {
  if (what.kind !== "value" || (what.lower === null && what.upper === null)) return null;
  const bath = `bath:${what.where}:${what.quantity}`;
  const variable =
    {
      "kv-high": "kv",
      "output-high": "gun-air",
      "output-low": "gun-air",
      "ground-poor": "earth",
      "hooks-coated": "hooks",
      "reclaim-high": "reclaim",
      "booth-air-high": "booth-air",
      "gun-close": "distance",
      "air-wet": "air-dew-point",
      "line-stopped-wet": "wet",
      "contact-time-short": "seconds:conversion",
      "conversion-out": bath,
      "rinse-dirty": bath,
      "cleaner-out": bath,
      "inhibitor-low": bath,
    }[finding] ?? null;
  return variable === null ? null : { variable, over: what.upper, under: what.lower };
}

/**
 * Racks that may have passed under the same condition as a case's, over the whole record, at once: by what is kept of each.
 * O(racks × conditions), some milliseconds for a hundred thousand.
 */
export async function candidates(
  db: Kysely<Database>,
  person: Person,
  about: { readonly rackId: string; readonly defect: string; readonly established: readonly EstablishedFinding[] },
  cause: string,
  at: Date,
): Promise<Candidates> {
  const shared = sharedConditions(about.established, about.defect, cause);
  const named = shared.map((f) => ({
    finding: f.finding,
    label: knowledge.findings.get(f.finding)?.label ?? f.finding,
  }));
  if (shared.length === 0) return { shared: [], byColumns: [], ids: [], untold: new Set(), among: 0 };
  const { held } = await heldColumns(db, at);
  const tests = shared.flatMap((f) => {
    const test = testOf(held, f);
    return test ? [{ finding: f.finding, test }] : [];
  });
  const here = held.hungMs[held.place.get(about.rackId) ?? -1] ?? at.getTime();
  const places: number[] = [];
  const untold = new Set<string>();
  let among = 0;
  for (let i = 0; i < held.ids.length; i++) {
    if (held.ids[i] === about.rackId) continue;
    if (!seesCustomer(person, held.customerIds[i])) continue;
    among++;
    const told = tests.map(({ test }) => test(i));
    if (told.includes(false)) continue;
    places.push(i);
    if (told.includes(null)) untold.add(held.ids[i] as string);
  }
  places.sort((a, b) => Math.abs((held.hungMs[a] as number) - here) - Math.abs((held.hungMs[b] as number) - here));
  return {
    shared: named,
    byColumns: tests.map((t) => t.finding),
    ids: places.map((i) => held.ids[i] as string),
    untold,
    among,
  };
}

/**
 * Which of some racks passed under every condition of a case: those by which they were not picked are established from the
 * record of each. Two set-based queries for the baths and the places, and the record of each rack: O(racks).
 */
export async function passedLike(
  db: Kysely<Database>,
  person: Person,
  ids: readonly string[],
  found: Candidates,
  defect: string,
  at: Date,
): Promise<readonly AtRisk[]> {
  if (ids.length === 0) return [];
  const every = found.shared.map((s) => s.finding);
  const rest = every.filter((f) => !found.byColumns.includes(f));
  const bearing = new Set(ids);
  const into = rest.length > 0 ? ids : ids.filter((id) => found.untold.has(id));
  if (into.length > 0) {
    const numbers = await db
      .selectFrom("rack")
      .select(["id", "number"])
      .where("id", "in", [...into])
      .execute();
    const all = await conditionsWhenPassed(db, into, at);
    for (let start = 0; start < numbers.length; start += AT_ONCE)
      await Promise.all(
        numbers.slice(start, start + AT_ONCE).map(async ({ id, number }) => {
          const rack = await loadRack(db, person, number);
          const findings: readonly EstablishedFinding[] = rack
            ? await establish(db, rack as RackFile, null, null, {
                baths: all.baths.filter((b) => b.rackId === id),
                passages: all.passages.filter((p) => p.rackId === id),
              })
            : [];
          const asked = found.untold.has(id) ? every : rest;
          if (!asked.every((a) => findings.some((f) => f.finding === a && f.state === "present"))) bearing.delete(id);
        }),
      );
  }
  return placesOf(
    db,
    person,
    ids.filter((id) => bearing.has(id)),
    defect,
  );
}

/** Where racks are now. One set-based query; O(racks). */
async function placesOf(
  db: Kysely<Database>,
  person: Person,
  ids: readonly string[],
  defect: string,
): Promise<readonly AtRisk[]> {
  if (ids.length === 0) return [];
  const { rows } = await sql<Omit<AtRisk, "place"> & { gone: boolean; baked: boolean }>`
    select k.id as "rackId", k.number, k.hung_at as "hungAt", coalesce(pv.data->>'name', '') as part, coalesce(cv.data->>'name', '') as customer, j.customer_id as "customerId",
      (select count(*)::int from piece p where p.rack_id = k.id) as pieces, s.gone_at is not null as gone, coalesce(s.stage, '') as stage,
      exists (select 1 from bake_place b where b.rack_id = k.id) as baked,
      coalesce((select d.decision from record r join disposition d on d.record_id = r.id where r.rack_id = k.id and r.kind = 'disposition' order by r.happened_at desc, r.stored_at desc, r.id desc limit 1) = 'hold', false) as "onHold",
      coalesce((select array_agg(distinct t.name) from structure_piece sp join piece p on p.id = sp.piece_id join structure t on t.id = sp.structure_id where p.rack_id = k.id), '{}') as structures,
      exists (select 1 from record r join defect d on d.record_id = r.id where r.rack_id = k.id and r.kind = 'defect' and d.defect = ${defect} and coalesce(d.pieces_affected, 1) > 0) as "showsIt"
    from rack k join job j on j.id = k.job_id left join rack_standing s on s.rack_id = k.id
    left join lateral (select data from setup_version where entity_id = j.part_id order by valid_from desc, recorded_at desc limit 1) pv on true
    left join lateral (select data from setup_version where entity_id = j.customer_id order by valid_from desc, recorded_at desc limit 1) cv on true
    where k.id = any(${ids}::uuid[]) and ${forPerson(person, "j.customer_id")} order by k.hung_at desc, k.number`.execute(
    db,
  );
  return rows.map(({ gone, baked, ...r }) => ({
    ...r,
    place: r.structures.length > 0 ? "in-field" : gone ? "shipped" : baked ? "in-shop" : "stoppable",
  }));
}
