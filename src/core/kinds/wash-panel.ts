import * as v from "valibot";
import { panelLooks, usualColours } from "../bath";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** A panel of the conversion coat: stripped and weighed, or judged by its colour. */
export const washPanel = defineKind({
  kind: "wash-panel",
  tables: {
    wash_panel: {
      before_g: "float8?",
      after_g: "float8?",
      area_m2: "float8?",
      g_per_m2: "float8?",
      colour: "text?",
      look: "text",
      note: "text?",
    },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    /** A panel of the conversion coat: stripped and weighed, or judged by its colour. */
    "wash-panel": {
      may: "log-line",
      schema: v.pipe(
        entry("wash-panel", {
          bath: filled(60),
          beforeG: v.nullable(number(0, 100_000)),
          afterG: v.nullable(number(0, 100_000)),
          areaM2: v.nullable(number(0, 100)),
          colour: v.nullable(v.picklist(usualColours.map((c) => c.colour))),
          look: v.picklist(panelLooks),
          note: text(400),
        }),
        v.forward(
          v.check(
            (x) => x.colour !== null || (x.beforeG !== null && x.afterG !== null && x.areaM2 !== null),
            "is missing: weigh the panel before and after, with its area, or name its colour",
          ),
          ["beforeG"],
        ),
      ),
    },
  },
});
