import * as v from "valibot";
import { metalDecisions, metalFaults } from "../preparation";

import { entry, filled, number, said } from "./fields";
import { defineKind } from "./kind";

/** Pits, scale or old coating left on the metal. */
export const metalMark = defineKind({
  kind: "metal-mark",
  tables: {
    metal_mark: { what: "text", face: "text", x: "float8", y: "float8", decision: "text", reason: "text" },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    /** Pits, scale or old coating left on the metal, where it is, and what is decided. */
    "metal-mark": {
      may: "log-line",
      schema: entry("metal-mark", {
        rack: filled(20),
        what: v.picklist(metalFaults),
        face: filled(20),
        x: number(0, 100),
        y: number(0, 100),
        decision: v.picklist(metalDecisions),
        reason: said(400, "is too short: name why it goes on, or what is done"),
      }),
    },
  },
});
