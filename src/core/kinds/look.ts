import * as v from "valibot";

import { faultFields } from "./defect";
import { entry, filled, number, text, whole } from "./fields";
import { defineKind } from "./kind";

/** The look at a finished part: which faces, from how far, in what light and how long; what is found is a defect of its own, made with it. */
export const look = defineKind({
  kind: "look",
  tables: {
    look: {
      faces: "jsonb",
      distance_m: "float8?",
      light_lux: "float8?",
      found: "boolean",
      note: "text?",
      seconds: "float8?",
    },
  },
  also: ["defect", "cure_test"],
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
          /** How long the looking took, s. */
          seconds: v.optional(v.nullable(number(0, 36_000)), null),
          /** The panel of ten that it matches, 10 the smoothest; null where nobody held one beside it. */
          smoothness: v.optional(v.nullable(whole(1, 10)), null),
          /** What was found, recorded with the look. */
          faults: v.optional(
            v.pipe(v.array(v.object(faultFields)), v.maxLength(60, "are more than 60 in one look")),
            [],
          ),
        }),
        v.forward(
          v.check((x) => x.found || x.faults.length === 0, "says nothing, and faults are listed: which is it"),
          ["found"],
        ),
      ),
    },
  },
});
