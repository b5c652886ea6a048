import * as v from "valibot";
import { families } from "@/core/plan";
import { finite } from "./values";

export const powder = v.object({
  name: v.string(),
  chemistry: v.string(),
  minUm: finite,
  maxUm: finite,
  specificGravity: finite,
  schedule: v.array(v.object({ metalC: finite, minutes: finite })),
  overbake: v.array(v.object({ metalC: finite, minutes: finite })),
  onsetC: v.nullable(finite),
  /** A primer part-cured before its top coat: metal, °C, and the least and most minutes at it. */
  gel: v.optional(v.nullable(v.object({ metalC: finite, leastMin: finite, mostMin: finite })), null),
  /** How fast the metal may climb while the powder melts, °C/min. */
  climbCPerMin: v.optional(v.nullable(v.tuple([finite, finite])), null),
  shelfLifeDays: finite,
  knownCuredRubGrade: finite,
  traits: v.array(
    v.picklist([
      "low-flow-powder",
      "high-flow-powder",
      "water-releasing-powder",
      "indoor-chemistry-outdoors",
      "primer",
    ]),
  ),
  weathering: v.picklist(["indoor", "standard", "high"]),
  family: v.optional(v.picklist(families), "polyester"),
  pricePerKg: v.optional(v.nullable(finite), null),
  /** Gloss at 60° as the sheet gives it, GU, and what it may be off by. */
  /** Panel of ten that a good film of it matches; null where nobody has said. */
  smoothness: v.optional(v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(10))), null),
  glossGu: v.optional(v.nullable(v.tuple([finite, finite])), null),
  /** The standard swatch: its number and how far a panel's colour may be from it, ΔE. */
  swatch: v.optional(
    v.nullable(
      v.object({
        code: v.string(),
        deltaE: finite,
        /** Of the swatch itself, as a colour meter reads it; null where nobody has. */
        lab: v.optional(v.nullable(v.tuple([finite, finite, finite])), null),
      }),
    ),
    null,
  ),
  /** Warmest it is stored, °C. */
  storeMostC: v.optional(v.nullable(finite), null),
  /** Most film one coat bears; above it, several coats. */
  mostPerCoatUm: v.optional(v.nullable(finite), null),
  /** Most film in all, µm. */
  mostInAllUm: v.optional(v.nullable(finite), null),
  /** Years the maker promises outdoors; null where it promises none. */
  yearsPromised: v.optional(v.nullable(finite), null),
  /** Photos to hold a lot against: the powder raw, and a panel of it cured. */
  photos: v.optional(v.object({ raw: v.nullable(v.string()), cured: v.nullable(v.string()) }), {
    raw: null,
    cured: null,
  }),
  /** What its safety sheet warns of, briefly. */
  hazards: v.optional(v.string(), ""),
});

export const lot = v.object({
  powderCode: v.string(),
  madeOn: v.string(),
  receivedOn: v.string(),
  stockKg: v.optional(v.nullable(finite), null),
  /** The day its first box was opened; null while it is shut. */
  openedOn: v.optional(v.nullable(v.string()), null),
});

export const setupSheet = v.object({
  powderCode: v.string(),
  /** Null is any: a sheet for the part itself, or for the gun, goes before one that is not. */
  partCode: v.optional(v.nullable(v.string()), null),
  gun: v.optional(v.nullable(v.string()), null),
  gunType: v.optional(v.picklist(["corona-negative", "corona-positive", "friction"]), "corona-negative"),
  tip: v.optional(v.string(), ""),
  kv: v.tuple([finite, finite]),
  recessKv: finite,
  /** Over an old film, which holds its charge. */
  recoatKv: v.optional(v.nullable(v.tuple([finite, finite])), null),
  currentMostUa: v.optional(v.nullable(finite), null),
  distanceMm: v.optional(v.nullable(v.tuple([finite, finite])), null),
  passes: v.optional(v.nullable(v.tuple([finite, finite])), null),
  conveyingAirKPa: v.optional(v.nullable(v.tuple([finite, finite])), null),
  hookPitchMm: v.optional(v.nullable(v.tuple([finite, finite])), null),
  hopperFillPercent: v.optional(v.nullable(v.tuple([finite, finite])), null),
  /** Where the gun's air is read for its window. */
  airReadAt: v.optional(v.picklist(["rest", "flowing"]), "flowing"),
  gunAirKPa: v.tuple([finite, finite]),
  earthLimitMohm: finite,
  boothAirMPerS: v.tuple([finite, finite]),
  hookCyclesLimit: finite,
  reclaimLimitPercent: v.optional(finite, 40),
});
