import { describe, expect, test } from "vitest";
import {
  type BathSetup,
  bathParameters,
  checkBath,
  judgePanel,
  readiness,
  usualColours,
  washTemplates,
} from "@/core/bath";

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
    ph: { lower: 4.8, upper: 5.8, watchLower: 4.9, watchUpper: 5.6, reaction: { what: "Look", recheckMinutes: 30 } },
    concentration: { lower: 1.5, upper: 2.5 },
  },
  titrationFactorPercentPerMl: 0.25,
  concentratePercent: 100,
  product: "conversion concentrate",
  targetPercent: 2.1,
  targetPh: 5.2,
  phChangePerLPerM3: -0.19,
  acidProduct: "make-up acid",
  caution: "Acid: gloves, goggles",
  contactS: [60, 120],
};
const windowOf = (over: object) => ({ windows: { ph: { lower: 4.8, upper: 5.8, ...over } } });
const fieldOf = (over: object) => {
  const checked = checkBath({ ...bath, ...over } as BathSetup);
  return checked.ok ? "fine" : `${checked.error.kind}: ${checked.error.field}`;
};

describe("a bath as it is set up", () => {
  test("that can be run is", () => {
    expect(checkBath(bath)).toEqual({ ok: true, value: bath });
  });
  test.each([
    [{ name: " " }, "name"],
    [{ volumeL: 0 }, "volume, L"],
    [{ volumeL: Number.NaN }, "volume, L"],
    [{ freeboardL: -1 }, "freeboard, L"],
    [{ freeboardL: 5000 }, "freeboard, L"],
    [{ stepL: 0 }, "measure, L"],
    [{ maxSingleL: 0 }, "largest single dose, L"],
    [{ roundHours: 0 }, "round, h"],
    [{ roundHours: 200 }, "round, h"],
    [{ titrationFactorPercentPerMl: 0 }, "titration factor"],
    [{ concentratePercent: 120 }, "concentrate, %"],
    [{ targetPercent: 3 }, "target, %"],
    [{ concentratePercent: 2 }, "target, %"],
    [{ targetPh: 6 }, "target pH"],
    [{ contactS: [120, 60] }, "contact, s"],
    [{ contactS: [0, 60] }, "contact, s"],
    [{ windows: {} }, "windows"],
    [{ windows: { colour: { lower: 1, upper: 2 } } }, "colour"],
    [windowOf({ lower: 6 }), "ph, lower limit"],
    [windowOf({ lower: null, upper: null }), "ph, limits"],
    [windowOf({ upper: 15 }), "ph, upper limit"],
    [windowOf({ watchLower: 4 }), "ph, lower watch line"],
    [windowOf({ watchUpper: 5.9 }), "ph, upper watch line"],
    [windowOf({ watchLower: 5.5, watchUpper: 5.4 }), "ph, lower watch line"],
    [windowOf({ reaction: { what: " ", recheckMinutes: 30 } }), "ph, what to do when out"],
    [windowOf({ reaction: { what: "Look", recheckMinutes: 0 } }), "ph, check again after, min"],
  ])("%j is refused at its field: %s", (over, field) => {
    expect(fieldOf(over)).toBe(`bad-bath: ${field}`);
  });
  test("one-sided windows and a bath without dosing are fine", () => {
    const rinse = { windows: { conductivity: { lower: null, upper: 150, watchUpper: 110 } }, targetPercent: null };
    expect(fieldOf({ ...rinse, targetPh: null, titrationFactorPercentPerMl: null, concentratePercent: null })).toBe(
      "fine",
    );
  });
});

describe("usual washes to begin from", () => {
  test("from two to nine stages and by hand; every bath of them can be run", () => {
    const counts = washTemplates.map((t) => t.baths.length);
    expect([...new Set(counts)].sort((a, b) => a - b)).toEqual([2, 3, 4, 5, 6, 7, 9]);
    expect(washTemplates.some((t) => t.id === "hand-wand")).toBe(true);
    for (const template of washTemplates)
      for (const b of template.baths) expect(checkBath(b), `${template.id}: ${b.name}`).toMatchObject({ ok: true });
  });
  test("cleaning comes before conversion, and a rinse after it; every value out has something to do or none is claimed", () => {
    for (const { id, baths } of washTemplates) {
      const stages = baths.map((b) => b.stage);
      const conversion = stages.indexOf("conversion");
      expect(conversion, id).toBeGreaterThanOrEqual(0);
      expect(stages.slice(conversion + 1), id).toContain("rinse");
      if (stages.includes("clean")) expect(stages.indexOf("clean"), id).toBeLessThan(conversion);
      for (const b of baths) {
        expect(b.caution.length, b.name).toBeGreaterThan(5);
        for (const parameter of Object.keys(b.windows)) expect(bathParameters).toContain(parameter);
        const reactions = Object.values(b.windows).filter((w) => w?.reaction);
        expect(reactions.length, b.name).toBeGreaterThan(0);
      }
    }
  });
  test("a wash in the middle of all its windows is ready", () => {
    const values = (washTemplates.find((t) => t.id === "five")?.baths ?? []).flatMap((b, i) =>
      Object.entries(b.windows).flatMap(([parameter, window]) =>
        window && window.lower !== null && window.upper !== null
          ? [
              {
                bath: `Tank ${i + 1}`,
                parameter: parameter as "ph",
                value: (window.lower + window.upper) / 2,
                grade: "measured" as const,
                window,
              },
            ]
          : [],
      ),
    );
    expect(readiness(values)).toMatchObject({ index: 100, grade: "measured", unknown: [] });
  });
});

describe("a panel of the conversion coat", () => {
  const asked = [0.2, 0.9] as const;
  const panel = (over: object) =>
    judgePanel(
      { gPerM2: null, colour: null, look: "uniform-dull", ...over } as Parameters<typeof judgePanel>[0],
      asked,
    );
  test.each([
    [{ gPerM2: 0.5 }, "in"],
    [{ gPerM2: 0.2 }, "in"],
    [{ gPerM2: 0.19 }, "out"],
    [{ gPerM2: 1.2 }, "out"],
    [{ colour: "gold" }, "watch"],
    [{ colour: "blue" }, "watch"],
    [{ colour: "pale blue" }, "out"],
    [{ colour: "dull grey" }, "out"],
    [{ gPerM2: 0.5, look: "powdery" }, "out"],
    [{ colour: "mauve" }, "unknown"],
  ])("%j: %s", (over, result) => {
    expect(panel(over)).toBe(result);
  });
  test("a colour whose whole band lies inside is in; nothing asked is not known", () => {
    expect(judgePanel({ gPerM2: null, colour: "gold", look: "uniform-dull" }, [0.3, 1])).toBe("in");
    expect(judgePanel({ gPerM2: 0.5, colour: null, look: "uniform-dull" }, null)).toBe("unknown");
  });
  test("the usual colours follow one another without a gap, lightest first", () => {
    for (let i = 1; i < usualColours.length; i++)
      expect(usualColours[i]?.fromGPerM2).toBe(usualColours[i - 1]?.toGPerM2);
    expect(usualColours.at(-1)?.toGPerM2).toBeNull();
  });
});
