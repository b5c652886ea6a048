import * as v from "valibot";
import { FASTEST_LINE_M_PER_MIN } from "../line";
import { passageStages } from "../shorthand";

import { entry, filled, number, said } from "./fields";
import { defineKind } from "./kind";

/** A rack at a stage of the line: by a key, by the line's speed, or because its load went in or came out. */
export const passage = defineKind({
  kind: "passage",
  tables: {
    passage: {
      stage: "text",
      entered_at: "timestamptz",
      left_at: "timestamptz?",
      source: "text",
      line_id: "uuid?",
      left_out: "text?",
    },
  },
  change: false,
  superseded: "in-course-too",
  entries: {
    passage: {
      may: "log-line",
      schema: entry("passage", {
        rack: filled(20),
        stage: v.picklist(passageStages),
        /** Why the order of work was set aside, by one who may. */
        leftOut: v.optional(v.nullable(said(400, "is too short: name why the order is set aside")), null),
      }),
    },
    /** A rack into the washer at a line speed: its passages follow from the stages' lengths. */
    "line-run": {
      may: "log-line",
      schema: entry("line-run", {
        rack: filled(20),
        /** Why the order of work was set aside, by one who may. */
        leftOut: v.optional(v.nullable(said(400, "is too short: name why the order is set aside")), null),
        line: filled(60),
        speedMPerMin: v.pipe(number(0, FASTEST_LINE_M_PER_MIN), v.gtValue(0, "is not over 0")),
      }),
    },
  },
});
