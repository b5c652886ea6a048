import * as v from "valibot";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** Two programs on the same panels, the same test. */
export const cureTrial = defineKind({
  kind: "cure-trial",
  tables: {
    cure_trial: {
      question: "text",
      test: "text",
      unit: "text",
      program_a: "text",
      program_b: "text",
      values_a: "float8[]",
      values_b: "float8[]",
      note: "text?",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    /** Two programs on the same panels, the same test. */
    "cure-trial": {
      may: "inspect",
      schema: entry("cure-trial", {
        question: filled(200),
        test: filled(80),
        unit: text(20),
        programA: filled(120),
        programB: filled(120),
        valuesA: v.pipe(v.array(number(-1e6, 1e6)), v.minLength(2, "has fewer than two results"), v.maxLength(200)),
        valuesB: v.pipe(v.array(number(-1e6, 1e6)), v.minLength(2, "has fewer than two results"), v.maxLength(200)),
        note: text(400),
      }),
    },
  },
});
