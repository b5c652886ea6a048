import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { loadRack } from "../rack/load-rack";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"dry-off"> = {
  "dry-off": ({ db, person }, entry) => dryOff(db, person, entry),
};

/** How a rack came out of the dry-off. */
async function dryOff(db: Kysely<Database>, person: Person, entry: Of<"dry-off">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    grade: entry.metalC !== null || entry.airC !== null ? "measured" : "by-procedure",
    details: {
      dry_off: [
        {
          air_c: entry.airC,
          metal_c: entry.metalC,
          parts_dry: entry.partsDry,
          hollow_blown: entry.hollowBlown,
          note: entry.note || null,
        },
      ],
    },
  };
}
