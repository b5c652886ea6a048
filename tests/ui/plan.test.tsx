import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, test } from "vitest";
import {
  advise,
  asNew,
  exposures,
  families,
  howManyHang,
  knownRisks,
  nothingDone,
  orientationsOf,
  type PlannedPart,
  partFeatures,
  routeCard,
  substrates,
} from "@/core/plan";
import { valueOrThrow } from "@/core/result";
import { FitDrawing } from "@/ui/plan/fit-drawing";
import {
  changeName,
  checkName,
  exposureName,
  familyName,
  featureName,
  lifeText,
  money,
  optionName,
  parameterText,
  questions,
  refusalText,
  routeName,
  substrateName,
  systemText,
} from "@/ui/words/plan";

const bracket: PlannedPart = {
  substrate: "hot-rolled-steel",
  features: [],
  box: { lengthMm: 400, widthMm: 300, heightMm: 200 },
  thinnestMm: 4,
  thickestMm: 6,
  massKg: 9,
  areaM2: 0.4,
  lapM: 2,
};
const life = (from: number, to: number) => ({
  years: { from, to },
  limitedBy: "rust" as const,
  rust: { from, to },
  colour: { from, to },
  basis: "",
  grade: "assumed" as const,
});

describe("every code has its word", () => {
  test("metals, features, exposures, resins", () => {
    for (const s of substrates) expect(substrateName[s], s).toBeTruthy();
    for (const f of partFeatures) expect(featureName[f], f).toBeTruthy();
    for (const e of exposures) expect(exposureName[e], e).toBeTruthy();
    for (const f of families) expect(familyName[f], f).toBeTruthy();
  });
  test("what removes a risk can be offered by name", () => {
    for (const risk of knownRisks)
      for (const code of risk.removedBy) expect(optionName[code], `${risk.id}: ${code}`).toBeTruthy();
  });
  test("what a cheaper or better system changes is said", () => {
    for (const exposure of [["indoor"], ["weather"], ["weather", "sun", "coast"], ["weather", "chemicals"]] as const)
      for (const lifeYears of [null, 8, 20]) {
        const advice = valueOrThrow(
          advise({ ...bracket, features: ["sharp-edges"] }, asNew, {
            exposure: [...exposure],
            lifeYears,
            finish: "standard",
            serviceC: null,
          }),
        );
        for (const each of [advice.cheaper, advice.better])
          for (const change of each?.changes ?? []) expect(changeName[change], change).toBeTruthy();
      }
  });
  test("every refusal says what to do", () => {
    for (const kind of [
      "epoxy-outer-in-daylight",
      "hybrid-outdoors",
      "too-thick-for-family",
      "heat-above-resin",
      "rubber-in-oven",
      "primer-cured-unscuffed",
      "undrained-hollow",
    ])
      expect(refusalText[kind], kind).toMatch(/\. .*\./);
  });
  test("every step and check of every card", () => {
    for (const system of [
      nothingDone,
      {
        ...nothingDone,
        preparation: "blast",
        pretreatment: "zirconium",
        primer: "zinc",
        primerUm: [50, 80],
        curing: "two-full-cures",
        outgas: true,
        sealSeams: true,
        breakEdges: true,
        coats: 2,
      },
    ] as const)
      for (const step of routeCard({
        part: { ...bracket, features: ["rubber-or-seals", "hollow-section"] },
        condition: { ...asNew, rust: "D", oldCoating: "known", weldSpatter: true },
        system,
        cureMetalC: 190,
        cureMinutes: 15,
        blastProfileUm: [35, 60],
        contactS: [60, 120],
        masks: 2,
      })) {
        expect(routeName[step.code], step.code).toBeTruthy();
        for (const check of step.checks) expect(checkName[check], check).toBeTruthy();
      }
  });
  test("questions are answered shortly", () => {
    for (const [question, answer] of questions) {
      expect(question.endsWith("?")).toBe(true);
      expect(answer.length).toBeLessThan(260);
    }
  });
});

describe("figures in words", () => {
  test.each([
    [0.5, 1.5, "6 months to 1.5 years"],
    [3, 5, "3 to 5 years"],
    [0.2, 0.6, "2 months to 7 months"],
    [10, 25, "10 to 25 years"],
  ])("%f to %f years is “%s”", (from, to, text) => {
    expect(lifeText(life(from, to))).toBe(text);
  });
  test.each([
    [{ name: "film", lower: 60, upper: 90, unit: "µm" }, "metric", "film 60.0–90.0 µm"],
    [{ name: "film", lower: 60, upper: 90, unit: "µm" }, "us", "film 2.36–3.54 mil"],
    [{ name: "metal", lower: 190, upper: null, unit: "°C" }, "metric", "metal at least 190 °C"],
    [{ name: "metal", lower: 190, upper: null, unit: "°C" }, "us", "metal at least 374 °F"],
    [{ name: "pieces", lower: 4, upper: 4, unit: "" }, "metric", "pieces 4"],
    [{ name: "dust", lower: null, upper: 2, unit: "grade" }, "metric", "dust up to 2 grade"],
  ] as const)("%o, %s: %s", (parameter, units, text) => {
    expect(parameterText(parameter, units)).toBe(text);
  });
  test("money in the site's currency", () => {
    expect(money(412, "GBP")).toBe("£412");
    expect(money(4.5, "GBP")).toBe("£4.50");
    expect(money(4.5, "")).toBe("4.50");
  });
  test("a system in one line", () => {
    expect(
      systemText({
        ...nothingDone,
        preparation: "blast",
        breakEdges: true,
        pretreatment: "iron-phosphate",
        primer: "zinc",
        sealSeams: true,
      }),
    ).toBe("blasted, edges broken · iron phosphate · seams sealed · zinc primer · polyester");
    expect(systemText({ ...nothingDone, coats: 2, outgas: true })).toBe(
      "wiped · no wash · outgassed · 2 coats of polyester",
    );
  });
});

describe("the rack in the oven, drawn", () => {
  test("every piece once from the side and each rack from above, all inside the oven", () => {
    const orientation = orientationsOf(bracket.box)[0];
    if (!orientation) throw new Error("no orientation");
    const oven = { lengthMm: 6000, widthMm: 1800, heightMm: 2100 };
    const rack = { widthMm: 1900, heightMm: 1600 };
    const loading = valueOrThrow(
      howManyHang({ orientation, massKg: 9, rack: { ...rack, mostKg: 400 }, oven, gapMm: 100 }),
    );
    const html = renderToStaticMarkup(
      <FitDrawing oven={oven} rack={rack} orientation={orientation} loading={loading} gapMm={100} units="metric" />,
    );
    expect(html).not.toMatch(/NaN|Infinity/);
    const pieces = (html.match(/fill="var\(--sorrel-tint\)"/g) ?? []).length;
    const columns = Math.min(loading.perRow, loading.perRack);
    expect(pieces).toBe(loading.perRack * loading.racksLong + columns * loading.racksLong * loading.racksDeep);
    for (const [, x, w] of html.matchAll(/<rect x="([\d.-]+)" y="[\d.-]+" width="([\d.]+)"/g)) {
      expect(Number(x)).toBeGreaterThanOrEqual(-0.5);
      expect(Number(x) + Number(w)).toBeLessThanOrEqual(620.5);
    }
    expect(html).toContain(`${loading.perRack} on a rack`);
  });
});
