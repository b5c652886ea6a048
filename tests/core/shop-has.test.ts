import { describe, expect, test } from "vitest";
import { hadOutside, nothingDone, optionOutside, type ShopHas } from "@/core/plan";

const neither: ShopHas = { blast: false, conversion: null, washes: false };
const all: ShopHas = { blast: true, conversion: "iron-phosphate", washes: true };

describe("what a shop cannot do itself", () => {
  test.each([
    [{ preparation: "blast", pretreatment: "zirconium" }, neither, ["blast", "zirconium"]],
    [{ preparation: "blast", pretreatment: "zirconium" }, all, ["zirconium"]],
    [{ preparation: "blast", pretreatment: "iron-phosphate" }, all, []],
    [{ pretreatment: "iron-phosphate" }, { ...all, conversion: "zirconium" }, ["iron-phosphate"]],
    [{ pretreatment: "wash" }, neither, ["wash"]],
    [{ pretreatment: "wash" }, all, []],
    [{}, neither, []],
  ] as const)("%o", (over, has, outside) => {
    expect(hadOutside({ ...nothingDone, ...over }, has)).toEqual(outside);
  });
  test.each(["blast", "sweep-blast", "zirconium", "conversion-coat", "degrease"])("%s", (option) => {
    expect(optionOutside(option, neither)).toBe(true);
    expect(optionOutside(option, { blast: true, conversion: "zirconium", washes: true })).toBe(false);
  });
  test("what needs nothing set up is never outside", () => {
    for (const option of ["zinc-primer", "seam-seal", "edge-breaking", "two-coats"])
      expect(optionOutside(option, neither), option).toBe(false);
  });
});
