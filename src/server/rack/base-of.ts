import { valueOrThrow } from "@/core/result";
import { type BaseCorrection, baseCorrection, profileClass } from "@/core/thickness";
import type { SetupData } from "../setup/setup-data";
import type { ThreadRecord } from "./thread";

/**
 * What is taken off this rack's readings for the metal under them: its own bare readings, else its profile's class where
 * the site's gauge is set on smooth steel and the part was blasted.
 */
export function baseOf(evidence: readonly ThreadRecord[], site: SetupData<"site">): BaseCorrection {
  const bare = evidence.findLast((r) => r.base.kind === "base-metal")?.details.base_metal?.[0];
  const blast = evidence.findLast((r) => r.details.prep_step?.some((s) => s.step === "blast" && s.done));
  return valueOrThrow(
    baseCorrection({
      bareUm: bare?.readings_um.filter((v): v is number => v !== null) ?? null,
      blasted: blast !== undefined,
      setOnSmooth: site.gaugeSetOnSmooth,
      profile: profileClass(blast?.details.prep_step?.[0]?.value ?? null),
    }),
  );
}

/** A reading less what the bare metal adds; under nothing is nothing, since a film is never less. */
export const offBase = (valueUm: number, base: BaseCorrection): number => Math.max(0, valueUm - base.um);
