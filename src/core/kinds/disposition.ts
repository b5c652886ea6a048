import { defineKind } from "./kind";

/** A lead's decision on a rack, signed. */
export const disposition = defineKind({
  kind: "disposition",
  tables: {
    disposition: { decision: "text", note: "text", verdict: "jsonb", signed_name: "text" },
  },
  change: true,
  superseded: "never",
  entries: {},
});
