import * as v from "valibot";
import { bathParameters, titratedParameters } from "@/core/bath";
import { finite } from "./values";

const window = v.object({
  lower: v.nullable(finite),
  upper: v.nullable(finite),
  watchLower: v.optional(v.nullable(finite), null),
  watchUpper: v.optional(v.nullable(finite), null),
  /** Checked less often than the rest of the bath, h. */
  roundHours: v.optional(v.nullable(finite), null),
  /** What is done when it is out, and how soon it is checked again. */
  reaction: v.optional(v.nullable(v.object({ what: v.string(), recheckMinutes: v.pipe(finite, v.minValue(1)) })), null),
});
const recipe = v.object({
  sampleMl: v.nullable(finite),
  titrant: v.pipe(v.string(), v.trim(), v.maxLength(80, "is longer than 80 characters")),
  indicator: v.pipe(v.string(), v.trim(), v.maxLength(80, "is longer than 80 characters")),
  endPoint: v.pipe(v.string(), v.trim(), v.maxLength(120, "is longer than 120 characters")),
  factor: finite,
  blankMl: v.optional(v.nullable(finite)),
  caution: v.pipe(v.string(), v.trim(), v.maxLength(300, "is longer than 300 characters")),
});
/** Titrations by value: sample, titrant, end point and value per mL. */
export const recipes = v.object(v.entriesFromList(titratedParameters, v.optional(recipe)));
export const bath = v.object({
  name: v.string(),
  stage: v.string(),
  role: v.picklist(["cleaner", "conversion", "rinse"]),
  volumeL: finite,
  freeboardL: finite,
  stepL: finite,
  maxSingleL: v.nullable(finite),
  roundHours: finite,
  windows: v.record(v.string(), window),
  titrationFactorPercentPerMl: v.nullable(finite),
  /** How each value is titrated, where it is. */
  recipes: v.optional(recipes, {}),
  concentratePercent: v.nullable(finite),
  product: v.string(),
  targetPercent: v.nullable(finite),
  targetPh: v.nullable(finite),
  phChangePerLPerM3: v.nullable(finite),
  /** What brings pH down, as written on its drum; its effect is learnt from past additions. */
  acidProduct: v.optional(v.string(), ""),
  caution: v.string(),
  contactS: v.nullable(v.tuple([finite, finite])),
  /** Weight of the conversion coat asked for, g/m². */
  weightGPerM2: v.optional(v.nullable(v.tuple([finite, finite])), null),
  /** What else may go in: inhibitor, defoamer; names as on the drums. */
  otherProducts: v.optional(v.array(v.string()), []),
  /** Values that each product moves: an addition of one is no change of the others. */
  moves: v.optional(v.record(v.string(), v.array(v.picklist(bathParameters))), {}),
  /** Taken out of use: its record stays, and nothing is due on it. */
  retired: v.optional(v.boolean(), false),
});

/** A drum or batch of a bath chemical, as it was received. */
export const chemical = v.object({
  product: v.string(),
  lot: v.string(),
  receivedOn: v.pipe(v.string(), v.isoDate()),
  litres: v.pipe(finite, v.gtValue(0)),
  pricePerL: v.optional(v.nullable(v.pipe(finite, v.minValue(0))), null),
  usableUntil: v.nullable(v.pipe(v.string(), v.isoDate())),
});
