import type { Kysely } from "kysely";
import { baseCorrection } from "@/core/thickness";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"base-metal"> = {
  "base-metal": ({ db, person }, entry) => baseMetal(db, person, entry),
};

/** The gauge on bare metal of a rack: ten readings or more, taken off its film from then on. Failures: `unknown-rack`, those of `baseCorrection`. */
async function baseMetal(db: Kysely<Database>, person: Person, entry: Of<"base-metal">): Promise<Made> {
  const rack = await findRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const base = baseCorrection({ bareUm: entry.readingsUm, blasted: true, setOnSmooth: false, profile: "unknown" });
  if (!base.ok) return refuse(base.error);
  return {
    ok: true,
    where: { jobId: rack.job_id, rackId: rack.id },
    details: {
      base_metal: [{ readings_um: [...entry.readingsUm], mean_um: base.value.um, note: entry.note || null }],
    },
  };
}
