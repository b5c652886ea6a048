import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { loadRack } from "../rack/load-rack";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"powder-height"> = {
  "powder-height": ({ db, person }, entry) => powderHeight(db, person, entry),
};

/** Height of the loose powder at spots of the part. Failures: `unknown-rack`, `unknown-spot`. */
async function powderHeight(db: Kysely<Database>, person: Person, entry: Of<"powder-height">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const spots = new Set(rack.part.data.faces.flatMap((f) => f.spots.map((s) => `${f.id}/${s.id}`)));
  const stray = entry.readings.find((r) => !spots.has(`${r.face}/${r.spot}`));
  if (stray) return refuse({ kind: "unknown-spot", face: stray.face, spot: stray.spot, of: rack.part.data.name });
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    details: {
      powder_height: entry.readings.map((r, n) => ({
        ordinal: n + 1,
        face: r.face,
        spot: r.spot,
        height_um: r.heightUm,
      })),
    },
  };
}
