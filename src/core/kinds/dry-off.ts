import * as v from "valibot";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** How a rack came out of the dry-off. */
export const dryOff = defineKind({
  kind: "dry-off",
  tables: {
    dry_off: { air_c: "float8?", metal_c: "float8?", parts_dry: "boolean", hollow_blown: "boolean?", note: "text?" },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    /** How a rack came out of the dry-off: parts looked at, tubes and laps blown out. */
    "dry-off": {
      may: "log-line",
      schema: entry("dry-off", {
        rack: filled(20),
        airC: v.nullable(number(-20, 400)),
        metalC: v.nullable(number(-20, 400)),
        partsDry: v.boolean("is neither dry nor damp: look at the parts"),
        hollowBlown: v.nullable(v.boolean()),
        note: text(400),
      }),
    },
  },
});
