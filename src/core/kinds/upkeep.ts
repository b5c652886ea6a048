import * as v from "valibot";
import { upkeepResults } from "../upkeep";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** Upkeep that was done. */
export const upkeep = defineKind({
  kind: "upkeep",
  tables: {
    upkeep_done: { item_id: "uuid", result: "text", value: "float8?", unit: "text?", who: "text?", note: "text?" },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    /** Upkeep that was done: what was found, the value where one is measured, who where it is not the line's own. */
    upkeep: {
      may: "log-line",
      schema: v.pipe(
        entry("upkeep", {
          item: filled(20),
          result: v.picklist(upkeepResults),
          value: v.nullable(number(-1e6, 1e6)),
          who: text(80),
          note: text(800),
        }),
        v.forward(
          v.check(
            (x) => x.result === "in-order" || x.note !== "",
            "is empty: say what was found and what was done, or is to be done",
          ),
          ["note"],
        ),
      ),
    },
  },
});
