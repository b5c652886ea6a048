import { readFileSync } from "node:fs";
import { expect, describe as suite, test } from "vitest";
import * as bath from "@/core/bath";
import * as bench from "@/core/bench";
import * as comparison from "@/core/comparison";
import * as charts from "@/core/control-charts";
import * as cure from "@/core/cure";
import * as field from "@/core/field";
import * as powder from "@/core/powder";
import * as preparation from "@/core/preparation";
import { valueOrThrow } from "@/core/result";
import * as sampling from "@/core/sampling";
import * as statistics from "@/core/statistics";
import * as thickness from "@/core/thickness";

/** Reference vectors come in many shapes; each case below reads its own. */
type Json = ReturnType<typeof JSON.parse>;
type Vector = { what?: string; rule?: string; input: Json; expected: Json };
const vectors = (name: string): Vector[] => JSON.parse(readFileSync(`tests/vectors/${name}.json`, "utf8"));
const each = (name: string, what: string, check: (input: Vector["input"], expected: Vector["expected"]) => void) => {
  const cases = vectors(name).filter((vector) => (vector.what ?? vector.rule) === what);
  test(`${what}: ${cases.length} reference cases`, () => {
    expect(cases.length).toBeGreaterThan(0);
    for (const { input, expected } of cases) check(input, expected);
  });
};
const near = (actual: number | null, expected: number | null, relative = 1e-7) => {
  if (expected === null || actual === null) return expect(actual).toBe(expected);
  expect(Math.abs(actual - expected)).toBeLessThanOrEqual(Math.max(relative * Math.abs(expected), 1e-9));
};
const nearAll = (actual: readonly number[], expected: readonly number[], relative = 1e-7) => {
  expect(actual.length).toBe(expected.length);
  actual.forEach((value, i) => {
    near(value, expected[i] as number, relative);
  });
};
const points = (pairs: [number, number][]) => pairs.map(([metalC, minutes]) => ({ metalC, minutes }));
const trace = (pairs: [number, number][]) => ({ timeS: pairs.map((p) => p[0]), tempC: pairs.map((p) => p[1]) });

suite("statistics", () => {
  each("statistics", "describe", (input, expected) => {
    const got = valueOrThrow(statistics.describeValues(input));
    expect(got.n).toBe(expected.n);
    near(got.mean, expected.mean);
    near(got.sampleSd, expected.sd);
    near(got.coefficientOfVariation, expected.cv);
    for (const key of ["min", "max", "q10", "q25", "median", "q75", "q90"] as const) near(got[key], expected[key]);
    nearAll(got.meanInterval95 ?? [], expected.meanCi95);
  });
  each("statistics", "describe-hard", (input, expected) => {
    const got = valueOrThrow(statistics.describeValues(input));
    near(got.mean, expected.mean, 1e-12);
    near(got.sampleSd, expected.sd, 1e-6);
  });
  each("statistics", "capability", (input, expected) => {
    const got = valueOrThrow(statistics.capability(input.values, input));
    near(got.pp, expected.pp);
    near(got.ppk, expected.ppk);
    near(got.shareBelowNormal, expected.shareBelowNormal);
    near(got.shareBelowCounted, expected.shareBelowCounted);
  });
});

suite("control charts", () => {
  each("control-charts", "individuals", (input, expected) => {
    const got = valueOrThrow(charts.individualsChart(input));
    near(got.centre, expected.centre);
    near(got.meanMovingRange, expected.mrBar);
    near(got.upperControlLimit, expected.upper);
    near(got.lowerControlLimit, expected.lower);
    near(got.movingRangeUpperLimit, expected.mrUpper);
  });
  each("control-charts", "run-rules", (input, expected) => {
    expect(valueOrThrow(charts.runRules(input.values, input))).toEqual(expected);
  });
  each("control-charts", "ewma", (input, expected) => {
    const got = valueOrThrow(charts.ewmaChart(input.values, { ...input, lambda: input.lambda_, limitSigmas: input.L }));
    nearAll(got.values, expected.values);
    nearAll(
      got.upper.map((u) => u - input.centre),
      expected.halfWidth,
    );
  });
});

suite("thickness", () => {
  each("thickness", "spot-area", (input, expected) => {
    const spots = input.spots.map((readings: number[], i: number) => ({
      id: String(i),
      readings: readings.map((valueUm) => ({ valueUm })),
    }));
    const got = valueOrThrow(thickness.judgeSpotArea([{ id: "area", spots }], input));
    const [area] = got.areas;
    nearAll(area?.spots.map((spot) => spot.meanUm) ?? [], expected.spotMeans);
    near(area?.meanUm ?? null, expected.areaMean);
    expect(area?.spots.flatMap((spot, i) => (spot.result.startsWith("too-") ? [i] : []))).toEqual(
      expected.failingSpots,
    );
    expect(area?.meanWithin).toBe(expected.areaWithin);
    expect(got.accepted).toBe(expected.accepted);
  });
  each("thickness", "nominal", (input, expected) => {
    const got = valueOrThrow(thickness.judgeNominal(input.readings, input));
    near(got.meanUm, expected.mean);
    near(got.shareBetween80And100, expected.shareBetween80And100);
    expect(got.below80).toEqual(expected.below80);
    expect(got.aboveMax).toEqual(expected.aboveMax);
    expect(got.accepted).toBe(expected.accepted);
  });
  each("thickness", "measuring-areas", (input, expected) => {
    const got = valueOrThrow(thickness.judgeMeasuringAreas(input.areas, input.minUm));
    nearAll(got.areaMeansUm, expected.areaMeans);
    near(got.meanUm, expected.mean);
    expect(got.accepted).toBe(expected.accepted);
  });
  each("thickness", "how-many-spots", (input, expected) => {
    expect(valueOrThrow(thickness.howManySpots(input.areaM2))).toEqual(expected);
  });
});

suite("bath", () => {
  each("bath", "addition", (input, expected) => {
    const got = valueOrThrow(bath.additionL({ ...input, fromPercent: input.from_, toPercent: input.to }));
    near(got.onTopL, expected.onTopL);
    near(got.levelKeptL, expected.levelKeptL);
  });
  each("bath", "dilution", (input, expected) => {
    near(valueOrThrow(bath.dilutionL({ ...input, fromPercent: input.from_, toPercent: input.to })), expected.drainL);
  });
  each("bath", "titration", (input, expected) => near(valueOrThrow(bath.concentrationFromTitration(input)), expected));
  each("bath", "conductivity-25", (input, expected) => near(valueOrThrow(bath.conductivityAt25(input)), expected));
  each("bath", "trend", (input, expected) => {
    const got = valueOrThrow(bath.forecastLimit(input.hours, input.values, input.limit, input.side));
    near(got.trend.slopePerHour, expected.slope);
    near(got.trend.intercept, expected.intercept);
    near(got.trend.residualSd, expected.residualSd);
    if (got.forecast.kind === "no-forecast") expect(expected.meets).toBeNull();
    else {
      near(got.forecast.meetsAtHour, expected.meets, 1e-6);
      near(got.forecast.checkByHour, expected.checkBy, 1e-6);
    }
  });
  each("bath", "rinse-flow", (input, expected) => near(valueOrThrow(bath.rinseFlowLPerH(input)), expected));
  // The reference works on masses before they were rounded to 0.1 mg, hence the wider tolerance.
  each("bath", "coating-weight", (input, expected) =>
    near(valueOrThrow(bath.coatingWeightGPerM2(input)), expected, 1e-5),
  );
});

suite("preparation and powder", () => {
  each("preparation", "dew-point", (input, expected) => near(valueOrThrow(preparation.dewPointC(input)), expected));
  each("preparation", "soluble-salt", (input, expected) =>
    near(valueOrThrow(preparation.solubleSaltMgPerM2(input)), expected),
  );
  each("powder", "coverage", (input, expected) => near(valueOrThrow(powder.coverageM2PerKg(input)), expected));
  each("powder", "quantity", (input, expected) => near(valueOrThrow(powder.powderKg(input)), expected));
});

suite("cure", () => {
  each("cure", "trace", (input, expected) => {
    const curve = valueOrThrow(cure.fitCureCurve(points(input.schedule)));
    near(curve.a, expected.a, 1e-6);
    near(curve.b, expected.b, 1e-6);
    near(cure.requiredMinutes(curve, 185), expected.requiredMinAt185, 1e-6);
    near(valueOrThrow(cure.cureIndex(trace(input.trace), curve, input.onsetC)).index, expected.cureIndex, 0.005);
    const hold = valueOrThrow(cure.holdAt(trace(input.trace), input.holdAtC));
    expect(Math.abs(hold.totalS - expected.hold.totalS)).toBeLessThan(0.5);
    expect(Math.abs(hold.longestS - expected.hold.longestS)).toBeLessThan(0.5);
  });
  each("cure", "fit-heat-up", (input, expected) => {
    const got = valueOrThrow(
      cure.fitHeatUp(
        input.trace.map((p: number[]) => p[0]),
        input.trace.map((p: number[]) => p[1]),
      ),
    );
    near(got.airC, expected.airC, 1e-3);
    near(got.tauS, expected.tauS, 1e-3);
    expect(got.converged).toBe(true);
  });
  each("cure", "heat-up", (input, expected) => {
    const { tauS } = valueOrThrow(cure.plateTimeConstant(input));
    near(tauS, expected.tauS);
    near(valueOrThrow(cure.secondsToReach({ ...input, tauS })), expected.secondsTo);
  });
});

suite("bench and field", () => {
  each("bench", "cross-cut", (input, expected) => {
    expect(valueOrThrow(bench.crossCutGrade(input.removedPercent))).toMatchObject(expected);
  });
  each("bench", "pull-off", (input, expected) => near(valueOrThrow(bench.pullOffMPa(input)), expected));
  each("field", "creep", (input, expected) => {
    const got = valueOrThrow(field.creepFromScribe(input.widthsMm, input.scribeMm));
    near(got.creepMm, expected.creepMm);
    expect(got.rating).toBe(expected.rating);
  });
  each("field", "rust-grade", (input, expected) =>
    expect(valueOrThrow(field.rustGrade(input.sharePercent))).toBe(expected),
  );
});

suite("comparison and sampling", () => {
  each("comparison", "fisher", (input, expected) => {
    const got = valueOrThrow(comparison.fisherExact(input));
    near(got.p, expected.p);
    near(got.oddsRatio, expected.oddsRatioHaldane);
  });
  for (const what of ["mann-whitney", "mann-whitney-exact"])
    each("comparison", what, (input, expected) => {
      const got = valueOrThrow(comparison.mannWhitney(input.affected, input.others));
      near(got.u, expected.u);
      near(got.p, expected.p, 1e-6);
      near(got.cliffsDelta, expected.cliffsDelta);
    });
  each("comparison", "benjamini-hochberg", (input, expected) => {
    nearAll(valueOrThrow(comparison.benjaminiHochberg(input)), expected, 1e-4);
  });
  each("comparison", "change-point", (input, expected) => {
    const periods = input.defective.map((defective: number, i: number) => ({
      defective,
      inspected: input.inspected[i],
    }));
    const got = valueOrThrow(comparison.changePoint(periods));
    expect(got.firstAffectedPeriod).toBe(expected.firstAffectedPeriod);
    near(got.logLikelihoodGain, expected.logLikelihoodGain, 1e-6);
  });
  each("comparison", "sampling-plan", (input, expected) => {
    const got = valueOrThrow(sampling.samplingPlan(input));
    expect([got.n, got.c]).toEqual([expected.n, expected.c]);
    near(got.pAcceptAql, expected.pAcceptAql);
    near(got.pAcceptRql, expected.pAcceptRql);
  });
});
