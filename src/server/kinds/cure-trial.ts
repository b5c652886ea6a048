import { beforeAfter } from "@/core/coating";
import { refuse } from "../outcome";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"cure-trial"> = {
  "cure-trial": (_, entry) => cureTrial(entry),
};

/** Two programs, the same test. Failures: those of `beforeAfter`. */
function cureTrial(entry: Of<"cure-trial">): Made {
  const compared = beforeAfter(entry.valuesA, entry.valuesB);
  if (!compared.ok) return refuse(compared.error);
  return {
    ok: true,
    where: {},
    grade: "measured",
    details: {
      cure_trial: [
        {
          question: entry.question,
          test: entry.test,
          unit: entry.unit,
          program_a: entry.programA,
          program_b: entry.programB,
          values_a: entry.valuesA,
          values_b: entry.valuesB,
          note: entry.note || null,
        },
      ],
    },
  };
}
