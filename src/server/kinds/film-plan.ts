import type { Kysely } from "kysely";
import { filmPlan } from "@/core/sampling";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"film-plan"> = {
  "film-plan": ({ db, person }, entry) => planFilm(db, person, entry),
};

/** What is to be read on a rack, worked out anew from its seed. Failures: `unknown-rack`, those of `filmPlan`. */
async function planFilm(db: Kysely<Database>, person: Person, entry: Of<"film-plan">): Promise<Made> {
  const rack = await findRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const { rule, areaM2, seed, inFt2, risks } = entry;
  const plan = filmPlan(rule, areaM2, seed, { inFt2, risks });
  if (!plan.ok) return refuse(plan.error);
  const { spots, places, measured, pieces } = plan.value;
  return {
    ok: true,
    where: { jobId: rack.job_id, rackId: rack.id },
    grade: "by-procedure",
    details: {
      film_plan: [
        {
          rule,
          area_m2: areaM2,
          seed,
          spots,
          places,
          measured,
          lot: pieces?.lot ?? null,
          sample: pieces?.n ?? null,
          accept_most: pieces?.c ?? null,
          aql: risks?.aql ?? null,
          rql: risks?.rql ?? null,
          producer_risk: risks?.producerRisk ?? null,
          consumer_risk: risks?.consumerRisk ?? null,
          pull: pieces?.pull ?? null,
        },
      ],
    },
  };
}
