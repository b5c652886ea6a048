import * as v from "valibot";
import { loadKnowledge } from "../diagnosis";

import { entry, filled, number, said, whole } from "./fields";
import { defineKind } from "./kind";

const knowledge = loadKnowledge();
const share = v.pipe(number(0, 1), v.description("share"));

/** A small trial that proves a cause: repeated on purpose on some panels, taken away on as many others. */
export const trial = defineKind({
  kind: "trial",
  tables: {
    trial: {
      cause: "text",
      plan: "text",
      /** In each of the two groups. */
      panels: "int",
      /** Shares expected to show the defect with the cause and without it. */
      expect_with: "float8",
      expect_without: "float8",
      certainty: "float8",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    trial: {
      may: "inspect",
      schema: entry("trial", {
        caseNumber: filled(20),
        cause: v.picklist([...knowledge.causes.keys()]),
        plan: said(1000, "is too short: say what is repeated and what is taken away"),
        panels: whole(2, 200),
        expectWith: share,
        expectWithout: share,
        certainty: v.pipe(number(0.5, 0.999), v.description("certainty")),
      }),
    },
  },
});
