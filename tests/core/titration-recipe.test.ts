import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  type BathSetup,
  bathParameters,
  blankMlOf,
  checkBath,
  checkRecipe,
  concentrationFromTitration,
  type Dosing,
  methodRepeats,
  questionAddition,
  recipeOf,
  type TitrationRecipe,
  titrantFromBurette,
  titratedParameters,
  titrationFactor,
  washTemplates,
} from "@/core/bath";
import { valueOrThrow } from "@/core/result";

const recipe: TitrationRecipe = {
  sampleMl: 10,
  titrant: "sodium hydroxide 0.1 N",
  indicator: "5 drops of phenolphthalein",
  endPoint: "pink that stays for 15 s",
  factor: 0.25,
  caution: "",
};
const bath: BathSetup = {
  name: "Tank 3 conversion",
  stage: "conversion",
  role: "conversion",
  volumeL: 4200,
  freeboardL: 160,
  stepL: 0.5,
  maxSingleL: 25,
  roundHours: 4,
  windows: {
    concentration: { lower: 1.5, upper: 2.5 },
    "free-acid": { lower: 0.6, upper: 1.4 },
    "total-acid": { lower: 9, upper: 13 },
    inhibitor: { lower: 180, upper: 600, roundHours: 26 },
  },
  titrationFactorPercentPerMl: 0.25,
  concentratePercent: 100,
  product: "conversion concentrate",
  targetPercent: 2.1,
  targetPh: null,
  phChangePerLPerM3: null,
  acidProduct: "make-up acid",
  caution: "",
  contactS: null,
};

describe("a recipe", () => {
  test("that can be followed is taken", () => {
    expect(checkRecipe(recipe)).toEqual({ ok: true, value: recipe });
    expect(checkRecipe({ ...recipe, sampleMl: null, indicator: "" }).ok).toBe(true);
    for (const sampleMl of [0.5, 1000]) expect(checkRecipe({ ...recipe, sampleMl }).ok, `${sampleMl}`).toBe(true);
    expect(checkRecipe({ ...recipe, blankMl: 0.2 }).ok).toBe(true);
  });
  test("a blank is taken off only where one is set", () => {
    expect(blankMlOf({ ...bath, recipes: { concentration: { ...recipe, blankMl: 0.2 } } }, "concentration")).toBe(0.2);
    expect(blankMlOf({ ...bath, recipes: { concentration: recipe } }, "concentration")).toBe(0);
    expect(blankMlOf({ ...bath, recipes: { concentration: { ...recipe, blankMl: null } } }, "concentration")).toBe(0);
    expect(blankMlOf(bath, "concentration")).toBe(0);
    for (const blankMl of [0, 5]) expect(checkRecipe({ ...recipe, blankMl }).ok, `${blankMl}`).toBe(true);
    for (const blankMl of [-0.1, 5.01, Number.NaN])
      expect(checkRecipe({ ...recipe, blankMl })).toMatchObject({ error: { kind: "bad-recipe", field: "blank, mL" } });
  });
  test.each([
    [{ factor: 0 }, "value per mL"],
    [{ factor: Number.NaN }, "value per mL"],
    [{ factor: -1 }, "value per mL"],
    [{ sampleMl: 0 }, "sample, mL"],
    [{ sampleMl: 1001 }, "sample, mL"],
    [{ titrant: "  " }, "titrant"],
    [{ endPoint: "" }, "end point"],
    [{ endPoint: " " }, "end point"],
  ])("%o is refused at “%s”", (over, field) => {
    expect(checkRecipe({ ...recipe, ...over })).toMatchObject({ ok: false, error: { kind: "bad-recipe", field } });
  });
  test("gives its value its factor; without one only strength has the bath's own", () => {
    const own = {
      ...bath,
      recipes: { inhibitor: { ...recipe, factor: 60 }, concentration: { ...recipe, factor: 0.3 } },
    };
    expect(titrationFactor(own, "inhibitor")).toBe(60);
    expect(titrationFactor(own, "concentration")).toBe(0.3);
    expect(titrationFactor(bath, "concentration")).toBe(0.25);
    expect(titrationFactor(bath, "total-acid")).toBeNull();
    expect(titrationFactor({ titrationFactorPercentPerMl: null }, "concentration")).toBeNull();
    expect(titrationFactor(own, "ph")).toBeNull();
    expect(recipeOf(own, "inhibitor")?.factor).toBe(60);
    expect(recipeOf(bath, "inhibitor")).toBeNull();
  });
  test("stands in a set-up only for a value that is watched, and only whole", () => {
    for (const p of titratedParameters) expect(checkBath({ ...bath, recipes: { [p]: recipe } }).ok, p).toBe(true);
    const { inhibitor: _, ...windows } = bath.windows;
    expect(checkBath({ ...bath, windows, recipes: { inhibitor: recipe } })).toMatchObject({
      error: { kind: "bad-bath", field: "titration of inhibitor" },
    });
    expect(checkBath({ ...bath, recipes: { inhibitor: { ...recipe, factor: 0 } } })).toMatchObject({
      error: { kind: "bad-recipe" },
    });
  });
  test.each([0, -1, 169, Number.NaN])("a value's own round of %d h cannot be", (roundHours) => {
    const windows = { ...bath.windows, inhibitor: { lower: 180, upper: 600, roundHours } };
    expect(checkBath({ ...bath, windows })).toMatchObject({ error: { field: "inhibitor, round, h" } });
  });
});

describe("what a method repeats to, in the value's own unit", () => {
  test("half a step of the burette by its factor where it is titrated", () => {
    // 0.1 mL at 0.25 % a mL is 0.025 %: half of it.
    expect(methodRepeats(bath, "concentration")).toBeCloseTo(0.0125, 12);
    expect(methodRepeats({ ...bath, recipes: { inhibitor: { ...recipe, factor: 60 } } }, "inhibitor")).toBeCloseTo(3);
  });
  test("about two of the meter's last digit where it is read off one", () => {
    const meter = { titrationFactorPercentPerMl: null };
    expect(bathParameters.map((p) => [p, methodRepeats(meter, p)])).toEqual([
      ["ph", 0.02],
      ["concentration", 0.03],
      ["free-acid", 0.1],
      ["total-acid", 0.1],
      ["inhibitor", 5],
      ["temperature", 0.3],
      ["pressure", 2],
      ["conductivity", 1],
    ]);
  });
});

describe("the burette", () => {
  test("what was used is the difference of its readings, to a thousandth", () => {
    expect(titrantFromBurette(12.4, 17.5)).toEqual({ ok: true, value: 5.1 });
    expect(titrantFromBurette(0, 0)).toEqual({ ok: true, value: 0 });
  });
  test("it only runs down, and reads no less than nothing", () => {
    expect(titrantFromBurette(17.5, 12.4)).toMatchObject({ error: { kind: "burette-runs-back" } });
    expect(titrantFromBurette(-1, 3)).toMatchObject({ error: { kind: "bad-input" } });
    expect(titrantFromBurette(0, Number.NaN)).toMatchObject({ error: { kind: "bad-input" } });
  });
  test("where it starts makes no difference to the strength", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2000 }), fc.integer({ min: 30, max: 2000 }), (start, used) => {
        const titrantMl = valueOrThrow(titrantFromBurette(start / 100, (start + used) / 100));
        const strength = valueOrThrow(concentrationFromTitration({ titrantMl, blankMl: 0.2, factor: 0.25 }));
        expect(strength).toBeCloseTo((used / 100 - 0.2) * 0.25, 6);
      }),
    );
  });
});

describe("usual washes", () => {
  test("each stage of a wash is one of its own; rinses before the conversion bath are not those after it", () => {
    for (const wash of washTemplates) {
      const conversion = wash.baths.findIndex((b) => b.role === "conversion");
      for (const [i, b] of wash.baths.entries()) {
        if (b.stage === "clean-rinse") expect(i, wash.id).toBeLessThan(conversion);
        if (b.stage === "rinse") expect(i, wash.id).toBeGreaterThan(conversion);
        if (b.stage === "seal" || b.stage === "final-rinse") expect(i, wash.id).toBeGreaterThan(conversion);
      }
    }
    const nine = washTemplates.find((w) => w.id === "nine");
    expect(nine?.baths.map((b) => b.stage)).toEqual([
      "clean",
      "clean",
      "clean-rinse",
      "clean-rinse",
      "conversion",
      "rinse",
      "rinse",
      "seal",
      "final-rinse",
    ]);
  });
});

describe("an addition from a drum", () => {
  const dose: Dosing = {
    product: "Nitrite inhibitor",
    litres: 4,
    bath: {
      concentrate: "conversion concentrate",
      acid: "make-up acid",
      others: ["Nitrite inhibitor"],
      freeboardL: 160,
      maxSingleL: 25,
      targetPercent: 2.1,
      targetPh: 5.2,
    },
    elsewhere: [],
    advisedL: 0.5,
    percent: 2.4,
    ph: 4.9,
    drum: { lot: "N-20", leftL: 10, usableUntil: "2026-12-19" },
    today: "2026-11-24",
  };
  const of = (over: Partial<Dosing>) => valueOrThrow(questionAddition({ ...dose, ...over })).map((q) => q.question);
  test("of another product of the bath: what is reckoned for acid and strength says nothing of it", () => {
    expect(of({})).toEqual([]);
    expect(of({ bath: { ...dose.bath, others: [] } })).toContain("wrong-product");
  });
  test("out of date from the day after, and more than is left", () => {
    expect(of({ today: "2026-12-19" })).toEqual([]);
    expect(of({ today: "2026-12-20" })).toEqual(["drum-out-of-date"]);
    expect(of({ litres: 10 })).toEqual([]);
    expect(of({ litres: 10.1 })).toEqual(["more-than-left"]);
    expect(of({ drum: { lot: "N-21", leftL: 2, usableUntil: null }, today: "2099-01-01" })).toEqual(["more-than-left"]);
    expect(of({ drum: null, litres: 20, today: "2099-01-01" })).toEqual([]);
  });
});
