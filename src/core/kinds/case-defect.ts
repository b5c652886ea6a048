import * as v from "valibot";

import { entry, filled, text } from "./fields";
import { defineKind } from "./kind";

/** Defects joined to a case, or split from it: of each the newest word stands. */
export const caseDefect = defineKind({
  kind: "case-defect",
  tables: {
    case_defect: {
      ordinal: "int",
      /** The record of the defect. */
      of: "uuid",
      state: "text",
      why: "text?",
    },
  },
  change: true,
  superseded: "never",
  entries: {
    "case-defect": {
      may: "inspect",
      schema: entry("case-defect", {
        caseNumber: filled(20),
        defects: v.pipe(
          v.array(v.pipe(v.string(), v.uuid("is not a record"))),
          v.minLength(1, "are none"),
          v.maxLength(500),
        ),
        state: v.picklist(["joined", "split"]),
        why: text(400),
      }),
    },
  },
});
