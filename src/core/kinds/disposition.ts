import * as v from "valibot";
import { entry, filled, number, said } from "./fields";
import { defineKind } from "./kind";

/** A decision on a rack or on some of its pieces: a lead's, signed; wiping loose powder off is anybody's at the booth. */
export const disposition = defineKind({
  kind: "disposition",
  tables: {
    disposition: {
      decision: "text",
      note: "text",
      verdict: "jsonb",
      signed_name: "text",
      /** How many it is on; null where it is on all that were left on the rack. */
      pieces: "int?",
      /** Stage where the fault was found, and where it was made; null where nobody said. */
      found_at: "text?",
      made_at: "text?",
      /** What the rework costs: minutes as taken, powder, money by the rates of that day. */
      minutes: "float8?",
      powder_kg: "float8?",
      cost: "float8?",
      currency: "text?",
      /** Of powder wiped off: with water, so that it is dried again. */
      rinsed: "boolean?",
      /** The class it is downgraded to. */
      class_given: "text?",
    },
    disposition_piece: { piece_id: "uuid" },
    concession: {
      customer_name: "text",
      their_word: "text",
      zone: "text?",
      limit_said: "text?",
      until_on: "date?",
    },
  },
  change: true,
  superseded: "never",
  entries: {
    "wipe-off": {
      may: "log-line",
      schema: entry("wipe-off", {
        rack: filled(20),
        note: said(600, "is too short: name what was wrong with it"),
        rinsed: v.boolean("is neither yes nor no: was it rinsed off"),
        minutes: v.nullable(number(0, 10_000)),
      }),
    },
  },
});
