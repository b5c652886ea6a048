import * as v from "valibot";

import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** A visit to a structure in the field, with its creep. */
export const visit = defineKind({
  kind: "visit",
  tables: {
    visit: { weather: "text?", note: "text?" },
    creep_measure: {
      ordinal: "int",
      zone: "text",
      from_what: "text",
      scribe_mm: "float8?",
      widths_mm: "float8[]",
      creep_mm: "float8",
      rating: "int?",
      /** By area: what is corroded along a length of scribe. */
      area_mm2: "float8?",
      length_mm: "float8?",
    },
    rust_share: { ordinal: "int", zone: "text", share_percent: "float8", grade: "int" },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    visit: {
      may: "inspect",
      schema: entry("visit", {
        structure: filled(40),
        weather: text(80),
        note: text(800),
        creep: v.pipe(
          v.array(
            v.pipe(
              v.object({
                zone: filled(80),
                from: v.picklist(["scribe", "chip", "area"]),
                scribeMm: v.nullable(number(0, 20)),
                widthsMm: v.pipe(v.array(number(0, 500)), v.maxLength(200)),
                areaMm2: v.optional(v.nullable(number(0, 10_000_000)), null),
                lengthMm: v.optional(v.nullable(number(0, 100_000)), null),
              }),
              v.forward(
                v.check((x) => x.from === "area" || x.widthsMm.length > 0, "has no width"),
                ["widthsMm"],
              ),
              v.forward(
                v.check(
                  (x) => x.from === "chip" || x.scribeMm !== null,
                  "is missing: the scribe’s own width, in mm; 0 where it has none",
                ),
                ["scribeMm"],
              ),
              v.forward(
                v.check((x) => x.from !== "area" || x.areaMm2 !== null, "is missing: what is corroded, in mm²"),
                ["areaMm2"],
              ),
              v.forward(
                v.check((x) => x.from !== "area" || x.lengthMm !== null, "is missing: how long the scribe is, in mm"),
                ["lengthMm"],
              ),
            ),
          ),
          v.maxLength(50),
        ),
        /** Rusted share of a zone's face, by eye against the pictures of the scale or from a photo. */
        rust: v.optional(
          v.pipe(
            v.array(v.object({ zone: filled(80), sharePercent: number(0, 100) })),
            v.maxLength(50),
            v.check((all) => new Set(all.map((x) => x.zone.toLowerCase())).size === all.length, "have one zone twice"),
          ),
          [],
        ),
      }),
    },
  },
});
