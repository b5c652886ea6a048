import { describe, expect, test } from "vitest";
import { loadKnowledge, readKnowledge } from "@/core/diagnosis";
import { type KnowledgeFiles, knowledgeFiles } from "@/core/diagnosis/knowledge-files";

type Loose = {
  -readonly [K in keyof KnowledgeFiles]: K extends "causes" | "families"
    ? // biome-ignore lint/suspicious/noExplicitAny: a file is broken on purpose, wherever.
      Record<string, any>
    : // biome-ignore lint/suspicious/noExplicitAny: a file is broken on purpose, wherever.
      any;
};
const broken = (change: (files: Loose) => void) => () => {
  const files = structuredClone(knowledgeFiles) as Loose;
  change(files);
  return readKnowledge(files);
};

describe("a knowledge file with a fault in it is refused by name", () => {
  const faults: [what: string, change: (files: Loose) => void, said: RegExp][] = [
    [
      "a finding misspelt",
      (f) => (f.causes.powder.causes["powder-lot"].evidence[0][0] = "after-lot-chanje"),
      /powder-lot names an unknown finding: after-lot-chanje/,
    ],
    [
      "a cause misspelt",
      (f) => (f.families.coverage.defects["light-coverage"].causes["faraday-reces"] = 3),
      /light-coverage names an unknown cause: faraday-reces/,
    ],
    [
      "a weight that is no number",
      (f) => (f.causes.cure.causes.overcure.evidence[0][1] = "2.6"),
      /causes\/cure, causes\.overcure\.evidence\.0\.1/,
    ],
    ["a weight out of all measure", (f) => (f.causes.cure.causes.overcure.evidence[0][1] = 26), /is over 5/],
    ["a weight without its sentence", (f) => (f.causes.cure.causes.overcure.evidence[0][3] = ""), /says too little/],
    ["a word that is none of the file's", (f) => (f.causes.cure.causes.overcure.neds = []), /neds/],
    [
      "a cause that nothing raises",
      (f) => (f.causes.cure.causes.overcure.evidence = [["whole-load", -1, 0, "Nothing raises it now"]]),
      /no finding can raise cause overcure/,
    ],
    [
      "a finding that moves nothing",
      (f) => f.vocabulary.findings.push({ id: "full-moon", group: "look", label: "The moon was full" }),
      /move nothing: full-moon/,
    ],
    [
      "a cause without knowledge",
      (f) => f.vocabulary.causes.push({ id: "gremlins", stage: "cure", label: "Gremlins" }),
      /without knowledge: gremlins/,
    ],
    [
      "a row twice",
      (f) => f.causes.cure.causes.overcure.evidence.push(["yellow-brown", 1, 0, "Said a second time"]),
      /two rows of yellow-brown/,
    ],
    ["a defect in no family", (f) => delete f.families.coverage, /in no family: light-coverage/],
    [
      "a chain to nowhere",
      (f) => f.chains.links.push(["overcure", "doom", 1, "so all is lost"]),
      /chain names an unknown cause: doom/,
    ],
    [
      "a check of nothing",
      (f) => (f.checks.checks["full-moon"] = [1, false, "Look up"]),
      /check of an unknown finding/,
    ],
    [
      "a row of a cause the defect has not",
      (f) => (f.families.cure.defects["soft-film"].here["mill-scale"] = [["no-blast", 1, 0, "Says nothing here"]]),
      /none of its causes/,
    ],
  ];
  for (const [what, change, said] of faults)
    test(what, () => {
      expect(broken(change)).toThrow(said);
    });
  test("and as they ship they are read", () => {
    expect(broken(() => {})().causes.size).toBe(loadKnowledge().causes.size);
  });
});

describe("the knowledge that ships", () => {
  const knowledge = loadKnowledge();
  test("every defect has causes that can be raised, checks and what it is taken for", () => {
    for (const defect of knowledge.defects.values()) {
      expect(defect.causes.size, defect.id).toBeGreaterThanOrEqual(4);
      for (const check of defect.firstChecks)
        expect(knowledge.findings.get(check)?.check, `${defect.id}: ${check}`).toBeTruthy();
    }
  });
  test("every cause is a cause of some defect", () => {
    const used = new Set([...knowledge.defects.values()].flatMap((d) => [...d.causes.keys()]));
    for (const cause of knowledge.causes.keys()) expect(used).toContain(cause);
  });
  test("every finding is read from the record or can be found out", () => {
    for (const finding of knowledge.findings.values())
      expect(finding.from !== null || finding.check !== null, finding.id).toBe(true);
  });
});
