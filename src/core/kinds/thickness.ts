import * as v from "valibot";
import { BEYOND_ANY_FILM_UM } from "../thickness";

import { entry, filled, number, whole } from "./fields";
import { defineKind } from "./kind";

/** Readings of film thickness, spot by spot. */
export const thickness = defineKind({
  kind: "thickness",
  tables: {
    thickness_set: { coat_no: "int", source: "text", typed_unit: "text" },
    thickness_reading: {
      ordinal: "int",
      face: "text",
      spot: "text",
      value_um: "float8",
      typed: "text",
      rejected_reason: "text?",
    },
  },
  counted: ["thickness_reading"],
  change: false,
  superseded: "by-correction",
  entries: {
    thickness: {
      may: "inspect",
      schema: entry("thickness", {
        rack: filled(20),
        source: v.picklist(["typed", "gauge", "import"]),
        typedUnit: v.picklist(["um", "mil"]),
        /** The gauge it was read with. */
        instrument: v.optional(v.nullable(filled(40)), null),
        coatNo: whole(1, 9),
        /** What was asked about was looked at, and stands as it was read. */
        sure: v.optional(v.boolean(), false),
        readings: v.pipe(
          v.array(
            v.object({
              face: filled(20),
              spot: filled(20),
              valueUm: number(0, BEYOND_ANY_FILM_UM),
              typed: filled(40),
              rejectedReason: v.optional(v.nullable(filled(200)), null),
            }),
          ),
          v.minLength(1, "has no reading"),
          v.maxLength(200_000),
        ),
      }),
    },
  },
});
