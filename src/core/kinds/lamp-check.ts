import * as v from "valibot";

import { entry, filled, number, text, whole } from "./fields";
import { defineKind } from "./kind";

/** Loose powder under the lamp. */
export const lampCheck = defineKind({
  kind: "lamp-check",
  tables: {
    lamp_check: {
      coat_no: "int",
      faces: "jsonb",
      wiped: "boolean?",
      plugs_in: "int?",
      bumped: "boolean",
      note: "text?",
    },
    light_spot: { ordinal: "int", face: "text", x: "float8", y: "float8", what: "text" },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    /** Loose powder under the lamp: light spots, what was wiped, plugs in. */
    "lamp-check": {
      may: "log-line",
      schema: v.pipe(
        entry("lamp-check", {
          rack: filled(20),
          coatNo: whole(1, 9),
          faces: v.pipe(
            v.array(filled(20)),
            v.maxLength(40),
            v.check((list) => new Set(list).size === list.length, "with one of them twice"),
          ),
          spots: v.pipe(
            v.array(
              v.object({
                face: filled(20),
                x: number(0, 100),
                y: number(0, 100),
                what: v.picklist(["light-resprayed", "light-left", "heavy-left", "bumped", "wiped"]),
              }),
            ),
            v.maxLength(60),
          ),
          wiped: v.nullable(v.boolean()),
          plugsIn: v.nullable(whole(0, 10_000)),
          bumped: v.boolean(),
          note: text(400),
        }),
        v.forward(
          v.check(
            (x) => x.faces.length > 0 || x.bumped || x.spots.length > 0,
            "are empty: tick the faces that were seen",
          ),
          ["faces"],
        ),
      ),
    },
  },
});
