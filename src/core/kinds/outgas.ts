import * as v from "valibot";

import { entry, filled, traceChannel } from "./fields";
import { defineKind } from "./kind";

/** An outgassing bake, by the trace of its metal. */
export const outgas = defineKind({
  kind: "outgas",
  tables: {
    outgas: { cure_metal_c: "float8", channel: "text", held_c: "float8?", longest_s: "float8", result: "text" },
  },
  /** Rows of another kind's tables that it writes as well. */
  also: ["bake_channel"],
  counted: ["bake_channel"],
  change: false,
  superseded: "by-correction",
  entries: {
    /** An outgassing bake, by the trace of its metal. */
    outgas: {
      may: "log-line",
      schema: entry("outgas", {
        rack: filled(20),
        channels: v.pipe(v.array(traceChannel), v.minLength(1), v.maxLength(12)),
      }),
    },
  },
});
