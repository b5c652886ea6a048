import { describe, test, vi } from "vitest";
import { changePoint, contrast, fisherExact, mannWhitney } from "@/core/comparison";
import { c4, d2, d3, ewmaChart, runRules, xbarRChart, xbarSChart } from "@/core/control-charts";
import { creepFromArea, creepFromChip, creepFromScribe, creepRateMmPerYear, creepRating } from "@/core/field";
import { acceptance, defectivesIn, filmPlan, operatingCurve, randomPlaces, samplingPlan } from "@/core/sampling";
import { capability, capabilityOf, describeValues, histogram, nestedSummaryOf, seededRandom } from "@/core/statistics";
import { judgeNominal, judgeSpotArea, overBuild, strangeReading, strangeReadings } from "@/core/thickness";
import { asBefore, madeUp } from "../support/as-before";

// Wide nets take their time on a machine that does something else beside.
vi.setConfig({ testTimeout: 60_000 });

const up = () => madeUp(77);
const noisy = (n: number, centre: number, spread: number, seed: number) => {
  const random = seededRandom(seed);
  return Array.from({ length: n }, () => Number((centre + spread * random.normal(0, 1)).toFixed(2)));
};
/** In racks of four, the last of what is left. */
const sumsOf = (v: readonly number[]) => {
  const racks = Array.from({ length: Math.ceil(v.length / 4) }, (_, i) => v.slice(4 * i, 4 * i + 4));
  const sum = (of: readonly number[]) => of.reduce((a, x) => a + x, 0);
  const means = racks.map((r) => sum(r) / r.length);
  return {
    groups: racks.length,
    n: v.length,
    sumOfMeans: sum(means),
    sumOfSquaredMeans: sum(means.map((m) => m * m)),
    sumOfInverseSizes: sum(racks.map((r) => 1 / r.length)),
    squaresWithin: sum(racks.flatMap((r, i) => r.map((x) => (x - (means[i] as number)) ** 2))),
  };
};

describe("as before: figures", () => {
  test("distributions", async () => {
    const of = [3, 8, 26, 60].map((n) => noisy(n, 72, 5, n));
    await asBefore("figures-described", [
      ...of.map((v) => [`described, ${v.length}`, describeValues(v)] as const),
      ...of.flatMap((v) =>
        [
          { min: 60, max: 90 },
          { min: 60, max: null },
          { min: null, max: 80 },
        ].map((limits) => [`capable ${JSON.stringify(limits)}, ${v.length}`, capability(v, limits)] as const),
      ),
      ["capable, few allowed", capability(of[1] ?? [], { min: 60, max: 90 }, { allowFew: true })],
      ["capable of no limits", capability(of[2] ?? [], { min: null, max: null })],
      ["capable within nothing", capability(of[2] ?? [], { min: 80, max: 80 })],
      ["capable where all are alike", capability(new Array(30).fill(70), { min: 60, max: 90 })],
      ...of.map((v) => [`by its sums, ${v.length}`, nestedSummaryOf(sumsOf(v))] as const),
      ...of.map((v) => {
        const s = nestedSummaryOf(sumsOf(v));
        return [
          `capable by sums, ${v.length}`,
          s.ok ? [capabilityOf(s.value, { min: 60, max: 90 }), capabilityOf(s.value, { min: 60, max: null })] : s,
        ] as const;
      }),
      ["histogram of 5", histogram(noisy(40, 72, 6, 9), 5)],
      ["histogram of 0.5", histogram([1, 1.49, 1.5, 2, -0.5], 0.5)],
      ["histogram of none", histogram([], 5)],
      ["histogram of no width", histogram([1], 0)],
      ["histogram of ten thousand", [histogram([0, 10_000], 1).ok, histogram([0, 10_001], 1).ok]],
      [
        "random",
        (() => {
          const r = seededRandom(3);
          return [r.uniform(), r.uniform(), r.normal(5, 2), r.normal(0, 1), r.uniform()];
        })(),
      ],
    ]);
  });
  test("charts", async () => {
    const u = up();
    const values = noisy(60, 5.2, 0.1, 4);
    const chart = { centre: 5.2, sigma: 0.1 };
    const bent = values.map((v, i) => Number((v + (i > 30 ? 0.12 : 0) + (i > 45 ? (i - 45) * 0.02 : 0)).toFixed(3)));
    const groups = (n: number) => u.many(12, (i) => noisy(n, 70 + (i > 8 ? 6 : 0), 3, 10 * n + i));
    await asBefore("figures-charts", [
      ["EWMA", ewmaChart(bent, chart)],
      ["EWMA, λ 0.4, 3 σ", ewmaChart(bent, { ...chart, lambda: 0.4, limitSigmas: 3 })],
      ["EWMA, λ 1", ewmaChart(values.slice(0, 5), { ...chart, lambda: 1 })],
      ["EWMA, λ 1.1", ewmaChart(values, { ...chart, lambda: 1.1 })],
      ["EWMA, λ 0", ewmaChart(values, { ...chart, lambda: 0 })],
      ["EWMA of no spread", ewmaChart(values, { centre: 5, sigma: 0 })],
      ["rules", runRules(bent, chart)],
      ["rules, broken at 20 and 40", runRules(bent, chart, [20, 40])],
      ["rules of a ramp", runRules([5, 5.02, 5.04, 5.06, 5.08, 5.1, 5.12, 5.1], chart)],
      [
        "rules of a saw",
        runRules(
          Array.from({ length: 16 }, (_, i) => 5.2 + (i % 2 ? 0.05 : -0.05)),
          chart,
        ),
      ],
      [
        "rules of what hugs the middle",
        runRules(
          Array.from({ length: 16 }, (_, i) => 5.2 + ((i * 7) % 5) * 0.01),
          chart,
        ),
      ],
      [
        "rules of what avoids it",
        runRules(
          Array.from({ length: 9 }, (_, i) => 5.2 + (i % 2 ? 0.13 : -0.13)),
          chart,
        ),
      ],
      ["rules of no spread", runRules(values, { centre: 5, sigma: 0 })],
      ...[2, 3, 5, 10].flatMap(
        (n) =>
          [
            [`x̄R of ${n}`, xbarRChart(groups(n))],
            [`x̄S of ${n}`, xbarSChart(groups(n))],
          ] as const,
      ),
      ["of eleven", xbarRChart(groups(11))],
      [
        "of unlike",
        xbarSChart([
          [1, 2],
          [1, 2, 3],
        ]),
      ],
      ["constants", [2, 5, 10].map((n) => [c4(n), d2(n), d3(n)])],
    ]);
  });
  test("comparisons", async () => {
    const u = up();
    const things = u.many(60, (i) => ({
      affected: i < 20,
      values: new Map<string, string | number>([
        ["booth", u.one(i < 20 ? ["1", "1", "2"] : ["1", "2", "2"])],
        ["painter", u.one(["Bea", "Ines", "Tomasz"])],
        ["pH", u.between(i < 20 ? 5.3 : 5, i < 20 ? 5.9 : 5.6, 2)],
        ["kV", u.whole(60, 80)],
        ["line", "1"],
        ...(u.chance(0.5) ? ([["lot", u.one(["a", "b", "c", "d"])]] as const) : []),
      ]),
    }));
    const weeks = (rates: readonly number[]) => rates.map((r) => ({ defective: r, inspected: 40 }));
    await asBefore("figures-compared", [
      ["contrast", contrast(things)],
      ["contrast of nothing", contrast([])],
      [
        "contrast with what is no number",
        contrast([
          { affected: true, values: new Map([["x", Number.NaN]]) },
          { affected: false, values: new Map([["x", 1]]) },
        ]),
      ],
      [
        "Fisher",
        [
          [
            [8, 2],
            [1, 5],
          ],
          [
            [0, 3],
            [4, 0],
          ],
          [
            [10, 10],
            [10, 10],
          ],
          [
            [5, 0],
            [0, 0],
          ],
          [
            [100, 3],
            [90, 12],
          ],
        ].map((t) => fisherExact(t as [[number, number], [number, number]])),
      ],
      [
        "Fisher at its most",
        [
          fisherExact([
            [1e7, 1],
            [1, 1],
          ]).ok,
          fisherExact([
            [1e7 + 1, 1],
            [1, 1],
          ]).ok,
          fisherExact([
            [-1, 1],
            [1, 1],
          ]).ok,
          fisherExact([
            [1.5, 1],
            [1, 1],
          ]).ok,
        ],
      ],
      [
        "Mann–Whitney",
        [
          mannWhitney([1, 2, 3], [4, 5, 6, 7]),
          mannWhitney([1, 2, 2, 3], [2, 3, 4, 4, 5]),
          mannWhitney(noisy(30, 5, 1, 1), noisy(40, 5.6, 1, 2)),
          mannWhitney([1, 1], [1, 1]),
          mannWhitney(noisy(8, 5, 1, 3), noisy(9, 6, 1, 4)),
        ],
      ],
      ["Mann–Whitney of none", [mannWhitney([], [1]), mannWhitney([1], [Number.NaN])]],
      ["onset", changePoint(weeks([1, 2, 1, 0, 2, 1, 6, 8, 7, 9]))],
      ["onset of two", changePoint(weeks([0, 20]))],
      ["onset that is none", changePoint(weeks([2, 1, 2, 2, 1, 2]))],
      ["got better", changePoint(weeks([9, 8, 9, 1, 1, 2]))],
      ["of one week", changePoint(weeks([9]))],
      [
        "of more than were looked at",
        changePoint([
          { defective: 3, inspected: 2 },
          { defective: 0, inspected: 2 },
        ]),
      ],
      [
        "of none looked at",
        changePoint([
          { defective: 0, inspected: 0 },
          { defective: 0, inspected: 2 },
        ]),
      ],
    ]);
  });
  test("sampling", async () => {
    const risks = { lot: 800, aql: 0.01, rql: 0.06, producerRisk: 0.05, consumerRisk: 0.1 };
    await asBefore("figures-sampled", [
      ...[50, 200, 800, 5000].map((lot) => [`lot of ${lot}`, samplingPlan({ ...risks, lot })] as const),
      ["lot of none", samplingPlan({ ...risks, lot: 0 })],
      ["shares turned round", samplingPlan({ ...risks, aql: 0.06, rql: 0.01 })],
      ["no risk to the producer", samplingPlan({ ...risks, producerRisk: 0 })],
      ["no risk to the consumer", samplingPlan({ ...risks, consumerRisk: 0 })],
      [
        "defectives",
        [
          [10, 0.25],
          [10, 0.35],
          [7, 0.5],
          [9, 0.5],
          [100, 0.013],
        ].map(([lot, share]) => defectivesIn(lot as number, share as number)),
      ],
      [
        "acceptance",
        [
          [20, 2, 5, 0],
          [20, 2, 5, 1],
          [20, 18, 5, 2],
          [20, 20, 5, 5],
          [20, 0, 5, 0],
        ].map(([lot, d, n, c]) => acceptance(lot as number, d as number, n as number, c as number)),
      ],
      ["operating curve", operatingCurve(200, { n: 20, c: 1 })],
      ["operating curve of few", operatingCurve(12, { n: 5, c: 0 }, 0.5)],
      [
        "places",
        [
          randomPlaces(12, 5, 1),
          randomPlaces(12, 12, 2),
          randomPlaces(0, 0, 3),
          randomPlaces(1, 1, 1.5),
          randomPlaces(3, 4, 1),
          randomPlaces(-1, 0, 1),
          randomPlaces(1_000_000, 1, 4),
        ],
      ],
      ["a million and one", randomPlaces(1_000_001, 1, 4)],
      ...[0.4, 9.9, 10, 25, 30, 31, 100, 250].flatMap((m2) =>
        (["spot-area", "nominal", "measuring-areas"] as const).map(
          (rule) => [`film of ${m2} m² by ${rule}`, filmPlan(rule, m2, 6)] as const,
        ),
      ),
      ["film in square feet", filmPlan("spot-area", 40, 6, { inFt2: true })],
      ["film by risks", filmPlan("spot-area", 400, 6, { risks })],
    ]);
  });
  test("film and field", async () => {
    const u = up();
    const spots = (lows: number, n: number) =>
      u.many(n, (i) => ({ id: `A${i}`, readings: noisy(3, i < lows ? 55 : 72, 3, i).map((valueUm) => ({ valueUm })) }));
    await asBefore("figures-film", [
      ...[0, 1, 2, 5].map(
        (lows) =>
          [
            `spot and area, ${lows} thin`,
            ([1, 3, 5] as const).map((level) =>
              judgeSpotArea(
                [
                  { id: "A", spots: spots(lows, 8) },
                  { id: "B", spots: spots(0, 5) },
                ],
                { minUm: 60, maxUm: level === 5 ? null : 74, level },
              ),
            ),
          ] as const,
      ),
      ...[0, 1, 2, 6].map(
        (lows) =>
          [
            `nominal, ${lows} thin`,
            judgeNominal([...noisy(30, 78, 3, 5), ...new Array(lows).fill(62)], { nominalUm: 75, maxUm: 100 } as never),
          ] as const,
      ),
      ...[0.5, 2, 3, 18, 71, 280, 300, 2.9, 1800].map(
        (um) => [`${um} µm among 70s`, strangeReading(um, [70, 72, 71, 69, 73])] as const,
      ),
      ["among few", strangeReading(2.9, [70, 72])],
      ["a run of them", strangeReadings([70, 72, 71, 69, 2.8, 2.9, 73, 0.2, 71, 700, 70])],
      [
        "over-built",
        overBuild(
          u.many(8, () => ({
            areaM2: u.between(0.5, 3),
            meanUm: u.between(65, 120),
            specificGravity: 1.5,
            pricePerKg: 6,
          })) as never,
          75,
          0.6,
        ),
      ],
      ["over-built of none", overBuild([], 75, 0.6)],
      [
        "over-built to nothing",
        overBuild([{ areaM2: 1, meanUm: 80, specificGravity: 1.5, pricePerKg: null }] as never, 0, 0.6),
      ],
      ["ratings", [0, 0.1, 0.5, 0.51, 1, 2, 3, 5, 7, 10, 13, 16, 17].map((mm) => creepRating(mm))],
      [
        "from a scribe",
        [
          creepFromScribe([3, 3.4, 2.8, 3.1, 3, 2.9], 1),
          creepFromScribe([3, 3], 1),
          creepFromScribe([0.5], 1),
          creepFromScribe([], 1),
          creepFromScribe([1, -1], 1),
          creepFromScribe([1], -1),
        ],
      ],
      ["from a chip", [creepFromChip([2, 3, 4, 2, 3, 4]), creepFromChip([])]],
      [
        "by area",
        [
          creepFromArea({ areaMm2: 300, lengthMm: 100, scribeMm: 1 }),
          creepFromArea({ areaMm2: 50, lengthMm: 100, scribeMm: 1 }),
          creepFromArea({ areaMm2: 0, lengthMm: 100, scribeMm: 1 }),
          creepFromArea({ areaMm2: 1, lengthMm: 0, scribeMm: 1 }),
          creepFromArea({ areaMm2: 1, lengthMm: 1, scribeMm: -1 }),
        ],
      ],
      [
        "by the year",
        [
          creepRateMmPerYear({ fromMm: 1, toMm: 2.5, years: 3 }),
          creepRateMmPerYear({ fromMm: 2, toMm: 1, years: 1 }),
          creepRateMmPerYear({ fromMm: 0, toMm: 1, years: 0 }),
          creepRateMmPerYear({ fromMm: -1, toMm: 1, years: 1 }),
        ],
      ],
    ]);
  });
});
