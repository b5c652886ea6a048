import { entry, filled, said } from "./fields";
import { defineKind } from "./kind";

/** A round of a bath that is left out, with its reason. */
export const roundSkip = defineKind({
  kind: "round-skip",
  tables: {
    round_skip: { reason: "text" },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    /** A round of a bath that is left out, with its reason. */
    "round-skip": {
      may: "log-line",
      schema: entry("round-skip", { bath: filled(60), reason: said(400, "is too short: name the reason") }),
    },
  },
});
