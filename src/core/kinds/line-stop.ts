import { entry, filled, moment, said, uuid } from "./fields";
import { defineKind } from "./kind";

/** The line stood still with what was in it; taken back, it never was. */
export const lineStop = defineKind({
  kind: "line-stop",
  tables: {
    line_stop: { line_id: "uuid", from_at: "timestamptz", to_at: "timestamptz", cause: "text" },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    /** The line stood still from `happenedAt` to `until`, with what was in it. */
    "line-stop": {
      may: "log-line",
      schema: entry("line-stop", { line: filled(60), until: moment, cause: said(200, "is too short: name the cause") }),
    },
    /** A stop that was noted and never was. */
    "line-stop-back": {
      may: "log-line",
      schema: entry("line-stop-back", { stop: uuid, reason: said(300, "is too short: name why it is taken back") }),
    },
  },
});
