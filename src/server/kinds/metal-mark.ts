import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { loadRack } from "../rack/load-rack";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"metal-mark"> = {
  "metal-mark": ({ db, person }, entry) => metalMark(db, person, entry),
};

/** A bad place on the bare metal, with what is decided about it and why. Failures: `unknown-rack`, `unknown-spot` (no such face). */
async function metalMark(db: Kysely<Database>, person: Person, entry: Of<"metal-mark">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  if (!rack.part.data.faces.some((f) => f.id === entry.face))
    return refuse({ kind: "unknown-spot", face: entry.face, spot: entry.what, of: rack.part.data.name });
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    grade: "measured",
    details: {
      metal_mark: [
        { what: entry.what, face: entry.face, x: entry.x, y: entry.y, decision: entry.decision, reason: entry.reason },
      ],
    },
  };
}
