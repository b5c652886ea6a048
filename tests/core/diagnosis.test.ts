import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { diagnose, type Findings, loadKnowledge } from "@/core/diagnosis";
import { valueOrThrow } from "@/core/result";

const knowledge = loadKnowledge();
type Example = { id: string; defect: string; present: string[]; absent: string[]; top: string[] };
const examples: Example[] = JSON.parse(readFileSync("tests/vectors/diagnosis-examples.json", "utf8"));
const findingsOf = (present: string[], absent: string[]): Findings =>
  Object.fromEntries([...present.map((f) => [f, "present"]), ...absent.map((f) => [f, "absent"])]);

describe("worked cases", () => {
  for (const example of examples) {
    test(`${example.id} ${example.defect}: ${example.top.join(", ")}`, () => {
      const got = valueOrThrow(diagnose(knowledge, example.defect, findingsOf(example.present, example.absent)));
      const ranked = got.causes.map((c) => c.cause);
      expect(example.top).toContain(ranked[0]);
      for (const cause of example.top) expect(ranked.slice(0, 5)).toContain(cause);
      expect(got.causes.reduce((sum, c) => sum + c.strength, 0)).toBeCloseTo(1, 9);
    });
  }
});

describe("each cause's own picture names it", () => {
  for (const [defectId, defect] of knowledge.defects) {
    if (!defect.thorough) continue;
    for (const causeId of defect.causes.keys()) {
      test(`${defectId} ← ${causeId}`, () => {
        const cause = knowledge.causes.get(causeId);
        const clear = [...(cause?.evidence ?? [])]
          .filter((e) => e.whenPresent >= 1)
          .slice(0, 3)
          .map((e) => e.finding);
        const ranked = valueOrThrow(diagnose(knowledge, defectId, findingsOf(clear, []))).causes.map((c) => c.cause);
        expect(ranked.slice(0, 3)).toContain(causeId);
      });
    }
  }
});

const allFindings = [...knowledge.findings.keys()];
const someFindings = fc.dictionary(
  fc.constantFrom(...allFindings),
  fc.constantFrom("present" as const, "absent" as const),
  { maxKeys: 12 },
);
const someDefect = fc.constantFrom(...knowledge.defects.keys());

describe("inference", () => {
  test("unknown moves nothing, order does not matter, strengths add to one", () => {
    fc.assert(
      fc.property(someDefect, someFindings, fc.constantFrom(...allFindings), (defect, findings, extra) => {
        const plain = valueOrThrow(diagnose(knowledge, defect, findings));
        const reversed = Object.fromEntries(Object.entries(findings).reverse());
        expect(valueOrThrow(diagnose(knowledge, defect, reversed)).causes).toEqual(plain.causes);
        if (!(extra in findings))
          expect(valueOrThrow(diagnose(knowledge, defect, { ...findings, [extra]: "unknown" })).causes).toEqual(
            plain.causes,
          );
        const open = plain.causes.filter((c) => c.role !== "ruled-out");
        if (open.length > 0) expect(open.reduce((sum, c) => sum + c.strength, 0)).toBeCloseTo(1, 9);
      }),
    );
  });
  test("a cause whose necessary condition is absent is ruled out, shown, and never leads", () => {
    fc.assert(
      fc.property(someDefect, someFindings, (defect, findings) => {
        const { causes } = valueOrThrow(diagnose(knowledge, defect, findings));
        expect(causes.length).toBe(knowledge.defects.get(defect)?.causes.size);
        for (const cause of causes) {
          const need = knowledge.causes.get(cause.cause)?.needs.some((n) => findings[n] === "absent");
          expect(cause.role === "ruled-out").toBe(need ?? false);
          if (need) expect(cause.strength).toBe(0);
        }
      }),
    );
  });
  test("findings that say the same thing count once", () => {
    const once = valueOrThrow(diagnose(knowledge, "soft-film", { "hold-short": "present" }));
    const thrice = valueOrThrow(
      diagnose(knowledge, "soft-film", {
        "hold-short": "present",
        "cure-index-low": "present",
        "solvent-rub-fail": "present",
      }),
    );
    const strength = (d: typeof once) =>
      d.causes.find((c) => c.cause === "undercure-hold")?.raised.reduce((sum, c) => sum + c.weight, 0);
    expect(strength(thrice)).toBe(strength(once));
  });
  test("with no findings there is not enough to tell apart, and three checks are offered", () => {
    const got = valueOrThrow(diagnose(knowledge, "adhesion-loss", {}));
    expect(got.enoughToTell).toBe(false);
    expect(got.nextChecks).toHaveLength(3);
    for (const check of got.nextChecks) expect(check.how.length).toBeGreaterThan(10);
  });
  test("a piece in the field is asked only what can be seen on it there, one in the shop what the shop can", () => {
    for (const defect of knowledge.defects.keys())
      for (const where of ["field", "shop"] as const) {
        const got = valueOrThrow(diagnose(knowledge, defect, {}, undefined, { where }));
        for (const check of got.nextChecks)
          expect(knowledge.findings.get(check.finding)?.check?.at, `${defect}, ${check.finding}`).toContain(where);
      }
    const creep = (where: "field" | "shop") =>
      valueOrThrow(diagnose(knowledge, "rust-creep", {}, undefined, { where })).nextChecks.map((c) => c.finding);
    expect(creep("field").length).toBeGreaterThan(0);
    expect(creep("field")).not.toEqual(creep("shop"));
  });
  test("what was answered is not asked again, be it that nobody can tell", () => {
    const before = valueOrThrow(diagnose(knowledge, "adhesion-loss", {})).nextChecks.map((c) => c.finding);
    const answered = new Set(before.slice(0, 1));
    const after = valueOrThrow(diagnose(knowledge, "adhesion-loss", {}, undefined, { answered })).nextChecks;
    expect(after.map((c) => c.finding)).not.toContain(before[0]);
    expect(after).toHaveLength(3);
  });
  test("bad input is refused by name", () => {
    expect(diagnose(knowledge, "melancholy", {})).toEqual({
      ok: false,
      error: { kind: "unknown-defect", defect: "melancholy" },
    });
    expect(diagnose(knowledge, "craters", { "full-moon": "present" })).toEqual({
      ok: false,
      error: { kind: "unknown-finding", finding: "full-moon" },
    });
  });
});
