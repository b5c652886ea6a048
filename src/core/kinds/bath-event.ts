import * as v from "valibot";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** An addition, a dump or a recharge. */
export const bathEvent = defineKind({
  kind: "bath-event",
  tables: {
    bath_event: {
      event: "text",
      product: "text?",
      amount_l: "float8?",
      parameter: "text?",
      expected_value: "float8?",
      note: "text?",
      /** The drum it came from, where that is on record. */
      lot_id: "uuid?",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    "bath-event": {
      may: "log-line",
      schema: entry("bath-event", {
        bath: filled(60),
        event: v.picklist(["addition", "dump", "recharge"]),
        product: text(80),
        amountL: v.nullable(number(0, 100_000)),
        note: text(400),
        /** The drum it came from, by its lot. */
        lot: v.optional(v.nullable(filled(130)), null),
        /** What was asked about stands all the same; the note says why. */
        sure: v.optional(v.boolean(), false),
      }),
    },
  },
});
