import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  type BathParameter,
  type Dosing,
  likeBefore,
  offCentre,
  questionAddition,
  questionBathValue,
  type ReadinessValue,
  readiness,
  readsLikeAnother,
  sameProduct,
  scoreOf,
} from "@/core/bath";
import { valueOrThrow } from "@/core/result";

const usual: Record<BathParameter, readonly number[]> = {
  ph: [5.2, 5.24, 5.31, 5.18, 5.4, 5.27],
  concentration: [2.1, 2.05, 2, 2.12, 1.96],
  temperature: [47, 48, 46, 47, 49, 47],
  conductivity: [62, 71, 66, 80, 74],
  "free-acid": [0.9, 1, 1.1, 0.8, 1],
  "total-acid": [11, 11.4, 10.8, 11.1, 11.2],
  inhibitor: [320, 310, 335, 300],
  pressure: [150, 148, 152, 150],
};
const asked = (parameter: BathParameter, value: number) => questionBathValue(parameter, value, usual[parameter]);

describe("slips of unit and decimal point", () => {
  test.each([
    ["temperature", 118, "fahrenheit-as-celsius", 47.8],
    ["temperature", 8.9, "celsius-as-fahrenheit", 48],
    ["conductivity", 0.07, "milli-as-micro", 70],
    ["conductivity", 68_000, "micro-as-milli", 68],
    ["conductivity", 700, "tenfold-high", 70],
    ["conductivity", 7, "tenfold-low", 70],
    ["ph", 0.53, "tenfold-low", 5.3],
    ["concentration", 20.5, "tenfold-high", 2.05],
    ["concentration", 0.2, "tenfold-low", 2],
    ["free-acid", 9.5, "tenfold-high", 0.95],
    ["total-acid", 1.12, "tenfold-low", 11.2],
    ["inhibitor", 32, "tenfold-low", 320],
    ["pressure", 1.5, "bar-as-kilopascal", 150],
    ["pressure", 21.8, "psi-as-kilopascal", 150.3],
  ] as const)("%s %d looks like %s: %d was meant", (parameter, value, slip, suggested) => {
    const question = asked(parameter, value);
    expect(question).toMatchObject({ parameter, value, slip });
    expect(question?.suggested).toBeCloseTo(suggested, 1);
  });
  test.each([
    ["ph", 6.08],
    ["ph", 9.9],
    ["temperature", 30],
    ["temperature", 61],
    ["conductivity", 260],
    ["concentration", 1.2],
    ["concentration", 3.4],
  ] as const)("%s %d is only far, which is what checks are for: not asked", (parameter, value) => {
    expect(asked(parameter, value)).toBeNull();
  });
  test("a rinse that scatters so widely that six spreads reach nothing is asked all the same", () => {
    const wide = [62, 40, 85, 55, 79, 49, 70, 61];
    expect(questionBathValue("conductivity", 0.062, wide)).toMatchObject({ slip: "milli-as-micro" });
    expect(questionBathValue("conductivity", 30, wide)).toBeNull();
  });
  test("what reads as before is never asked, whatever the slips", () => {
    fc.assert(
      fc.property(fc.constantFrom(...(Object.keys(usual) as BathParameter[])), fc.nat(5), (parameter, i) => {
        const value = usual[parameter][i % usual[parameter].length] as number;
        expect(asked(parameter, value)).toBeNull();
        expect(likeBefore(parameter, value, usual[parameter])).toBe(true);
      }),
    );
  });
  test("what is suggested always reads as before, and within what the instrument can give", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...(Object.keys(usual) as BathParameter[])),
        fc.double({ min: -50, max: 100_000, noNaN: true }),
        (parameter, value) => {
          const question = asked(parameter, value);
          if (question) expect(likeBefore(parameter, question.suggested, usual[parameter])).toBe(true);
        },
      ),
    );
  });
  test("with under three checks nothing is known, so nothing is asked; nor of what is no number", () => {
    expect(questionBathValue("temperature", 118, [47, 48])).toBeNull();
    expect(likeBefore("temperature", 118, [47, 48])).toBeNull();
    expect(asked("ph", Number.NaN)).toBeNull();
  });
});

describe("the wrong tank", () => {
  const conversion = { code: "Tank 3", before: { ph: usual.ph, temperature: usual.temperature } };
  const cleaner = { code: "Tank 1", before: { ph: [11.2, 11.3, 11.1, 11.4], temperature: [60, 61, 59, 60] } };
  const rinse = { code: "Tank 4", before: { conductivity: usual.conductivity } };
  const all = [conversion, cleaner, rinse];
  const round = (ph: number, temperature: number) => [
    { parameter: "ph" as const, value: ph },
    { parameter: "temperature" as const, value: temperature },
  ];
  test("a round that reads like one other tank, and not like this one, is asked", () => {
    expect(readsLikeAnother(round(11.2, 60.5), conversion, all)).toBe("Tank 1");
    expect(readsLikeAnother(round(5.3, 47), cleaner, all)).toBe("Tank 3");
  });
  test("half of it here, or like none, or like two, is not", () => {
    expect(readsLikeAnother(round(11.2, 47), conversion, all)).toBeNull();
    expect(readsLikeAnother(round(2, 85), conversion, all)).toBeNull();
    expect(readsLikeAnother(round(11.2, 60), conversion, [...all, { ...cleaner, code: "Tank 2" }])).toBeNull();
    expect(readsLikeAnother([], conversion, all)).toBeNull();
  });
});

describe("additions", () => {
  const dose: Dosing = {
    product: "Conversion concentrate",
    litres: 18,
    bath: {
      concentrate: "conversion concentrate",
      acid: "Conversion make-up acid",
      freeboardL: 160,
      maxSingleL: 25,
      targetPercent: 2.1,
      targetPh: 5.2,
    },
    elsewhere: [{ bath: "Tank 1", product: "Alkaline cleaner" }],
    advisedL: 16.5,
    percent: 1.7,
    ph: 5.5,
  };
  const of = (over: Partial<Dosing>) => valueOrThrow(questionAddition({ ...dose, ...over })).map((q) => q.question);
  test("the bath's own drum, about what is asked for: nothing to ask", () => {
    expect(of({})).toEqual([]);
    expect(of({ product: "make-up acid, conversion", litres: 6, advisedL: 6.6 })).toEqual([]);
  });
  test("a drum that belongs to another bath is named, one that nobody knows as well", () => {
    const [wrong] = valueOrThrow(questionAddition({ ...dose, product: "alkaline cleaner 25 kg" }));
    expect(wrong).toMatchObject({ question: "wrong-product", belongsTo: "Tank 1" });
    const [unknown] = valueOrThrow(questionAddition({ ...dose, product: "Drum from bay 4" }));
    expect(unknown).toMatchObject({ question: "wrong-product", belongsTo: null });
  });
  test("ten times too much, and from five times on", () => {
    expect(of({ litres: 165, bath: { ...dose.bath, freeboardL: 500, maxSingleL: null } })).toEqual(["tenfold"]);
    expect(of({ litres: 4.9, advisedL: 1 })).toEqual([]);
    expect(of({ litres: 5, advisedL: 1 })).toEqual(["tenfold"]);
    expect(of({ litres: 18, advisedL: null })).toEqual([]);
  });
  test("away from the target: strong bath made stronger, low pH made lower", () => {
    expect(of({ percent: 2.4 })).toEqual(["wrong-direction"]);
    expect(of({ product: "make-up acid", ph: 4.9 })).toEqual(["wrong-direction"]);
    expect(of({ product: "make-up acid", ph: null })).toEqual([]);
  });
  test("more than fits, more than may go in at once", () => {
    expect(of({ litres: 30, advisedL: null })).toEqual(["over-single"]);
    expect(of({ litres: 200, advisedL: null })).toEqual(["over-freeboard", "over-single"]);
  });
  test("litres that cannot be are refused", () => {
    for (const litres of [0, -1, Number.NaN])
      expect(questionAddition({ ...dose, litres })).toMatchObject({ error: { kind: "bad-input" } });
  });
  test("a drum's name is known by its words, in any order and case", () => {
    expect(sameProduct("Conversion make-up acid", "ACID (make up)")).toBe(true);
    expect(sameProduct("acid", "alkaline cleaner")).toBe(false);
    expect(sameProduct("", "acid")).toBe(false);
  });
});

describe("readiness", () => {
  const window = { lower: 4.8, upper: 5.8 };
  const ph = (value: number | null, over: Partial<ReadinessValue> = {}): ReadinessValue => ({
    bath: "Tank 3",
    parameter: "ph",
    value,
    grade: "measured",
    window,
    ...over,
  });
  test("100 in the middle, 50 at a limit, 0 half a window beyond", () => {
    expect(readiness([ph(5.3)]).index).toBe(100);
    expect(readiness([ph(5.8)]).index).toBe(50);
    expect(readiness([ph(4.8)]).index).toBe(50);
    expect(readiness([ph(5.55)]).index).toBe(88);
    expect(readiness([ph(6.05)]).index).toBe(0);
  });
  test("one-sided windows: a rinse at its limit is 50, one that reads nothing is 100", () => {
    const rinse = (value: number) =>
      readiness([ph(value, { parameter: "conductivity", window: { lower: null, upper: 150 } })]).index;
    expect(rinse(150)).toBe(50);
    expect(rinse(0)).toBe(100);
    expect(readiness([ph(42, { window: { lower: 42, upper: null } })]).index).toBe(50);
    expect(readiness([ph(0, { window: { lower: 42, upper: null } })]).index).toBe(0);
  });
  test("the worst value decides and is named; what was never checked is listed and makes the grade unknown", () => {
    const found = readiness([ph(5.3), ph(5.75, { bath: "Tank 2" }), ph(null, { bath: "Tank 1" })]);
    expect(found.limiting).toMatchObject({ bath: "Tank 2", value: 5.75 });
    expect(found.unknown).toEqual([{ bath: "Tank 1", parameter: "ph" }]);
    expect(found.grade).toBe("unknown");
    expect(readiness([ph(5.3), ph(5.2, { grade: "assumed" })]).grade).toBe("assumed");
    expect(readiness([])).toEqual({ index: null, limiting: null, unknown: [], grade: "unknown" });
    expect(readiness([ph(5, { window: { lower: null, upper: null } })]).index).toBeNull();
  });
  test("further from the middle is never better, and another value never helps", () => {
    const values = fc.double({ min: 3, max: 8, noNaN: true });
    fc.assert(
      fc.property(values, values, (a, b) => {
        const [ia, ib] = [readiness([ph(a)]).index ?? 0, readiness([ph(b)]).index ?? 0];
        if (Math.abs(a - 5.3) > Math.abs(b - 5.3)) expect(ia).toBeLessThanOrEqual(ib);
        expect(readiness([ph(a), ph(b)]).index).toBe(Math.min(ia, ib));
      }),
    );
  });
  test("a window without width, a value that is none: refused", () => {
    expect(offCentre(5, { lower: 5, upper: 5 })).toMatchObject({ error: { kind: "no-window" } });
    expect(offCentre(Number.NaN, window)).toMatchObject({ error: { kind: "not-finite" } });
    expect(scoreOf(Number.POSITIVE_INFINITY)).toBe(0);
  });
});
