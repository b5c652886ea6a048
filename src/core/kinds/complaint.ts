import * as v from "valibot";
import { loadKnowledge } from "../diagnosis";

import { entry, filled, said, text, whole } from "./fields";
import { defineKind } from "./kind";

const knowledge = loadKnowledge();
export const complaintWants = ["answer", "recoat", "replace", "credit", "not-said"] as const;

/** What a customer says of a rack that has left: who, when, what came back; the defect they saw stands as one of its own beside it. */
export const complaint = defineKind({
  kind: "complaint",
  tables: {
    complaint: {
      said_by: "text",
      said_on: "date",
      their_number: "text?",
      what: "text",
      pieces_returned: "int?",
      pieces_affected: "int?",
      wants: "text",
    },
  },
  also: ["defect"],
  change: true,
  superseded: "by-correction",
  entries: {
    complaint: {
      may: "inspect",
      schema: entry("complaint", {
        rack: filled(20),
        saidBy: filled(80),
        saidOn: v.pipe(v.string(), v.isoDate("is not a date")),
        theirNumber: text(60),
        defect: v.picklist([...knowledge.defects.keys()]),
        what: said(1000, "is too short: write what they say"),
        piecesReturned: v.nullable(whole(0, 100_000)),
        piecesAffected: v.nullable(whole(0, 100_000)),
        wants: v.picklist(complaintWants),
      }),
    },
  },
});
