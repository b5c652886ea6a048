import * as v from "valibot";
import { benchTests } from "@/core/bench";
import {
  curings,
  exposures,
  families,
  oldCoatings,
  preparations,
  pretreatments,
  primers,
  rustGrades,
} from "@/core/plan";
import type { Failure } from "@/core/result";
import { BEYOND_ANY_FILM_UM, filmAsked } from "@/core/thickness";
import { filled, text } from "./input";

const finite = v.pipe(v.number(), v.finite());

/** What the customer requires of a job. */
export const requirementSchema = v.object({
  film: v.variant("rule", [
    v.object({
      rule: v.literal("spot-area"),
      minUm: finite,
      maxUm: v.nullable(finite),
      level: v.picklist([1, 2, 3, 4, 5]),
    }),
    v.object({ rule: v.literal("nominal"), nominalUm: finite, maxUm: v.nullable(finite) }),
    v.object({ rule: v.literal("measuring-areas"), minUm: finite, maxUm: v.nullable(finite) }),
  ]),
  adhesionWorstIso: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(5)),
  cureDecidedBy: v.picklist(["index", "hold"]),
  /** Solvent rub: the least grade; null where none is asked. */
  rub: v.optional(v.nullable(v.object({ leastGrade: v.picklist([0, 1, 2, 3, 4, 5]) })), null),
  /** How it is looked at, and what it must look like; null where nothing is asked. */
  appearance: v.optional(
    v.nullable(v.object({ distanceM: v.nullable(finite), lightLux: v.nullable(finite), note: text(200) })),
    null,
  ),
  /** Threads and fits are tried after the cure. */
  fits: v.optional(v.boolean(), false),
  /** Tests with what is asked of them. */
  tests: v.optional(
    v.array(v.object({ test: v.picklist(benchTests), lower: v.nullable(finite), upper: v.nullable(finite) })),
    [],
  ),
});
export type Requirement = v.InferOutput<typeof requirementSchema>;
/** A requirement before it is read. */
export type RequirementInput = v.InferInput<typeof requirementSchema>;

/** What is asked must be able to be: a film over nothing in the order of its limits, tests likewise, a distance and a light over nothing. */
export function checkRequirement({ film, appearance, tests }: Requirement): Failure | null {
  const bad = (field: string, value: unknown, why: string) => ({ kind: "bad-entry", field, value, why });
  const { minUm, maxUm } = filmAsked(film);
  if (!(minUm > 0)) return bad("film", minUm, "µm is not over 0");
  if (minUm > BEYOND_ANY_FILM_UM) return bad("film", minUm, "µm is beyond any film: check the unit");
  if (maxUm !== null && maxUm <= minUm) return bad("film", `${minUm} to ${maxUm} µm`, "is no range");
  const crossed = tests.find((t) => t.lower !== null && t.upper !== null && t.upper < t.lower);
  if (crossed) return bad(crossed.test, `${crossed.lower} to ${crossed.upper}`, "is no range");
  if (new Set(tests.map((t) => t.test)).size !== tests.length) return bad("tests", "", "have one of them twice");
  for (const [field, value] of [
    ["distance", appearance?.distanceM],
    ["light", appearance?.lightLux],
  ] as const)
    if (value !== null && value !== undefined && !(value > 0)) return bad(field, value, "is not over 0");
  return null;
}

export const systemSchema = v.object({
  preparation: v.picklist(preparations),
  breakEdges: v.boolean(),
  outgas: v.boolean(),
  sealSeams: v.boolean(),
  pretreatment: v.picklist(pretreatments),
  primer: v.picklist(primers),
  primerUm: v.nullable(v.tuple([finite, finite])),
  family: v.picklist(families),
  coats: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(4)),
  topUm: v.tuple([finite, finite]),
  curing: v.picklist(curings),
});
export const conditionSchema = v.object({
  rust: v.picklist(rustGrades),
  scale: v.boolean(),
  oldCoating: v.picklist(oldCoatings),
  weldSpatter: v.boolean(),
  oil: v.boolean(),
});

/** How the job is to be made, and what was offered with it when it was taken in; later versions stand on record. */
export const planSchema = v.object({
  stages: v.array(filled(100)),
  primer: v.boolean(),
  exposure: v.array(v.picklist(exposures)),
  offered: v.array(
    v.object({
      what: filled(200),
      pricePercent: v.nullable(finite),
      taken: v.boolean(),
      by: text(200),
      on: text(100),
      risk: text(2000),
    }),
  ),
  pieces: v.optional(v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1))), null),
  condition: v.optional(v.nullable(conditionSchema), null),
  lifeYears: v.optional(v.nullable(finite), null),
  finish: v.optional(v.picklist(["standard", "smooth", "texture", "clear"]), "standard"),
  /** Steps of hand finishing after the cure, with a lacquer over them; none for a standard finish. */
  handSteps: v.optional(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(5)), 0),
  serviceC: v.optional(v.nullable(finite), null),
  system: v.optional(v.nullable(systemSchema), null),
  /** What was refused and is done all the same, each with its reason and by whom. */
  overruled: v.optional(v.array(v.object({ kind: filled(100), reason: filled(2000), by: filled(200) })), []),
});
export type Plan = v.InferOutput<typeof planSchema>;
export type PlanInput = v.InferInput<typeof planSchema>;
