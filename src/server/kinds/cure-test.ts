import type { Kysely } from "kysely";
import { judgeCureTest } from "@/core/bench";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"cure-test"> = {
  "cure-test": ({ db, person }, entry) => cureTested(db, person, entry),
};

/** A test of a rack beside the rub, worked out before it is kept. Failures: `unknown-rack`, those of `judgeCureTest`. */
async function cureTested(db: Kysely<Database>, person: Person, entry: Of<"cure-test">): Promise<Made> {
  const rack = await findRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const judged = judgeCureTest(entry.test, entry.readings, entry.lower, entry.upper);
  if (!judged.ok) return refuse(judged.error);
  return {
    ok: true,
    where: { jobId: rack.job_id, rackId: rack.id },
    grade: "measured",
    details: {
      cure_test: [
        {
          test: entry.test,
          value: judged.value.value,
          readings: entry.readings,
          asked_lower: entry.lower,
          asked_upper: entry.upper,
          on_panel: entry.onPanel,
        },
      ],
    },
  };
}
