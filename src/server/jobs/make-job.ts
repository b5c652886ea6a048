import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { findStructure } from "../field/find-structure";
import { badEntry, filled } from "../input";
import { refreshStanding } from "../line/standing";
import { newId } from "../now";
import { type Outcome, refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import { type Plan, planSchema, type Requirement, requirementSchema } from "../requirement";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, momentOf, write } from "../write";

type Made = Outcome<{ readonly href: string }>;

const jobSchema = v.object({
  number: v.pipe(filled(20), v.regex(/^[A-Za-z0-9-]+$/, "may hold letters, digits and dashes only")),
  customer: filled(40),
  part: filled(40),
  powder: filled(40),
  dueOn: v.nullable(v.pipe(v.string(), v.isoDate("is not a date"))),
  requirement: requirementSchema,
  plan: planSchema,
});
const rackSchema = v.object({
  job: filled(20),
  number: v.pipe(filled(20), v.regex(/^[A-Za-z0-9-]+$/, "may hold letters, digits and dashes only")),
  pieces: v.pipe(
    v.number("is not a number"),
    v.integer("is not a whole number"),
    v.minValue(1, "is under 1"),
    v.maxValue(500, "is over 500"),
  ),
});
const structureSchema = v.object({
  code: v.pipe(filled(24), v.regex(/^[A-Za-z0-9-]+$/, "may hold letters, digits and dashes only")),
  name: filled(80),
  site: filled(80),
  rack: filled(20),
  place: filled(60),
  putUpOn: v.nullable(v.pipe(v.string(), v.isoDate("is not a date"))),
  exposure: v.array(v.picklist(["weather", "sun", "salt", "standing-water", "knocks", "indoor"])),
});

const isTaken = (error: unknown) => (error as { code?: string }).code === "23505";

/** Takes a job in: customer, part, powder, requirement and plan. Failures: `bad-entry`, `unknown-…`, `number-taken`. */
export async function makeJob(db: Kysely<Database>, person: Person, input: unknown, clock: Clock): Promise<Made> {
  const parsed = v.safeParse(jobSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const job = parsed.output;
  const at = momentOf(clock);
  const { film } = job.requirement;
  const least = film.rule === "spot-area" ? film.minUm : film.nominalUm;
  if (!(least > 0) || (film.maxUm !== null && film.maxUm <= least))
    return refuse({
      kind: "bad-entry",
      field: "film",
      why: `must be a range over 0 (got ${least} to ${film.maxUm ?? "–"} µm)`,
      value: "",
    });
  const [customers, parts, powders] = await Promise.all([
    setupAt(db, "customer", at),
    setupAt(db, "part", at),
    setupAt(db, "powder", at),
  ]);
  if (!customers.has(job.customer)) return refuse({ kind: "unknown-set-up", what: "customer", name: job.customer });
  if (!parts.has(job.part)) return refuse({ kind: "unknown-set-up", what: "part", name: job.part });
  if (!powders.has(job.powder)) return refuse({ kind: "unknown-set-up", what: "powder", name: job.powder });
  try {
    await db
      .insertInto("job")
      .values({
        id: newId(),
        number: job.number,
        customer_id: job.customer,
        part_id: job.part,
        powder_id: job.powder,
        received_at: at,
        due_on: job.dueOn,
        requirement: JSON.stringify(job.requirement satisfies Requirement),
        plan: JSON.stringify(job.plan satisfies Plan),
        created_by: person.username,
      })
      .execute();
  } catch (error) {
    if (isTaken(error)) return refuse({ kind: "number-taken", what: "job", number: job.number });
    throw error;
  }
  return { ok: true, href: `/jobs/${job.number}` };
}

/** Hangs a rack under a job, with its pieces numbered after it. Failures: `bad-entry`, `unknown-job`, `number-taken`. */
export async function makeRack(db: Kysely<Database>, person: Person, input: unknown, clock: Clock): Promise<Made> {
  const parsed = v.safeParse(rackSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { job: jobNumber, number, pieces } = parsed.output;
  return write<Made>(db, [lock.rack(number), lock.job(jobNumber)], clock, async (trx, at) => {
    const job = await trx.selectFrom("job").select("id").where("number", "=", jobNumber).executeTakeFirst();
    if (!job) return refuse({ kind: "unknown-job", number: jobNumber });
    const taken = await trx.selectFrom("rack").select("id").where("number", "=", number).executeTakeFirst();
    if (taken) return refuse({ kind: "number-taken", what: "rack", number });
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

/** Puts a rack's pieces up as a structure in the field. Failures: `bad-entry`, `unknown-rack`, `number-taken`. */
export async function makeStructure(db: Kysely<Database>, person: Person, input: unknown, clock: Clock): Promise<Made> {
  const parsed = v.safeParse(structureSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const s = parsed.output;
  return write<Made>(db, [lock.structure(s.code), lock.rack(s.rack)], clock, async (trx) => {
    const rack = await findRack(trx, person, s.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: s.rack });
    if (await findStructure(trx, { ...person, customerId: null }, s.code))
      return refuse({ kind: "number-taken", what: "structure", number: s.code });
    const id = newId();
    await trx
      .insertInto("structure")
      .values({
        id,
        code: s.code.toUpperCase(),
        customer_id: rack.customer_id,
        site: s.site,
        name: s.name,
        put_up_on: s.putUpOn,
        exposure: JSON.stringify(s.exposure),
        created_by: person.username,
      })
      .execute();
    await sql`insert into structure_piece (structure_id, piece_id, place) select ${id}::uuid, p.id, ${s.place} from piece p where p.rack_id = ${rack.id} and not exists (select 1 from structure_piece x where x.piece_id = p.id)`.execute(
      trx,
    );
    return { ok: true, href: `/field/${s.code.toLowerCase()}` };
  });
}
