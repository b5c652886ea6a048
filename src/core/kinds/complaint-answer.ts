import * as v from "valibot";

import { entry, filled, said, uuid } from "./fields";
import { defineKind } from "./kind";

export const answeredBy = ["mail", "post", "phone", "in-person"] as const;

/** What a customer is told of their complaint, word for word, to whom and how. */
export const complaintAnswer = defineKind({
  kind: "complaint-answer",
  tables: {
    complaint_answer: { complaint_id: "uuid", answer: "text", sent_to: "text", sent_by: "text" },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    "complaint-answer": {
      may: "release",
      schema: entry("complaint-answer", {
        complaint: uuid,
        answer: said(2900, "is too short: write what they are told"),
        sentTo: filled(120),
        sentBy: v.picklist(answeredBy),
      }),
    },
  },
});
