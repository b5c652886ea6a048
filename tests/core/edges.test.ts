import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  coatingWeightGPerM2,
  concentrationFromTitration,
  concentrationGPerL,
  conductivityAt25,
  contactTimeS,
  dilutionL,
  judgeBathValue,
  learnResponse,
  rinseFlowLPerH,
} from "@/core/bath";
import { crossCutSpacingMm, judgePullOff, judgeSolventRub, pullOffMPa } from "@/core/bench";
import { ewmaChart, individualsChart } from "@/core/control-charts";
import { findPullS, fitHeatUp, holdAt, plateTimeConstant, secondsToReach, traceUntil } from "@/core/cure";
import { creepFromArea, creepRateMmPerYear, rustGrade } from "@/core/field";
import { readBathFile, readGaugeFile, readOvenFile } from "@/core/instrument-files";
import { coverageM2PerKg, powderKg } from "@/core/powder";
import { dewPointC, solubleSaltMgPerM2 } from "@/core/preparation";
import { valueOrThrow } from "@/core/result";
import { parseShorthand } from "@/core/shorthand";
import { capability, histogram } from "@/core/statistics";
import { howManySpots, judgeMeasuringAreas, rangeFromSingleValue, repeatsAllowed } from "@/core/thickness";
import {
  cDifferenceToFahrenheit,
  cToFahrenheit,
  fahrenheitDifferenceToC,
  fahrenheitToC,
  milToUm,
  parseUnit,
  quantities,
  umToMil,
} from "@/core/units";
import { weakestGrade, worstResult } from "@/core/verdict";
import { failureText } from "@/ui/words/failures";

describe("units", () => {
  test("50 °F above cure is 28 °C above, not 10", () => {
    expect(fahrenheitDifferenceToC(50)).toBeCloseTo(27.78, 2);
    expect(fahrenheitToC(50)).toBeCloseTo(10, 9);
    expect(cDifferenceToFahrenheit(10)).toBe(18);
  });
  test("there and back is the same, for every quantity", () => {
    fc.assert(
      fc.property(fc.double({ min: -500, max: 5000, noNaN: true }), (value) => {
        for (const q of Object.values(quantities)) expect(q.fromUs(q.toUs(value))).toBeCloseTo(value, 6);
        expect(fahrenheitToC(cToFahrenheit(value))).toBeCloseTo(value, 9);
        expect(umToMil(milToUm(value))).toBeCloseTo(value, 9);
      }),
    );
  });
  test("both micro signs and the ways to write a degree are one unit", () => {
    for (const word of ["µm", "μm", "um", "micron", " UM "])
      expect(valueOrThrow(parseUnit(word)).quantity).toBe("thickness");
    for (const word of ["°F", "F", "degF", "deg F"])
      expect(valueOrThrow(parseUnit(word)).toCanonical(212)).toBeCloseTo(100, 9);
    expect(parseUnit("furlong")).toMatchObject({ error: { kind: "unknown-unit", word: "furlong" } });
  });
});

describe("each computation names what is wrong with its input", () => {
  const bad: [string, { ok: boolean }][] = [
    ["blank over titrant", concentrationFromTitration({ titrantMl: 1, blankMl: 2, factor: 1 })],
    ["negative titrant", concentrationFromTitration({ titrantMl: -1, blankMl: 0, factor: 1 })],
    ["no sample", concentrationGPerL({ titrantMl: 1, blankMl: 0, normality: 0.1, equivalentWeightG: 40, sampleMl: 0 })],
    ["conductivity far below", conductivityAt25({ microSiemensPerCm: 100, temperatureC: -30 })],
    ["no stages", rinseFlowLPerH({ dragOutLPerH: 1, ratio: 100, stages: 0 })],
    ["gained mass", coatingWeightGPerM2({ beforeG: 1, afterG: 2, areaM2: 1 })],
    ["no area", coatingWeightGPerM2({ beforeG: 2, afterG: 1, areaM2: 0 })],
    ["standing line", contactTimeS({ stageLengthM: 3, lineSpeedMPerMin: 0 })],
    ["nothing to dilute", dilutionL({ volumeL: 1, fromPercent: 1, toPercent: 2 })],
    ["make-up too strong", dilutionL({ volumeL: 1, fromPercent: 3, toPercent: 1, makeUpPercent: 1 })],
    ["few additions", learnResponse([{ litres: 1, volumeL: 1, change: 1 }])],
    ["humidity over 100", dewPointC({ airC: 20, relativeHumidityPercent: 101 })],
    ["humidity 0", dewPointC({ airC: 20, relativeHumidityPercent: 0 })],
    ["no patch", solubleSaltMgPerM2({ deltaMicroSiemensPerCm: 5, volumeMl: 15, areaMm2: 0 })],
    ["no gravity", coverageM2PerKg({ specificGravity: 0, thicknessUm: 60 })],
    [
      "efficiency over 1",
      powderKg({ areaM2: 1, thicknessUm: 60, specificGravity: 1.5, transferEfficiency: 1.2, loss: 0 }),
    ],
    ["all lost", powderKg({ areaM2: 1, thicknessUm: 60, specificGravity: 1.5, transferEfficiency: 0.5, loss: 1 })],
    ["air too cool", secondsToReach({ tauS: 100, airC: 180, startC: 20, toC: 190 })],
    ["no plate", plateTimeConstant({ material: "steel", plateMm: 0 })],
    ["no heating", fitHeatUp([0, 1, 2, 3], [20, 20, 20, 20])],
    ["few samples", fitHeatUp([0, 1], [20, 30])],
    ["no dolly", pullOffMPa({ forceN: 100, dollyMm: 0 })],
    [
      "shares",
      judgePullOff({ stressMPa: 5, requiredMPa: 3, adhesivePercent: 50, cohesivePercent: 20, gluePercent: 20 }),
    ],
    ["rub grade", judgeSolventRub({ doubleRubs: 50, limit: 50, grade: 6, knownCuredGrade: 5 })],
    ["rubs over limit", judgeSolventRub({ doubleRubs: 60, limit: 50, grade: 5, knownCuredGrade: 5 })],
    ["no film", crossCutSpacingMm(0, "hard")],
    ["no length", creepFromArea({ areaMm2: 1, lengthMm: 0, scribeMm: 0 })],
    ["time backwards", creepRateMmPerYear({ fromMm: 1, toMm: 2, years: -1 })],
    ["rust over all", rustGrade(101)],
    ["no spots", howManySpots(0)],
    ["four areas", judgeMeasuringAreas([[60], [60], [60], [60]], 60)],
    ["few for capability", capability([1, 2, 3], { min: 0, max: 4 })],
    ["no spread", capability(Array(30).fill(5), { min: 0, max: 9 })],
    ["no limits", capability(Array(30).fill(5), { min: null, max: null })],
    ["no width", histogram([1, 2], 0)],
    ["one value", individualsChart([1])],
    ["λ of 0", ewmaChart([1, 2], { centre: 1, sigma: 1, lambda: 0 })],
  ];
  for (const [name, result] of bad)
    test(name, () => {
      expect(result).toMatchObject({ ok: false, error: { kind: expect.any(String) } });
      const said = failureText((result as unknown as { error: { kind: string } }).error);
      expect(said, "its value and what to do, in words").not.toMatch(/^Refused:|undefined|NaN|null|\[object/);
    });
});

describe("judgements at their edges", () => {
  test("bath values in, near, out, and without a window", () => {
    const window = { lower: 4.8, upper: 5.8, watchLower: 4.9, watchUpper: 5.6 };
    expect([5.2, 5.6, 5.7, 5.8, 5.81, 4.85, 4.79].map((v) => judgeBathValue(v, window))).toEqual([
      "in",
      "in",
      "watch",
      "watch",
      "out",
      "watch",
      "out",
    ]);
    expect(judgeBathValue(5, null)).toBe("unknown");
  });
  test("solvent rub against the known-cured panel", () => {
    const rub = (grade: number, known: number | null, doubleRubs = 50) =>
      valueOrThrow(judgeSolventRub({ doubleRubs, limit: 50, grade, knownCuredGrade: known }));
    expect([
      rub(5, 5),
      rub(4, 5),
      rub(3, 5),
      rub(4, 4),
      rub(0, 5, 20),
      rub(4, 5, 30),
      rub(5, null),
      rub(3, null),
      rub(2, null),
    ]).toEqual(["in", "watch", "out", "in", "out", "unknown", "in", "unknown", "out"]);
  });
  test("pull-off: enough passes in any mode; too little glue-broken is no result", () => {
    const judge = (stressMPa: number, gluePercent: number) =>
      valueOrThrow(
        judgePullOff({
          stressMPa,
          requiredMPa: 5,
          adhesivePercent: 100 - gluePercent,
          cohesivePercent: 0,
          gluePercent,
        }),
      );
    expect([judge(5, 100), judge(4, 50), judge(4, 49)]).toEqual(["pass", "no-result", "fail"]);
  });
  test("cross-cut spacing by film and substrate", () => {
    const spacing = (um: number, on: "hard" | "soft") => valueOrThrow(crossCutSpacingMm(um, on));
    expect([
      spacing(60, "hard"),
      spacing(60, "soft"),
      spacing(61, "hard"),
      spacing(121, "hard"),
      spacing(251, "hard"),
    ]).toEqual([
      { method: "cross-cut", spacingMm: 1 },
      { method: "cross-cut", spacingMm: 2 },
      { method: "cross-cut", spacingMm: 2 },
      { method: "cross-cut", spacingMm: 3 },
      { method: "x-cut" },
    ]);
  });
  test("the worst and the weakest among several; nothing given is unknown", () => {
    expect(worstResult(["in", "unknown", "watch"])).toBe("watch");
    expect(worstResult(["in", "unknown"])).toBe("unknown");
    expect(worstResult([])).toBe("unknown");
    expect(weakestGrade(["measured", "assumed", "by-procedure"])).toBe("assumed");
    expect(weakestGrade([])).toBe("unknown");
  });
  test("a single value means ± 20 % of it; repeats allowed step with the readings", () => {
    expect(rangeFromSingleValue(75)).toEqual({ minUm: 60, maxUm: 90 });
    expect([4, 5, 10, 15, 20, 30, 40].map(repeatsAllowed)).toEqual([0, 1, 2, 3, 4, 6, 8]);
  });
});

describe("traces", () => {
  test("the pull is where the metal falls for good; a trace that only rises has none", () => {
    const timeS = Array.from({ length: 40 }, (_, i) => i * 10);
    const bake = {
      timeS,
      tempC: timeS.map((s) => (s <= 250 ? 20 + 180 * (1 - Math.exp(-s / 80)) : 192 - (s - 250) * 0.8)),
    };
    expect(Math.abs((findPullS([bake]) ?? 0) - 250)).toBeLessThanOrEqual(10);
    expect(findPullS([{ timeS, tempC: timeS.map((s) => 20 + s * 0.4) }])).toBeNull();
    expect(findPullS([])).toBeNull();
  });
  test("cut at a time, the trace ends there, between samples too", () => {
    const cut = traceUntil({ timeS: [0, 10, 20, 30], tempC: [0, 100, 200, 300] }, 25);
    expect(cut).toEqual({ timeS: [0, 10, 20, 25], tempC: [0, 100, 200, 250] });
  });
  test("time above a level falls as the level rises", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 20, max: 230, noNaN: true }), { minLength: 3, maxLength: 40 }),
        fc.double({ min: 30, max: 220, noNaN: true }),
        (temps, level) => {
          const trace = { timeS: temps.map((_, i) => i * 10), tempC: temps };
          const low = valueOrThrow(holdAt(trace, level));
          const high = valueOrThrow(holdAt(trace, level + 3));
          expect(high.totalS).toBeLessThanOrEqual(low.totalS + 1e-9);
          expect(low.longestS).toBeLessThanOrEqual(low.totalS + 1e-9);
          expect(low.totalS).toBeLessThanOrEqual((temps.length - 1) * 10 + 1e-9);
        },
      ),
    );
  });
});

describe("whatever text comes in", () => {
  const junk = fc.oneof(
    fc.string({ maxLength: 300 }),
    fc.string({ unit: "grapheme", maxLength: 200 }),
    fc
      .array(
        fc.constantFrom(
          "1",
          ",",
          ";",
          "\t",
          "\n",
          "µm",
          "-",
          "OVER",
          "No",
          "Thickness um",
          "72.1",
          '"',
          "Elapsed",
          "date",
          "tank",
          "°F",
          "1e9",
        ),
        { maxLength: 60 },
      )
      .map((parts) => parts.join("")),
  );
  test("the readers answer with a value or a named failure, and never throw or give NaN", () => {
    fc.assert(
      fc.property(junk, (text) => {
        for (const read of [readGaugeFile, readOvenFile, readBathFile]) {
          const got = read(text);
          if (got.ok) expect(JSON.stringify(got.value)).not.toContain("NaN");
          else expect(got.error.kind).toMatch(/^[a-z0-9-]+$/);
        }
        const said = parseShorthand(text);
        expect(said.ok || said.error.kind.length > 0).toBe(true);
      }),
      { numRuns: 400 },
    );
  });
  test("a gauge file in the other layout holds the same readings", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 4000 }), { minLength: 1, maxLength: 40 }), (tenths) => {
        const point = `No,Thickness um\n${tenths.map((t, i) => `${i + 1},${(t / 10).toFixed(1)}`).join("\n")}\n`;
        const comma = `No;Thickness um\r\n${tenths.map((t, i) => `${i + 1};${(t / 10).toFixed(1).replace(".", ",")}`).join("\r\n")}\r\n`;
        const read = (text: string) => valueOrThrow(readGaugeFile(text)).readings.map((r) => r.valueUm);
        expect(read(comma)).toEqual(read(point));
      }),
    );
  });
});
