import * as v from "valibot";
import { plannedTests } from "../test-plan";
import { entry, filled, said } from "./fields";
import { defineKind } from "./kind";

/** A test that a plan asks for and that is left out, with its reason; it stands on the certificate. */
export const testSkip = defineKind({
  kind: "test-skip",
  tables: {
    test_skip: { test: "text", reason: "text" },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    "test-skip": {
      may: "release",
      schema: entry("test-skip", {
        rack: filled(20),
        test: v.picklist(plannedTests),
        reason: said(400, "is too short: name the reason, it stands on the certificate"),
      }),
    },
  },
});
