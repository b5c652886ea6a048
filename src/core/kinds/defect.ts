import * as v from "valibot";
import { loadKnowledge } from "../diagnosis";

import { entry, filled, number, text, whole } from "./fields";
import { defineKind } from "./kind";

const knowledge = loadKnowledge();
/** What a person says of a fault beside where it is of: kind, place, size, how many. */
export const faultFields = {
  defect: v.picklist([...knowledge.defects.keys()]),
  face: v.nullable(text(20)),
  x: v.nullable(number(0, 100)),
  y: v.nullable(number(0, 100)),
  extentPercent: v.nullable(number(0, 100)),
  piecesAffected: v.nullable(whole(0, 10_000)),
  piecesSeen: v.nullable(whole(0, 10_000)),
  subKind: v.optional(v.nullable(filled(40)), null),
  sizeMm: v.optional(v.nullable(v.pipe(number(0, 10_000), v.gtValue(0, "is not over 0"))), null),
  count: v.optional(v.nullable(whole(1, 10_000)), null),
  /** Which pieces show it, by their place on the rack. */
  pieces: v.optional(
    v.nullable(v.pipe(v.array(whole(1, 10_000)), v.minLength(1, "are none"), v.maxLength(1000))),
    null,
  ),
  note: text(400),
};
/** A defect that was seen. */
export const defect = defineKind({
  kind: "defect",
  tables: {
    defect: {
      defect: "text",
      face: "text?",
      x: "float8?",
      y: "float8?",
      extent_percent: "float8?",
      pieces_affected: "int?",
      pieces_seen: "int?",
      /** What kind of it: coarse, a fibre, an edge that is thin. */
      sub_kind: "text?",
      /** The largest of them, and how many on the face. */
      size_mm: "float8?",
      count: "int?",
      /** Which pieces show it, by serial; null where nobody said. */
      pieces: "jsonb?",
      note: "text?",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    defect: {
      may: "inspect",
      schema: entry("defect", {
        rack: v.nullable(filled(20)),
        structure: v.nullable(filled(40)),
        ...faultFields,
      }),
    },
  },
});
