import { type Kysely, sql } from "kysely";
import type { Database } from "@/db/schema";
import type { Held } from "./held-columns";
import { heldColumns } from "./held-columns";

/** One thing that is otherwise than on the last good racks: of those the median, or the commonest. */
export type Changed = {
  readonly variable: string;
  readonly good: string | number;
  readonly now: string | number;
  /** Share of the racks of the part before it whose value lies nearer to the good one's, 0–1; null of fewer than eight. */
  readonly unusual: number | null;
  readonly among: number;
  /** The first rack from which on it was so, without a break, and when that was hung. */
  readonly since: { readonly number: string; readonly at: Date } | null;
};
export type ChangedSinceGood = {
  /** The newest of the racks that it is held to, and how many those are; null where there is none. */
  readonly good: { readonly number: string; readonly at: Date; readonly racks: number } | null;
  readonly changed: readonly Changed[];
  readonly same: number;
  readonly notKnown: readonly string[];
};

/** What differs with every rack by its nature tells nothing. */
const passing: ReadonlySet<string> = new Set(["hour", "weekday", "delivery"]);
const LOOKED_BACK = 400;
const LEAST_AMONG = 8;

/**
 * What was otherwise on a rack than on the last ten of the same part before it that were accepted and show no fault, the most
 * unusual first, and since when it was so. O(variables × 400 racks of the part).
 */
export async function changedSinceGood(
  db: Kysely<Database>,
  rackId: string,
  at: Date,
): Promise<ChangedSinceGood | null> {
  const { held } = await heldColumns(db, at);
  const here = held.place.get(rackId);
  if (here === undefined) return null;
  const before = racksBefore(held, here);
  const good = (
    await lastGood(
      db,
      before.map((i) => held.ids[i] as string),
    )
  ).flatMap((id) => held.place.get(id) ?? []);
  const [goodAt] = good;
  if (goodAt === undefined) return { good: null, changed: [], same: 0, notKnown: [] };
  const changed: Changed[] = [];
  const notKnown: string[] = [];
  let same = 0;
  for (const column of held.columns) {
    if (passing.has(column.variable)) continue;
    const valueAt = (i: number): string | number | null => {
      if (column.kind === "figure") {
        const value = column.values[i] as number;
        return Number.isNaN(value) ? null : value;
      }
      return column.labels[column.codes[i] as number] ?? null;
    };
    const [was, is] = [usual(good.map(valueAt)), valueAt(here)];
    if (was === null && is === null) continue;
    if (was === null || is === null) {
      notKnown.push(column.variable);
      continue;
    }
    if (was === is) {
      same++;
      continue;
    }
    if (typeof was === "number" && typeof is === "number" && Math.abs(is - was) < usualStep(before, valueAt)) {
      same++;
      continue;
    }
    // On the side of what it is now, rather than of what it was.
    const like = (value: string | number): boolean =>
      typeof value === "number" && typeof is === "number" && typeof was === "number"
        ? Math.abs(value - is) < Math.abs(value - was)
        : value === is;
    const known = before.flatMap((i) => {
      const value = valueAt(i);
      return value === null ? [] : [{ i, value }];
    });
    let since: number | null = here;
    for (const { i, value } of known) {
      if (!like(value)) break;
      since = i;
    }
    changed.push({
      variable: column.variable,
      good: was,
      now: is,
      unusual: known.length < LEAST_AMONG ? null : known.filter((k) => !like(k.value)).length / known.length,
      among: known.length,
      since:
        since === null ? null : { number: held.numbers[since] as string, at: new Date(held.hungMs[since] as number) },
    });
  }
  changed.sort((a, b) => (b.unusual ?? -1) - (a.unusual ?? -1) || (a.variable < b.variable ? -1 : 1));
  return {
    good: { number: held.numbers[goodAt] as string, at: new Date(held.hungMs[goodAt] as number), racks: good.length },
    changed,
    same,
    notKnown,
  };
}

/** How far two racks of the part lie apart by mere wandering: what three of four steps from rack to rack are under, at least 2 % of the value. */
function usualStep(before: readonly number[], valueAt: (i: number) => string | number | null): number {
  const values = before.flatMap((i) => {
    const value = valueAt(i);
    return typeof value === "number" ? [value] : [];
  });
  const steps = values.slice(1).map((v, i) => Math.abs(v - (values[i] as number)));
  steps.sort((a, b) => a - b);
  const middle = steps[Math.floor(steps.length * 0.75)] ?? 0;
  return Math.max(middle, 0.02 * Math.abs(values[0] ?? 0));
}

/** Places of the racks of the same part hung before one, the newest first. */
function racksBefore(held: Held, here: number): number[] {
  const out: number[] = [];
  for (let i = here - 1; i >= 0 && out.length < LOOKED_BACK; i--)
    if (held.partIds[i] === held.partIds[here]) out.push(i);
  return out;
}

/** Racks that it is held to: one alone may have been good by luck. */
const GOOD_RACKS = 10;

/** The median of figures, or the commonest word; null where nothing is known. */
function usual(values: readonly (string | number | null)[]): string | number | null {
  const known = values.filter((v) => v !== null);
  if (known.length === 0) return null;
  const figures = known.filter((v) => typeof v === "number").sort((a, b) => a - b);
  if (figures.length === known.length) return figures[Math.floor((figures.length - 1) / 2)] ?? null;
  const counts = new Map<string | number, number>();
  for (const v of known) counts.set(v, (counts.get(v) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

/** The newest of some racks, given newest first, that were accepted and have no fault on record. One probe a rack. */
async function lastGood(db: Kysely<Database>, ids: readonly string[]): Promise<readonly string[]> {
  const { rows } = await sql<{ id: string }>`
    select u.id from unnest(${ids}::uuid[]) with ordinality as u (id, n)
    where exists (select 1 from record r join disposition d on d.record_id = r.id where r.rack_id = u.id and r.kind = 'disposition' and d.decision = 'accept')
      and not exists (select 1 from record r join defect d on d.record_id = r.id where r.rack_id = u.id and r.kind = 'defect' and coalesce(d.pieces_affected, 1) > 0)
    order by u.n limit ${GOOD_RACKS}`.execute(db);
  return rows.map((r) => r.id);
}
