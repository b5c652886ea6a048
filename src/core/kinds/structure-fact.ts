import * as v from "valibot";
import { protections } from "../plan/advise";
import { entry, filled, number, text, whole } from "./fields";
import { defineKind } from "./kind";

const told = ["by-procedure", "assumed", "unknown"] as const;
const metres = v.optional(v.nullable(number(0, 100_000)), null);

/**
 * What is known of a structure beside its pieces: where it stands and how near to what wears it, what was promised of it, and
 * where its coating is not from here, what was told of that, each with how it is known. What was said last stands.
 */
export const structureFact = defineKind({
  kind: "structure-fact",
  tables: {
    structure_fact: {
      told_year: "int?",
      told_year_grade: "text?",
      told_coater: "text?",
      told_coater_grade: "text?",
      told_system: "text?",
      told_system_grade: "text?",
      road_m: "float8?",
      salt_m: "float8?",
      water_m: "float8?",
      latitude: "float8?",
      longitude: "float8?",
      promised_years: "float8?",
      note: "text?",
      /** What was under its film, as told: it is followed together with what stands on the same. */
      told_protection: "text?",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    "structure-fact": {
      may: "inspect",
      schema: entry("structure-fact", {
        structure: filled(40),
        toldYear: v.optional(v.nullable(whole(1950, 2100)), null),
        toldYearGrade: v.optional(v.picklist(told), "assumed"),
        toldCoater: text(80),
        toldCoaterGrade: v.optional(v.picklist(told), "assumed"),
        toldSystem: text(120),
        toldProtection: v.optional(v.nullable(v.picklist(protections)), null),
        toldSystemGrade: v.optional(v.picklist(told), "assumed"),
        /** To a road that is salted, to salt water, to standing water. */
        roadM: metres,
        saltM: metres,
        waterM: metres,
        latitude: v.optional(v.nullable(number(-90, 90)), null),
        longitude: v.optional(v.nullable(number(-180, 180)), null),
        promisedYears: v.optional(v.nullable(v.pipe(number(0, 100), v.gtValue(0, "is not over 0"))), null),
        note: text(400),
      }),
    },
  },
});
