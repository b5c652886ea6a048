import * as v from "valibot";
import { entry, filled, number } from "./fields";
import { defineKind } from "./kind";

/** Work on a rack that nobody ordered: a weld repaired, a thread chased; who pays for it, and what it cost. */
export const extraWork = defineKind({
  kind: "extra-work",
  tables: {
    extra_work: {
      what: "text",
      minutes: "float8",
      /** Whether the customer pays. */
      charged: "boolean",
      /** By the shop's rate for labour of that day; null where it has none. */
      cost: "float8?",
      currency: "text?",
    },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    "extra-work": {
      may: "log-line",
      schema: entry("extra-work", {
        rack: filled(20),
        what: filled(80),
        minutes: v.pipe(number(0, 10_000), v.gtValue(0, "is not over 0: how long it took")),
        charged: v.boolean("is neither yes nor no: does the customer pay for it"),
      }),
    },
  },
});
