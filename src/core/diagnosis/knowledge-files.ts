import * as v from "valibot";
import application from "./knowledge/causes/application.json";
import cure from "./knowledge/causes/cure.json";
import designAndService from "./knowledge/causes/design-and-service.json";
import powder from "./knowledge/causes/powder.json";
import preparation from "./knowledge/causes/preparation.json";
import pretreatment from "./knowledge/causes/pretreatment.json";
import chains from "./knowledge/chains.json";
import checks from "./knowledge/checks.json";
import adhesion from "./knowledge/families/adhesion.json";
import colourAndGloss from "./knowledge/families/colour-and-gloss.json";
import corrosion from "./knowledge/families/corrosion.json";
import coverage from "./knowledge/families/coverage.json";
import cureFamily from "./knowledge/families/cure.json";
import dirtAndMarks from "./knowledge/families/dirt-and-marks.json";
import flowAndTexture from "./knowledge/families/flow-and-texture.json";
import gasAndHoles from "./knowledge/families/gas-and-holes.json";
import findings from "./knowledge/findings.json";
import vocabulary from "./knowledge/vocabulary.json";

/** What a cause is in a chain: what stood behind it, what it did to the film, what let it, what set it off. */
export const parts = ["root", "mechanism", "condition", "trigger"] as const;

const code = v.pipe(v.string(), v.regex(/^[a-z][a-z-]*$/, "is no code"));
const weight = v.pipe(v.number(), v.minValue(-5, "is under −5"), v.maxValue(5, "is over 5"));
const words = v.pipe(v.string(), v.minLength(8, "says too little"));
const rows = v.array(v.tuple([code, weight, weight, words]));
const groups = v.array(v.pipe(v.array(code), v.minLength(2, "is no group")));
const part = v.picklist(parts);

export const vocabularySchema = v.object({
  defects: v.array(v.object({ id: code, label: v.string(), plain: v.string() })),
  findings: v.array(v.object({ id: code, group: v.string(), label: v.string(), from: v.optional(v.string()) })),
  causes: v.array(v.object({ id: code, stage: v.string(), label: v.string() })),
});
export const causesSchema = v.strictObject({
  about: v.string(),
  causes: v.record(
    code,
    v.strictObject({
      part,
      ruledOut: v.optional(
        v.array(
          v.strictObject({
            absent: v.optional(v.array(code), []),
            present: v.optional(v.array(code), []),
            unless: v.optional(v.array(code), []),
          }),
        ),
        [],
      ),
      evidence: rows,
    }),
  ),
});
export const familySchema = v.strictObject({
  label: v.string(),
  about: v.string(),
  defects: v.record(
    code,
    v.strictObject({
      causes: v.record(code, v.pipe(v.number(), v.minValue(0.1, "is under 0.1"))),
      parts: v.optional(v.record(code, part), {}),
      here: v.optional(v.record(code, rows), {}),
      firstChecks: v.pipe(v.array(code), v.length(3, "are not three")),
      takenFor: v.pipe(v.array(v.tuple([code, words])), v.minLength(1, "says of nothing else")),
    }),
  ),
});
export const chainsSchema = v.object({ links: v.array(v.tuple([code, code, weight, v.string()])) });
export const findingsSchema = v.object({ sameThing: groups, steps: groups, alternatives: groups, exclusive: groups });
export const checksSchema = v.object({
  fieldToo: v.array(code),
  fieldOnly: v.array(code),
  checks: v.record(code, v.tuple([v.pipe(v.number(), v.minValue(1)), v.boolean(), v.string()])),
});

/** The files as they were read, not yet checked: by name, so that a fault in one can be told. */
export type KnowledgeFiles = {
  readonly vocabulary: unknown;
  readonly causes: Readonly<Record<string, unknown>>;
  readonly families: Readonly<Record<string, unknown>>;
  readonly chains: unknown;
  readonly findings: unknown;
  readonly checks: unknown;
};
export const knowledgeFiles: KnowledgeFiles = {
  vocabulary,
  causes: { application, cure, "design-and-service": designAndService, powder, preparation, pretreatment },
  families: {
    "flow-and-texture": flowAndTexture,
    "gas-and-holes": gasAndHoles,
    "dirt-and-marks": dirtAndMarks,
    coverage,
    "colour-and-gloss": colourAndGloss,
    cure: cureFamily,
    adhesion,
    corrosion,
  },
  chains,
  findings,
  checks,
};
