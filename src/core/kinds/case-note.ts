import { entry, filled, said, text } from "./fields";
import { defineKind } from "./kind";

/** What somebody noted of a case: what was seen, said or tried, and who was there. */
export const caseNote = defineKind({
  kind: "case-note",
  tables: { case_note: { text: "text", people: "text?" } },
  change: true,
  superseded: "by-correction",
  entries: {
    "case-note": {
      may: "log-line",
      schema: entry("case-note", {
        caseNumber: filled(20),
        text: said(2000, "is too short: say what was seen, said or tried"),
        people: text(200),
      }),
    },
  },
});
