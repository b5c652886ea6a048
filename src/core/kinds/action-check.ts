import * as v from "valibot";

import { entry, filled, said } from "./fields";
import { defineKind } from "./kind";

/** How far a corrective action is: not done yet, done and too soon to say, done and the defect stayed away, done and it came back. */
export const actionStates = ["not-yet", "done", "worked", "did-not-work"] as const;
export type ActionState = (typeof actionStates)[number];

/** What was found when somebody looked after the corrective action of a case. */
export const actionCheck = defineKind({
  kind: "action-check",
  tables: {
    action_check: {
      confirmation_id: "uuid",
      state: "text",
      seen: "text",
      /** The set-up sheet that now says it; null where it is in none. */
      sheet: "text?",
      /** When it is looked at again; null once it is told whether it worked. */
      again_on: "date?",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    "action-check": {
      may: "inspect",
      schema: entry("action-check", {
        caseNumber: filled(20),
        state: v.picklist(actionStates),
        seen: said(600, "is too short: say what was done, or what was seen"),
        sheet: v.optional(v.nullable(filled(60)), null),
        againOn: v.optional(v.nullable(v.pipe(v.string(), v.isoDate("is not a date"))), null),
      }),
    },
  },
});
