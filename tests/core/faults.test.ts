import { describe, expect, test } from "vitest";
import {
  adhesionMethod,
  colourDifference,
  glossAngleFor,
  guidedTests,
  isoOfXCut,
  judgeCureTest,
  judgeFaults,
  readBenchLine,
  subKindOf,
  subKinds,
  testGuide,
  xCutGrade,
  xCutGrades,
  zoneAt,
} from "@/core/bench";
import { loadKnowledge } from "@/core/diagnosis";
import { usualAcceptance } from "@/core/site";

const faces = [
  {
    id: "F",
    zone: "B" as const,
    areas: [
      { kind: "A" as const, from: [0, 0] as const, to: [40, 50] as const, note: "" },
      { kind: "bare" as const, from: [60, 60] as const, to: [80, 80] as const, note: "seat" },
    ],
  },
  { id: "R", zone: "C" as const, areas: [] },
];
const at = (face: string | null, x: number | null, y: number | null, sizeMm: number | null, count = 1) => ({
  face,
  x,
  y,
  sizeMm,
  count,
});

describe("faults against their class", () => {
  test("the zone is of the area a place lies in, else of the face; bare areas are none", () => {
    const [f, r] = faces;
    if (!f || !r) throw new Error("no face");
    expect(zoneAt(f, 10, 10)).toBe("A");
    expect(zoneAt(f, 40, 50)).toBe("A");
    expect(zoneAt(f, 41, 50)).toBe("B");
    expect(zoneAt(f, 70, 70)).toBe("B");
    expect(zoneAt(f, null, null)).toBe("B");
    expect(zoneAt(r, 10, 10)).toBe("C");
  });
  test("so many on a face, none larger: at both limits it passes, past either it is out", () => {
    const one = (size: number, count: number) =>
      judgeFaults([at("F", 60, 20, size, count)], faces, usualAcceptance)[0]?.result;
    expect(one(1, 2)).toBe("watch");
    expect(one(1.01, 2)).toBe("out");
    expect(one(1, 3)).toBe("out");
  });
  test("faults of one face and zone add up, and the largest counts", () => {
    const [sum] = judgeFaults([at("F", 60, 20, 0.4), at("F", 90, 90, 0.9)], faces, usualAcceptance);
    expect(sum).toMatchObject({ face: "F", zone: "B", count: 2, largestMm: 0.9, result: "watch" });
    const three = judgeFaults([at("F", 60, 20, 0.4, 2), at("F", 90, 90, 0.9)], faces, usualAcceptance);
    expect(three[0]).toMatchObject({ count: 3, result: "out" });
  });
  test("a zone in plain sight within a face has its own class", () => {
    const both = judgeFaults([at("F", 10, 10, 0.2), at("F", 60, 20, 0.2)], faces, usualAcceptance);
    expect(both.map((f) => [f.zone, f.result])).toEqual([
      ["A", "out"],
      ["B", "watch"],
    ]);
  });
  test("what nobody measured is out, and so is everything with it on that face", () => {
    const [sum] = judgeFaults([at("R", 1, 1, 0.1), at("R", 2, 2, null)], faces, usualAcceptance);
    expect(sum).toMatchObject({ zone: "C", largestMm: null, result: "out" });
    const [other] = judgeFaults([at("R", 2, 2, null), at("R", 1, 1, 0.1)], faces, usualAcceptance);
    expect(other?.largestMm).toBeNull();
  });
  test("a fault that nobody placed goes by the strictest zone of the part", () => {
    expect(judgeFaults([at(null, null, null, 0.5)], faces, usualAcceptance)[0]).toMatchObject({
      face: null,
      zone: "B",
    });
    const rear = faces.slice(1);
    expect(judgeFaults([at("gone", 1, 1, 0.5)], rear, usualAcceptance)[0]).toMatchObject({ face: null, zone: "C" });
  });
  test("every sub-kind is of a defect of the atlas, and settles a finding that there is", () => {
    const { defects, findings } = loadKnowledge();
    for (const [defect, kinds] of Object.entries(subKinds)) {
      expect(defects.has(defect), defect).toBe(true);
      expect(new Set(kinds.map((k) => k.id)).size).toBe(kinds.length);
      for (const { finding } of kinds) if (finding) expect(findings.has(finding), finding).toBe(true);
    }
    expect(subKindOf("orange-peel", "coarse")?.finding).toBe("texture-coarse");
    expect(subKindOf("orange-peel", "fibre")).toBeNull();
    expect(subKindOf("orange-peel", null)).toBeNull();
  });
});

describe("how adhesion is cut", () => {
  test.each([
    ["iso", 60, "hard", { method: "cross-cut", spacingMm: 1, cuts: 6, squares: 25 }],
    ["iso", 60, "soft", { method: "cross-cut", spacingMm: 2, cuts: 6, squares: 25 }],
    ["iso", 120, "hard", { method: "cross-cut", spacingMm: 2, cuts: 6, squares: 25 }],
    ["iso", 120.5, "hard", { method: "cross-cut", spacingMm: 3, cuts: 6, squares: 25 }],
    ["iso", 250, "hard", { method: "cross-cut", spacingMm: 3, cuts: 6, squares: 25 }],
    ["iso", 251, "hard", { method: "x-cut" }],
    ["astm", 50, "hard", { method: "cross-cut", spacingMm: 1, cuts: 11, squares: 100 }],
    ["astm", 51, "hard", { method: "cross-cut", spacingMm: 2, cuts: 6, squares: 25 }],
    ["astm", 125, "hard", { method: "cross-cut", spacingMm: 2, cuts: 6, squares: 25 }],
    ["astm", 126, "hard", { method: "x-cut" }],
  ] as const)("by %s at %d µm on %s metal", (scale, um, metal, expected) => {
    expect(adhesionMethod(um, metal, scale)).toEqual({ ok: true, value: expected });
  });
  test("no film is no method", () => {
    for (const scale of ["iso", "astm"] as const)
      expect(adhesionMethod(0, "hard", scale)).toMatchObject({ ok: false, error: { kind: "bad-input" } });
  });
  test("an X-cut by what came off; a tear met exactly is the better grade", () => {
    const grade = (came: Parameters<typeof xCutGrade>[0]) => {
      const g = xCutGrade(came);
      return g.ok ? g.value : g.error.kind;
    };
    expect(grade({ off: "none" })).toBe("5A");
    expect(grade({ off: "trace" })).toBe("4A");
    expect(grade({ off: "tear", mm: 1.6 })).toBe("3A");
    expect(grade({ off: "tear", mm: 1.7 })).toBe("2A");
    expect(grade({ off: "tear", mm: 3.2 })).toBe("2A");
    expect(grade({ off: "tear", mm: 3.3 })).toBe("1A");
    expect(grade({ off: "most" })).toBe("1A");
    expect(grade({ off: "beyond" })).toBe("0A");
    expect(grade({ off: "tear", mm: 0 })).toBe("bad-input");
    expect(xCutGrades.map(isoOfXCut)).toEqual([0, 1, 2, 3, 4, 5]);
  });
});

describe("meters at the bench", () => {
  // Pairs of the published test data for CIEDE2000.
  test.each([
    [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
    [[50, 2.49, -0.001], [50, -2.49, 0.0011], 7.2195],
    [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
    [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
  ] as const)("ΔE00 of %s and %s is %d", (one, other, expected) => {
    const found = colourDifference(one, other);
    expect(found.ok && found.value).toBeCloseTo(expected, 4);
  });
  test("a colour that no meter gives is refused", () => {
    expect(colourDifference([101, 0, 0], [50, 0, 0])).toMatchObject({ ok: false, error: { kind: "bad-colour" } });
    expect(colourDifference([50, 0, 0], [50, 0, 201])).toMatchObject({ ok: false });
    expect(colourDifference([Number.NaN, 0, 0], [50, 0, 0])).toMatchObject({ ok: false });
  });
  test.each([
    ["60 91.4 GU", { kind: "gloss", angle: 60, gu: 91.4 }],
    ["85: 12,5", { kind: "gloss", angle: 85, gu: 12.5 }],
    ["20° 88 gu", { kind: "gloss", angle: 20, gu: 88 }],
    ["L 41.20 a -1.03 b -12.11", { kind: "colour", lab: [41.2, -1.03, -12.11] }],
    ["L*=41,2; a*=-1; b*=-12,1", { kind: "colour", lab: [41.2, -1, -12.1] }],
    ["d 20 mm F 1885 N", { kind: "pull", dollyMm: 20, forceN: 1885 }],
    ["d14,2 mm, F: 1.556 kN", { kind: "pull", dollyMm: 14.2, forceN: 1556 }],
  ])("reads “%s”", (line, expected) => {
    expect(readBenchLine(line)).toEqual({ ok: true, value: expected });
  });
  test.each(["", "45 91.4 GU", "60 91.4 GU?", "L 41 a 2", "d 20 F 1885", "60 1.2.3"])("refuses “%s” whole", (line) => {
    expect(readBenchLine(line)).toMatchObject({ ok: false, error: { kind: "not-a-reading" } });
  });
  test("the angle that tells glosses apart", () => {
    expect([70.1, 70, 10, 9.9].map(glossAngleFor)).toEqual([20, 60, 60, 85]);
  });
  test("smoothness by its roughest place, holidays by the most, both in whole steps", () => {
    expect(judgeCureTest("smoothness", [7, 6, 8], 7, null)).toMatchObject({ value: { value: 6, result: "out" } });
    expect(judgeCureTest("holidays", [0, 2], null, 0)).toMatchObject({ value: { value: 2, result: "out" } });
    expect(judgeCureTest("holidays", [0], null, 0)).toMatchObject({ value: { value: 0, result: "in" } });
    expect(judgeCureTest("smoothness", [0], 7, null)).toMatchObject({ error: { kind: "beyond-instrument" } });
    expect(judgeCureTest("smoothness", [6.5], 7, null)).toMatchObject({
      error: { kind: "bad-input", name: "smoothness" },
    });
    expect(judgeCureTest("gloss-20", [80, 81], null, null)).toMatchObject({ error: { kind: "too-few-readings" } });
  });
  test("each guided test has steps; the lattice says its own number", () => {
    for (const name of guidedTests) {
      const guide = testGuide(name);
      expect(guide.steps.length).toBeGreaterThan(1);
      expect(guide.after).not.toBe("");
      for (const { seconds } of guide.steps) if (seconds !== undefined) expect(seconds).toBeGreaterThan(0);
    }
    expect(testGuide("cross-cut", { spacingMm: 3, cuts: 6 }).steps[0]?.say).toContain("6 lines 3 mm apart");
    expect(testGuide("holidays").cautions.join()).toContain("High voltage");
  });
});
