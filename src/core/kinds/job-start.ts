import { defineKind } from "./kind";

/** A start set for a job by a person. */
export const jobStart = defineKind({
  kind: "job-start",
  tables: {
    job_start: { start_at: "timestamptz?" },
  },
  change: false,
  superseded: "never",
  entries: {},
});
