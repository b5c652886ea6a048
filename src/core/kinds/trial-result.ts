import * as v from "valibot";

import { entry, text, whole } from "./fields";
import { defineKind } from "./kind";

/** The two groups of a trial: the cause made on purpose, and taken away. */
export const trialArms = ["repeated", "taken-away"] as const;
export type TrialArm = (typeof trialArms)[number];

/** What was seen on panels of one group of a trial; several add up. */
export const trialResult = defineKind({
  kind: "trial-result",
  tables: {
    trial_result: {
      trial_id: "uuid",
      arm: "text",
      panels: "int",
      with_it: "int",
      note: "text?",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    "trial-result": {
      may: "inspect",
      schema: v.pipe(
        entry("trial-result", {
          trial: v.pipe(v.string(), v.uuid("is not a trial")),
          arm: v.picklist(trialArms),
          panels: whole(1, 1000),
          withIt: whole(0, 1000),
          note: text(400),
        }),
        v.forward(
          v.check((e) => e.withIt <= e.panels, "are more than were looked at"),
          ["withIt"],
        ),
      ),
    },
  },
});
