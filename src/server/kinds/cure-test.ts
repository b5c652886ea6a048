import type { Kysely } from "kysely";
import { judgeCureTest } from "@/core/bench";
import type { Database } from "@/db/schema";
import { tested } from "../bench/find-panel";
import { refuse } from "../outcome";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"cure-test"> = {
  "cure-test": ({ db, person }, entry) => cureTested(db, person, entry),
};

/** A test of a rack beside the rub, worked out before it is kept. Failures: those of `tested`, those of `judgeCureTest`. */
async function cureTested(db: Kysely<Database>, person: Person, entry: Of<"cure-test">): Promise<Made> {
  const on = await tested(db, person, entry);
  if (!on.ok) return refuse(on.failure);
  const judged = judgeCureTest(entry.test, entry.readings, entry.lower, entry.upper);
  if (!judged.ok) return refuse(judged.error);
  return {
    ok: true,
    where: on.value.where,
    grade: "measured",
    details: {
      cure_test: [
        {
          test: entry.test,
          value: judged.value.value,
          readings: entry.readings,
          asked_lower: entry.lower,
          asked_upper: entry.upper,
          ...on.value.panel,
        },
      ],
      ...on.value.standsFor,
    },
  };
}
