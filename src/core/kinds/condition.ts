import * as v from "valibot";
import { conditionQuantities, conditionQuantityNames } from "../preparation";

import { entry, filled } from "./fields";
import { defineKind } from "./kind";

const conditionValue = v.pipe(
  v.object({ quantity: v.picklist(conditionQuantityNames), value: v.pipe(v.number(), v.finite()) }),
  v.check(
    (x) => x.value >= conditionQuantities[x.quantity].bounds[0] && x.value <= conditionQuantities[x.quantity].bounds[1],
    "is beyond what the instrument can read",
  ),
);
/** A reading of air or metal. */
export const condition = defineKind({
  kind: "condition",
  tables: {
    condition: { quantity: "text", value: "float8", unit: "text", place: "text" },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    conditions: {
      may: "log-line",
      schema: entry("conditions", {
        place: filled(60),
        values: v.pipe(
          v.array(conditionValue),
          v.minLength(1, "has no value"),
          v.maxLength(conditionQuantityNames.length),
        ),
      }),
    },
  },
});
