import { refuse } from "../outcome";
import { loadRack } from "../rack/load-rack";
import type { Makes } from "./made";

/** Failures: `unknown-rack`, `test-not-called` (no plan asks it of this rack). */
export const makes: Makes<"test-skip"> = {
  "test-skip": async ({ db, person }, entry) => {
    const rack = await loadRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    if (!rack.calls.get(entry.test)) return refuse({ kind: "test-not-called", rack: rack.number, test: entry.test });
    return {
      ok: true,
      where: { jobId: rack.job.id, rackId: rack.id },
      grade: "unknown",
      details: { test_skip: [{ test: entry.test, reason: entry.reason }] },
    };
  },
};
