import * as v from "valibot";
import { entry, filled, text } from "./fields";
import { defineKind } from "./kind";

/** Threads, seats and fits tried after the cure, each by its gauge or its counterpart. */
export const fitCheck = defineKind({
  kind: "fit-check",
  tables: { fit_try: { ordinal: "int", fit: "text", gauge: "text?", goes: "boolean" } },
  change: false,
  superseded: "by-correction",
  entries: {
    "fit-check": {
      may: "inspect",
      schema: entry("fit-check", {
        rack: filled(20),
        tries: v.pipe(
          v.array(
            v.object({ fit: filled(120), gauge: text(80), goes: v.boolean("is neither yes nor no: does it go") }),
          ),
          v.minLength(1, "are none: say of each fit whether it goes"),
          v.maxLength(60),
          v.check(
            (list) => new Set(list.map((t) => t.fit.toLowerCase())).size === list.length,
            "with one of them twice",
          ),
        ),
      }),
    },
  },
});
