import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { type Plan, planSchema } from "../requirement";

export type Offered = {
  /** The offer's record; null for one that was noted with the job when it was taken in. */
  readonly id: string | null;
  readonly code: string;
  readonly what: string;
  readonly quantity: number | null;
  readonly unit: string | null;
  readonly price: number | null;
  readonly currency: string;
  readonly pricePercent: number | null;
  readonly risk: string;
  readonly state: "taken" | "declined" | "open";
  /** Whose word it was, when and how; empty while it is open. */
  readonly by: string;
  readonly on: string;
  readonly how: string;
  readonly note: string;
};
export type PlanVersion = {
  readonly recordId: string;
  readonly version: number;
  readonly released: boolean;
  readonly at: Date;
  readonly by: string;
  readonly reason: string | null;
};
export type JobPlan = Omit<Plan, "offered"> & {
  readonly offered: readonly Offered[];
  readonly versions: readonly PlanVersion[];
  /** 0 while the plan stands as the job was taken in. */
  readonly version: number;
  readonly released: boolean;
};

/** Whatever an option is called, the code that risks, findings and routes know it by. */
export function optionCode(what: string): string {
  const known: [RegExp, string][] = [
    [/primer/i, "zinc-primer"],
    [/blast/i, "blast"],
    [/seal|seam/i, "seam-seal"],
    [/edge/i, "edge-breaking"],
    [/grade|weathering/i, "higher-grade"],
    [/outgas|bake/i, "outgas-bake"],
  ];
  return known.find(([pattern]) => pattern.test(what))?.[1] ?? "other";
}

/**
 * The plan of a job as it stood at a moment: its newest version then, or as it was taken in, with every option offered
 * until then and its newest answer. Three queries on (job, kind, time).
 */
export async function planOf(
  db: Kysely<Database>,
  job: { readonly id: string; readonly plan: unknown },
  until: Date,
  /** A rack's own: versions that moved it over count too, and what was offered until then. */
  rackId: string | null = null,
): Promise<JobPlan> {
  const versions = await sql<PlanVersion & { document: unknown }>`
      select r.id as "recordId", p.version, p.released, r.happened_at as at, ${personName("r.by_user")} as by, coalesce(r.reason, p.document->>'why') as reason, p.document
      from record r join job_plan p on p.record_id = r.id
      where r.job_id = ${job.id} and r.kind = 'plan' and (r.happened_at <= ${until} or p.document->'moved' ? ${rackId}::text) order by p.version`.execute(
    db,
  );
  const at = new Date(Math.max(until.getTime(), ...versions.rows.map((version) => version.at.getTime())));
  const offers = await sql<Omit<Offered, "state" | "pricePercent"> & { taken: boolean | null }>`
      select r.id, o.code, o.what, o.quantity, o.unit, o.price, o.currency, o.risk, a.taken, coalesce(a.who, '') as by,
        coalesce(a.answered_on::text, '') as on, coalesce(a.how, '') as how, coalesce(a.note, '') as note
      from record r join offer o on o.record_id = r.id
      left join lateral (select x.* from offer_answer x join record y on y.id = x.record_id where x.offer_id = r.id and y.happened_at <= ${at}
        and ${stands("y.id")} order by y.happened_at desc, y.id desc limit 1) a on true
      where r.job_id = ${job.id} and r.kind = 'offer' and r.happened_at <= ${at} and ${stands("r.id")}
      order by r.happened_at, r.id`.execute(db);
  const first = v.parse(planSchema, job.plan);
  const newest = versions.rows.at(-1);
  const plan = newest ? v.parse(planSchema, newest.document) : first;
  const atIntake = first.offered.map(
    (o): Offered => ({
      id: null,
      code: optionCode(o.what),
      what: o.what,
      quantity: null,
      unit: null,
      price: null,
      currency: "",
      pricePercent: o.pricePercent,
      risk: o.risk,
      state: o.taken ? "taken" : "declined",
      by: o.by,
      on: o.on,
      how: "",
      note: "",
    }),
  );
  const later = offers.rows.map(
    ({ taken, ...o }): Offered => ({
      ...o,
      pricePercent: null,
      state: taken === null ? "open" : taken ? "taken" : "declined",
    }),
  );
  return {
    ...plan,
    offered: [...atIntake, ...later],
    versions: versions.rows.map(({ document: _, ...version }) => version),
    version: newest?.version ?? 0,
    released: newest?.released ?? versions.rows.length === 0,
  };
}
