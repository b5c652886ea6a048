import type { Kysely } from "kysely";
import { type Creep, creepFromArea, creepFromChip, creepFromScribe, creepRating, rustGrade } from "@/core/field";
import { ok, type Result } from "@/core/result";
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
    const creep = creepOf(measure);
    if (!creep.ok) return refuse({ ...creep.error, zone: measure.zone });
    rows.push({
      ordinal: i + 1,
      zone: measure.zone,
      from_what: measure.from,
      scribe_mm: measure.scribeMm,
      widths_mm: [...measure.widthsMm],
      creep_mm: creep.value.creepMm,
      rating: creep.value.rating,
      area_mm2: measure.areaMm2,
      length_mm: measure.lengthMm,
    });
  }
  const rust: NonNullable<DetailRows["rust_share"]>[number][] = [];
  for (const [i, { zone, sharePercent }] of entry.rust.entries()) {
    const grade = rustGrade(sharePercent);
    if (!grade.ok) return refuse({ ...grade.error, zone });
    rust.push({ ordinal: i + 1, zone, share_percent: sharePercent, grade: grade.value });
  }
  return {
    ok: true,
    where: { structureId: structure.id },
    details: {
      visit: [{ weather: entry.weather || null, note: entry.note || null }],
      creep_measure: rows,
      rust_share: rust,
    },
  };
}

/** Creep of one zone by what it was measured from. Failures: those of the core's three ways. */
function creepOf(measure: Of<"visit">["creep"][number]): Result<Pick<Creep, "creepMm" | "rating">> {
  const { from, widthsMm, scribeMm } = measure;
  if (from === "chip") return creepFromChip(widthsMm);
  if (from === "scribe") return creepFromScribe(widthsMm, scribeMm ?? 0);
  const creep = creepFromArea({
    areaMm2: measure.areaMm2 ?? 0,
    lengthMm: measure.lengthMm ?? 0,
    scribeMm: scribeMm ?? 0,
  });
  if (!creep.ok) return creep;
  const rating = creepRating(creep.value);
  return rating.ok ? ok({ creepMm: creep.value, rating: rating.value }) : rating;
}
