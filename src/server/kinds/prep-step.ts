import type { Kysely } from "kysely";
import { checkHow, prepMeasures, stepMissedBefore } from "@/core/preparation";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { askedSteps, stepsOnRecord } from "../rack/asked-steps";
import { loadRack } from "../rack/load-rack";
import { missedFirst } from "../rack/order-of-work";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"prep-step"> = {
  "prep-step": ({ db, person }, entry) => prepStep(db, person, entry),
};

/** A step of preparation, done with its measure or left out with its reason; refused before what must come first (`step-out-of-order`). */
async function prepStep(db: Kysely<Database>, person: Person, entry: Of<"prep-step">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const missed =
    entry.done && !entry.supersedes
      ? missedFirst(stepMissedBefore(entry.step, askedSteps(rack), stepsOnRecord(rack)), entry.step)
      : null;
  if (missed) return refuse(missed);
  const how = entry.how && Object.keys(entry.how).length > 0 ? checkHow(entry.step, entry.how) : null;
  if (how && !how.ok) return refuse(how.error);
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    grade: entry.value === null ? "by-procedure" : "measured",
    details: {
      prep_step: [
        {
          step: entry.step,
          done: entry.done,
          value: entry.value,
          unit: entry.value === null ? null : (prepMeasures[entry.step]?.unit ?? null),
          note: entry.note || null,
          how: how?.value ?? null,
        },
      ],
    },
  };
}
