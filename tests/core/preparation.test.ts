import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  conditionQuantities,
  dewPointC,
  judgePrepStep,
  type PreparationLimits,
  prepMeasures,
  prepSteps,
  prepWindow,
  solubleSaltMgPerM2,
  stepsAskedFor,
} from "@/core/preparation";
import { valueOrThrow } from "@/core/result";

const limits: PreparationLimits = {
  blastProfileUm: [35, 60],
  dustTapeWorstGrade: 2,
  solubleSaltMgPerM2: 20,
  waterBreakHoldsS: 30,
};

describe("dew point", () => {
  // Psychrometric tables, over water, to a tenth of a degree.
  test.each([
    [20, 50, 9.3],
    [25, 60, 16.7],
    [30, 80, 26.2],
    [10, 70, 4.8],
    [15, 40, 1.5],
    [23, 55, 13.5],
  ])("air at %i °C and %i %% has its dew point at %f °C", (airC, relativeHumidityPercent, dewC) => {
    expect(valueOrThrow(dewPointC({ airC, relativeHumidityPercent }))).toBeCloseTo(dewC, 0);
    expect(Math.abs(valueOrThrow(dewPointC({ airC, relativeHumidityPercent })) - dewC)).toBeLessThan(0.11);
  });
  test("saturated air is at its dew point; drier air is below; more water is higher", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -20, max: 60, noNaN: true }),
        fc.double({ min: 1, max: 99, noNaN: true }),
        (airC, humidity) => {
          const at = (h: number) => valueOrThrow(dewPointC({ airC, relativeHumidityPercent: h }));
          expect(at(100)).toBeCloseTo(airC, 6);
          expect(at(humidity)).toBeLessThan(airC);
          expect(at(humidity + 1)).toBeGreaterThan(at(humidity));
        },
      ),
    );
  });
});

describe("soluble salt", () => {
  test("the usual patch, 15 mL on 1250 mm²: 6 mg/m² a microsiemens", () => {
    expect(valueOrThrow(solubleSaltMgPerM2({ deltaMicroSiemensPerCm: 10, volumeMl: 15, areaMm2: 1250 }))).toBeCloseTo(
      60,
      9,
    );
    expect(valueOrThrow(solubleSaltMgPerM2({ deltaMicroSiemensPerCm: 0, volumeMl: 15, areaMm2: 1250 }))).toBe(0);
  });
  test("twice the volume or half the area doubles it", () => {
    const at = (volumeMl: number, areaMm2: number) =>
      valueOrThrow(solubleSaltMgPerM2({ deltaMicroSiemensPerCm: 4, volumeMl, areaMm2 }));
    expect(at(20, 1000)).toBeCloseTo(2 * at(10, 1000), 9);
    expect(at(10, 500)).toBeCloseTo(2 * at(10, 1000), 9);
  });
});

describe("a step of preparation", () => {
  const judge = (step: (typeof prepSteps)[number], value: number | null, done = true) =>
    judgePrepStep({ step, done, value }, limits, 200);
  test.each([
    ["blast", 35, "in"],
    ["blast", 34.9, "out"],
    ["blast", 60, "in"],
    ["blast", 60.1, "out"],
    ["blast", null, "watch"],
    ["dust-tape", 2, "in"],
    ["dust-tape", 3, "out"],
    ["soluble-salt", 20, "in"],
    ["soluble-salt", 21, "out"],
    ["water-break", 30, "in"],
    ["water-break", 12, "out"],
    ["prebake", 200, "in"],
    ["prebake", 199, "out"],
    ["prebake", null, "watch"],
    ["look-over", 0, "in"],
    ["look-over", 2, "out"],
    ["look-over", null, "watch"],
    ["scuff", null, "in"],
    ["solvent-wipe", null, "in"],
  ] as const)("%s at %s is %s", (step, value, result) => {
    expect(judge(step, value)).toBe(result);
  });
  test("not done is out, whatever it is", () => {
    for (const step of prepSteps) expect(judge(step, null, false)).toBe("out");
  });
  test("the outgassing bake is held against the cure that follows, also when the powder changes", () => {
    expect(judgePrepStep({ step: "prebake", done: true, value: 205 }, limits, 200)).toBe("in");
    expect(judgePrepStep({ step: "prebake", done: true, value: 205 }, limits, 210)).toBe("out");
  });
  test("every measured step has a window, and its limits lie where an instrument reads", () => {
    for (const step of prepSteps) {
      const window = prepWindow(step, limits, 200);
      expect(window !== null, step).toBe(prepMeasures[step] !== undefined);
      const [least, most] = prepMeasures[step]?.bounds ?? [0, 0];
      for (const side of [window?.lower, window?.upper])
        if (side !== null && side !== undefined) {
          expect(side).toBeGreaterThanOrEqual(least);
          expect(side).toBeLessThanOrEqual(most);
        }
    }
  });
  test("no condition's bounds are crossed", () => {
    for (const { bounds } of Object.values(conditionQuantities)) expect(bounds[0]).toBeLessThan(bounds[1]);
  });
});

describe("what is asked for", () => {
  const asked = (over: Partial<Parameters<typeof stepsAskedFor>[0]> = {}) =>
    stepsAskedFor({ substrate: "hot-rolled-steel", features: [], stages: ["blast", "clean"], recoat: false, ...over });
  test("blasted steel: blast, its dust, blown off, wiped; in working order", () => {
    expect(asked()).toEqual(["blast", "look-over", "blow-off", "dust-tape", "solvent-wipe"]);
  });
  test("without a blast in the route none is asked for", () => {
    expect(asked({ stages: ["clean"] })).toEqual(["blow-off", "solvent-wipe"]);
  });
  test("castings and galvanised steel want their gas out first", () => {
    for (const substrate of ["cast-aluminium", "cast-iron", "galvanised"])
      expect(asked({ substrate }), substrate).toContain("prebake");
    for (const substrate of ["aluminium", "stainless", "cold-rolled-steel"])
      expect(asked({ substrate }), substrate).not.toContain("prebake");
    expect(asked({ stages: ["blast", "prebake"] })).toContain("prebake");
  });
  test("cut edges are broken, fits are masked", () => {
    expect(asked({ features: ["thermal-cut-edges"] })[0]).toBe("break-edges");
    expect(asked({ features: ["fit-surface"] }).at(-1)).toBe("masks-in");
  });
  test("a recoat is scuffed, not blasted", () => {
    const steps = asked({ recoat: true, features: ["sharp-edges"] });
    expect(steps).toContain("scuff");
    expect(steps).not.toContain("blast");
    expect(steps).not.toContain("break-edges");
  });
});
