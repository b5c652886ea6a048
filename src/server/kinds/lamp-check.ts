import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { loadRack } from "../rack/load-rack";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"lamp-check"> = {
  "lamp-check": ({ db, person }, entry) => lampCheck(db, person, entry),
};

/** The lamp's look at loose powder. Failures: `unknown-rack`, `unknown-spot` (no such face), `no-coat-yet` (number). */
async function lampCheck(db: Kysely<Database>, person: Person, entry: Of<"lamp-check">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const faces = new Set(rack.part.data.faces.map((f) => f.id));
  const stray = [...entry.faces, ...entry.spots.map((s) => s.face)].find((face) => !faces.has(face));
  if (stray) return refuse({ kind: "unknown-spot", face: stray, spot: "lamp", of: rack.part.data.name });
  if (!rack.latest.some((r) => r.base.kind === "coat")) return refuse({ kind: "no-coat-yet", number: rack.number });
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    grade: "measured",
    details: {
      lamp_check: [
        {
          coat_no: entry.coatNo,
          faces: entry.faces,
          wiped: entry.wiped,
          plugs_in: entry.plugsIn,
          bumped: entry.bumped,
          note: entry.note || null,
        },
      ],
      light_spot: entry.spots.map((s, n) => ({ ordinal: n + 1, ...s })),
    },
  };
}
