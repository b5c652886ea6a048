import * as v from "valibot";
import { loadKnowledge } from "../diagnosis";

import { entry, filled, text } from "./fields";
import { defineKind } from "./kind";

const knowledge = loadKnowledge();
/** A finding of a case, answered. */
export const finding = defineKind({
  kind: "finding",
  tables: {
    finding: {
      finding: "text",
      state: "text",
      note: "text?",
      /** Where on the piece it was looked at; null where it holds for all of it. */
      zone: "text?",
    },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    finding: {
      may: "inspect",
      schema: entry("finding", {
        caseNumber: filled(20),
        finding: v.picklist([...knowledge.findings.keys()]),
        state: v.picklist(["present", "absent", "unknown"]),
        note: text(400),
        zone: v.optional(v.nullable(text(80)), null),
      }),
    },
  },
});
