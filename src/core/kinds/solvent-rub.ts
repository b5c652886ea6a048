import * as v from "valibot";

import { entry, filled, panelNo, whole } from "./fields";
import { defineKind } from "./kind";

/** A solvent rub test. */
export const solventRub = defineKind({
  kind: "solvent-rub",
  tables: {
    solvent_rub: {
      double_rubs: "int",
      rub_limit: "int",
      grade: "int",
      known_cured_grade: "int?",
      on_panel: "boolean",
      panel_no: "text?",
    },
  },
  also: ["stands_for"],
  change: false,
  superseded: "by-correction",
  entries: {
    "solvent-rub": {
      may: "inspect",
      schema: entry("solvent-rub", {
        rack: filled(20),
        doubleRubs: whole(1, 1000),
        limit: whole(1, 1000),
        grade: whole(0, 5),
        onPanel: v.boolean(),
        panel: panelNo,
      }),
    },
  },
});
