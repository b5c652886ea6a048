import * as v from "valibot";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** The gauge on the bare metal of a rack. */
export const baseMetal = defineKind({
  kind: "base-metal",
  tables: {
    base_metal: { readings_um: "float8[]", mean_um: "float8", note: "text?" },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    /** The gauge on the bare metal of a rack, to be taken off its film. */
    "base-metal": {
      may: "inspect",
      schema: entry("base-metal", {
        rack: filled(20),
        readingsUm: v.pipe(v.array(number(-100, 400)), v.minLength(1, "has no reading"), v.maxLength(200)),
        note: text(400),
      }),
    },
  },
});
