import * as v from "valibot";

import { entry, filled, moment, number, text, whole } from "./fields";
import { defineKind } from "./kind";

/** A coated panel of an hour's wash, tested. */
export const panelTest = defineKind({
  kind: "panel-test",
  tables: {
    panel_test: {
      test: "text",
      washed_at: "timestamptz",
      removed_percent: "float8?",
      iso: "int?",
      hours: "float8?",
      creep_mm: "float8?",
      coating: "text",
      note: "text?",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    /** A coated panel of an hour's wash, tested. */
    "panel-test": {
      may: "inspect",
      schema: v.pipe(
        entry("panel-test", {
          bath: filled(60),
          test: v.picklist(["adhesion", "salt-spray"]),
          washedAt: moment,
          squaresLost: v.nullable(whole(0, 100)),
          squares: v.nullable(v.picklist([25, 100], "is neither 25 nor 100")),
          hours: v.nullable(number(1, 20_000)),
          creepMm: v.nullable(number(0, 200)),
          coating: filled(120),
          note: text(400),
        }),
        v.forward(
          v.check(
            (x) => x.test !== "adhesion" || x.squaresLost !== null,
            "are missing: count the squares that came off",
          ),
          ["squaresLost"],
        ),
        v.forward(
          v.check((x) => x.test !== "salt-spray" || x.hours !== null, "are missing: how long it was in the cabinet"),
          ["hours"],
        ),
        v.forward(
          v.check((x) => x.test !== "salt-spray" || x.creepMm !== null, "is missing: creep from the scribe"),
          ["creepMm"],
        ),
      ),
    },
  },
});
