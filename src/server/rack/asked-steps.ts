import { asNew, preparationOf, routeCard } from "@/core/plan";
import { type PrepStep, stepsAskedFor } from "@/core/preparation";
import type { RackFile } from "./load-rack";
import { sentBackFor } from "./passes";

/**
 * The steps of preparation asked of this rack: those of its job's route card. Where no system was planned, and over the
 * old film of a recoat, those that its metal and route call for.
 */
export function askedSteps(rack: RackFile): readonly PrepStep[] {
  const { substrate, features, marks, measures } = rack.part.data;
  const { system, condition, stages } = rack.job.plan;
  const recoat = sentBackFor(rack) === "scuff-and-recoat";
  if (!system || recoat) return stepsAskedFor({ substrate, features, stages, recoat, condition });
  return preparationOf(
    routeCard({
      part: { substrate, features, lapM: measures?.lapM ?? 0 },
      condition: condition ?? asNew,
      system,
      cureMetalC: hottestCureC(rack),
      cureMinutes: Math.max(...rack.powder.data.schedule.map((point) => point.minutes)),
      blastProfileUm: rack.limits.blastProfileUm,
      contactS: null,
      masks: marks.filter((m) => m.kind === "mask" || m.kind === "plug").length,
    }),
  );
}

/** Steps on record, done or left out with a reason, in any pass over the same metal. */
export const stepsOnRecord = (rack: RackFile): ReadonlySet<string> =>
  new Set(rack.evidence.flatMap((r) => r.details.prep_step?.map((row) => row.step) ?? []));

/** The hottest metal temperature of the powder's sheet, °C: what an outgassing bake is held against. */
export const hottestCureC = (rack: RackFile): number =>
  Math.max(...rack.powder.data.schedule.map((point) => point.metalC));
