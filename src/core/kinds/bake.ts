import * as v from "valibot";

import { entry, filled, number, said, text, traceChannel } from "./fields";
import { defineKind } from "./kind";

/** Schools of timing a cure: all are recorded, and graded differently. */
export const bakeTimings = [
  "metal-at-temperature",
  "flow-out",
  "door-close",
  "hot-then-down",
  "section-by-section",
] as const;

/** A load in an oven, with what rode in it and its trace once there is one. */
export const bake = defineKind({
  kind: "bake",
  tables: {
    bake: {
      oven_id: "uuid",
      load_no: "text",
      powder_id: "uuid",
      door_closed_at: "timestamptz",
      pulled_at: "timestamptz?",
      timing: "text",
      set_point_c: "float8?",
      /** Of a piece cured section by section, their names. */
      sections: "jsonb?",
      /** What the oven read as the door closed. */
      air_c: "float8?",
      /** Why the order of work, or something open, was set aside. */
      left_out: "text?",
    },
    bake_place: { rack_id: "uuid", place: "text", channel: "text?" },
    bake_channel: { ordinal: "int", name: "text", medium: "text", time_s: "float8[]", temp_c: "float8[]" },
  },
  counted: ["bake_channel"],
  change: false,
  superseded: "in-course-too",
  entries: {
    /** A recorder's file: it completes the load the rack was put into about then, or stands as a bake of its own. */
    trace: {
      may: "inspect",
      schema: entry("trace", {
        rack: filled(20),
        oven: v.nullable(filled(60)),
        place: text(20),
        loadNo: filled(40),
        /** Why the order of work was set aside, by one who may. */
        leftOut: v.optional(v.nullable(said(400, "is too short: name why the order is set aside")), null),
        channels: v.pipe(
          v.array(v.object({ ...traceChannel.entries, rack: v.optional(v.nullable(text(20)), null) })),
          v.minLength(1, "has no channel"),
          v.maxLength(24),
        ),
      }),
    },
    /** A load into an oven: the door closes at `happenedAt`. */
    load: {
      may: "log-line",
      schema: entry("load", {
        oven: filled(60),
        loadNo: filled(40),
        timing: v.picklist(bakeTimings),
        setPointC: v.nullable(number(50, 400)),
        /** What the oven read as the door closed. */
        airC: v.optional(v.nullable(number(-20, 400)), null),
        /** Why the order of work was set aside, by one who may. */
        leftOut: v.optional(v.nullable(said(400, "is too short: name why the order is set aside")), null),
        places: v.pipe(
          v.array(
            v.object({
              rack: filled(20),
              place: text(20),
              /** The recorder's channel whose probe is on this rack. */
              channel: v.optional(v.nullable(text(40)), null),
            }),
          ),
          v.minLength(1, "has no rack"),
          v.maxLength(40),
        ),
        /** Under lamps: the sections the piece is cured in, in order. */
        sections: v.optional(
          v.nullable(
            v.pipe(
              v.array(filled(40)),
              v.minLength(1, "has no section"),
              v.maxLength(24, "are more than 24"),
              v.check(
                (list) => new Set(list.map((s) => s.toLowerCase())).size === list.length,
                "with one of them twice",
              ),
            ),
          ),
          null,
        ),
      }),
    },
  },
});
