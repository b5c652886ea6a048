import { defineKind } from "./kind";

/** A certificate as it was given out. */
export const certificate = defineKind({
  kind: "certificate",
  tables: {
    certificate: { number: "text", document: "jsonb" },
  },
  change: true,
  superseded: "never",
  entries: {},
});
