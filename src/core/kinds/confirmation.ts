import { defineKind } from "./kind";

/** What a corrective action changes, so that it stays changed. */
export const tiedTo = ["setup-sheet", "bath-window", "interval", "training", "part", "other"] as const;
export type TiedTo = (typeof tiedTo)[number];

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
      /** All causes that act: of each where on the piece and its share, %; null before it was asked. */
      causes: "jsonb?",
      /** From the cause to why it was let through, a step a line. */
      chain: "jsonb?",
      /** What the corrective action changes, and which. */
      tied_to: "text?",
      tied_code: "text?",
    },
  },
  change: true,
  superseded: "never",
  entries: {},
});
