import * as v from "valibot";
import { factsOf, holds, type When } from "./facts";
import risksFile from "./knowledge/risks.json";
import type { Condition, PlannedPart, Service } from "./part";
import type { CoatingSystem } from "./system";

export const likelihoods = ["likely", "possible", "seldom"] as const;
const code = v.pipe(v.string(), v.regex(/^[a-z][a-z-]*$/));
const when = v.strictObject({
  all: v.optional(v.array(v.string())),
  any: v.optional(v.array(v.string())),
  none: v.optional(v.array(v.string())),
});
const risksSchema = v.object({
  risks: v.array(
    v.strictObject({
      id: code,
      name: v.string(),
      when,
      likelihood: v.picklist(likelihoods),
      because: v.pipe(v.string(), v.minLength(12)),
      leadsTo: v.pipe(v.array(v.tuple([code, code])), v.minLength(1)),
      removedBy: v.pipe(v.array(code), v.minLength(1)),
      source: v.pipe(v.string(), v.minLength(4)),
    }),
  ),
});
export type Risk = {
  readonly id: string;
  readonly name: string;
  readonly when: When;
  readonly likelihood: (typeof likelihoods)[number];
  readonly because: string;
  /** Defect and cause, in the root-cause engine's codes. */
  readonly leadsTo: readonly (readonly [defect: string, cause: string])[];
  readonly removedBy: readonly string[];
  readonly source: string;
};

/** The risks known, checked against their schema once. Throws where the file is broken: that is ours, not the user's. */
export const knownRisks: readonly Risk[] = v.parse(risksSchema, risksFile).risks as readonly Risk[];

/**
 * The risks of a piece of work, likely ones first; with a system, those that the system leaves, without one, those that
 * the metal and the service bring by themselves.
 */
export function readRisks(
  part: PlannedPart,
  condition: Condition,
  service: Service,
  system: CoatingSystem | null,
  /** Options beyond the system that the customer took. */
  taken: ReadonlySet<string> = new Set(),
): readonly Risk[] {
  const facts = factsOf(part, condition, service, system ?? nothingDone);
  return knownRisks
    .filter((risk) => holds(risk.when, facts))
    .filter((risk) => !(system && removedBySystem(risk, system)))
    .filter((risk) => !risk.removedBy.some((option) => taken.has(option)))
    .sort((a, b) => likelihoods.indexOf(a.likelihood) - likelihoods.indexOf(b.likelihood));
}

/** What stands if nothing beyond one coat is done: shows every risk that something could remove. */
export const nothingDone: CoatingSystem = {
  preparation: "wipe",
  breakEdges: false,
  outgas: false,
  sealSeams: false,
  pretreatment: "none",
  primer: "none",
  primerUm: null,
  family: "polyester",
  coats: 1,
  topUm: [60, 90],
  curing: "one-cure",
};

/** Options that a system already holds, in the codes that risks are removed by. */
export function optionsOf(system: CoatingSystem): ReadonlySet<string> {
  const options = new Set<string>();
  // Blasting hammers grease in: it takes none off.
  if (system.preparation === "blast") options.add("blast");
  if (system.breakEdges) options.add("edge-breaking");
  if (system.outgas) options.add("outgas-bake");
  if (system.sealSeams) options.add("seam-seal");
  if (system.pretreatment === "iron-phosphate") options.add("conversion-coat").add("degrease");
  if (system.pretreatment === "zirconium") options.add("conversion-coat").add("zirconium").add("degrease");
  if (system.pretreatment === "wash") options.add("degrease");
  if (system.primer === "zinc") options.add("zinc-primer");
  if (system.primer !== "none" && system.curing !== "two-full-cures") options.add("gel-primer");
  if (system.coats > 1) options.add("two-coats");
  if (["polyester-high-weathering", "fluoropolymer"].includes(system.family)) options.add("higher-grade");
  if (system.family === "silicone") options.add("heat-resin");
  if (!["epoxy", "hybrid"].includes(system.family)) options.add("polyester-top");
  return options;
}
const removedBySystem = (risk: Risk, system: CoatingSystem): boolean => {
  const has = optionsOf(system);
  return risk.removedBy.some((option) => has.has(option));
};
