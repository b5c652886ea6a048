import type { Kysely } from "kysely";
import * as v from "valibot";
import {
  type Advice,
  advise,
  asNew,
  type Costing,
  costJob,
  type Draining,
  drainingOf,
  type Equipment,
  expectedLife,
  fitAtSite,
  type Hanging,
  hangingOf,
  type Loading,
  type MarkKind,
  type PlannedPart,
  type Refusal,
  type Risk,
  type RouteStep,
  readRisks,
  refusals,
  routeCard,
} from "@/core/plan";
import type { Result } from "@/core/result";
import { isPlace } from "@/core/site";
import { forPerson } from "@/db/queries/for-person";
import type { Database } from "@/db/schema";
import { type Plan, requirementSchema } from "../requirement";
import { type SetupData, type SetupItem, setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { hangingUnder } from "./hanging-under";
import { type JobPlan, planOf } from "./plan-of";
import { shopHas } from "./shop-has";

/** What each option would add to the price, by the same reckoning: the difference of two costings. */
function optionPricesFor(...args: Parameters<typeof costingOf>): Readonly<Record<string, number>> {
  const [part, plan, item, powder, primer, site, loading] = args;
  const now = costingOf(...args);
  if (!now?.ok || !plan.system) return {};
  const change: Record<string, Partial<NonNullable<JobPlan["system"]>>> = {
    blast: { preparation: "blast" },
    "zinc-primer": { primer: "zinc", primerUm: [50, 80], curing: "primer-gelled" },
    "seam-seal": { sealSeams: true },
    "edge-breaking": { breakEdges: true },
    "outgas-bake": { outgas: true },
    "conversion-coat": { pretreatment: "iron-phosphate" },
    zirconium: { pretreatment: "zirconium" },
    "two-coats": { coats: plan.system.coats + 1 },
  };
  const out: Record<string, number> = {};
  for (const [code, over] of Object.entries(change)) {
    const then = costingOf(part, { ...plan, system: { ...plan.system, ...over } }, item, powder, primer, site, loading);
    if (then?.ok && then.value.price > now.value.price) out[code] = then.value.price - now.value.price;
  }
  return out;
}

export type PlanFile = NonNullable<Awaited<ReturnType<typeof loadPlanFile>>>;

/** A planned part out of set-up data; null where it was never measured. */
export function measuredPart(part: SetupData<"part">): PlannedPart | null {
  const m = part.measures;
  return m
    ? {
        substrate: part.substrate,
        features: part.features,
        box: m.box,
        thinnestMm: m.thinnestMm,
        thickestMm: part.thickestMm,
        massKg: m.massKg,
        areaM2: m.areaM2,
        lapM: m.lapM,
      }
    : null;
}

/** Everything the Plan stage says about a job: risks, advice, refusals, fit, hanging, cost and route. Null where it is not this person's. */
export async function loadPlanFile(db: Kysely<Database>, person: Person, number: string, at: Date) {
  const job = await db
    .selectFrom("job")
    .selectAll()
    .where("number", "=", number)
    .where(forPerson(person, "customer_id"))
    .executeTakeFirst();
  if (!job) return null;
  const [plan, parts, powders, equipment, baths, customers, site] = await Promise.all([
    planOf(db, job, at),
    setupAt(db, "part", at),
    setupAt(db, "powder", at),
    setupAt(db, "equipment", at),
    setupAt(db, "bath", at),
    setupAt(db, "customer", at),
    siteAt(db, at),
  ]);
  const item = parts.get(job.part_id);
  const powder = powders.get(job.powder_id);
  if (!item || !powder) throw new Error(`job ${number}: its part or powder has no version at ${at.toISOString()}`);
  const part = measuredPart(item.data);
  const condition = plan.condition ?? asNew;
  const service = { exposure: plan.exposure, lifeYears: plan.lifeYears, finish: plan.finish, serviceC: plan.serviceC };
  const advice: Result<Advice> | null = part ? advise(part, condition, service, site.schools) : null;
  const places = placesOf(equipment.values());
  const { fit, loading } = part ? fitAtSite(part, places, site) : { fit: null, loading: null };
  const schedule = powder.data.schedule;
  const middle = [...schedule].sort((a, b) => a.metalC - b.metalC)[Math.floor(schedule.length / 2)];
  const conversion = [...baths.values()].find((b) => b.data.role === "conversion" && !b.data.retired);
  const masks = item.data.marks.filter((m) => m.kind === "mask" || m.kind === "plug").length;
  const routeFor = (p: Pick<Plan, "system" | "condition" | "handSteps">): readonly RouteStep[] =>
    part && p.system
      ? routeCard({
          part,
          condition: p.condition ?? asNew,
          system: p.system,
          cureMetalC: middle?.metalC ?? 190,
          cureMinutes: middle?.minutes ?? 15,
          blastProfileUm: site.blastProfileUm,
          contactS: conversion?.data.contactS ?? null,
          masks,
          handSteps: p.handSteps,
        })
      : [];
  const primer = [...powders.values()].find(
    (p) =>
      p.data.traits.includes("primer") &&
      (plan.system?.primer === "epoxy"
        ? p.data.family === "epoxy" && !/zinc/i.test(p.data.name)
        : /zinc/i.test(p.data.name)),
  );
  const risks: readonly Risk[] = part
    ? readRisks(
        part,
        condition,
        service,
        plan.system,
        new Set(plan.offered.filter((o) => o.state === "taken").map((o) => o.code)),
      )
    : [];
  const refused: readonly Refusal[] = part && plan.system ? refusals(part, service, plan.system) : [];
  return {
    jobId: job.id,
    number: job.number,
    /** What the shop can do itself. */
    has: shopHas(equipment, baths, site),
    /** Racks that are not gone, with the version they hang under. */
    racks: await hangingUnder(db, job.id, plan.version + 1),
    customer: customers.get(job.customer_id)?.data.name ?? "",
    receivedAt: job.received_at,
    dueOn: job.due_on,
    customerOrder: job.customer_order,
    requirement: v.parse(requirementSchema, job.requirement),
    plan,
    partItem: item,
    partName: item.data.name,
    part,
    powder,
    primer: primer ?? null,
    site,
    condition,
    service,
    risks,
    refused,
    /** What the system usually reaches, and how the life asked for stands against it. */
    life: part && plan.system ? expectedLife(part, condition, service, plan.system) : null,
    optionPrices: part && plan.system ? optionPricesFor(part, plan, item, powder, primer ?? null, site, loading) : {},
    advice,
    promised: powder.data.yearsPromised,
    equipment: places,
    fit,
    loading,
    hanging: part ? hangingFor(item, part) : null,
    costing: part && plan.system ? costingOf(part, plan, item, powder, primer ?? null, site, loading) : null,
    route: routeFor(plan),
    routeFor,
  };
}

/** The equipment a part must go into or hang from, that is in use. */
export const placesOf = (equipment: Iterable<SetupItem<"equipment">>): Equipment[] =>
  [...equipment].flatMap(({ code, data }) =>
    isPlace(data.role) && !data.retired
      ? [{ code, name: data.name, role: data.role, inside: data.insideMm, mostKg: data.mostKg }]
      : [],
  );

export type HangingFound = {
  readonly points: number;
  readonly result: Result<Hanging>;
  /** Where the centre of mass comes from: set on the sketch by a person, or the middle of a part taken as even. */
  readonly centre: "by-procedure" | "assumed";
  /** Null where the part is not hollow, or where it tips over and hangs no way at all. */
  readonly draining: Result<Draining> | null;
};

/** The hang points set on the first face they stand on, against the centre of mass; and how it drains as it then hangs. */
function hangingFor(item: SetupItem<"part">, part: PlannedPart): HangingFound {
  const { marks } = item.data;
  const face = marks.find((m) => m.kind === "hang")?.face;
  const on = (kind: MarkKind) =>
    marks
      .filter((m) => m.kind === kind && m.face === face)
      .map((m) => ({ xMm: (m.at[0] / 100) * part.box.lengthMm, yMm: (1 - m.at[1] / 100) * part.box.heightMm }));
  const points = on("hang");
  const [placed] = on("centre-of-mass");
  const result = hangingOf(points, placed ?? { xMm: part.box.lengthMm / 2, yMm: part.box.heightMm / 2 });
  const hollow = part.features.includes("hollow-section");
  return {
    points: points.length,
    result,
    centre: placed ? "by-procedure" : "assumed",
    draining:
      hollow && result.ok && result.value.hangs !== "tips"
        ? drainingOf({
            drains: on("drain"),
            lengthMm: part.box.lengthMm,
            heightMm: part.box.heightMm,
            tiltDeg: result.value.lowEnd === "right" ? -result.value.tiltDeg : result.value.tiltDeg,
          })
        : null,
  };
}

function costingOf(
  part: PlannedPart,
  plan: JobPlan,
  item: SetupItem<"part">,
  powder: SetupItem<"powder">,
  primer: SetupItem<"powder"> | null,
  site: SetupData<"site">,
  loading: Result<Loading> | null,
): Result<Costing> | null {
  if (!plan.system || !site.rates || powder.data.pricePerKg === null) return null;
  const price = (p: SetupItem<"powder">) => ({
    specificGravity: p.data.specificGravity,
    perKg: p.data.pricePerKg ?? 0,
    schedule: p.data.schedule,
  });
  return costJob({
    part,
    pieces: plan.pieces ?? 1,
    system: plan.system,
    top: price(powder),
    primer: primer ? price(primer) : null,
    rates: site.rates,
    perOven: loading?.ok ? loading.value.perOven : 1,
    // None was measured where it says nothing: no piece is without an edge.
    edgeM: item.data.measures?.edgeM || null,
    strip: (plan.condition ?? asNew).oldCoating !== "none",
    handSteps: plan.handSteps,
  });
}
