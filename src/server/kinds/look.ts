import type { NewDetail } from "@/db/detail-tables";
import { refuse } from "../outcome";
import { loadRack, type RackFile } from "../rack/load-rack";
import { faultRow, wrongFault } from "./defect";
import type { Makes } from "./made";

/** Beside what the job asks, else beside what this powder is known to give. */
function smoothness(rack: RackFile, panel: number): NewDetail<"cure_test"> {
  const asked = rack.job.requirement.tests.find((t) => t.test === "smoothness");
  return {
    test: "smoothness",
    value: panel,
    readings: [panel],
    asked_lower: asked?.lower ?? rack.powder.data.smoothness,
    asked_upper: null,
    on_panel: false,
  };
}

export const makes: Makes<"look"> = {
  /**
   * The look, and with it each fault that was found. Failures: `unknown-rack`, `unknown-spot` (no such face), those of a fault
   * with its number, `nothing-on-record` (found, and neither listed nor recorded).
   */
  look: async ({ db, person }, entry) => {
    const rack = await loadRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    const faces = new Set(rack.part.data.faces.map((f) => f.id));
    const stray = [...entry.faces, ...entry.faults.flatMap((f) => f.face ?? [])].find((face) => !faces.has(face));
    if (stray) return refuse({ kind: "unknown-spot", face: stray, spot: "look", of: rack.part.data.name });
    for (const [i, fault] of entry.faults.entries()) {
      const wrong = wrongFault(fault, rack.pieces);
      if (wrong) return refuse({ ...wrong, fault: i + 1 });
    }
    if (entry.found && entry.faults.length === 0 && !rack.latest.some((r) => r.base.kind === "defect"))
      return refuse({ kind: "nothing-on-record", number: rack.number });
    const where = { jobId: rack.job.id, rackId: rack.id };
    const look = {
      faces: entry.faces,
      distance_m: entry.distanceM,
      light_lux: entry.lightLux,
      found: entry.found,
      seconds: entry.seconds,
      note: entry.note || null,
    };
    if (entry.faults.length === 0 && entry.smoothness === null) return { ok: true, where, details: { look: [look] } };
    const of = { ...where, happenedAt: entry.happenedAt, grade: "measured" as const };
    return {
      ok: true,
      several: [
        ...entry.faults.map((fault, i) => ({
          ...of,
          kind: "defect",
          name: `fault-${i + 1}`,
          details: { defect: [faultRow(fault, rack.pieces)] },
        })),
        ...(entry.smoothness === null
          ? []
          : [
              {
                ...of,
                kind: "cure-test",
                name: "smoothness",
                details: { cure_test: [smoothness(rack, entry.smoothness)] },
              },
            ]),
        { ...of, kind: "look", name: "look", details: { look: [look] } },
      ],
    };
  },
};
