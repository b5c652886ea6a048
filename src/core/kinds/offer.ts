import { defineKind } from "./kind";

/** An option offered on a job. */
export const offer = defineKind({
  kind: "offer",
  tables: {
    offer: {
      code: "text",
      what: "text",
      quantity: "float8?",
      unit: "text?",
      price: "float8?",
      currency: "text",
      risk: "text",
    },
  },
  change: false,
  superseded: "never",
  entries: {},
});
