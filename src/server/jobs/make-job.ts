import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { findStructure } from "../field/find-structure";
import { badEntry, filled } from "../input";
import { refreshStanding } from "../line/standing";
import { newId } from "../now";
import { type Outcome, refuse } from "../outcome";
import { planOf } from "../plan/plan-of";
import { findRack } from "../rack/find-rack";
import { byCode } from "../setup/by-code";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";

type Made = Outcome<{ readonly href: string }>;

const rackSchema = v.object({
  job: filled(20),
  number: v.pipe(filled(20), v.regex(/^[A-Za-z0-9-]+$/, "may hold letters, digits and dashes only")),
  pieces: v.pipe(
    v.number("is not a number"),
    v.integer("is not a whole number"),
    v.minValue(1, "is under 1"),
    v.maxValue(500, "is over 500"),
  ),
  /** More than is left to hang was asked about, and stands. */
  sure: v.optional(v.boolean(), false),
});
const structureSchema = v.object({
  code: v.pipe(filled(24), v.regex(/^[A-Za-z0-9-]+$/, "may hold letters, digits and dashes only")),
  name: filled(80),
  site: filled(80),
  /** Whose pieces it is made of; null where its coating is not from here. */
  rack: v.nullable(filled(20)),
  /** Those of the rack alone, by serial; empty for all that stand nowhere yet. */
  serials: v.optional(v.pipe(v.array(filled(40)), v.maxLength(500)), []),
  /** Of a structure of unknown origin: whose it is. */
  customer: v.optional(v.nullable(filled(20)), null),
  place: filled(60),
  putUpOn: v.nullable(v.pipe(v.string(), v.isoDate("is not a date"))),
  exposure: v.array(v.picklist(["weather", "sun", "salt", "standing-water", "knocks", "indoor"])),
});

/**
 * Hangs a rack under a job, with its pieces numbered after it. More pieces than are left of those ordered are asked about
 * (`more-than-ordered`: ordered, hung, pieces). Failures: `bad-entry`, `unknown-job`, `number-taken`.
 */
export async function makeRack(db: Kysely<Database>, person: Person, input: unknown, clock: Clock): Promise<Made> {
  const parsed = v.safeParse(rackSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { job: jobNumber, number, pieces, sure } = parsed.output;
  return write<Made>(db, [lock.rack(number), lock.job(jobNumber)], clock, async (trx, at) => {
    const job = await trx.selectFrom("job").selectAll().where("number", "=", jobNumber).executeTakeFirst();
    if (!job) return refuse({ kind: "unknown-job", number: jobNumber });
    const taken = await trx.selectFrom("rack").select("id").where("number", "=", number).executeTakeFirst();
    if (taken) return refuse({ kind: "number-taken", what: "rack", number });
    const { ordered, hung } = await piecesOf(trx, job, at);
    if (!sure && ordered !== null && hung + pieces > ordered)
      return refuse({ kind: "more-than-ordered", ordered, hung, pieces });
    const id = newId();
    await trx
      .insertInto("rack")
      .values({ id, number, job_id: job.id, hung_at: at, created_by: person.username })
      .execute();
    await trx
      .insertInto("piece")
      .values(
        Array.from({ length: pieces }, (_, i) => ({
          id: newId(),
          rack_id: id,
          serial: `${number}-${String(i + 1).padStart(2, "0")}`,
          position: i + 1,
        })),
      )
      .execute();
    await refreshStanding(trx, [id]);
    return { ok: true, href: `/racks/${number}` };
  });
}

/**
 * Puts a rack's pieces, or some of them, up as a structure in the field; without a rack one whose coating is not from here.
 * Failures: `bad-entry`, `unknown-rack`, `unknown-set-up` (customer), `no-such-serial`, `number-taken`.
 */
export async function makeStructure(db: Kysely<Database>, person: Person, input: unknown, clock: Clock): Promise<Made> {
  const parsed = v.safeParse(structureSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const s = parsed.output;
  return write<Made>(db, [lock.structure(s.code), ...(s.rack ? [lock.rack(s.rack)] : [])], clock, async (trx, at) => {
    const rack = s.rack === null ? null : await findRack(trx, person, s.rack);
    if (s.rack !== null && !rack) return refuse({ kind: "unknown-rack", number: s.rack });
    const customer = rack ? null : byCode((await setupAt(trx, "customer", at)).values(), s.customer ?? "");
    const customerId = rack?.customer_id ?? customer?.id;
    if (!customerId) return refuse({ kind: "unknown-set-up", what: "customer", name: s.customer ?? "" });
    const strange = rack ? await strangeSerial(trx, rack.id, s.serials) : s.serials[0];
    if (strange) return refuse({ kind: "no-such-serial", serial: strange, rack: s.rack ?? "" });
    if (await findStructure(trx, { ...person, customerId: null }, s.code))
      return refuse({ kind: "number-taken", what: "structure", number: s.code });
    const id = newId();
    await trx
      .insertInto("structure")
      .values({
        id,
        code: s.code.toUpperCase(),
        customer_id: customerId,
        site: s.site,
        name: s.name,
        put_up_on: s.putUpOn,
        exposure: JSON.stringify(s.exposure),
        created_by: person.username,
      })
      .execute();
    if (rack)
      await sql`insert into structure_piece (structure_id, piece_id, place) select ${id}::uuid, p.id, ${s.place} from piece p where p.rack_id = ${rack.id}
        and (${s.serials.length === 0} or p.serial = any(${s.serials}::text[])) and not exists (select 1 from structure_piece x where x.piece_id = p.id)`.execute(
        trx,
      );
    return { ok: true, href: `/field/${s.code.toLowerCase()}` };
  });
}

/** The first of some serials that is none of this rack's; undefined where all are. */
async function strangeSerial(
  trx: Kysely<Database>,
  rackId: string,
  serials: readonly string[],
): Promise<string | undefined> {
  if (serials.length === 0) return undefined;
  const rows = await trx.selectFrom("piece").select("serial").where("rack_id", "=", rackId).execute();
  const known = new Set(rows.map((r) => r.serial));
  return serials.find((serial) => !known.has(serial));
}

/** Pieces ordered by the plan as it stands, null where it does not say, and how many hang or hung under the job. */
export async function piecesOf(
  db: Kysely<Database>,
  job: Parameters<typeof planOf>[1] & { readonly id: string },
  at: Date,
): Promise<{ readonly ordered: number | null; readonly hung: number }> {
  const [plan, row] = await Promise.all([
    planOf(db, job, at),
    db
      .selectFrom("piece")
      .innerJoin("rack", "rack.id", "piece.rack_id")
      .select(({ fn }) => fn.countAll<string>().as("n"))
      .where("rack.job_id", "=", job.id)
      .executeTakeFirstOrThrow(),
  ]);
  return { ordered: plan.pieces ?? null, hung: Number(row.n) };
}

/** Racks looked back at for the next number of a tag. */
const LOOKED_BACK = 40;
/** The next number for a tag: one on from the highest of the racks hung last; null where their tags bear no numbers. */
export async function nextRackNumber(db: Kysely<Database>): Promise<string | null> {
  const rows = await db.selectFrom("rack").select("number").orderBy("hung_at", "desc").limit(LOOKED_BACK).execute();
  const numbered = rows.map((r) => r.number).filter((n) => /^\d{1,8}$/.test(n));
  if (numbered.length === 0) return null;
  const width = Math.max(...numbered.map((n) => n.length));
  for (let next = Math.max(...numbered.map(Number)) + 1; ; next++) {
    const number = String(next).padStart(width, "0");
    const taken = await db.selectFrom("rack").select("id").where("number", "=", number).executeTakeFirst();
    if (!taken) return number;
  }
}
