import { findPanel } from "../bench/find-panel";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import type { Makes } from "./made";

export const makes: Makes<"panel"> = {
  /** Failures: `unknown-rack`, `panel-there-already` (the number is another's). */
  panel: async ({ db, person }, entry) => {
    const racks = [];
    for (const number of [...new Set([entry.rack, ...entry.alsoFor])]) {
      const rack = await findRack(db, person, number);
      if (!rack) return refuse({ kind: "unknown-rack", number });
      racks.push(rack);
    }
    const [hung] = racks;
    if (!hung) return refuse({ kind: "unknown-rack", number: entry.rack });
    const same = await findPanel(db, person, entry.number);
    // The same sent again is the same panel.
    if (same && ![entry.id, entry.supersedes?.recordId].includes(same.recordId))
      return refuse({ kind: "panel-there-already", number: same.number, racks: same.racks.map((r) => r.number) });
    return {
      ok: true,
      where: { jobId: hung.job_id, rackId: hung.id },
      details: {
        panel: [
          {
            number: entry.number,
            metal: entry.metal,
            made_from: entry.madeFrom || null,
            hung_at: entry.hungAt || null,
            note: entry.note || null,
          },
        ],
        stands_for: racks.map((r) => ({ rack_id: r.id })),
      },
    };
  },
};
