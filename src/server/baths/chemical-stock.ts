import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { lock } from "@/db/queries/locks";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { badEntry, filled } from "../input";
import { type Outcome, refuse } from "../outcome";
import { addEntity } from "../setup/save-setup";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";

export type ChemicalLot = {
  readonly id: string;
  readonly code: string;
  readonly product: string;
  readonly lot: string;
  readonly receivedOn: string;
  readonly usableUntil: string | null;
  readonly litres: number;
  readonly pricePerL: number | null;
  /** What the additions on record left of it, L; never under nothing. */
  readonly leftL: number;
};

/** Drums on hand: what was received less what additions took, the one to use first leading (soonest out of date, then oldest). One query; O(drums + their additions). */
export async function chemicalStock(db: Kysely<Database>, at: Date): Promise<readonly ChemicalLot[]> {
  const [drums, used] = await Promise.all([
    setupAt(db, "chemical", at),
    sql<{ lot_id: string; litres: number }>`
      select e.lot_id, sum(e.amount_l)::float8 as litres from bath_event e join record r on r.id = e.record_id
      where e.lot_id is not null and r.happened_at <= ${at} and ${stands("r.id")} group by e.lot_id`.execute(db),
  ]);
  const taken = new Map(used.rows.map((row) => [row.lot_id, row.litres]));
  return [...drums.values()]
    .map(({ id, code, data }) => ({ id, code, ...data, leftL: Math.max(0, data.litres - (taken.get(id) ?? 0)) }))
    .sort(
      (a, b) =>
        (a.usableUntil ?? "9999").localeCompare(b.usableUntil ?? "9999") || a.receivedOn.localeCompare(b.receivedOn),
    );
}

const day = v.pipe(v.string(), v.isoDate("is not a date"));
const drumSchema = v.object({
  product: filled(80),
  lot: v.pipe(filled(40), v.regex(/^[\w./-]+( [\w./-]+)*$/, "is not letters and digits")),
  litres: v.pipe(v.number("is not a number"), v.gtValue(0, "is not over 0"), v.maxValue(20_000, "is over 20,000")),
  pricePerL: v.optional(
    v.nullable(v.pipe(v.number("is not a number"), v.minValue(0, "is under 0"), v.maxValue(10_000, "is over 10,000"))),
    null,
  ),
  receivedOn: day,
  usableUntil: v.nullable(day),
});

/** A drum taken into stock. The same lot of a product twice is one. Failures: `bad-entry`, `in-the-future`, `code-taken` (another amount under the same lot). */
export async function receiveChemical(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome> {
  const parsed = v.safeParse(drumSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const drum = parsed.output;
  if (drum.usableUntil !== null && drum.usableUntil < drum.receivedOn)
    return refuse({
      kind: "bad-entry",
      field: "usable until",
      value: drum.usableUntil,
      why: "is before it was received",
    });
  const code = `${drum.product} ${drum.lot}`;
  return write<Outcome>(db, [lock.setUp("chemical")], clock, async (trx, at) => {
    if (new Date(drum.receivedOn).getTime() > at.getTime() + 86_400_000)
      return refuse({ kind: "in-the-future", happenedAt: drum.receivedOn });
    const known = [...(await setupAt(trx, "chemical", at)).values()].find(
      (c) => c.code.toLowerCase() === code.toLowerCase(),
    );
    if (known)
      return known.data.litres === drum.litres ? { ok: true } : refuse({ kind: "code-taken", code: known.code });
    // On hand from the day it came, so that what was taken from it since can name it.
    const since = new Date(Math.min(at.getTime(), new Date(drum.receivedOn).getTime()));
    await addEntity<"chemical">(trx, person, { kind: "chemical", code, at: since, reason: "Received", data: drum });
    return { ok: true };
  });
}
