import { findStructure } from "../field/find-structure";
import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"structure-zone"> = {
  /** Failures: `unknown-structure`. */
  "structure-zone": async ({ db, person }, entry) => {
    const structure = await findStructure(db, person, entry.structure);
    if (!structure) return refuse({ kind: "unknown-structure", name: entry.structure });
    return {
      ok: true,
      where: { structureId: structure.id },
      details: {
        structure_zone: [
          {
            zone: entry.zone,
            what: entry.what,
            place: entry.place,
            height_m: entry.heightM,
            bearing_deg: entry.bearingDeg,
            length_mm: entry.lengthMm,
            note: entry.note || null,
            gone: entry.gone,
          },
        ],
      },
    };
  },
};
