import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import type { Makes } from "./made";

export const makes: Makes<"fit-check"> = {
  /** Failure: `unknown-rack`. */
  "fit-check": async ({ db, person }, entry) => {
    const rack = await findRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    return {
      ok: true,
      where: { jobId: rack.job_id, rackId: rack.id },
      details: {
        fit_try: entry.tries.map(({ fit, gauge, goes }, i) => ({ ordinal: i + 1, fit, gauge: gauge || null, goes })),
      },
    };
  },
};
