import { refuse } from "../outcome";
import { loadRack } from "../rack/load-rack";
import type { Makes } from "./made";

export const makes: Makes<"touch-up"> = {
  /** Failures: `unknown-rack`, `unknown-spot` (no such face), `not-of-this-rack` (a fault of another). */
  "touch-up": async ({ db, person }, entry) => {
    const rack = await loadRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    const faces = new Set(rack.part.data.faces.map((f) => f.id));
    for (const { face, defect } of entry.places) {
      if (face !== null && !faces.has(face))
        return refuse({ kind: "unknown-spot", face, spot: "touch-up", of: rack.part.data.name });
      if (defect !== null && !rack.current.some((r) => r.base.id === defect && r.base.kind === "defect"))
        return refuse({ kind: "not-of-this-rack", number: rack.number });
    }
    return {
      ok: true,
      where: { jobId: rack.job.id, rackId: rack.id },
      details: {
        touch_up: entry.places.map((p, i) => ({
          ordinal: i + 1,
          what: p.what,
          defect_id: p.defect,
          face: p.face,
          x: p.x,
          y: p.y,
          done: p.done,
          with_what: entry.withWhat || null,
        })),
      },
    };
  },
};
