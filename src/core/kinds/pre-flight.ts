import * as v from "valibot";
import { coatSituations, preFlightItems, preFlightMeasures } from "../coating";

import { entry, filled, text } from "./fields";
import { defineKind } from "./kind";

const preFlightEntry = v.pipe(
  v.object({
    item: v.picklist(preFlightItems),
    how: v.picklist(["measured", "by-procedure", "skipped"]),
    value: v.nullable(v.pipe(v.number(), v.finite())),
    good: v.nullable(v.boolean()),
    note: text(300),
  }),
  v.forward(
    v.check((x) => x.how !== "skipped" || x.note !== "", "is empty: what is skipped needs its reason"),
    ["note"],
  ),
  v.forward(
    v.check((x) => x.how !== "measured" || x.value !== null, "is missing: a measured item has its reading"),
    ["value"],
  ),
  v.forward(
    v.check((x) => x.how !== "by-procedure" || x.good !== null, "is missing: say whether it is in order"),
    ["good"],
  ),
  v.forward(
    v.check((x) => {
      const bounds = preFlightMeasures[x.item]?.bounds;
      return x.value === null || (bounds !== undefined && x.value >= bounds[0] && x.value <= bounds[1]);
    }, "is beyond what the instrument can read"),
    ["value"],
  ),
);
/** What was looked at before powder goes on. */
export const preFlight = defineKind({
  kind: "pre-flight",
  tables: {
    pre_flight: { situation: "text", sheet_id: "uuid?", lot_id: "uuid?" },
    pre_flight_item: {
      ordinal: "int",
      item: "text",
      how: "text",
      value: "float8?",
      unit: "text?",
      good: "boolean?",
      note: "text?",
    },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    /** What was looked at before powder goes on. */
    "pre-flight": {
      may: "log-line",
      schema: entry("pre-flight", {
        rack: filled(20),
        situation: v.picklist(coatSituations),
        sheet: v.nullable(filled(60)),
        lot: v.nullable(filled(60)),
        items: v.pipe(
          v.array(preFlightEntry),
          v.minLength(1, "has no item"),
          v.maxLength(preFlightItems.length),
          v.check((list) => new Set(list.map((x) => x.item)).size === list.length, "with one of them twice"),
        ),
      }),
    },
  },
});
