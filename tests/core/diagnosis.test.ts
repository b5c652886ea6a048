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
      expect(got.enoughToTell).toBe(true);
    });
  }
});

type Several = { id: string; defect: string; present: string[]; absent: string[]; acts: string[]; mustNot: string[] };
const several: Several[] = JSON.parse(readFileSync("tests/vectors/diagnosis-several.json", "utf8"));
describe("several that act at once", () => {
  for (const c of several)
    test(`${c.id} ${c.defect}: ${c.acts.join(", ")}`, () => {
      const got = valueOrThrow(diagnose(knowledge, c.defect, findingsOf(c.present, c.absent)));
      const first = got.causes.slice(0, c.acts.length + 1).map((x) => x.cause);
      for (const cause of c.acts) {
        expect(first).toContain(cause);
        expect(got.causes.find((x) => x.cause === cause)?.strength).toBeGreaterThanOrEqual(0.5);
        expect(got.chains.flat().map((step) => step.cause)).toContain(cause);
      }
      for (const cause of c.mustNot) expect(first).not.toContain(cause);
    });
});

describe("each cause's own picture names it", () => {
  for (const [defectId, defect] of knowledge.defects)
    for (const [causeId, rows] of defect.evidence)
      test(`${defectId} ← ${causeId}`, () => {
        const clear: string[] = [];
        for (const row of [...rows].sort((a, b) => b.whenPresent - a.whenPresent)) {
          const excluded = knowledge.exclusive.some((g) => g.includes(row.finding) && g.some((f) => clear.includes(f)));
          const group = knowledge.countedOnce.get(row.finding);
          const again = group !== undefined && clear.some((f) => knowledge.countedOnce.get(f) === group);
          if (row.whenPresent > 0.4 && !excluded && !again && clear.length < 2) clear.push(row.finding);
        }
        const ranked = valueOrThrow(diagnose(knowledge, defectId, findingsOf(clear, []))).causes.map((c) => c.cause);
        expect(ranked.slice(0, 3), clear.join(" ")).toContain(causeId);
      });
});

const allFindings = [...knowledge.findings.keys()];
const someFindings = fc.dictionary(
  fc.constantFrom(...allFindings),
  fc.constantFrom("present" as const, "absent" as const),
  { maxKeys: 12 },
);
const someDefect = fc.constantFrom(...knowledge.defects.keys());

describe("inference", () => {
  test("unknown moves nothing, order does not matter, every strength is between none and certain", () => {
    fc.assert(
      fc.property(someDefect, someFindings, fc.constantFrom(...allFindings), (defect, findings, extra) => {
        const plain = valueOrThrow(diagnose(knowledge, defect, findings));
        const reversed = Object.fromEntries(Object.entries(findings).reverse());
        expect(valueOrThrow(diagnose(knowledge, defect, reversed)).causes).toEqual(plain.causes);
        if (!(extra in findings))
          expect(valueOrThrow(diagnose(knowledge, defect, { ...findings, [extra]: "unknown" })).causes).toEqual(
            plain.causes,
          );
        for (const c of plain.causes) {
          expect(c.strength).toBeGreaterThanOrEqual(0);
          expect(c.strength).toBeLessThanOrEqual(1);
        }
      }),
    );
  });
  test("ruled out only by what is so by definition, shown, and never before one that is not", () => {
    const byDefinition = new Set([
      "cast-metal",
      "galvanised",
      "existing-coating-under",
      "no-primer",
      "steel-hot-rolled",
    ]);
    for (const cause of knowledge.causes.values())
      for (const rule of cause.ruledOut)
        for (const finding of [...rule.absent, ...rule.present]) expect(byDefinition).toContain(finding);
    fc.assert(
      fc.property(someDefect, someFindings, (defect, findings) => {
        const { causes } = valueOrThrow(diagnose(knowledge, defect, findings));
        expect(causes.length).toBe(knowledge.defects.get(defect)?.causes.size);
        for (const [i, cause] of causes.entries()) {
          const rule = knowledge.causes
            .get(cause.cause)
            ?.ruledOut.some(
              (r) =>
                r.absent.every((f) => findings[f] === "absent") &&
                r.present.every((f) => findings[f] === "present") &&
                !r.unless.some((f) => findings[f] === "present"),
            );
          expect(cause.role === "ruled-out").toBe(rule);
          expect(cause.ruledOutBy !== null).toBe(rule);
          if (rule) {
            expect(cause.strength).toBe(0);
            expect(causes.slice(i).every((c) => c.role === "ruled-out")).toBe(true);
          }
        }
      }),
    );
  });
  test("one reading lowers a cause and rules none out; with it gone the effect is gone", () => {
    const said: Findings = { "hooks-coated": "present", "one-hook-place": "present", "ground-poor": "absent" };
    const got = valueOrThrow(diagnose(knowledge, "light-coverage", said));
    const [first] = got.causes;
    expect(first?.cause).toBe("poor-ground");
    const effect = first?.effects.find((e) => e.finding === "ground-poor")?.effect ?? 0;
    expect(effect).toBeLessThan(0);
    const { "ground-poor": _, ...rest } = said;
    const higher = valueOrThrow(diagnose(knowledge, "light-coverage", rest)).causes[0];
    const odds = (p: number) => Math.log(p / (1 - p));
    expect(odds(first?.strength ?? 0) - odds(higher?.strength ?? 0)).toBeCloseTo(effect, 3);
  });
  test("what one cause explains does not raise another beside it; a root and its mechanism raise each other", () => {
    const strength = (findings: Findings, cause: string, defect = "orange-peel") =>
      valueOrThrow(diagnose(knowledge, defect, findings)).causes.find((c) => c.cause === cause)?.strength ?? 0;
    expect(
      strength(
        { "film-low": "present", "deep-recess": "present", "only-recesses": "present" },
        "face-not-reached",
        "light-coverage",
      ),
    ).toBeLessThan(strength({ "film-low": "present" }, "face-not-reached", "light-coverage"));
    expect(strength({ "output-high": "present" }, "film-too-thick")).toBeGreaterThan(
      strength({ "kv-high": "present" }, "film-too-thick"),
    );
    const chain = valueOrThrow(diagnose(knowledge, "orange-peel", { "output-high": "present", "film-high": "present" }))
      .chains[0];
    expect(chain?.map((s) => [s.cause, s.words])).toEqual([
      ["output-too-high", null],
      ["film-too-thick", "so the film built too thick"],
    ]);
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
    const strength = (d: typeof once) => d.causes.find((c) => c.cause === "undercure-hold")?.strength;
    expect(strength(thrice)).toBeCloseTo(strength(once) ?? 0, 1);
    const raised = (d: typeof once) => d.causes.find((c) => c.cause === "undercure-hold")?.raised.length;
    expect(raised(thrice)).toBe(1);
  });
  test("what is known to be so leaves no more to ask of its like", () => {
    for (const state of ["film-high", "film-low"]) {
      const got = valueOrThrow(diagnose(knowledge, "orange-peel", { [state]: "present" }));
      for (const other of ["film-high", "film-low", "film-right"])
        expect(got.nextChecks.map((c) => c.finding)).not.toContain(other);
    }
  });
  test("an answer that would put another cause first is named, and does so", () => {
    const said: Findings = { "film-low": "present", "film-uneven": "present" };
    const got = valueOrThrow(diagnose(knowledge, "light-coverage", said));
    expect(got.turns.length).toBeGreaterThan(0);
    for (const turn of got.turns) {
      const then = valueOrThrow(diagnose(knowledge, "light-coverage", { ...said, [turn.finding]: turn.state }));
      expect(
        then.causes.slice(0, 2).map((c) => c.cause),
        turn.finding,
      ).toContain(turn.leads);
      expect(turn.leads).not.toBe(got.causes[0]?.cause);
    }
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
