import * as v from "valibot";
import { zoneKinds } from "../field";
import { entry, filled, number, text, whole } from "./fields";
import { defineKind } from "./kind";

/** A zone of a structure: what it is, how high, which way it faces; put on record anew it is as it was said last. */
export const structureZone = defineKind({
  kind: "structure-zone",
  tables: {
    structure_zone: {
      zone: "text",
      what: "text",
      /** Place in the round; null goes by what fails first. */
      place: "int?",
      height_m: "float8?",
      /** Compass bearing it faces, °. */
      bearing_deg: "float8?",
      /** Of a seam or edge: all of it. */
      length_mm: "float8?",
      note: "text?",
      /** No longer looked at. */
      gone: "boolean",
    },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    "structure-zone": {
      may: "inspect",
      schema: entry("structure-zone", {
        structure: filled(40),
        zone: filled(80),
        what: v.picklist(zoneKinds),
        place: v.optional(v.nullable(whole(1, 999)), null),
        heightM: v.optional(v.nullable(number(-20, 500)), null),
        bearingDeg: v.optional(v.nullable(number(0, 360)), null),
        lengthMm: v.optional(v.nullable(v.pipe(number(0, 10_000_000), v.gtValue(0, "is not over 0"))), null),
        note: text(400),
        gone: v.optional(v.boolean(), false),
      }),
    },
  },
});
