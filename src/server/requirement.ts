import * as v from "valibot";

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

/** How the job is to be made, and what was offered and declined. */
export const planSchema = v.object({
  stages: v.array(v.string()),
  primer: v.boolean(),
  exposure: v.array(v.picklist(["weather", "sun", "salt", "standing-water", "knocks", "indoor"])),
  offered: v.array(
    v.object({
      what: v.string(),
      pricePercent: v.nullable(finite),
      taken: v.boolean(),
      by: v.string(),
      on: v.string(),
      risk: v.string(),
    }),
  ),
});
export type Plan = v.InferOutput<typeof planSchema>;
