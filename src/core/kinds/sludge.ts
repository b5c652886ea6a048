import * as v from "valibot";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** Sludge measured or dug out, a filter changed. */
export const sludge = defineKind({
  kind: "sludge",
  tables: {
    sludge: { what: "text", depth_mm: "float8?", note: "text?" },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    /** Sludge measured or dug out, a filter changed. */
    sludge: {
      may: "log-line",
      schema: v.pipe(
        entry("sludge", {
          bath: filled(60),
          what: v.picklist(["measured", "desludged", "filter-changed"]),
          depthMm: v.nullable(number(0, 3000)),
          note: text(400),
        }),
        v.forward(
          v.check((x) => x.what !== "measured" || x.depthMm !== null, "is missing: measure how deep it lies"),
          ["depthMm"],
        ),
      ),
    },
  },
});
