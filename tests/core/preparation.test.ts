import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  beforeCoat,
  checkHow,
  conditionQuantities,
  dewPointC,
  howWarnings,
  judgeDryOff,
  judgeOutgas,
  judgePrepStep,
  type PreparationLimits,
  type PrepHow,
  prepMeasures,
  prepSteps,
  prepWindow,
  solubleSaltMgPerM2,
  stepMissed,
  stepMissedBefore,
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
  test("blasted steel: oil off first, blast, its dust, blown off, wiped; in working order", () => {
    expect(asked()).toEqual(["degrease", "blast", "look-over", "blow-off", "dust-tape", "solvent-wipe"]);
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
    expect(asked({ features: ["thermal-cut-edges"] }).slice(0, 2)).toEqual(["degrease", "break-edges"]);
    expect(asked({ features: ["fit-surface"] }).at(-1)).toBe("masks-in");
  });
  test("a recoat is scuffed, not blasted", () => {
    const steps = asked({ recoat: true, features: ["sharp-edges"] });
    expect(steps).toContain("scuff");
    expect(steps).not.toContain("blast");
    expect(steps).not.toContain("break-edges");
  });
});

describe("how a step was done", () => {
  test.each([
    ["blast", { media: "steel grit", pressure: 650, cleanliness: "Sa 2½" }, null],
    ["blast", { media: "walnut" }, "media"],
    ["blast", { pressure: 7 }, "pressure"],
    ["blast", { grit: 80 }, "grit"],
    ["sand", { grit: 120 }, null],
    ["strip", { left: 101 }, "left"],
    ["strip", { stripper: "x".repeat(81) }, "stripper"],
    ["dust-tape", { media: "steel grit" }, "media"],
  ] as const)("%s %o", (step, how, field) => {
    const checked = checkHow(step, how as PrepHow);
    expect(checked.ok ? null : checked.error.field).toBe(field);
  });
  test("what leads to trouble is named, what does not is not", () => {
    expect(howWarnings("solvent-wipe", { wipe: "paper", hands: "bare", solvent: "mineral spirits" })).toEqual([
      "paper-leaves-fibres",
      "handled-bare",
      "slow-solvent",
    ]);
    expect(howWarnings("solvent-wipe", { wipe: "lint-free", hands: "gloves", solvent: "acetone" })).toEqual([]);
    expect(howWarnings("blast", { cleanliness: "Sa 2" })).toEqual(["not-blasted-white"]);
    expect(howWarnings("strip", { left: 0 })).toEqual([]);
    expect(howWarnings("strip", { left: 15 })).toEqual(["coating-left"]);
    expect(howWarnings("break-edges", { "cut skin": "left" })).toEqual(["cut-skin-left"]);
    expect(howWarnings("blow-off", { air: "not checked" })).toEqual(["air-not-checked"]);
    expect(howWarnings("blast", null)).toEqual([]);
  });
});

describe("the order of the steps", () => {
  const asked = ["strip", "seals-out", "degrease", "grind", "blast", "look-over", "prebake"] as const;
  test.each([
    ["blast", [], "degrease"],
    ["blast", ["degrease"], "strip"],
    ["blast", ["degrease", "strip", "grind"], null],
    ["look-over", ["degrease"], "blast"],
    ["prebake", [], "seals-out"],
    ["prebake", ["seals-out"], null],
    ["strip", [], null],
  ] as const)("%s after %j wants %s first", (step, done, first) => {
    expect(stepMissedBefore(step, asked, new Set<string>(done))).toBe(first);
  });
  test("a step nobody asked for holds nothing up", () => {
    expect(stepMissedBefore("blast", ["blast"], new Set())).toBeNull();
    expect(stepMissed(beforeCoat, ["blast"], new Set())).toBeNull();
    expect(stepMissed(beforeCoat, asked, new Set(["seals-out"]))).toBe("prebake");
  });
});

describe("out of the dry-off", () => {
  const limits = { leastMinutes: 10, boothMetalC: 45, holdsWater: true };
  test.each([
    [{ minutes: 20, metalC: 38, partsDry: true, hollowBlown: true }, "in", []],
    [{ minutes: 20, metalC: 38, partsDry: false, hollowBlown: true }, "out", ["damp"]],
    [
      { minutes: 8, metalC: 46, partsDry: true, hollowBlown: null },
      "watch",
      ["hollow-not-looked-at", "too-short", "too-hot-for-the-booth"],
    ],
    [{ minutes: null, metalC: null, partsDry: true, hollowBlown: false }, "out", ["hollow-not-blown"]],
  ] as const)("%o is %s", (dry, result, reasons) => {
    expect(judgeDryOff(dry, limits)).toEqual({ result, reasons });
  });
  test("a flat part has no tubes to blow out", () => {
    expect(
      judgeDryOff({ minutes: 10, metalC: 45, partsDry: true, hollowBlown: null }, { ...limits, holdsWater: false }),
    ).toEqual({ result: "in", reasons: [] });
  });
});

describe("an outgassing bake by its metal", () => {
  /** Metal to a heat in ten minutes, held, and down again. */
  const metal = (name: string, heldC: number, minutes: number) => ({
    name,
    medium: "metal" as const,
    // One sample a minute: ten to get there, the hold, ten to cool.
    trace: {
      timeS: Array.from({ length: minutes + 21 }, (_, i) => i * 60),
      tempC: Array.from({ length: minutes + 21 }, (_, i) =>
        i < 10
          ? 20 + ((heldC - 20) * i) / 10
          : i <= 10 + minutes
            ? heldC
            : heldC - ((heldC - 60) * (i - 10 - minutes)) / 10,
      ),
    },
  });
  test("the coolest metal decides; its held heat is what it had for half an hour in one stretch", () => {
    const found = valueOrThrow(judgeOutgas([metal("Hood", 222, 30), metal("Rear", 240, 30)], 200));
    expect(found).toMatchObject({ channel: "Hood", result: "in", askedC: 215 });
    // A little under its plateau it was there a little longer than its plateau lasted.
    expect(found.heldC).toBeCloseTo(222, 0);
    expect(found.longestS).toBeGreaterThan(30 * 60);
  });
  test.each([
    [216, 40, "in"],
    [214, 40, "watch"],
    [199, 40, "out"],
    [230, 20, "out"],
  ])("held at %d °C for %d min: %s", (heldC, minutes, result) => {
    expect(valueOrThrow(judgeOutgas([metal("Hood", heldC, minutes)], 200)).result).toBe(result);
  });
  test("two stretches of a quarter of an hour are not one of a half", () => {
    const broken = {
      name: "Hood",
      medium: "metal" as const,
      trace: {
        timeS: Array.from({ length: 61 }, (_, i) => i * 60),
        tempC: Array.from({ length: 61 }, (_, i) => ((i >= 10 && i <= 25) || (i >= 35 && i <= 50) ? 225 : 120)),
      },
    };
    expect(valueOrThrow(judgeOutgas([broken], 200)).result).toBe("out");
  });
  test("hotter never judges worse", () => {
    const rank = { out: 0, watch: 1, in: 2 } as Record<string, number>;
    fc.assert(
      fc.property(fc.integer({ min: 150, max: 260 }), fc.integer({ min: 5, max: 60 }), (heldC, minutes) => {
        const cool = valueOrThrow(judgeOutgas([metal("Hood", heldC, minutes)], 200));
        const hot = valueOrThrow(judgeOutgas([metal("Hood", heldC + 10, minutes)], 200));
        expect(rank[hot.result]).toBeGreaterThanOrEqual(rank[cool.result] as number);
      }),
    );
  });
});
