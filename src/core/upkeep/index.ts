export {
  checkUpkeep,
  measureHolds,
  type UpkeepHands,
  type UpkeepMeasure,
  type UpkeepPlan,
  type UpkeepResult,
  type UpkeepStage,
  type UpkeepStanding,
  type UpkeepState,
  upkeepHands,
  upkeepResults,
  upkeepStages,
  upkeepStanding,
} from "./upkeep";
export { usualUpkeep } from "./usual-upkeep";
