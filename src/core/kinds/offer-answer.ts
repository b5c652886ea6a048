import { defineKind } from "./kind";

/** The customer's answer to an offer. */
export const offerAnswer = defineKind({
  kind: "offer-answer",
  tables: {
    offer_answer: {
      offer_id: "uuid",
      taken: "boolean",
      who: "text",
      how: "text",
      answered_on: "date",
      note: "text?",
    },
  },
  change: false,
  superseded: "never",
  entries: {},
});
