import { findStructure } from "../field/find-structure";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import type { Makes } from "./made";

export const makes: Makes<"defect"> = {
  defect: async ({ db, person }, entry) => {
    if (entry.piecesAffected !== null && entry.piecesSeen !== null && entry.piecesAffected > entry.piecesSeen)
      return refuse({ kind: "more-affected-than-seen", affected: entry.piecesAffected, seen: entry.piecesSeen });
    const details = {
      defect: [
        {
          defect: entry.defect,
          face: entry.face,
          x: entry.x,
          y: entry.y,
          extent_percent: entry.extentPercent,
          pieces_affected: entry.piecesAffected,
          pieces_seen: entry.piecesSeen,
          note: entry.note || null,
        },
      ],
    };
    if (entry.rack) {
      const rack = await findRack(db, person, entry.rack);
      return rack
        ? { ok: true, where: { jobId: rack.job_id, rackId: rack.id }, details }
        : refuse({ kind: "unknown-rack", number: entry.rack });
    }
    const structure = await findStructure(db, person, entry.structure ?? "");
    return structure
      ? { ok: true, where: { structureId: structure.id }, details }
      : refuse({ kind: "unknown-structure", name: entry.structure ?? "" });
  },
};
