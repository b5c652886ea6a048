import { type Kysely, sql } from "kysely";
import { type Column, columnOf } from "@/core/comparison";
import type { Database } from "@/db/schema";
import { keepMet, type Met } from "./rack-met";

/** What all racks met, a column a variable, in the order in which they were hung. */
export type Held = {
  readonly ids: readonly string[];
  readonly numbers: readonly string[];
  readonly hungMs: Float64Array;
  readonly customerIds: readonly string[];
  readonly partIds: readonly string[];
  readonly columns: readonly Column[];
  readonly place: ReadonlyMap<string, number>;
};
type One = { number: string; hungMs: number; customerId: string; partId: string; met: Met };
type Kept = { turn: number; racks: Map<string, One>; held: Held | null; sign: string };

/** One of each database for as long as the process runs; it is read anew as far as the kept entries have changed. */
const kept = new WeakMap<Kysely<Database>, Kept>();
/** Entries of another process may come in after later ones of this: so many are read again. */
const ON_THEIR_WAY = 2000;
/** So long a page waits for what was stored since, the newest racks first; the rest is told of, or left to the next. */
const WAIT_MS = 1500;
export const LONG_WAIT_MS = 8000;

/**
 * What all racks met, up to date with the record. Reading is of what was stored since the last time: the first time of a
 * process O(racks), afterwards O(what changed), and a pass over the columns where anything did.
 */
export async function heldColumns(
  db: Kysely<Database>,
  at: Date,
  waitMs: number = WAIT_MS,
): Promise<{ readonly held: Held; readonly left: boolean }> {
  let mine = kept.get(db);
  const sign = await signOf(db);
  if (mine?.held && mine.sign === sign) return { held: mine.held, left: false };
  const { left } = await keepMet(db, at, Date.now() + waitMs);
  if (!mine) {
    mine = { turn: 0, racks: new Map(), held: null, sign: "" };
    kept.set(db, mine);
  }
  const { rows } = await sql<One & { id: string; hung: Date; turn: number }>`
    select k.id, k.number, k.hung_at as hung, j.customer_id as "customerId", j.part_id as "partId", m.met, m.turn::float8 as turn from rack_met m join rack k on k.id = m.rack_id join job j on j.id = k.job_id
    where m.turn > ${mine.turn - ON_THEIR_WAY}`.execute(db);
  let changed = mine.held === null;
  for (const { id, number, hung, customerId, partId, met, turn } of rows) {
    const known = mine.racks.get(id);
    if (!known || JSON.stringify(known.met) !== JSON.stringify(met)) changed = true;
    mine.racks.set(id, { number, hungMs: hung.getTime(), customerId, partId, met });
    mine.turn = Math.max(mine.turn, turn);
  }
  if (changed || mine.held === null) mine.held = columnsFrom(mine.racks);
  mine.sign = left ? "" : sign;
  return { held: mine.held, left };
}

/** What changes with everything that is stored or hung: as long as it is the same, so is what racks met. Index probes and a count of racks. */
async function signOf(db: Kysely<Database>): Promise<string> {
  const { rows } = await sql<{ sign: string }>`
    with newest as (select max(stored_at) as at from record)
    select concat_ws(' ', newest.at, (select count(*) from record r where r.stored_at > newest.at - interval '60 seconds'), (select count(*) from rack)) as sign from newest`.execute(
    db,
  );
  return rows[0]?.sign ?? "";
}

function columnsFrom(racks: ReadonlyMap<string, One>): Held {
  const order = [...racks].sort(([a, x], [b, y]) => x.hungMs - y.hungMs || (a < b ? -1 : 1));
  const variables = new Set<string>();
  for (const [, one] of order) for (const variable in one.met) variables.add(variable);
  return {
    ids: order.map(([id]) => id),
    numbers: order.map(([, one]) => one.number),
    hungMs: Float64Array.from(order, ([, one]) => one.hungMs),
    customerIds: order.map(([, one]) => one.customerId),
    partIds: order.map(([, one]) => one.partId),
    columns: [...variables].sort().map((variable) =>
      columnOf(
        variable,
        order.map(([, one]) => one.met[variable] ?? null),
      ),
    ),
    place: new Map(order.map(([id], i) => [id, i])),
  };
}
