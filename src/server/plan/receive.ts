import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import {
  advise,
  checkPart,
  exposures,
  firstSketch,
  lineStagesOf,
  type PlannedPart,
  partFeatures,
  refusals,
  routeCard,
  substrates,
} from "@/core/plan";
import type { Failure } from "@/core/result";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { dayIn } from "../day";
import { badEntry, filled, text } from "../input";
import { refreshJobs } from "../line/standing";
import { newId } from "../now";
import { canonicalText } from "../record/canonical";
import {
  checkRequirement,
  conditionSchema,
  type Plan,
  type Requirement,
  requirementSchema,
  systemSchema,
} from "../requirement";
import { addVersion } from "../setup/add-version";
import { type SetupInput, setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, momentOf, write } from "../write";
import { drawnFaces, freePartCode } from "./save-part";

const size = v.pipe(v.number("is not a number"), v.finite("is not a number"));
const lineSchema = v.object({
  name: filled(80),
  substrate: v.picklist(substrates, "is not a metal known here"),
  features: v.array(v.picklist(partFeatures)),
  box: v.object({ lengthMm: size, widthMm: size, heightMm: size }),
  thinnestMm: size,
  thickestMm: size,
  massKg: size,
  areaM2: size,
  lapM: size,
  assumed: v.array(text(40)),
  pieces: v.pipe(
    v.number(),
    v.integer("is not a whole number"),
    v.minValue(1, "is under 1"),
    v.maxValue(100_000, "is over 100000"),
  ),
  condition: conditionSchema,
  system: v.optional(v.nullable(systemSchema), null),
  overrule: v.optional(v.record(text(60), filled(400)), {}),
});
export const receiveSchema = v.object({
  /** Made once by the form: the same delivery sent twice is one. */
  id: v.pipe(v.string(), v.uuid("is not an id")),
  customer: v.pipe(v.string(), v.uuid("is not a customer")),
  powder: v.pipe(v.string(), v.uuid("is not a powder")),
  dueOn: v.nullable(v.pipe(v.string(), v.isoDate("is not a date"))),
  /** The customer's own numbers: of the order, and of the paper the parts came with. */
  customerOrder: v.optional(text(60), ""),
  deliveryNote: v.optional(text(60), ""),
  /** What is asked of it; null takes the powder's film and the shop's own limits. */
  requirement: v.optional(v.nullable(requirementSchema), null),
  exposure: v.pipe(v.array(v.picklist(exposures)), v.minLength(1, "is empty: choose where it will live")),
  lifeYears: v.nullable(
    v.pipe(v.number("is not a number"), v.minValue(0.1, "is under 0.1"), v.maxValue(100, "is over 100")),
  ),
  finish: v.picklist(["standard", "smooth", "texture", "clear"]),
  handSteps: v.optional(
    v.pipe(
      v.number("is not a number"),
      v.integer("is not a whole number"),
      v.minValue(0, "is under 0"),
      v.maxValue(5, "is over 5"),
    ),
    0,
  ),
  /** Welding, plates and grinding done: heat and spatter would spoil a finished coat. */
  fabricationComplete: v.literal(true, "is not said: welding and grinding are finished before it is taken in"),
  serviceC: v.nullable(size),
  lines: v.pipe(v.array(lineSchema), v.minLength(1, "has no part"), v.maxLength(500, "has more than 500 parts")),
});
export type ReceiveInput = v.InferInput<typeof receiveSchema>;
export type ReceiveOutcome =
  | { readonly ok: true; readonly jobs: readonly string[]; readonly already: boolean; readonly href: string }
  | { readonly ok: false; readonly failure: Failure & { readonly line?: number } };
const refuse = (failure: Failure & { line?: number }): ReceiveOutcome => ({ ok: false, failure });

/**
 * Receives a delivery: a job for each part, each with its plan. A part by a name that is known gets a new version where its measures changed, and
 * is used as it is where they did not. One transaction: all jobs or none. Failures, with the line they are on:
 * `bad-entry`, `unknown-set-up`, `in-the-past`, `refused-system`, `key-conflict` (the same id with other content), those of `checkPart` and `advise`.
 */
export async function receiveWork(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<ReceiveOutcome> {
  const parsed = v.safeParse(receiveSchema, input);
  if (!parsed.success) {
    const [issue] = parsed.issues;
    const field = issue.path?.map((p) => (typeof p.key === "number" ? `part ${p.key + 1}` : String(p.key))).join(", ");
    return refuse(badEntry(parsed.issues, field));
  }
  const order = parsed.output;
  const asOf = momentOf(clock);
  const [customers, powders, baths, site] = await Promise.all([
    setupAt(db, "customer", asOf),
    setupAt(db, "powder", asOf),
    setupAt(db, "bath", asOf),
    siteAt(db, asOf),
  ]);
  if (!customers.has(order.customer)) return refuse({ kind: "unknown-set-up", what: "customer", name: order.customer });
  const powder = powders.get(order.powder);
  if (!powder) return refuse({ kind: "unknown-set-up", what: "powder", name: order.powder });
  const today = dayIn(asOf, site.timeZone);
  if (order.dueOn !== null && order.dueOn < today)
    return refuse({ kind: "in-the-past", what: "due date", value: order.dueOn, today });
  const service = {
    exposure: order.exposure,
    lifeYears: order.lifeYears,
    finish: order.finish,
    serviceC: order.serviceC,
  };
  const middle = [...powder.data.schedule].sort((a, b) => a.metalC - b.metalC)[
    Math.floor(powder.data.schedule.length / 2)
  ];
  const contactS =
    [...baths.values()].find((b) => b.data.role === "conversion" && !b.data.retired)?.data.contactS ?? null;
  const planned: { line: (typeof order.lines)[number]; part: PlannedPart; plan: Plan }[] = [];
  for (const [i, line] of order.lines.entries()) {
    const part: PlannedPart = { ...line };
    const checked = checkPart(part);
    if (!checked.ok) return refuse({ ...checked.error, line: i + 1 });
    const advice = advise(part, line.condition, service, site.schools);
    if (!advice.ok) return refuse({ ...advice.error, line: i + 1 });
    const advised = line.system ?? advice.value.recommended.system;
    // The powder chosen decides the family and the film: it is what will hang in the booth.
    const system: NonNullable<Plan["system"]> = {
      ...advised,
      primerUm: advised.primerUm && [advised.primerUm[0], advised.primerUm[1]],
      family: powder.data.family,
      topUm: [powder.data.minUm, powder.data.maxUm],
    };
    const against = refusals(part, service, system);
    const open = against.find((r) => !line.overrule[r.kind]);
    if (open) return refuse({ ...open, kind: "refused-system", refusal: open.kind, line: i + 1 });
    const route = routeCard({
      part,
      condition: line.condition,
      system,
      cureMetalC: middle?.metalC ?? 190,
      cureMinutes: middle?.minutes ?? 15,
      blastProfileUm: site.blastProfileUm,
      contactS,
      masks: 0,
      handSteps: order.handSteps,
    });
    planned.push({
      line,
      part,
      plan: {
        stages: [...lineStagesOf(route)],
        primer: system.primer !== "none",
        exposure: order.exposure,
        offered: [],
        pieces: line.pieces,
        condition: line.condition,
        lifeYears: order.lifeYears,
        finish: order.finish,
        handSteps: order.handSteps,
        serviceC: order.serviceC,
        system,
        overruled: against.map((r) => ({ kind: r.kind, reason: line.overrule[r.kind] ?? "", by: person.name })),
      },
    });
  }
  const requirement: Requirement = order.requirement ?? {
    rub: null,
    appearance: null,
    tests: [],
    fits: false,
    film: { rule: "spot-area", minUm: powder.data.minUm, maxUm: powder.data.maxUm, level: 3 },
    adhesionWorstIso: site.crossCutWorstIso,
    cureDecidedBy: site.cureDecidedBy,
  };
  const asked = checkRequirement(requirement);
  if (asked) return refuse(asked);
  // One delivery at a time takes its numbers; the same one again finds its jobs by the delivery's id.
  return write<ReceiveOutcome>(db, [lock.numbers("jobs"), lock.setUp("part")], clock, async (trx, at) => {
    const jobIds = planned.map((_, i) => jobIdOf(order.id, i));
    const there = await trx
      .selectFrom("job")
      .select(["number", "customer_id", "powder_id", "plan", "requirement"])
      .where("id", "in", jobIds)
      .orderBy("id")
      .execute();
    if (there.length > 0) {
      const same =
        there.length === planned.length &&
        there.every(
          (job, i) =>
            job.customer_id === order.customer &&
            job.powder_id === powder.id &&
            canonicalText(job.requirement) === canonicalText(JSON.parse(JSON.stringify(requirement))) &&
            canonicalText(job.plan) === canonicalText(JSON.parse(JSON.stringify(planned[i]?.plan))),
        );
      if (!same) return refuse({ kind: "key-conflict" });
      return { ok: true, jobs: there.map((j) => j.number), already: true, href: hrefOf(there.map((j) => j.number)) };
    }
    const parts = await setupAt(trx, "part", at);
    const numbers = await nextNumbers(trx, planned.length);
    for (const [i, { line, plan }] of planned.entries()) {
      const partId = await partFor(trx, person, line, parts, at);
      await trx
        .insertInto("job")
        .values({
          id: jobIds[i] as string,
          number: numbers[i] as string,
          customer_id: order.customer,
          part_id: partId,
          powder_id: powder.id,
          received_at: at,
          due_on: order.dueOn,
          customer_order: order.customerOrder || null,
          delivery_note: order.deliveryNote || null,
          requirement: JSON.stringify(requirement),
          plan: JSON.stringify(plan),
          created_by: person.username,
        })
        .execute();
    }
    await refreshJobs(trx, jobIds);
    return { ok: true, jobs: numbers, already: false, href: hrefOf(numbers) };
  });
}

const hrefOf = (numbers: readonly string[]) => (numbers.length === 1 ? `/jobs/${numbers[0]}/system` : "/plan");
const jobIdOf = (deliveryId: string, index: number): string =>
  `${deliveryId.slice(0, 24)}${(Number.parseInt(deliveryId.slice(24), 16) + index).toString(16).padStart(12, "0").slice(-12)}`;

async function nextNumbers(trx: Kysely<Database>, count: number): Promise<string[]> {
  const { rows } = await sql<{
    n: number | null;
  }>`select max(substring(number from '^J-([0-9]{1,8})$')::int) as n from job`.execute(trx);
  const from = (rows[0]?.n ?? 0) + 1;
  return Array.from({ length: count }, (_, i) => `J-${from + i}`);
}

/** The library's part of this name: as it is where nothing changed, a new version where it did, a new part where there is none. */
async function partFor(
  trx: Kysely<Database>,
  person: Person,
  line: v.InferOutput<typeof lineSchema>,
  parts: Awaited<ReturnType<typeof setupAt<"part">>>,
  at: Date,
): Promise<string> {
  const measures = {
    box: line.box,
    thinnestMm: line.thinnestMm,
    massKg: line.massKg,
    areaM2: line.areaM2,
    lapM: line.lapM,
    edgeM: 0,
    assumed: line.assumed,
  };
  const known = [...parts.values()].find((p) => p.data.name.toLowerCase() === line.name.toLowerCase());
  const data: SetupInput<"part"> = {
    name: known?.data.name ?? line.name,
    substrate: line.substrate,
    thickestMm: line.thickestMm,
    features: line.features,
    faces: known?.data.faces ?? drawnFaces(firstSketch(line)),
    marks: known?.data.marks ?? [],
    measures: known?.data.measures ? { ...measures, edgeM: known.data.measures.edgeM } : measures,
  };
  if (known && canonicalText(known.data) === canonicalText(data)) return known.id;
  const id = known?.id ?? newId();
  if (!known) {
    const code = await freePartCode(trx, line.name);
    await trx.insertInto("setup_entity").values({ id, kind: "part", code }).execute();
  }
  const reason = known ? "Measured anew at intake" : "First intake";
  await addVersion<"part">(trx, person, { entityId: id, at, reason, data });
  return id;
}
