import { subKindOf } from "@/core/bench";
import type { FindingState } from "@/core/diagnosis";
import type { EvidenceGrade } from "@/core/verdict";
import type { RackFile } from "../rack/load-rack";
import type { SetupData } from "../setup/setup-data";
import type { Conditions } from "../trace/conditions";
import { coat } from "./findings/coat";
import { type Add, declinedOption, type EstablishedFinding, type FoundWhat } from "./findings/established";
import { cure, film } from "./findings/film-and-cure";
import { castings, preparation } from "./findings/preparation";
import { baths, dryness, wetBetween } from "./findings/wash";

export type { EstablishedFinding, FoundWhat };

/** What the kind of a fault, as it was said at the look, settles by itself. */
function seenAtLook(rack: RackFile, add: Add): void {
  const seen = new Map<string, { what: string; sources: string[] }>();
  for (const r of rack.latest) {
    const row = r.details.defect?.[0];
    if (!row || row.pieces_affected === 0) continue;
    const kind = subKindOf(row.defect, row.sub_kind);
    if (!kind?.finding) continue;
    const there = seen.get(kind.finding) ?? { what: `${row.defect.replaceAll("-", " ")}, ${kind.label}`, sources: [] };
    there.sources.push(r.base.id);
    seen.set(kind.finding, there);
  }
  for (const [finding, { what, sources }] of seen) add(finding, "present", "measured", { kind: "seen", what }, sources);
}

/**
 * Establishes every finding that the record can speak to, for one rack, at the time it passed. No record means
 * unknown, said as never recorded; a step that is missing counts only where the route or the metal called for it.
 */
export function findingsFromRecord(
  rack: RackFile,
  conditions: Conditions,
  context: {
    site: SetupData<"site">;
    setupSheet: SetupData<"setup-sheet"> | null;
    lot: SetupData<"lot"> | null;
    exposure: readonly string[] | null;
    face: string | null;
    compressedAirDewPointC: { value: number; recordId: string } | null;
    boothAirMPerS: { value: number; recordId: string } | null;
    /** Of the hall as last read before powder: how long metal may stand bare depends on it. */
    humidityPercent?: number | null;
  },
): EstablishedFinding[] {
  const out: EstablishedFinding[] = [];
  const add = (
    finding: string,
    state: FindingState,
    grade: EvidenceGrade,
    what: FoundWhat,
    sources: readonly string[] = [],
  ) => out.push({ finding, state, grade, what, sources });
  const yes = (condition: boolean): FindingState => (condition ? "present" : "absent");
  const part = rack.part.data;
  const job = (finding: string, is: boolean, feature: string | null = null) =>
    add(finding, yes(is), "measured", { kind: "job-says", substrate: part.substrate, feature });
  job("steel-hot-rolled", part.substrate === "hot-rolled-steel");
  job("cast-metal", castings.includes(part.substrate));
  job("galvanised", part.substrate === "galvanised");
  job("light-metal", part.substrate === "aluminium");
  job("stainless", part.substrate === "stainless");
  for (const feature of [
    "thermal-cut-edges",
    "sharp-edges",
    ...(declinedOption(rack, "seam-seal") ? [] : (["open-lap-seam"] as const)),
    "hollow-section",
    "deep-recess",
    "fit-surface",
  ] as const)
    job(feature, part.features.includes(feature), feature);
  const seam = declinedOption(rack, "seam-seal");
  if (seam)
    add("open-lap-seam", "present", "measured", {
      kind: "option-declined",
      what: seam.what,
      by: seam.by,
      on: seam.on,
    });
  preparation(rack, context.site, context.humidityPercent ?? null, add);
  baths(conditions, add);
  wetBetween(rack, conditions, context.site.wetLimitS, add);
  dryness(rack, add);
  film(rack, context.face, add);
  cure(rack, add);
  coat(rack, context, add);
  const declined = declinedOption(rack, "zinc-primer");
  add(
    "no-primer",
    yes(!rack.job.plan.primer),
    "measured",
    declined
      ? { kind: "option-declined", what: declined.what, by: declined.by, on: declined.on }
      : { kind: rack.job.plan.primer ? "done" : "not-done", step: "primer" },
  );
  seenAtLook(rack, add);
  const powder = rack.powder.data;
  for (const trait of ["low-flow-powder", "high-flow-powder", "water-releasing-powder"] as const)
    add(trait, yes(powder.traits.includes(trait)), "by-procedure", {
      kind: "job-says",
      substrate: rack.powder.code,
      feature: trait,
    });
  const exposure = context.exposure ?? rack.job.plan.exposure;
  const outdoors = !exposure.includes("indoor");
  add(
    "indoor-chemistry-outdoors",
    yes(outdoors && powder.traits.includes("indoor-chemistry-outdoors")),
    "by-procedure",
    { kind: "exposure", exposure },
  );
  add(
    "weather-grade-low",
    yes(
      outdoors &&
        (powder.weathering === "indoor" ||
          (exposure.includes("sun") &&
            (exposure.includes("salt") || exposure.includes("coast")) &&
            powder.weathering === "standard")),
    ),
    "by-procedure",
    { kind: "exposure", exposure },
  );
  for (const [finding, word] of [
    ["salt-exposure", exposure.includes("coast") ? "coast" : "salt"],
    ["standing-water", "standing-water"],
    ["impact-service", "knocks"],
  ] as const)
    add(finding, yes(exposure.includes(word)), context.exposure ? "measured" : "by-procedure", {
      kind: "exposure",
      exposure,
    });
  return out;
}
