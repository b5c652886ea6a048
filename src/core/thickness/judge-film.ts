import { atLeast, atMost } from "../limits";
import { err, ok, type Result } from "../result";
import { mean } from "../statistics/mean";
import type { VerdictResult } from "../verdict";
import { judgeMeasuringAreas, MEASURING_AREAS_NEEDED, READINGS_PER_AREA } from "./measuring-areas";
import { judgeNominal, NOMINAL_DEFAULT_MAX_FACTOR } from "./nominal";
import { type Spot, type SpotMean, spotMeans } from "./readings";
import { judgeSpotArea, type RestrictionLevel, type SpotAreaReason, spotLimits } from "./spot-area";

export const filmRules = ["spot-area", "nominal", "measuring-areas"] as const;
export type FilmRule = (typeof filmRules)[number];
/** What is asked of a film, µm, by the rule that judges it. */
export type FilmRequirement =
  | {
      readonly rule: "spot-area";
      readonly minUm: number;
      readonly maxUm: number | null;
      readonly level: RestrictionLevel;
    }
  | { readonly rule: "nominal"; readonly nominalUm: number; readonly maxUm: number | null }
  | { readonly rule: "measuring-areas"; readonly minUm: number; readonly maxUm: number | null };

export type FilmReason =
  | SpotAreaReason
  | { readonly kind: "mean-below-nominal"; readonly meanUm: number; readonly nominalUm: number }
  | {
      readonly kind: "reading-below-80-percent" | "reading-above-max";
      readonly spot: string;
      readonly valueUm: number;
      readonly limitUm: number;
    }
  | {
      readonly kind: "too-many-between-80-and-100-percent" | "some-between-80-and-100-percent";
      readonly count: number;
      readonly of: number;
    }
  | { readonly kind: "areas-mean-low" | "areas-mean-high"; readonly meanUm: number; readonly limitUm: number }
  | {
      readonly kind: "area-below-80-percent" | "area-thin";
      readonly spot: string;
      readonly meanUm: number;
      readonly limitUm: number;
    }
  | {
      readonly kind: "too-few-read";
      readonly what: "spots" | "readings" | "areas";
      readonly read: number;
      readonly asked: number;
    };
export type FilmVerdict = {
  readonly kind: "film-verdict";
  readonly rule: FilmRule;
  /** Out whatever is still unread; unknown until the rule has the number it asks for; never in before. */
  readonly result: VerdictResult;
  /** Of spot or area means, of single readings by the nominal rule. */
  readonly meanUm: number;
  /** What the rule counts (spots, readings, areas), and how many of it are asked for. */
  readonly read: number;
  readonly asked: number;
  readonly reasons: readonly FilmReason[];
};

/** The least of its own count that each rule asks for. */
export const leastRead: Readonly<Record<FilmRule, number>> = {
  "spot-area": 5,
  nominal: 5,
  "measuring-areas": MEASURING_AREAS_NEEDED,
};

/** What is asked of the mean, µm: the least and, where one is set, the most. */
export const filmAsked = (film: FilmRequirement): { readonly minUm: number; readonly maxUm: number | null } => ({
  minUm: film.rule === "nominal" ? film.nominalUm : film.minUm,
  maxUm: film.maxUm,
});

/** What one place must keep, µm: a spot's mean, a reading by the nominal rule, an area's mean. */
export function placeLimits(film: FilmRequirement): { readonly lowestUm: number; readonly highestUm: number | null } {
  if (film.rule === "spot-area") return spotLimits(film);
  if (film.rule === "nominal")
    return { lowestUm: 0.8 * film.nominalUm, highestUm: film.maxUm ?? NOMINAL_DEFAULT_MAX_FACTOR * film.nominalUm };
  return { lowestUm: 0.8 * film.minUm, highestUm: null };
}

type Whole = (
  result: VerdictResult,
  meanUm: number,
  read: number,
  what: "spots" | "readings" | "areas",
  reasons: readonly FilmReason[],
) => Result<FilmVerdict>;

/**
 * A film judged by the rule that is asked, on its spots with all their readings; rejected readings stay out. `asked`, where
 * a plan says more than the rule's least, is how many spots, readings or areas are to be read. Fewer than asked, a planned spot without a kept
 * reading, an area with one: unknown, unless something is out. Failures: `no-readings`, `bad-requirement`, those of
 * `checkThicknessUm`. O(readings). Source: after SSPC-PA 2, ISO 19840, ISO 2360.
 */
export function judgeFilm(spots: readonly Spot[], film: FilmRequirement, asked = 0): Result<FilmVerdict> {
  const measured = spotMeans(spots);
  if (!measured.ok) return measured;
  const { means, unread } = measured.value;
  if (means.length === 0) return err({ kind: "no-readings", area: "piece" });
  const open: FilmReason[] = unread.map((spot) => ({ kind: "spot-unread", area: "piece", spot }));
  const wanted = Math.max(leastRead[film.rule], asked);
  const whole: Whole = (result, meanUm, read, what, reasons) => {
    const few: FilmReason[] =
      read < wanted && unread.length === 0 ? [{ kind: "too-few-read", what, read, asked: wanted }] : [];
    const unknown = read < wanted || unread.length > 0;
    return ok({
      kind: "film-verdict",
      rule: film.rule,
      result: result === "out" || !unknown ? result : "unknown",
      meanUm,
      read,
      asked: Math.max(wanted, what === "readings" ? 0 : spots.length),
      reasons: [...reasons.filter((r) => isOut(r)), ...few, ...reasons.filter((r) => !isOut(r))],
    });
  };
  if (film.rule === "spot-area") {
    const judged = judgeSpotArea([{ id: "piece", spots }], film);
    if (!judged.ok) return judged;
    const area = judged.value.areas[0];
    return whole(judged.value.result, area?.meanUm ?? 0, means.length, "spots", judged.value.reasons);
  }
  if (film.rule === "nominal") {
    const readings = spots.flatMap((s) =>
      s.readings.filter((r) => !r.rejectedReason).map((r) => ({ spot: s.id, valueUm: r.valueUm })),
    );
    const judged = judgeNominal(
      readings.map((r) => r.valueUm),
      film,
    );
    if (!judged.ok) return judged;
    const { below80, aboveMax, maxUm, countBetween80And100: between, meanUm } = judged.value;
    const at = (i: number) => readings[i] as (typeof readings)[number];
    const reasons: FilmReason[] = judged.value.reasons.filter((r) => "meanUm" in r || "count" in r);
    const lowest = 0.8 * film.nominalUm;
    reasons.push(...below80.map((i) => ({ kind: "reading-below-80-percent" as const, ...at(i), limitUm: lowest })));
    reasons.push(...aboveMax.map((i) => ({ kind: "reading-above-max" as const, ...at(i), limitUm: maxUm })));
    if (judged.value.result === "watch")
      reasons.push({ kind: "some-between-80-and-100-percent", count: between, of: readings.length });
    return whole(judged.value.result, meanUm, readings.length, "readings", [...reasons, ...open]);
  }
  return measuringAreas(film, spots, means, open, whole);
}

function measuringAreas(
  { minUm, maxUm }: Extract<FilmRequirement, { rule: "measuring-areas" }>,
  spots: readonly Spot[],
  means: readonly SpotMean[],
  open: readonly FilmReason[],
  whole: Whole,
): Result<FilmVerdict> {
  if (maxUm !== null && !(maxUm > minUm)) return err({ kind: "bad-requirement", minUm, maxUm });
  const kept = spots.flatMap((s) => {
    const of = s.readings.filter((r) => !r.rejectedReason).map((r) => r.valueUm);
    return of.length > 0 ? [of] : [];
  });
  const judged = judgeMeasuringAreas(kept, minUm);
  // Under five areas there is no verdict by the rule; an area that is out is out all the same.
  if (!judged.ok && judged.error.kind !== "too-few-areas") return judged;
  const lowest = 0.8 * minUm;
  const meanUm = mean(means.map((m) => m.meanUm));
  const reasons: FilmReason[] = [];
  if (judged.ok && !atLeast(meanUm, minUm)) reasons.push({ kind: "areas-mean-low", meanUm, limitUm: minUm });
  if (judged.ok && maxUm !== null && !atMost(meanUm, maxUm))
    reasons.push({ kind: "areas-mean-high", meanUm, limitUm: maxUm });
  for (const m of means)
    if (!atLeast(m.meanUm, lowest))
      reasons.push({ kind: "area-below-80-percent", spot: m.id, meanUm: m.meanUm, limitUm: lowest });
  const out = reasons.length > 0;
  for (const m of means) {
    if (m.used < READINGS_PER_AREA)
      reasons.push({ kind: "few-readings", area: "piece", spot: m.id, got: m.used, need: READINGS_PER_AREA });
    if (atLeast(m.meanUm, lowest) && !atLeast(m.meanUm, minUm))
      reasons.push({ kind: "area-thin", spot: m.id, meanUm: m.meanUm, limitUm: minUm });
  }
  const single = means.some((m) => m.used < 2);
  const result = out ? "out" : single ? "unknown" : reasons.length > 0 ? "watch" : "in";
  return whole(result, meanUm, means.length, "areas", [...reasons, ...open]);
}

const outKinds: ReadonlySet<FilmReason["kind"]> = new Set<FilmReason["kind"]>([
  "area-mean-low",
  "area-mean-high",
  "spot-too-thin",
  "spot-too-thick",
  "mean-below-nominal",
  "reading-below-80-percent",
  "reading-above-max",
  "too-many-between-80-and-100-percent",
  "areas-mean-low",
  "areas-mean-high",
  "area-below-80-percent",
]);
const isOut = (reason: FilmReason): boolean => outKinds.has(reason.kind);
