import * as v from "valibot";
import { closedKinds } from "../line";

import { entry, filled, said } from "./fields";
import { defineKind } from "./kind";

/** Something open of a rack that somebody looked at, and what was seen. */
export const itemClosed = defineKind({
  kind: "item-closed",
  tables: { item_closed: { what: "text", seen: "text" } },
  change: true,
  superseded: "by-correction",
  entries: {
    "item-closed": {
      may: "log-line",
      schema: entry("item-closed", {
        rack: filled(20),
        what: v.picklist(closedKinds),
        seen: said(400, "is too short: say what was looked at and how it stands"),
      }),
    },
  },
});
