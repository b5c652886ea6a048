import { defineKind } from "./kind";

/** A cause confirmed, with its proof and what is done. */
export const confirmation = defineKind({
  kind: "confirmation",
  tables: {
    confirmation: {
      cause: "text",
      proof: "text",
      correction: "text",
      corrective_action: "text",
      who: "text",
      due_on: "date?",
    },
  },
  change: true,
  superseded: "never",
  entries: {},
});
