import * as v from "valibot";
import {
  causesSchema,
  chainsSchema,
  checksSchema,
  familySchema,
  findingsSchema,
  type KnowledgeFiles,
  knowledgeFiles,
  type parts,
  vocabularySchema,
} from "./knowledge-files";

/** What a cause is in a chain. */
export type Part = (typeof parts)[number];
export type Evidence = {
  readonly finding: string;
  /** Natural-log odds that the finding adds where it is so, and where it is not so. */
  readonly whenPresent: number;
  readonly whenAbsent: number;
  readonly because: string;
};
/** By definition it cannot be: all of these absent and all of those present, and none of `unless`. */
export type RuledOut = {
  readonly absent: readonly string[];
  readonly present: readonly string[];
  readonly unless: readonly string[];
};
export type CauseKnowledge = {
  readonly id: string;
  readonly label: string;
  readonly stage: string;
  readonly part: Part;
  readonly ruledOut: readonly RuledOut[];
  /** What it looks like whatever the defect. */
  readonly evidence: readonly Evidence[];
};
export type CheckPlace = "shop" | "field";
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
export type DefectKnowledge = {
  readonly id: string;
  readonly label: string;
  readonly plain: string;
  readonly family: string;
  /** Cause → base weight: how common it is in shops, on one scale within the defect. */
  readonly causes: ReadonlyMap<string, number>;
  /** Cause → what it is in a chain that ends in this defect. */
  readonly parts: ReadonlyMap<string, Part>;
  /** Cause → its evidence for this defect: the cause's own, with what is otherwise here laid over it. */
  readonly evidence: ReadonlyMap<string, readonly Evidence[]>;
  readonly firstChecks: readonly string[];
  /** Defects it is taken for, and how to tell them apart. */
  readonly takenFor: readonly { readonly defect: string; readonly tell: string }[];
};
export type Link = {
  readonly from: string;
  readonly to: string;
  readonly weight: number;
  readonly words: string;
};
export type Knowledge = {
  readonly defects: ReadonlyMap<string, DefectKnowledge>;
  readonly causes: ReadonlyMap<string, CauseKnowledge>;
  readonly findings: ReadonlyMap<string, FindingKnowledge>;
  readonly families: readonly {
    readonly id: string;
    readonly label: string;
    readonly about: string;
    readonly defects: readonly string[];
  }[];
  readonly links: readonly Link[];
  /** Finding → the group of which a cause counts the strongest only. */
  readonly countedOnce: ReadonlyMap<string, number>;
  /** Finding → the group that says one thing: one cause explains it for all. */
  readonly sameThing: ReadonlyMap<string, number>;
  /** Finding → the group of which each alone is enough: where one is so, the others not being so says nothing. */
  readonly alternatives: ReadonlyMap<string, number>;
  /** Findings of which only one can be so. */
  readonly exclusive: readonly (readonly string[])[];
};

const evidenceOf = (rows: readonly (readonly [string, number, number, string])[]): Evidence[] =>
  rows.map(([finding, whenPresent, whenAbsent, because]) => ({ finding, whenPresent, whenAbsent, because }));

/** Rows laid over others: one of the same finding takes its place, a new one is added. */
export function laidOver(under: readonly Evidence[], over: readonly Evidence[]): Evidence[] {
  const rows = new Map(under.map((row) => [row.finding, row]));
  for (const row of over) rows.set(row.finding, row);
  return [...rows.values()];
}

function parsed<S extends v.GenericSchema>(schema: S, file: unknown, name: string): v.InferOutput<S> {
  const read = v.safeParse(schema, file);
  if (read.success) return read.output;
  const [issue] = read.issues;
  throw new RangeError(`knowledge file ${name}, ${v.getDotPath(issue) ?? "its top"}: ${issue.message}`);
}

let loaded: Knowledge | null = null;
/** The knowledge that ships with the app, read and checked once. Throws with the file and the code at fault: a broken file is a bug, not data. */
export function loadKnowledge(): Knowledge {
  loaded ??= readKnowledge(knowledgeFiles);
  return loaded;
}

/** Reads and checks knowledge files: every code known, no cause that nothing raises, no finding that moves nothing, no row twice. */
export function readKnowledge(files: KnowledgeFiles): Knowledge {
  const vocabulary = parsed(vocabularySchema, files.vocabulary, "vocabulary");
  const { sameThing, steps, alternatives, exclusive } = parsed(findingsSchema, files.findings, "findings");
  const { links } = parsed(chainsSchema, files.chains, "chains");
  const findings = readFindings(vocabulary.findings, files.checks);
  const moving = new Set<string>();
  const checkRows = (rows: readonly Evidence[], where: string) => {
    const seen = new Set<string>();
    for (const row of rows) {
      if (!findings.has(row.finding)) throw new RangeError(`${where} names an unknown finding: ${row.finding}`);
      if (seen.has(row.finding)) throw new RangeError(`${where} has two rows of ${row.finding}`);
      seen.add(row.finding);
      if (row.whenPresent !== 0 || row.whenAbsent !== 0) moving.add(row.finding);
    }
  };
  const known = new Map(
    Object.entries(files.causes).flatMap(([name, file]) =>
      Object.entries(parsed(causesSchema, file, `causes/${name}`).causes),
    ),
  );
  const causes = new Map(
    vocabulary.causes.map((cause): [string, CauseKnowledge] => {
      const own = known.get(cause.id);
      if (!own) throw new RangeError(`cause without knowledge: ${cause.id}`);
      known.delete(cause.id);
      const evidence = evidenceOf(own.evidence);
      checkRows(evidence, `cause ${cause.id}`);
      for (const rule of own.ruledOut)
        for (const finding of [...rule.absent, ...rule.present, ...rule.unless])
          if (!findings.has(finding))
            throw new RangeError(`cause ${cause.id} is ruled out by an unknown finding: ${finding}`);
      if (!evidence.some((row) => row.whenPresent > 0)) throw new RangeError(`no finding can raise cause ${cause.id}`);
      return [cause.id, { ...cause, part: own.part, ruledOut: own.ruledOut, evidence }];
    }),
  );
  for (const id of known.keys()) throw new RangeError(`knowledge of an unknown cause: ${id}`);
  const defects = new Map<string, DefectKnowledge>();
  const families = Object.entries(files.families).map(([family, file]) => {
    const read = parsed(familySchema, file, `families/${family}`);
    for (const [id, own] of Object.entries(read.defects)) {
      const said = vocabulary.defects.find((d) => d.id === id);
      if (!said) throw new RangeError(`family ${family} names an unknown defect: ${id}`);
      if (defects.has(id)) throw new RangeError(`defect ${id} is in two families`);
      if (Object.keys(own.causes).length < 2) throw new RangeError(`defect ${id} has fewer than two causes`);
      for (const cause of [...Object.keys(own.causes), ...Object.keys(own.here), ...Object.keys(own.parts)])
        if (!causes.has(cause)) throw new RangeError(`defect ${id} names an unknown cause: ${cause}`);
      for (const cause of [...Object.keys(own.here), ...Object.keys(own.parts)])
        if (!(cause in own.causes))
          throw new RangeError(`defect ${id} speaks of ${cause}, which is none of its causes`);
      for (const finding of own.firstChecks)
        if (!findings.has(finding)) throw new RangeError(`defect ${id} checks an unknown finding: ${finding}`);
      for (const [other] of own.takenFor)
        if (!vocabulary.defects.some((d) => d.id === other))
          throw new RangeError(`defect ${id} is taken for an unknown one: ${other}`);
      const evidence = new Map<string, readonly Evidence[]>();
      for (const cause of Object.keys(own.causes)) {
        const here = evidenceOf(own.here[cause] ?? []);
        checkRows(here, `defect ${id}, cause ${cause}`);
        const rows = laidOver(causes.get(cause)?.evidence ?? [], here);
        if (!rows.some((row) => row.whenPresent > 0)) throw new RangeError(`no finding can raise ${cause} for ${id}`);
        evidence.set(cause, rows);
      }
      defects.set(id, {
        ...said,
        family,
        causes: new Map(Object.entries(own.causes)),
        parts: new Map(Object.keys(own.causes).map((c) => [c, own.parts[c] ?? causes.get(c)?.part ?? "mechanism"])),
        evidence,
        firstChecks: own.firstChecks,
        takenFor: own.takenFor.map(([defect, tell]) => ({ defect, tell })),
      });
    }
    return { id: family, label: read.label, about: read.about, defects: Object.keys(read.defects) };
  });
  for (const { id } of vocabulary.defects) if (!defects.has(id)) throw new RangeError(`defect in no family: ${id}`);
  const idle = [...findings.keys()].filter((id) => !moving.has(id));
  if (idle.length > 0) throw new RangeError(`findings that move nothing: ${idle.join(", ")}`);
  const grouped = (groups: readonly (readonly string[])[]) =>
    new Map(
      groups.flatMap((group, i) =>
        group.map((finding): [string, number] => {
          if (!findings.has(finding)) throw new RangeError(`a group names an unknown finding: ${finding}`);
          return [finding, i];
        }),
      ),
    );
  grouped(exclusive);
  for (const [from, to] of links)
    for (const cause of [from, to])
      if (!causes.has(cause)) throw new RangeError(`a chain names an unknown cause: ${cause}`);
  return {
    defects: new Map(vocabulary.defects.map((d) => [d.id, defects.get(d.id) as DefectKnowledge])),
    causes,
    findings,
    families,
    links: links.map(([from, to, weight, words]) => ({ from, to, weight, words })),
    countedOnce: grouped([...sameThing, ...steps]),
    sameThing: grouped(sameThing),
    alternatives: grouped(alternatives),
    exclusive,
  };
}

function readFindings(
  said: v.InferOutput<typeof vocabularySchema>["findings"],
  file: unknown,
): ReadonlyMap<string, FindingKnowledge> {
  const { checks, fieldToo, fieldOnly } = parsed(checksSchema, file, "checks");
  for (const id of [...fieldToo, ...fieldOnly]) if (!checks[id]) throw new RangeError(`check without a how: ${id}`);
  const places = (id: string): readonly CheckPlace[] =>
    fieldOnly.includes(id) ? ["field"] : fieldToo.includes(id) ? ["shop", "field"] : ["shop"];
  const findings = new Map(
    said.map((f): [string, FindingKnowledge] => {
      const check = checks[f.id];
      return [
        f.id,
        {
          id: f.id,
          label: f.label,
          group: f.group,
          from: f.from ?? null,
          check: check ? { minutes: check[0], destroysPart: check[1], how: check[2], at: places(f.id) } : null,
        },
      ];
    }),
  );
  for (const id of Object.keys(checks))
    if (!findings.has(id)) throw new RangeError(`check of an unknown finding: ${id}`);
  return findings;
}
