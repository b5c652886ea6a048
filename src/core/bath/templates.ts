import * as v from "valibot";
import { type BathSetup, bathRoles } from "./bath-setup";
import file from "./knowledge/wash-templates.json";

const number = v.pipe(v.number(), v.finite());
const window = v.strictObject({
  lower: v.nullable(number),
  upper: v.nullable(number),
  watchLower: v.optional(v.nullable(number), null),
  watchUpper: v.optional(v.nullable(number), null),
});
const kinds = v.record(
  v.string(),
  v.strictObject({
    name: v.string(),
    stage: v.string(),
    role: v.picklist(bathRoles),
    roundHours: number,
    windows: v.record(v.string(), window),
    reactions: v.record(v.string(), v.string()),
    titrates: v.boolean(),
    caution: v.string(),
    contactS: v.nullable(v.tuple([number, number])),
  }),
);
const schema = v.strictObject({
  about: v.string(),
  kinds,
  templates: v.array(v.strictObject({ id: v.string(), name: v.string(), stages: v.array(v.string()) })),
});
const known = v.parse(schema, file);

export type WashTemplate = { readonly id: string; readonly name: string; readonly baths: readonly BathSetup[] };
/** Usual volume of a tank, L, its room above and measure: to be put right for each shop. */
const USUAL = { volumeL: 3000, freeboardL: 120, stepL: 0.5 };
const RECHECK_MIN = 30;

/** Usual washes to begin from. Their windows are only common ones: the supplier's sheet comes first. */
export const washTemplates: readonly WashTemplate[] = known.templates.map(({ id, name, stages }) => ({
  id,
  name,
  baths: stages.map((key, i): BathSetup => {
    const kind = known.kinds[key];
    if (!kind) throw new RangeError(`wash template ${id} names no kind ${key}`);
    const { windows, reactions, titrates, ...rest } = kind;
    return {
      ...rest,
      // What is rinsed before the conversion bath carries cleaner, and has a stage of its own.
      stage:
        rest.stage === "rinse" && stages.slice(i).some((s) => known.kinds[s]?.role === "conversion")
          ? "clean-rinse"
          : rest.stage,
      ...USUAL,
      maxSingleL: null,
      windows: Object.fromEntries(
        Object.entries(windows).map(([parameter, w]) => [
          parameter,
          { ...w, reaction: reactions[parameter] ? { what: reactions[parameter], recheckMinutes: RECHECK_MIN } : null },
        ]),
      ),
      titrationFactorPercentPerMl: titrates ? 0.25 : null,
      concentratePercent: titrates ? 100 : null,
      product: "",
      targetPercent: null,
      targetPh: null,
      phChangePerLPerM3: null,
      acidProduct: "",
    };
  }),
}));
