import * as v from "valibot";

import { entry, filled, number, whole } from "./fields";
import { defineKind } from "./kind";

/** A cross-cut test. */
export const crossCut = defineKind({
  kind: "cross-cut",
  tables: {
    cross_cut: {
      removed_percent: "float8",
      squares_lost: "int?",
      squares: "int?",
      spacing_mm: "float8?",
      iso: "int",
      astm: "text",
      on_panel: "boolean",
    },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    "cross-cut": {
      may: "inspect",
      schema: entry("cross-cut", {
        rack: filled(20),
        squaresLost: whole(0, 100),
        squares: v.picklist([25, 100], "is neither 25 nor 100"),
        spacingMm: v.nullable(number(0.5, 5)),
        onPanel: v.boolean(),
      }),
    },
  },
});
