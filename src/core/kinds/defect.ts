import * as v from "valibot";
import { loadKnowledge } from "../diagnosis";

import { entry, filled, number, text, whole } from "./fields";
import { defineKind } from "./kind";

const knowledge = loadKnowledge();
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
        defect: v.picklist([...knowledge.defects.keys()]),
        face: v.nullable(text(20)),
        x: v.nullable(number(0, 100)),
        y: v.nullable(number(0, 100)),
        extentPercent: v.nullable(number(0, 100)),
        piecesAffected: v.nullable(whole(0, 10_000)),
        piecesSeen: v.nullable(whole(0, 10_000)),
        note: text(400),
      }),
    },
  },
});
