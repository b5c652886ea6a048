import * as v from "valibot";
import causesFile from "./knowledge/causes.json";
import checksFile from "./knowledge/checks.json";
import defectsFile from "./knowledge/defects.json";
import vocabularyFile from "./knowledge/vocabulary.json";

const code = v.pipe(v.string(), v.regex(/^[a-z][a-z-]*$/));
const vocabularySchema = v.object({
  defects: v.array(v.object({ id: code, label: v.string(), plain: v.string() })),
  findings: v.array(v.object({ id: code, group: v.string(), label: v.string(), from: v.optional(v.string()) })),
  causes: v.array(v.object({ id: code, stage: v.string(), label: v.string() })),
});
const weight = v.pipe(v.number(), v.minValue(-5), v.maxValue(5));
const causesSchema = v.object({
  causes: v.record(
    code,
    v.object({
      needs: v.optional(v.array(code), []),
      evidence: v.array(v.tuple([code, weight, weight, v.pipe(v.string(), v.minLength(8))])),
    }),
  ),
  sameThing: v.array(v.array(code)),
});
const defectsSchema = v.object({
  depth: v.object({ thorough: v.array(code) }),
  defects: v.record(code, v.record(code, v.pipe(v.number(), v.minValue(0.1)))),
});
const checksSchema = v.object({
  fieldToo: v.array(code),
  fieldOnly: v.array(code),
  checks: v.record(code, v.tuple([v.pipe(v.number(), v.minValue(1)), v.boolean(), v.string()])),
});

export type Evidence = {
  readonly finding: string;
  readonly whenPresent: number;
  readonly whenAbsent: number;
  readonly because: string;
};
export type CauseKnowledge = {
  readonly id: string;
  readonly label: string;
  readonly stage: string;
  readonly needs: readonly string[];
  readonly evidence: readonly Evidence[];
};
export type FindingKnowledge = {
  readonly id: string;
  readonly label: string;
  readonly group: string;
  readonly from: string | null;
  readonly check: {
    readonly minutes: number;
    readonly destroysPart: boolean;
    readonly how: string;
    /** Where it can be found out: among the shop's racks and people, on the piece where it is used, or in both. */
    readonly at: readonly CheckPlace[];
  } | null;
};
export type CheckPlace = "shop" | "field";
export type Knowledge = {
  readonly defects: ReadonlyMap<
    string,
    {
      readonly id: string;
      readonly label: string;
      readonly plain: string;
      readonly thorough: boolean;
      readonly causes: ReadonlyMap<string, number>;
    }
  >;
  readonly causes: ReadonlyMap<string, CauseKnowledge>;
  readonly findings: ReadonlyMap<string, FindingKnowledge>;
  /** Finding → number of the group of findings that say the same thing. */
  readonly sameThing: ReadonlyMap<string, number>;
};

/** Reads and checks the knowledge files. Throws with the code at fault: a broken file is a bug, not data. */
export function loadKnowledge(): Knowledge {
  const vocabulary = v.parse(vocabularySchema, vocabularyFile);
  const causesRead = v.parse(causesSchema, causesFile);
  const defectsRead = v.parse(defectsSchema, defectsFile);
  const { checks, fieldToo, fieldOnly } = v.parse(checksSchema, checksFile);
  for (const id of [...fieldToo, ...fieldOnly]) if (!checks[id]) throw new RangeError(`check without a how: ${id}`);
  const placesOf = (id: string): readonly CheckPlace[] =>
    fieldOnly.includes(id) ? ["field"] : fieldToo.includes(id) ? ["shop", "field"] : ["shop"];
  const findings = new Map(
    vocabulary.findings.map((f): [string, FindingKnowledge] => {
      const check = checks[f.id];
      return [
        f.id,
        {
          id: f.id,
          label: f.label,
          group: f.group,
          from: f.from ?? null,
          check: check ? { minutes: check[0], destroysPart: check[1], how: check[2], at: placesOf(f.id) } : null,
        },
      ];
    }),
  );
  const moving = new Set<string>();
  const causes = new Map(
    vocabulary.causes.map((cause): [string, CauseKnowledge] => {
      const known = causesRead.causes[cause.id];
      if (!known) throw new RangeError(`cause without knowledge: ${cause.id}`);
      const evidence = known.evidence.map(([finding, whenPresent, whenAbsent, because]) => ({
        finding,
        whenPresent,
        whenAbsent,
        because,
      }));
      for (const row of evidence) {
        if (!findings.has(row.finding))
          throw new RangeError(`cause ${cause.id} names an unknown finding: ${row.finding}`);
        moving.add(row.finding);
      }
      for (const need of known.needs)
        if (!findings.has(need)) throw new RangeError(`cause ${cause.id} needs an unknown finding: ${need}`);
      if (!evidence.some((row) => row.whenPresent > 0)) throw new RangeError(`no finding can raise cause ${cause.id}`);
      return [cause.id, { ...cause, needs: known.needs, evidence }];
    }),
  );
  const idle = [...findings.keys()].filter((id) => !moving.has(id));
  if (idle.length > 0) throw new RangeError(`findings that move nothing: ${idle.join(", ")}`);
  const thorough = new Set(defectsRead.depth.thorough);
  const defects = new Map(
    vocabulary.defects.map((defect) => {
      const weights = Object.entries(defectsRead.defects[defect.id] ?? {});
      if (weights.length < 2) throw new RangeError(`defect with fewer than two causes: ${defect.id}`);
      for (const [cause] of weights)
        if (!causes.has(cause)) throw new RangeError(`defect ${defect.id} names an unknown cause: ${cause}`);
      return [defect.id, { ...defect, thorough: thorough.has(defect.id), causes: new Map(weights) }] as const;
    }),
  );
  const sameThing = new Map(
    causesRead.sameThing.flatMap((group, i) =>
      group.map((finding): [string, number] => {
        if (!findings.has(finding)) throw new RangeError(`same-thing group names an unknown finding: ${finding}`);
        return [finding, i];
      }),
    ),
  );
  return { defects, causes, findings, sameThing };
}
