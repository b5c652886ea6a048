import * as v from "valibot";
import { coatSituations, coatSystems } from "../coating";

import { entry, filled, number, said, text, whole } from "./fields";
import { defineKind } from "./kind";

const kg = number(0, 5000);
/** A coat of powder on a rack, with what was set. */
export const coat = defineKind({
  kind: "coat",
  tables: {
    coat: {
      coat_no: "int",
      layer: "text",
      lot_id: "uuid",
      booth: "text",
      kv: "float8?",
      current_ua: "float8?",
      gun_air_kpa: "float8?",
      distance_mm: "float8?",
      earth_mohm: "float8?",
      hook_cycles: "int?",
      sprayed_hot: "boolean?",
      metal_c: "float8?",
      colour_change_before: "boolean?",
      reclaim_percent: "float8?",
      gun: "text?",
      sheet_id: "uuid?",
      situation: "text?",
      system: "text?",
      gun_air_rest_kpa: "float8?",
      booth_air_m_per_s: "float8?",
      passes: "int?",
      left_out: "text?",
      hopper_before_kg: "float8?",
      hopper_after_kg: "float8?",
      hopper_added_kg: "float8?",
    },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    coat: {
      may: "log-line",
      schema: entry("coat", {
        rack: filled(20),
        coatNo: whole(1, 9),
        layer: v.picklist(["primer", "top", "clear"]),
        lot: filled(60),
        booth: filled(40),
        kv: v.nullable(number(0, 150)),
        currentUa: v.nullable(number(0, 300)),
        gunAirKPa: v.nullable(number(0, 1000)),
        distanceMm: v.nullable(number(0, 1500)),
        earthMohm: v.nullable(number(0, 1_000_000)),
        hookCycles: v.nullable(whole(0, 10_000)),
        sprayedHot: v.nullable(v.boolean()),
        /** Heat of the metal as it was sprayed. */
        metalC: v.optional(v.nullable(number(-20, 400)), null),
        colourChangeBefore: v.nullable(v.boolean()),
        reclaimPercent: v.nullable(number(0, 100)),
        gun: v.optional(text(40), ""),
        /** The set-up sheet it was set by. */
        sheet: v.optional(v.nullable(filled(60)), null),
        situation: v.optional(v.nullable(v.picklist(coatSituations)), null),
        system: v.optional(v.nullable(v.picklist(coatSystems)), null),
        gunAirRestKPa: v.optional(v.nullable(number(0, 1000)), null),
        boothAirMPerS: v.optional(v.nullable(number(0, 5)), null),
        /** Why the order of work was set aside, by one who may. */
        leftOut: v.optional(v.nullable(said(400, "is too short: name why the order is set aside")), null),
        passes: v.optional(v.nullable(whole(1, 20)), null),
        hopperBeforeKg: v.optional(v.nullable(kg), null),
        hopperAfterKg: v.optional(v.nullable(kg), null),
        hopperAddedKg: v.optional(v.nullable(kg), null),
      }),
    },
  },
});
