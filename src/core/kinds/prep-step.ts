import * as v from "valibot";
import { prepMeasures, prepSteps } from "../preparation";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** A step of preparation, done with its measure or left out with its reason. */
export const prepStep = defineKind({
  kind: "prep-step",
  tables: {
    prep_step: { step: "text", done: "boolean", value: "float8?", unit: "text?", note: "text?", how: "jsonb?" },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    "prep-step": {
      may: "log-line",
      schema: v.pipe(
        entry("prep-step", {
          rack: filled(20),
          step: v.picklist(prepSteps),
          done: v.boolean(),
          value: v.nullable(number(-1e6, 1e6)),
          note: text(400),
          /** How it was done: media, solvent, wipe. */
          how: v.optional(v.nullable(v.record(text(40), v.union([v.pipe(v.number(), v.finite()), text(80)]))), null),
        }),
        v.forward(
          v.check((x) => x.done || x.note !== "", "is empty: a step left out needs its reason"),
          ["note"],
        ),
        v.forward(
          v.check(
            (x) => x.value === null || prepMeasures[x.step] !== undefined,
            "has no place here: this step is done or not done",
          ),
          ["value"],
        ),
        v.forward(
          v.check((x) => {
            const bounds = prepMeasures[x.step]?.bounds;
            return x.value === null || !bounds || (x.value >= bounds[0] && x.value <= bounds[1]);
          }, "is beyond what the instrument can read"),
          ["value"],
        ),
      ),
    },
  },
});
