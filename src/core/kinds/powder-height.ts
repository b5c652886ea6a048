import * as v from "valibot";

import { entry, filled, number } from "./fields";
import { defineKind } from "./kind";

/** Height of the loose powder, before the bake. */
export const powderHeight = defineKind({
  kind: "powder-height",
  tables: {
    powder_height: { ordinal: "int", face: "text", spot: "text", height_um: "float8" },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    /** Height of the loose powder, before the bake. */
    "powder-height": {
      may: "log-line",
      schema: entry("powder-height", {
        rack: filled(20),
        readings: v.pipe(
          v.array(v.object({ face: filled(20), spot: filled(20), heightUm: v.pipe(number(0, 2000), v.gtValue(0)) })),
          v.minLength(1, "has no reading"),
          v.maxLength(200),
        ),
      }),
    },
  },
});
