import type { Kysely } from "kysely";
import { creepFromChip, creepFromScribe } from "@/core/field";
import type { Database } from "@/db/schema";
import { findStructure } from "../field/find-structure";
import { refuse } from "../outcome";
import type { DetailRows } from "../record/content";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"visit"> = {
  visit: ({ db, person }, entry) => visit(db, person, entry),
};

async function visit(db: Kysely<Database>, person: Person, entry: Of<"visit">): Promise<Made> {
  const structure = await findStructure(db, person, entry.structure);
  if (!structure) return refuse({ kind: "unknown-structure", name: entry.structure });
  const rows: NonNullable<DetailRows["creep_measure"]>[number][] = [];
  for (const [i, measure] of entry.creep.entries()) {
    const creep =
      measure.from === "scribe"
        ? creepFromScribe(measure.widthsMm, measure.scribeMm ?? 0)
        : creepFromChip(measure.widthsMm);
    if (!creep.ok) return refuse({ ...creep.error, zone: measure.zone });
    rows.push({
      ordinal: i + 1,
      zone: measure.zone,
      from_what: measure.from,
      scribe_mm: measure.scribeMm,
      widths_mm: [...measure.widthsMm],
      creep_mm: creep.value.creepMm,
      rating: creep.value.rating,
    });
  }
  return {
    ok: true,
    where: { structureId: structure.id },
    details: { visit: [{ weather: entry.weather || null, note: entry.note || null }], creep_measure: rows },
  };
}
