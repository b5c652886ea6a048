import * as v from "valibot";
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
  ]),
  adhesionWorstIso: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(5)),
  cureDecidedBy: v.picklist(["index", "hold"]),
});
export type Requirement = v.InferOutput<typeof requirementSchema>;

/** The film asked of the mean, µm, whatever the rule: the least and, where one is set, the most. */
export const filmAsked = (film: Requirement["film"]): { readonly minUm: number; readonly maxUm: number | null } => ({
  minUm: film.rule === "spot-area" ? film.minUm : film.nominalUm,
  maxUm: film.maxUm,
});

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
