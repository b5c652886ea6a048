import type { Kysely } from "kysely";
import * as v from "valibot";
import { lineStagesOf, refusals } from "@/core/plan";
import type { Json } from "@/db/detail-tables";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { badEntry, said, text } from "../input";
import { refreshJobs, refreshStanding } from "../line/standing";
import { type EntryOutcome, refuse } from "../outcome";
import { storeOne } from "../record/store-record";
import { conditionSchema, type Plan, planSchema, systemSchema } from "../requirement";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";
import { loadPlanFile } from "./load-plan";

const changeSchema = v.object({
  id: v.pipe(v.string(), v.uuid("is not an id")),
  job: text(20),
  /** The version that was on screen: a change on top of another's is refused, theirs shown first. */
  seen: v.pipe(v.number(), v.integer(), v.minValue(0)),
  reason: text(400),
  release: v.boolean(),
  condition: v.optional(conditionSchema),
  system: v.optional(systemSchema),
  pieces: v.optional(
    v.pipe(
      v.number("is not a number"),
      v.integer("is not a whole number"),
      v.minValue(1, "is under 1"),
      v.maxValue(100_000, "is over 100000"),
    ),
  ),
  lifeYears: v.optional(v.nullable(v.pipe(v.number(), v.minValue(0.1), v.maxValue(100)))),
  exposure: v.optional(planSchema.entries.exposure),
  finish: v.optional(planSchema.entries.finish),
  /** Racks that hang under the plan as it is go over to the new one. */
  move: v.optional(v.boolean(), false),
  /** Reasons for what is refused and done all the same, by refusal. */
  overrule: v.optional(v.record(text(60), said(400, "is too short: name the reason")), {}),
});

/**
 * A new version of a job's plan; the one before stays on record. Racks that hang stay under the plan they were hung by,
 * unless they are moved over with a reason. After release to the shop a change needs its reason.
 * What cannot work is refused unless a person overrules it with a reason, which is kept with the plan.
 * Failures: `bad-entry`, `unknown-job`, `changed-meanwhile`, `reason-needed`, `no-measures`, a refusal by its own name
 * under `refused-system`, and the store's own.
 */
export async function changePlan(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<EntryOutcome> {
  const parsed = v.safeParse(changeSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const change = parsed.output;
  return write(db, [lock.job(change.job)], clock, async (trx, at) => {
    const key = `plan:${change.id}`;
    const again = await trx.selectFrom("record").select("id").where("idempotency_key", "=", key).executeTakeFirst();
    return again ? { ok: true, recordId: again.id, already: true } : newVersion(trx, person, change, at);
  });
}

export type PlanChange = v.InferOutput<typeof changeSchema>;

/** The new version itself, in the transaction of whoever asks for it and under its lock. */
export async function newVersion(
  trx: Kysely<Database>,
  person: Person,
  change: PlanChange,
  at: Date,
): Promise<EntryOutcome> {
  const file = await loadPlanFile(trx, person, change.job, at);
  if (!file) return refuse({ kind: "unknown-job", number: change.job });
  const { plan } = file;
  const newest = plan.versions.at(-1);
  if (plan.version !== change.seen)
    return refuse({ kind: "changed-meanwhile", by: newest?.by ?? "", version: plan.version });
  if (plan.released && plan.version > 0 && change.reason.length < 3)
    return refuse({ kind: "reason-needed", version: plan.version });
  if (change.move && change.reason.length < 3) return refuse({ kind: "reason-needed", version: plan.version });
  const racks = change.move ? file.racks.map((r) => r.id) : [];
  const system = change.system ?? plan.system;
  const exposure = change.exposure ?? plan.exposure;
  if (!file.part) return refuse({ kind: "no-measures", part: file.partName });
  const service = {
    exposure,
    lifeYears: plan.lifeYears,
    finish: change.finish ?? plan.finish,
    serviceC: plan.serviceC,
  };
  const against = system ? refusals(file.part, service, system) : [];
  const unanswered = against.find((r) => !change.overrule[r.kind] && !plan.overruled.some((o) => o.kind === r.kind));
  if (unanswered) return refuse({ ...unanswered, kind: "refused-system", refusal: unanswered.kind });
  const overruled = against.map((r) => {
    const before = plan.overruled.find((o) => o.kind === r.kind);
    return change.overrule[r.kind] || !before
      ? { kind: r.kind, reason: change.overrule[r.kind] ?? "", by: person.name }
      : before;
  });
  const next: Plan = {
    stages: plan.stages,
    primer: system ? system.primer !== "none" : plan.primer,
    exposure,
    offered: [],
    pieces: change.pieces ?? plan.pieces,
    condition: change.condition ?? plan.condition,
    lifeYears: change.lifeYears === undefined ? plan.lifeYears : change.lifeYears,
    finish: change.finish ?? plan.finish,
    handSteps: plan.handSteps,
    serviceC: plan.serviceC,
    system,
    overruled,
  };
  const stages = system ? lineStagesOf(file.routeFor(next)) : plan.stages;
  const stored = await storeOne(
    trx,
    {
      id: change.id,
      kind: "plan",
      happenedAt: at,
      by: person.username,
      grade: "measured",
      idempotencyKey: `plan:${change.id}`,
      jobId: file.jobId,
      supersedes: newest
        ? { recordId: newest.recordId, reason: change.reason || "Planned further", inCourse: true }
        : null,
      details: {
        job_plan: [
          {
            version: plan.version + 1,
            released: change.release,
            document: JSON.parse(
              JSON.stringify({
                ...next,
                stages: [...stages],
                // A first version supersedes nothing that could hold its reason.
                ...(newest || !change.reason ? {} : { why: change.reason }),
                ...(racks.length > 0 ? { moved: racks } : {}),
              }),
            ) as Json,
          },
        ],
      },
    },
    at,
  );
  if (racks.length > 0) await refreshStanding(trx, racks);
  await refreshJobs(trx, [file.jobId]);
  return stored;
}
