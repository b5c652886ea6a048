import { describe, expect, test } from "vitest";
import { type CoatingSystem, nothingDone, planByAnswer } from "@/core/plan";

const by = (code: string, taken: boolean, over: Partial<CoatingSystem> = {}) =>
  planByAnswer({ system: { ...nothingDone, ...over }, finish: "standard" }, code, taken)?.system ?? null;

describe("a plan by the customer's answer", () => {
  test.each([
    ["zinc-primer", true, {}, { primer: "zinc", primerUm: [50, 80], curing: "primer-gelled" }],
    [
      "zinc-primer",
      false,
      { primer: "zinc", primerUm: [50, 80] as const, curing: "primer-gelled" },
      { primer: "none", primerUm: null, curing: "one-cure" },
    ],
    ["seam-seal", true, {}, { sealSeams: true, primer: "none" }],
    // Primer without sealer.
    ["seam-seal", false, { sealSeams: true, primer: "zinc" }, { sealSeams: false, primer: "zinc" }],
    ["edge-breaking", true, {}, { breakEdges: true }],
    ["outgas-bake", false, { outgas: true }, { outgas: false }],
    ["two-coats", true, {}, { coats: 2 }],
    ["two-coats", false, { coats: 2 }, { coats: 1 }],
    ["blast", true, {}, { preparation: "blast" }],
    ["blast", false, { preparation: "blast" }, { preparation: "wipe" }],
    ["conversion-coat", true, { pretreatment: "wash" }, { pretreatment: "iron-phosphate" }],
    ["conversion-coat", false, { pretreatment: "zirconium" }, { pretreatment: "wash" }],
    ["zirconium", true, { pretreatment: "iron-phosphate" }, { pretreatment: "zirconium" }],
    ["zirconium", false, { pretreatment: "zirconium" }, { pretreatment: "iron-phosphate" }],
  ] as const)("%s, taken %s", (code, taken, over, expected) => {
    expect(by(code, taken, over)).toEqual({ ...nothingDone, ...over, ...expected });
  });
  test.each([
    ["zinc-primer", false, {}],
    ["zinc-primer", true, { primer: "zinc" }],
    ["zinc-primer", false, { primer: "epoxy" }],
    ["seam-seal", false, {}],
    ["two-coats", true, { coats: 2 }],
    ["blast", false, { preparation: "sand" }],
    ["conversion-coat", true, { pretreatment: "zirconium" }],
    ["zirconium", false, { pretreatment: "iron-phosphate" }],
    ["test-panels", true, {}],
    ["weld-repair", true, {}],
  ] as const)("%s, taken %s, changes nothing that stands so already", (code, taken, over) => {
    expect(by(code, taken, over)).toBeNull();
  });
  test("a texture is a finish; a primer is cured as the shop does it", () => {
    const plan = { system: nothingDone, finish: "smooth" as const };
    expect(planByAnswer(plan, "texture-finish", true)).toEqual({ system: nothingDone, finish: "texture" });
    expect(planByAnswer(plan, "texture-finish", false)).toBeNull();
    expect(planByAnswer({ ...plan, finish: "texture" }, "texture-finish", false)?.finish).toBe("standard");
    expect(planByAnswer(plan, "zinc-primer", true, "dry-on-dry")?.system.curing).toBe("dry-on-dry");
  });
});
