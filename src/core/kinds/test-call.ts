import { defineKind } from "./kind";

/** What a test plan asks of a rack as it comes to the line: each test, and whom the rack stands by where it is not asked. */
export const testCall = defineKind({
  kind: "test-call",
  tables: {
    test_call: {
      ordinal: "int",
      /** The plan, as it stood then. */
      plan_id: "uuid",
      version_id: "uuid",
      test: "text",
      every: "text",
      n: "int?",
      level: "text",
      /** Its lot, load, shift or job; null where that is not on record, or none counts. */
      key: "text?",
      /** The racks that stand by one test. */
      unit: "text",
      asked: "boolean",
      why: "text",
      /** The rest of the unit waits for it. */
      first: "boolean",
    },
  },
  change: false,
  superseded: "never",
  entries: {},
});
