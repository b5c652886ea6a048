import * as v from "valibot";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** An oven read with a probe at each place. */
export const ovenSurvey = defineKind({
  kind: "oven-survey",
  tables: {
    oven_survey: {
      oven_id: "uuid",
      set_point_c: "float8",
      hold_from_s: "float8",
      hold_to_s: "float8",
      door_at_s: "float8?",
      note: "text?",
    },
    survey_place: { ordinal: "int", place: "text", time_s: "float8[]", temp_c: "float8[]" },
  },
  counted: ["survey_place"],
  change: true,
  superseded: "by-correction",
  entries: {
    /** A survey of an oven: a probe at each place, over a hold. */
    "oven-survey": {
      may: "inspect",
      schema: entry("oven-survey", {
        oven: filled(60),
        setPointC: number(50, 400),
        holdFromS: number(0, 1e6),
        holdToS: number(0, 1e6),
        doorAtS: v.nullable(number(0, 1e6)),
        places: v.pipe(
          v.array(
            v.object({
              place: filled(40),
              timeS: v.pipe(v.array(v.pipe(v.number(), v.finite())), v.maxLength(200_000)),
              tempC: v.pipe(v.array(v.nullable(v.pipe(v.number(), v.finite()))), v.maxLength(200_000)),
            }),
          ),
          v.minLength(2, "has fewer than two places"),
          v.maxLength(24),
        ),
        note: text(400),
      }),
    },
  },
});
