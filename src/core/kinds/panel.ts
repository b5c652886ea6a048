import * as v from "valibot";
import { substrates } from "../plan/part";
import { entry, filled, text } from "./fields";
import { defineKind } from "./kind";

/** A test panel: its number, what it is made of, where it hung, and the racks that what is done to it speaks for. */
export const panel = defineKind({
  kind: "panel",
  tables: {
    panel: { number: "text", metal: "text", made_from: "text?", hung_at: "text?", note: "text?" },
    /** The racks that a panel stands for; of a test on it, those it stood for then. */
    stands_for: { rack_id: "uuid" },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    panel: {
      may: "log-line",
      schema: entry("panel", {
        rack: filled(20),
        /** Other racks of the same load or coat. */
        alsoFor: v.optional(
          v.pipe(
            v.array(filled(20)),
            v.maxLength(40, "are more than 40"),
            v.check((list) => new Set(list.map((r) => r.toLowerCase())).size === list.length, "with one of them twice"),
          ),
          [],
        ),
        number: filled(40),
        metal: v.picklist(substrates),
        /** Batch, sheet or lot of the metal. */
        madeFrom: text(80),
        hungAt: text(80),
        note: text(400),
      }),
    },
  },
});
