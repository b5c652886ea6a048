import * as v from "valibot";
import { BEYOND_ANY_FILM_UM } from "../thickness";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** The first panel of a lot against the standard swatch. */
export const firstPanel = defineKind({
  kind: "first-panel",
  tables: {
    first_panel: {
      lot_id: "uuid",
      result: "text",
      gloss: "float8?",
      delta_e: "float8?",
      film_um: "float8?",
      note: "text?",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    /** The first panel of a lot against the standard swatch. */
    "first-panel": {
      may: "inspect",
      schema: entry("first-panel", {
        lot: filled(60),
        result: v.picklist(["matches", "off"]),
        gloss: v.nullable(number(0, 200)),
        deltaE: v.nullable(number(0, 100)),
        filmUm: v.nullable(number(0, BEYOND_ANY_FILM_UM)),
        note: text(400),
      }),
    },
  },
});
