import { err, ok, type Result } from "../result";
import { howManySpots } from "../thickness/how-many-spots";
import type { FilmRule } from "../thickness/judge-film";
import { MEASURING_AREAS_NEEDED } from "../thickness/measuring-areas";
import { randomPlaces } from "./random-places";
import { type Risks, type SamplingPlan, samplingPlan } from "./sampling-plan";

/** A place that is measured, m²; areas typed in ft² are counted in the rule's own round figures. */
export const PLACE_M2 = 10;
const PLACE_FT2 = 100;
const FT2_PER_M2 = 1 / 0.09290304;

export type FilmPlan = {
  readonly kind: "film-plan";
  readonly rule: FilmRule;
  readonly areaM2: number;
  /** Spots asked for in all. */
  readonly spots: number;
  /** How many places of ten square metres (or a hundred square feet) the area comes to, and those to measure, counted from 1. */
  readonly places: number;
  readonly measured: readonly number[];
  readonly seed: number;
  /** For a lot of small pieces: how many to pull, how many may be off, and which. */
  readonly pieces: (SamplingPlan & { readonly lot: number; readonly pull: readonly number[] }) | null;
};

/**
 * Places drawn by stratum: three of the first hundred square metres, then one of each further hundred, so that none is left
 * unmeasured; where the rule asks another number they come from all of them. Failures: those of `randomPlaces`.
 */
function byStratum(places: number, wanted: number, seed: number): Result<readonly number[]> {
  const strata = Math.ceil(places / PLACES_A_STRATUM);
  if (strata < 2 || wanted !== FIRST_STRATUM + strata - 1) return randomPlaces(places, wanted, seed);
  const all: number[] = [];
  for (let i = 0; i < strata; i++) {
    const from = i * PLACES_A_STRATUM;
    const size = Math.min(PLACES_A_STRATUM, places - from);
    const drawn = randomPlaces(size, i === 0 ? FIRST_STRATUM : 1, seed + i);
    if (!drawn.ok) return drawn;
    all.push(...drawn.value.map((place) => from + place));
  }
  return ok(all);
}
/** Ten places of 10 m² are 100 m²; three are read of the first. */
const PLACES_A_STRATUM = 10;
const FIRST_STRATUM = 3;

/**
 * What to read, by rule and area: places at random from a seed that is kept; for a lot of pieces the sample that keeps both
 * risks, and which pieces those are. `inFt2` counts places of 100 ft² and steps at 300 and 1,000 ft². Failures: `bad-area`,
 * `bad-input`, `inspect-all`. Source: after SSPC-PA 2, ISO 19840, ISO 2859-2.
 */
export function filmPlan(
  rule: FilmRule,
  areaM2: number,
  seed: number,
  options: { readonly inFt2?: boolean; readonly risks?: Risks | null } = {},
): Result<FilmPlan> {
  const { inFt2 = false, risks = null } = options;
  const placeM2 = inFt2 ? PLACE_FT2 / FT2_PER_M2 : PLACE_M2;
  // In square feet the steps are at 100, 300 and 1,000: the same counts as at ten times the places of 10 m².
  const asked = howManySpots(inFt2 ? (areaM2 * FT2_PER_M2 * PLACE_M2) / PLACE_FT2 : areaM2);
  if (!asked.ok) return asked;
  const places = Math.max(1, Math.ceil(areaM2 / placeM2 - 1e-9));
  const most = { "spot-area": asked.value.spotArea / 5, nominal: places, "measuring-areas": MEASURING_AREAS_NEEDED };
  const wanted = Math.min(places, most[rule]);
  if (places > 100_000) return err({ kind: "bad-area", areaM2 });
  const chosen = byStratum(places, wanted, seed);
  if (!chosen.ok) return chosen;
  let pieces: FilmPlan["pieces"] = null;
  if (risks) {
    const plan = samplingPlan(risks);
    if (!plan.ok) return plan;
    const pull = randomPlaces(risks.lot, plan.value.n, seed + 1);
    if (!pull.ok) return pull;
    pieces = { ...plan.value, lot: risks.lot, pull: pull.value.map((i) => i + 1) };
  }
  return ok({
    kind: "film-plan",
    rule,
    areaM2,
    spots: { "spot-area": 5 * wanted, nominal: asked.value.nominal, "measuring-areas": MEASURING_AREAS_NEEDED }[rule],
    places,
    measured: chosen.value.map((i) => i + 1),
    seed,
    pieces,
  });
}
