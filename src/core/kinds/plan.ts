import { defineKind } from "./kind";

/** A version of a job's plan. */
export const plan = defineKind({
  kind: "plan",
  tables: {
    job_plan: { version: "int", released: "boolean", document: "jsonb" },
  },
  change: false,
  superseded: "in-course-too",
  entries: {},
});
