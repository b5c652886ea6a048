import { entry, filled, number, text } from "@/core/kinds/fields";
import { defineKind } from "@/core/kinds/kind";

/** A kind that no shop has: how loud the blast room is. */
export const noise = defineKind({
  kind: "noise",
  tables: { noise_level: { ordinal: "int", level_db: "float8", where_heard: "text", note: "text?" } },
  change: true,
  superseded: "by-correction",
  entries: {
    noise: {
      may: "inspect",
      schema: entry("noise", { rack: filled(20), levelDb: number(0, 140), where: filled(40), note: text(40) }),
    },
  },
});
