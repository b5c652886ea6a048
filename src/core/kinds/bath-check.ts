import * as v from "valibot";
import { bathParameterBounds, bathParameters } from "../bath";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

const bathValue = v.pipe(
  v.object({
    parameter: v.picklist(bathParameters),
    value: v.pipe(v.number(), v.finite()),
    typed: filled(40),
    typedUnit: text(12),
    titrantMl: v.optional(v.nullable(number(0, 200)), null),
    blankMl: v.optional(v.nullable(number(0, 200)), null),
  }),
  v.check(
    (x) => x.value >= bathParameterBounds[x.parameter][0] && x.value <= bathParameterBounds[x.parameter][1],
    "is beyond what the instrument can read",
  ),
);
/** A round of a bath: each value as it was typed and as it is. */
export const bathCheck = defineKind({
  kind: "bath-check",
  tables: {
    bath_check: {
      ordinal: "int",
      parameter: "text",
      value: "float8",
      typed: "text",
      typed_unit: "text",
      titrant_ml: "float8?",
      blank_ml: "float8?",
      factor: "float8?",
    },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    "bath-check": {
      may: "log-line",
      schema: entry("bath-check", {
        bath: filled(60),
        values: v.pipe(v.array(bathValue), v.minLength(1, "has no value"), v.maxLength(8)),
        /** What was asked about was looked at, and stands as it is typed. */
        sure: v.optional(v.boolean(), false),
      }),
    },
  },
});
