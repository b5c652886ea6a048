import * as v from "valibot";
import { entry, filled, number, text, uuid } from "./fields";
import { defineKind } from "./kind";

/** Places touched up after the cure, each ticked off: contact points of the hanging, faults that were found. */
export const touchUp = defineKind({
  kind: "touch-up",
  tables: {
    touch_up: {
      ordinal: "int",
      what: "text",
      defect_id: "uuid?",
      face: "text?",
      x: "float8?",
      y: "float8?",
      done: "boolean",
      with_what: "text?",
    },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    "touch-up": {
      may: "log-line",
      schema: entry("touch-up", {
        rack: filled(20),
        withWhat: text(120),
        places: v.pipe(
          v.array(
            v.object({
              what: filled(120),
              defect: v.nullable(uuid),
              face: v.nullable(text(20)),
              x: v.nullable(number(0, 100)),
              y: v.nullable(number(0, 100)),
              done: v.boolean("is neither yes nor no: was it touched up"),
            }),
          ),
          v.minLength(1, "are none: tick what was touched up"),
          v.maxLength(200),
        ),
      }),
    },
  },
});
