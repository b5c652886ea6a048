import * as v from "valibot";

import { entry, filled, number, panelNo } from "./fields";
import { defineKind } from "./kind";

const share = number(0, 100);
/** A pull-off test, with how the film gave way and what was asked. */
export const pullOff = defineKind({
  kind: "pull-off",
  tables: {
    pull_off: {
      dolly_mm: "float8",
      force_n: "float8",
      stress_mpa: "float8",
      adhesive_percent: "float8",
      cohesive_percent: "float8",
      glue_percent: "float8",
      asked_mpa: "float8?",
      on_panel: "boolean",
      panel_no: "text?",
    },
  },
  also: ["stands_for"],
  change: false,
  superseded: "by-correction",
  entries: {
    "pull-off": {
      may: "inspect",
      schema: entry("pull-off", {
        rack: filled(20),
        dollyMm: v.pipe(number(0, 200), v.gtValue(0, "is not over 0")),
        forceN: number(0, 200_000),
        adhesivePercent: share,
        cohesivePercent: share,
        gluePercent: share,
        askedMPa: v.optional(v.nullable(v.pipe(number(0, 200), v.gtValue(0, "is not over 0"))), null),
        onPanel: v.boolean(),
        panel: panelNo,
      }),
    },
  },
});
