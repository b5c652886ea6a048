import { type PrepStep, stepsAskedFor } from "@/core/preparation";
import type { RackFile } from "./load-rack";

/** The steps of preparation this rack's metal, route and pass call for. */
export const askedSteps = (rack: RackFile): readonly PrepStep[] =>
  stepsAskedFor({
    substrate: rack.part.data.substrate,
    features: rack.part.data.features,
    stages: rack.job.plan.stages,
    recoat: rack.passes[rack.pass]?.after?.decision === "scuff-and-recoat",
    condition: rack.job.plan.condition,
  });

/** Steps on record, done or left out with a reason, in any pass over the same metal. */
export const stepsOnRecord = (rack: RackFile): ReadonlySet<string> =>
  new Set(rack.evidence.flatMap((r) => r.details.prep_step?.map((row) => row.step) ?? []));

/** The hottest metal temperature of the powder's sheet, °C: what an outgassing bake is held against. */
export const hottestCureC = (rack: RackFile): number =>
  Math.max(...rack.powder.data.schedule.map((point) => point.metalC));
