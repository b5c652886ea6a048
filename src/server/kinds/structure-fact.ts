import { findStructure } from "../field/find-structure";
import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"structure-fact"> = {
  /** Failures: `unknown-structure`, `nothing-said` (every field is empty), `bad-entry` (half a position). */
  "structure-fact": async ({ db, person }, entry) => {
    const structure = await findStructure(db, person, entry.structure);
    if (!structure) return refuse({ kind: "unknown-structure", name: entry.structure });
    if ((entry.latitude === null) !== (entry.longitude === null))
      return refuse({ kind: "bad-entry", field: "longitude", value: "", why: "goes with a latitude" });
    const said = [
      entry.toldYear,
      entry.toldCoater || null,
      entry.toldSystem || null,
      entry.toldProtection,
      entry.roadM,
      entry.saltM,
      entry.waterM,
      entry.latitude,
      entry.promisedYears,
      entry.note || null,
    ];
    if (said.every((x) => x === null)) return refuse({ kind: "nothing-said", name: structure.code });
    const graded = (value: unknown, grade: string) => (value === null || value === "" ? null : grade);
    return {
      ok: true,
      where: { structureId: structure.id },
      grade: "by-procedure",
      details: {
        structure_fact: [
          {
            told_year: entry.toldYear,
            told_year_grade: graded(entry.toldYear, entry.toldYearGrade),
            told_coater: entry.toldCoater || null,
            told_coater_grade: graded(entry.toldCoater, entry.toldCoaterGrade),
            told_system: entry.toldSystem || null,
            told_system_grade: graded(entry.toldSystem, entry.toldSystemGrade),
            road_m: entry.roadM,
            salt_m: entry.saltM,
            water_m: entry.waterM,
            latitude: entry.latitude,
            longitude: entry.longitude,
            promised_years: entry.promisedYears,
            note: entry.note || null,
            told_protection: entry.toldProtection,
          },
        ],
      },
    };
  },
};
