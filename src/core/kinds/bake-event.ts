import * as v from "valibot";
import { bakeEvents, coolingMethods, infraredAims } from "../cure";

import { entry, filled, number, text, whole } from "./fields";
import { defineKind } from "./kind";

/** What happened to a load in the oven and as it cooled. */
export const bakeEvent = defineKind({
  kind: "bake-event",
  tables: {
    bake_event: {
      oven_id: "uuid",
      load_no: "text",
      event: "text",
      value_c: "float8?",
      emissivity: "float8?",
      aim: "text?",
      count: "int?",
      asked: "int?",
      note: "text?",
      since_door_s: "float8?",
      section: "text?",
      /** How it cools. */
      method: "text?",
    },
  },
  also: ["light_spot"],
  change: false,
  superseded: "by-correction",
  entries: {
    /** What happens to a load in the oven and as it cools: each in one tap. */
    "bake-event": {
      may: "log-line",
      schema: entry("bake-event", {
        oven: filled(60),
        loadNo: filled(40),
        event: v.picklist(bakeEvents),
        valueC: v.optional(v.nullable(number(-40, 600)), null),
        emissivity: v.optional(v.nullable(v.pipe(number(0, 1), v.gtValue(0, "is not over 0"))), null),
        aim: v.optional(v.nullable(v.picklist(infraredAims)), null),
        /** Plugs and masks out, of so many that went in. */
        count: v.optional(v.nullable(whole(0, 10_000)), null),
        asked: v.optional(v.nullable(whole(0, 10_000)), null),
        /** By the clock of the recorder that is followed, s since the door; null where the wall's clock says it. */
        sinceDoorS: v.optional(v.nullable(number(0, 86_400)), null),
        /** What part of a large piece was read, where it is cured section by section. */
        section: v.optional(v.nullable(filled(40)), null),
        /** Which of several racks was read as it cools; null says all of the load. */
        rack: v.optional(v.nullable(filled(20)), null),
        /** Of cooling: how. */
        method: v.optional(v.nullable(v.picklist(coolingMethods)), null),
        note: text(400),
        /** Of a touch-up: where on the part, on a 0–100 sketch. */
        places: v.optional(
          v.pipe(
            v.array(v.object({ face: filled(20), x: number(0, 100), y: number(0, 100) })),
            v.maxLength(40, "are more than 40 on one rack"),
          ),
          [],
        ),
      }),
    },
  },
});
