import * as v from "valibot";
import { areaKinds, markKinds, partFeatures, spotGroups, substrates, zones } from "@/core/plan";
import { box, finite, point } from "./values";

export const part = v.object({
  name: v.string(),
  substrate: v.picklist(substrates),
  thickestMm: finite,
  features: v.array(v.picklist(partFeatures)),
  /** What a fit, a quantity and a price need; absent on parts that were never planned. */
  measures: v.optional(
    v.nullable(
      v.object({
        box,
        thinnestMm: finite,
        massKg: finite,
        areaM2: finite,
        lapM: finite,
        edgeM: v.optional(finite, 0),
        assumed: v.optional(v.array(v.string()), []),
      }),
    ),
    null,
  ),
  /** Places on the sketch that planning sets: where it hangs, what is masked or plugged, where it rests and drains. */
  marks: v.optional(
    v.array(
      v.object({
        kind: v.picklist(markKinds),
        face: v.string(),
        at: point,
        note: v.optional(v.string(), ""),
      }),
    ),
    [],
  ),
  /** Sketch in a 0–100 by 0–100 field per face. */
  faces: v.array(
    v.object({
      id: v.string(),
      name: v.string(),
      outline: v.array(point),
      recessFromY: v.nullable(finite),
      /** How closely it is looked at; areas of it otherwise, and those that stay bare, as rectangles. */
      zone: v.optional(v.picklist(zones), "B"),
      sizeMm: v.optional(v.nullable(point), null),
      areas: v.optional(
        v.array(v.object({ kind: v.picklist(areaKinds), from: point, to: point, note: v.optional(v.string(), "") })),
        [],
      ),
      spots: v.array(
        v.object({
          id: v.string(),
          at: point,
          note: v.optional(v.string(), ""),
          group: v.optional(v.picklist(spotGroups), "face"),
        }),
      ),
    }),
  ),
});
