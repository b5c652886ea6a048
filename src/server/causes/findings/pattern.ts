import { type Kysely, sql } from "kysely";
import { fisherExact } from "@/core/comparison";
import type { FindingState } from "@/core/diagnosis";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { racksWith } from "../explore";
import { heldColumns } from "../held-columns";
import type { EstablishedFinding } from "./established";
import { castings } from "./preparation";

const DAY_MS = 86_400_000;
/** So far to either side racks are held to each other. */
const REACH_DAYS = 21;
/** An addition further back than this before the first that shows it did not begin it. */
const BEGAN_WITHIN_DAYS = 3;
/** Fewer that show it make no pattern. */
const LEAST = 3;
/** A pattern is one where chance alone makes it in fewer than one of twenty. */
const BY_CHANCE = 0.05;

/** Findings that are said of the run of racks or of a load, not of how one rack passed. */
export const ofTheRun: ReadonlySet<string> = new Set([
  "only-castings",
  "only-recoats",
  "one-oven-place",
  "after-lot-change",
  "after-bath-addition",
  "whole-load",
  "heavy-section",
  "heavy-pieces-only",
]);

type Around = {
  readonly affected: boolean;
  readonly value: string | number | null;
  readonly hungMs: number;
  readonly part: string;
  readonly powder: string | null;
};

/** Whether all that show it have something, and the others less often than chance: present; where some that show it have it not: absent. */
function onlyThose(around: readonly Around[], has: (value: string | number) => boolean): FindingState {
  const known = around.filter((a): a is Around & { value: string | number } => a.value !== null);
  const [mine, rest] = [known.filter((k) => k.affected), known.filter((k) => !k.affected)];
  if (mine.length < LEAST) return "unknown";
  const [a, b] = [mine.filter((k) => has(k.value)).length, rest.filter((k) => has(k.value)).length];
  if (mine.length - a >= 2) return "absent";
  const test = fisherExact([
    [a, mine.length - a],
    [b, rest.length - b],
  ]);
  return a === mine.length && test.ok && test.value.p < BY_CHANCE ? "present" : "unknown";
}

/**
 * What the run of racks says of a defect: only castings, only recoats, one oven place, only the heavy ones, from one lot or
 * one bath addition on, the whole load. Of racks hung within three weeks. Two index scans beside what is kept of racks;
 * O(racks of that time).
 */
export async function patternFindings(
  db: Kysely<Database>,
  about: { readonly rackId: string; readonly defect: string; readonly hungAt: Date },
  at: Date,
): Promise<readonly EstablishedFinding[]> {
  const [{ held }, shown] = await Promise.all([heldColumns(db, at), racksWith(db, about.defect)]);
  const here = about.hungAt.getTime();
  const places = held.ids.flatMap((_, i) =>
    Math.abs((held.hungMs[i] as number) - here) <= REACH_DAYS * DAY_MS ? [i] : [],
  );
  const readingOf = (variable: string): ((i: number) => string | number | null) => {
    const column = held.columns.find((c) => c.variable === variable);
    return (i) => {
      if (!column) return null;
      if (column.kind === "category") return column.labels[column.codes[i] as number] ?? null;
      const value = column.values[i] as number;
      return Number.isNaN(value) ? null : value;
    };
  };
  const powderOf = readingOf("powder");
  const around = (variable: string): Around[] => {
    const value = readingOf(variable);
    return places.map((i) => ({
      affected: shown.has(held.ids[i] as string),
      value: value(i),
      hungMs: held.hungMs[i] as number,
      part: held.partIds[i] as string,
      powder: powderOf(i) === null ? null : String(powderOf(i)),
    }));
  };
  // What one part or one powder always has is no pattern of the defect: such things are told among its like alone.
  const own = held.place.get(about.rackId);
  const likePart = (list: readonly Around[]) => list.filter((a) => own !== undefined && a.part === held.partIds[own]);
  const likePowder = (list: readonly Around[]) => list.filter((a) => own !== undefined && a.powder === powderOf(own));
  const out: EstablishedFinding[] = [];
  const add = (finding: string, state: FindingState, what: string) => {
    if (state !== "unknown") out.push({ finding, state, grade: "measured", what: { kind: "seen", what }, sources: [] });
  };
  const affected = places.filter((i) => shown.has(held.ids[i] as string)).length;
  const those = `${affected} racks within three weeks show it`;
  add(
    "only-castings",
    onlyThose(around("substrate"), (v) => castings.includes(String(v))),
    `by metal: ${those}`,
  );
  add(
    "only-recoats",
    onlyThose(around("coat"), (v) => v === "recoated"),
    `by coat: ${those}`,
  );
  const ovenPlaces = likePart(around("place"));
  const commonest = mostOf(ovenPlaces.filter((p) => p.affected).map((p) => p.value));
  if (commonest !== null)
    add(
      "one-oven-place",
      onlyThose(ovenPlaces, (v) => v === commonest),
      `place ${commonest} of the oven: ${those}`,
    );
  const lots = likePowder(around("lot"));
  const mine = mostOf(lots.filter((l) => l.affected).map((l) => l.value));
  if (mine !== null) {
    const firstOfLot = Math.min(...lots.filter((l) => l.value === mine).map((l) => l.hungMs));
    const before = lots.filter((l) => l.hungMs < firstOfLot);
    const state = onlyThose(lots, (v) => v === mine);
    // A lot that was there from the start began nothing.
    add("after-lot-change", state === "present" && before.length < LEAST ? "unknown" : state, `lot ${mine}: ${those}`);
  }
  out.push(...(await fromAnAddition(db, likePart(around("part")))));
  out.push(...(await ofTheLoad(db, about, shown)));
  return out;
}

const mostOf = (values: readonly (string | number | null)[]): string | number | null => {
  const counts = new Map<string | number, number>();
  for (const value of values) if (value !== null) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
};

/** Whether it began with an addition to, or a dump of, a conversion bath: all that show it hang after one, and the others mostly before. */
async function fromAnAddition(db: Kysely<Database>, around: readonly Around[]): Promise<EstablishedFinding[]> {
  const mine = around.filter((a) => a.affected);
  if (mine.length < LEAST) return [];
  const first = Math.min(...mine.map((a) => a.hungMs));
  const { rows } = await sql<{ id: string; at: Date; event: string; product: string | null }>`
    select r.id, r.happened_at as at, e.event, e.product from record r join bath_event e on e.record_id = r.id
    join setup_entity b on b.id = r.bath_id
    left join lateral (select data from setup_version where entity_id = b.id order by valid_from desc, recorded_at desc limit 1) v on true
    where r.kind = 'bath-event' and v.data->>'role' = 'conversion' and r.happened_at <= ${new Date(first)} and r.happened_at > ${new Date(first - BEGAN_WITHIN_DAYS * DAY_MS)} and ${stands("r.id")}
    order by r.happened_at desc limit 1`.execute(db);
  const [event] = rows;
  if (!event) return [];
  const state = onlyThose(
    around.map((a) => ({ ...a, value: a.hungMs >= event.at.getTime() ? "after" : "before" })),
    (v) => v === "after",
  );
  if (state !== "present") return [];
  const what = `${event.event}${event.product ? ` of ${event.product}` : ""}; the first rack that shows it came after it`;
  return [
    { finding: "after-bath-addition", state, grade: "measured", what: { kind: "seen", what }, sources: [event.id] },
  ];
}

/** Whether the load it was cured in shows it as a whole, and whether this piece is much heavier than the rest of it. */
async function ofTheLoad(
  db: Kysely<Database>,
  about: { readonly rackId: string },
  shown: ReadonlySet<string>,
): Promise<EstablishedFinding[]> {
  const { rows } = await sql<{ id: string; record: string; thickest: number | null }>`
    with mine as (select r.id from bake_place p join record r on r.id = p.record_id where p.rack_id = ${about.rackId}::uuid and ${stands("r.id")} order by r.happened_at desc limit 1)
    select k.id, mine.id as record, (v.data->>'thickestMm')::float8 as thickest from mine join bake_place p on p.record_id = mine.id join rack k on k.id = p.rack_id join job j on j.id = k.job_id
    left join lateral (select data from setup_version where entity_id = j.part_id order by valid_from desc, recorded_at desc limit 1) v on true`.execute(
    db,
  );
  if (rows.length < 2) return [];
  const out: EstablishedFinding[] = [];
  const source = [...new Set(rows.map((r) => r.record))];
  const with_ = rows.filter((r) => shown.has(r.id)).length;
  out.push({
    finding: "whole-load",
    state: with_ === rows.length ? "present" : "absent",
    grade: "measured",
    what: { kind: "seen", what: `${with_} of the load’s ${rows.length} racks show it` },
    sources: source,
  });
  const own = rows.find((r) => r.id === about.rackId)?.thickest ?? null;
  const others = rows.flatMap((r) => (r.id !== about.rackId && r.thickest !== null ? [r.thickest] : []));
  if (own !== null && others.length > 0) {
    const lightest = Math.min(...others);
    const heavy = own >= 2 * lightest;
    out.push({
      finding: "heavy-section",
      state: heavy ? "present" : "absent",
      grade: "measured",
      what: {
        kind: "value",
        quantity: "thickest section",
        value: own,
        unit: "mm",
        lower: null,
        upper: null,
        where: `cured with ${lightest} mm`,
      },
      sources: source,
    });
    const heavies = rows.filter((r) => r.thickest !== null && r.thickest >= 2 * lightest);
    const lights = rows.filter((r) => r.thickest !== null && r.thickest < 2 * lightest);
    if (heavy && heavies.every((r) => shown.has(r.id)) && lights.length > 0)
      out.push({
        finding: "heavy-pieces-only",
        state: lights.some((r) => shown.has(r.id)) ? "absent" : "present",
        grade: "measured",
        what: { kind: "seen", what: `of the load only what is ${2 * lightest} mm and more shows it` },
        sources: source,
      });
  }
  return out;
}
