import * as v from "valibot";
import { cureTests } from "../bench";

import { entry, filled, number, panelNo } from "./fields";
import { defineKind } from "./kind";

/** A test beside the rub, with what was asked. */
export const cureTest = defineKind({
  kind: "cure-test",
  tables: {
    cure_test: {
      test: "text",
      value: "float8",
      readings: "float8[]",
      asked_lower: "float8?",
      asked_upper: "float8?",
      on_panel: "boolean",
      panel_no: "text?",
    },
  },
  also: ["stands_for"],
  change: false,
  superseded: "by-correction",
  entries: {
    /** A test beside the rub, with what was asked. */
    "cure-test": {
      may: "inspect",
      schema: entry("cure-test", {
        rack: filled(20),
        test: v.picklist(cureTests),
        readings: v.pipe(v.array(number(0, 1000)), v.minLength(1, "has no reading"), v.maxLength(50)),
        lower: v.nullable(number(0, 1000)),
        upper: v.nullable(number(0, 1000)),
        onPanel: v.boolean(),
        panel: panelNo,
      }),
    },
  },
});
