import type { Kysely } from "kysely";
import * as v from "valibot";
import { planByAnswer } from "@/core/plan";
import { forPerson } from "@/db/queries/for-person";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { badEntry, filled, text } from "../input";
import { newId } from "../now";
import { type EntryOutcome, refuse } from "../outcome";
import { storeOne } from "../record/store-record";
import { systemSchema } from "../requirement";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";
import { newVersion } from "./change-plan";
import { loadPlanFile } from "./load-plan";

const id = v.pipe(v.string(), v.uuid("is not an id"));
const amount = v.nullable(
  v.pipe(
    v.number("is not a number"),
    v.finite("is not a number"),
    v.minValue(0, "is under 0"),
    v.maxValue(1e7, "is over ten million"),
  ),
);
export const offerSchema = v.object({
  id,
  job: filled(20),
  code: v.pipe(v.string(), v.regex(/^[a-z][a-z-]*$/, "is not an option"), v.maxLength(40)),
  what: filled(120),
  quantity: amount,
  unit: v.nullable(filled(12)),
  price: amount,
  currency: text(8),
  risk: filled(300),
});
export const answerSchema = v.object({
  id,
  offer: id,
  taken: v.boolean(),
  who: filled(80),
  how: v.picklist(["by mail", "by telephone", "in person", "signed"]),
  on: v.pipe(v.string(), v.isoDate("is not a date")),
  note: text(300),
  /** Racks that hang under the plan as it is go over to what the answer makes of it. */
  move: v.optional(v.boolean(), false),
});
/** Offers an option on a job: what, how much of it, its price, and the risk taken by going without, in plain words. Failures: `bad-entry`, `unknown-job`, and the store's. */
export async function makeOffer(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<EntryOutcome> {
  const parsed = v.safeParse(offerSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const o = parsed.output;
  return write(db, [lock.key(`offer:${o.id}`)], clock, async (trx, at) => {
    const job = await trx
      .selectFrom("job")
      .select("id")
      .where("number", "=", o.job)
      .where(forPerson(person, "customer_id"))
      .executeTakeFirst();
    if (!job) return refuse({ kind: "unknown-job", number: o.job });
    return storeOne(
      trx,
      {
        id: o.id,
        kind: "offer",
        happenedAt: at,
        by: person.username,
        grade: "measured",
        idempotencyKey: `offer:${o.id}`,
        jobId: job.id,
        details: {
          offer: [
            {
              code: o.code,
              what: o.what,
              quantity: o.quantity,
              unit: o.unit,
              price: o.price,
              currency: o.currency,
              risk: o.risk,
            },
          ],
        },
      },
      at,
    );
  });
}

/**
 * The customer's answer to an offer, with whose word it was, how and when; a later answer stands, the earlier stays on
 * record. What the answer changes of the system is changed at once, as a version of the plan with the answer for its
 * reason: cost, route card and risks follow. Failures: those of a change of plan, `bad-entry`, `unknown-offer`, `in-the-future`, and the store's.
 */
export async function answerOffer(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<EntryOutcome> {
  const parsed = v.safeParse(answerSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const a = parsed.output;
  const of = await db
    .selectFrom("record")
    .innerJoin("job", "job.id", "record.job_id")
    .select("job.number")
    .where("record.id", "=", a.offer)
    .executeTakeFirst();
  return write(db, [lock.key(`answer:${a.id}`), ...(of ? [lock.job(of.number)] : [])], clock, async (trx, at) => {
    if (new Date(a.on) > at) return refuse({ kind: "in-the-future", happenedAt: a.on });
    const offer = await trx
      .selectFrom("record")
      .innerJoin("offer", "offer.record_id", "record.id")
      .innerJoin("job", "job.id", "record.job_id")
      .select(["record.job_id", "job.number", "offer.code", "offer.what"])
      .where("record.id", "=", a.offer)
      .where(forPerson(person, "job.customer_id"))
      .executeTakeFirst();
    if (!offer?.job_id) return refuse({ kind: "unknown-offer" });
    const key = `answer:${a.id}`;
    const again = await trx.selectFrom("record").select("id").where("idempotency_key", "=", key).executeTakeFirst();
    if (!again) {
      const changed = await byAnswer(trx, person, { ...offer, taken: a.taken, move: a.move, id: a.id }, at);
      if (changed && !changed.ok) return changed;
    }
    return storeOne(
      trx,
      {
        id: a.id,
        kind: "offer-answer",
        happenedAt: at,
        by: person.username,
        grade: "measured",
        idempotencyKey: key,
        jobId: offer.job_id,
        details: {
          offer_answer: [
            { offer_id: a.offer, taken: a.taken, who: a.who, how: a.how, answered_on: a.on, note: a.note || null },
          ],
        },
      },
      at,
    );
  });
}

/** The plan's next version by an answer; null where the answer changes nothing of it. */
async function byAnswer(
  trx: Kysely<Database>,
  person: Person,
  a: {
    readonly number: string;
    readonly code: string;
    readonly what: string;
    readonly taken: boolean;
    readonly move: boolean;
    readonly id: string;
  },
  at: Date,
): Promise<EntryOutcome | null> {
  const file = await loadPlanFile(trx, person, a.number, at);
  if (!file?.plan.system || !file.part) return null;
  const { plan, site } = file;
  const next = planByAnswer(
    { system: file.plan.system, finish: plan.finish },
    a.code,
    a.taken,
    site.schools.primerCuring,
  );
  if (!next) return null;
  return newVersion(
    trx,
    person,
    {
      id: newId(),
      job: a.number,
      seen: plan.version,
      reason: `The customer ${a.taken ? "took" : "declined"}: ${a.what}`,
      release: plan.released,
      system: v.parse(systemSchema, next.system),
      finish: next.finish,
      move: a.move,
      overrule: {},
    },
    at,
  );
}
