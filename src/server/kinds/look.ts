import { refuse } from "../outcome";
import { loadRack } from "../rack/load-rack";
import type { Makes } from "./made";

export const makes: Makes<"look"> = {
  /** Failures: `unknown-rack`, `unknown-spot` (no such face), `nothing-on-record` (found, and no defect recorded). */
  look: async ({ db, person }, entry) => {
    const rack = await loadRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    const faces = new Set(rack.part.data.faces.map((f) => f.id));
    const stray = entry.faces.find((face) => !faces.has(face));
    if (stray) return refuse({ kind: "unknown-spot", face: stray, spot: "look", of: rack.part.data.name });
    if (entry.found && !rack.latest.some((r) => r.base.kind === "defect"))
      return refuse({ kind: "nothing-on-record", number: rack.number });
    return {
      ok: true,
      where: { jobId: rack.job.id, rackId: rack.id },
      details: {
        look: [
          {
            faces: entry.faces,
            distance_m: entry.distanceM,
            light_lux: entry.lightLux,
            found: entry.found,
            note: entry.note || null,
          },
        ],
      },
    };
  },
};
