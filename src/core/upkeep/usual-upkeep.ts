import * as v from "valibot";
import file from "./knowledge/usual-upkeep.json";
import { type UpkeepPlan, upkeepHands, upkeepStages } from "./upkeep";

const said = v.pipe(v.string(), v.minLength(3));
const bound = v.nullable(v.pipe(v.number(), v.finite()));
const schema = v.strictObject({
  about: said,
  upkeep: v.array(
    v.strictObject({
      what: said,
      stage: v.picklist(upkeepStages),
      everyDays: v.pipe(v.number(), v.integer(), v.minValue(1)),
      look: said,
      leadsTo: said,
      caution: v.string(),
      hands: v.picklist(upkeepHands),
      measure: v.nullable(v.strictObject({ name: said, unit: v.string(), lower: bound, upper: bound })),
    }),
  ),
});

/** What a shop usually keeps up, to begin from: intervals are common practice and are put right by the maker's book, the supplier's sheet and local rules. */
export const usualUpkeep: readonly UpkeepPlan[] = v.parse(schema, file).upkeep;
