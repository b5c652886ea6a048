import * as v from "valibot";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** A visit to a structure in the field, with its creep. */
export const visit = defineKind({
  kind: "visit",
  tables: {
    visit: { weather: "text?", note: "text?" },
    creep_measure: {
      ordinal: "int",
      zone: "text",
      from_what: "text",
      scribe_mm: "float8?",
      widths_mm: "float8[]",
      creep_mm: "float8",
      rating: "int?",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    visit: {
      may: "inspect",
      schema: entry("visit", {
        structure: filled(40),
        weather: text(80),
        note: text(800),
        creep: v.pipe(
          v.array(
            v.object({
              zone: filled(80),
              from: v.picklist(["scribe", "chip"]),
              scribeMm: v.nullable(number(0, 20)),
              widthsMm: v.pipe(v.array(number(0, 500)), v.minLength(1, "has no width"), v.maxLength(200)),
            }),
          ),
          v.maxLength(50),
        ),
      }),
    },
  },
});
