import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import { siteAt } from "../setup/setup-data";
import type { Makes } from "./made";

export const makes: Makes<"extra-work"> = {
  /** Failures: `unknown-rack`. */
  "extra-work": async ({ db, person }, entry) => {
    const rack = await findRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    const { rates } = await siteAt(db, entry.happenedAt);
    return {
      ok: true,
      where: { jobId: rack.job_id, rackId: rack.id },
      grade: "by-procedure",
      details: {
        extra_work: [
          {
            what: entry.what,
            minutes: entry.minutes,
            charged: entry.charged,
            cost: rates ? (entry.minutes / 60) * rates.labourPerHour : null,
            currency: rates?.currency ?? null,
          },
        ],
      },
    };
  },
};
