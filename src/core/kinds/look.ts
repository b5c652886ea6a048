import * as v from "valibot";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** The look at a finished part: which faces, from how far and in what light; what is found is a defect of its own. */
export const look = defineKind({
  kind: "look",
  tables: {
    look: { faces: "jsonb", distance_m: "float8?", light_lux: "float8?", found: "boolean", note: "text?" },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    look: {
      may: "inspect",
      schema: v.pipe(
        entry("look", {
          rack: filled(20),
          faces: v.pipe(
            v.array(filled(20)),
            v.minLength(1, "are empty: tick the faces that were looked at"),
            v.maxLength(40),
            v.check((list) => new Set(list).size === list.length, "with one of them twice"),
          ),
          distanceM: v.nullable(v.pipe(number(0, 20), v.gtValue(0, "is not over 0"))),
          lightLux: v.nullable(v.pipe(number(0, 200_000), v.gtValue(0, "is not over 0"))),
          /** Something was found; each is recorded as a defect. */
          found: v.boolean("is neither yes nor no: was anything found"),
          note: text(400),
        }),
      ),
    },
  },
});
