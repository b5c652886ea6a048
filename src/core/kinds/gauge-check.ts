import * as v from "valibot";
import { BEYOND_ANY_FILM_UM } from "../thickness";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** A film gauge against its shims. */
export const gaugeCheck = defineKind({
  kind: "gauge-check",
  tables: {
    gauge_check: { tolerance_um: "float8", tolerance_percent: "float8", holds: "boolean", note: "text?" },
    gauge_shim: {
      ordinal: "int",
      certified_um: "float8",
      tolerance_um: "float8",
      readings_um: "float8[]",
      mean_um: "float8",
      holds: "boolean",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    /** A film gauge against its shims. */
    "gauge-check": {
      may: "inspect",
      schema: entry("gauge-check", {
        instrument: filled(40),
        shims: v.pipe(
          v.array(
            v.object({
              certifiedUm: number(0, BEYOND_ANY_FILM_UM),
              toleranceUm: number(0, 100),
              readingsUm: v.pipe(v.array(number(-100, BEYOND_ANY_FILM_UM)), v.minLength(1), v.maxLength(50)),
            }),
          ),
          v.minLength(1, "has no shim"),
          v.maxLength(12),
        ),
        note: text(400),
      }),
    },
  },
});
