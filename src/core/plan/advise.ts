import { err, type Failure, ok, type Result } from "../result";
import type { EvidenceGrade } from "../verdict";
import { factsOf } from "./facts";
import life from "./knowledge/life.json";
import { type Condition, checkPart, type PlannedPart, type Service } from "./part";
import { type Risk, readRisks } from "./risks";
import type { CoatingSystem, Family } from "./system";

/** A site's choices where good coaters differ; a job may choose otherwise. */
export type Schools = {
  readonly conversion: "iron-phosphate" | "zirconium";
  readonly primerCuring: "primer-gelled" | "dry-on-dry" | "two-full-cures";
  readonly outgasAlwaysForCastings: boolean;
  readonly preparation: "blast" | "sand";
};
export const usualSchools: Schools = {
  conversion: "iron-phosphate",
  primerCuring: "primer-gelled",
  outgasAlwaysForCastings: true,
  preparation: "blast",
};

export type Years = { readonly from: number; readonly to: number };
export type ExpectedLife = {
  readonly years: Years;
  /** Which comes first: rust, or the colour going. */
  readonly limitedBy: "rust" | "colour";
  readonly rust: Years;
  readonly colour: Years;
  readonly basis: string;
  readonly grade: EvidenceGrade;
};
export type AdvisedSystem = {
  readonly system: CoatingSystem;
  readonly life: ExpectedLife;
  /** 100 is wiped metal with one coat of standard polyester. */
  readonly relativeCost: number;
  readonly risks: readonly Risk[];
  /** Where it differs from the recommended one: what is left out or added. */
  readonly changes: readonly string[];
};
export type Refusal = Failure & { readonly kind: RefusalKind };
export type RefusalKind =
  | "epoxy-outer-in-daylight"
  | "hybrid-outdoors"
  | "too-thick-for-family"
  | "heat-above-resin"
  | "heat-above-primer"
  | "bake-takes-strength"
  | "rubber-in-oven"
  | "primer-cured-unscuffed"
  | "undrained-hollow";
export type Advice = {
  readonly kind: "advice";
  readonly recommended: AdvisedSystem;
  readonly cheaper: AdvisedSystem | null;
  readonly better: AdvisedSystem | null;
  /** What no system helps: the part must be changed first. */
  readonly stops: readonly Refusal[];
};

/** What keeps a metal that rusts, from least to most; how long a coating stands goes by it first of all. */
export const protections = ["bare", "light", "blasted", "primed"] as const;
export type Protection = (typeof protections)[number];
/** Of a system: primed, else blasted, else washed only, else nothing under the film. */
export const protectionOf = (system: Pick<CoatingSystem, "primer" | "preparation" | "pretreatment">): Protection =>
  system.primer !== "none"
    ? "primed"
    : system.preparation === "blast"
      ? "blasted"
      : system.pretreatment === "none"
        ? "bare"
        : "light";

const severity = (facts: ReadonlySet<string>): "indoor" | "weather" | "severe" =>
  facts.has("wet-salt") || facts.has("exposure:standing-water")
    ? "severe"
    : facts.has("outdoors")
      ? "weather"
      : "indoor";
const light = (facts: ReadonlySet<string>): "indoor" | "weather" | "sun" =>
  facts.has("exposure:sun") ? "sun" : facts.has("outdoors") ? "weather" : "indoor";
const years = (pair: readonly number[]): Years => ({ from: pair[0] as number, to: pair[1] as number });

/** Expected life by exposure, a range with its basis: whichever of rust and colour comes first. Graded assumed: a table, not this shop's record. */
export function expectedLife(
  part: PlannedPart,
  condition: Condition,
  service: Service,
  system: CoatingSystem,
): ExpectedLife {
  const facts = factsOf(part, condition, service, system);
  const where = severity(facts);
  const protection = protectionOf(system);
  const rusts = facts.has("metal:rusts");
  const unsafe = (facts.has("condition:scale") || facts.has("condition:rust")) && system.preparation !== "blast";
  const rust = years(rusts ? life.rust[where][unsafe ? "bare" : protection] : life.rustFree[where]);
  const colour = years(life.colour[light(facts)][system.family]);
  const limitedBy = rust.to <= colour.to ? "rust" : "colour";
  return {
    years: { from: Math.min(rust.from, colour.from), to: Math.min(rust.to, colour.to) },
    limitedBy,
    rust,
    colour,
    basis: life.basis,
    grade: "assumed",
  };
}

/** How a life asked for stands against what the system usually reaches: within it, at the edge of it, or more than it bears. */
export function judgeLife(asked: number | null, life: ExpectedLife): "in" | "watch" | "out" | "unknown" {
  if (asked === null) return "unknown";
  return asked <= life.years.from ? "in" : asked <= life.years.to ? "watch" : "out";
}

/** Cost against wiped metal with one coat of standard polyester, which is 100. */
export function relativeCost(system: CoatingSystem): number {
  const c = life.relativeCost;
  return (
    c.base +
    c[system.preparation] +
    (system.breakEdges ? c.breakEdges : 0) +
    (system.outgas ? c.outgas : 0) +
    (system.sealSeams ? c.sealSeams : 0) +
    c[system.pretreatment] +
    (system.primer === "zinc" ? c.zincPrimer : system.primer === "epoxy" ? c.epoxyPrimer : 0) +
    (system.coats - 1) * c.secondCoat +
    (system.curing === "two-full-cures" ? c["two-full-cures"] : 0) +
    c.family[system.family]
  );
}

/** What cannot work, each with its values. Empty where nothing speaks against it. A person may overrule with a reason; nothing here is hidden by that. */
export function refusals(part: PlannedPart, service: Service, system: CoatingSystem): readonly Refusal[] {
  const out: Refusal[] = [];
  const daylight = service.exposure.some((e) => ["weather", "sun", "coast", "salt", "standing-water"].includes(e));
  if (system.family === "epoxy" && daylight)
    out.push({ kind: "epoxy-outer-in-daylight", colourYears: life.colour.weather.epoxy });
  if (system.family === "hybrid" && daylight)
    out.push({ kind: "hybrid-outdoors", colourYears: life.colour.weather.hybrid });
  const thickestUm = life.thickestUm[system.family];
  if (system.topUm[1] > thickestUm)
    out.push({ kind: "too-thick-for-family", family: system.family, askedUm: system.topUm[1], thickestUm });
  const limitC = life.serviceLimitC[system.family];
  if (service.serviceC !== null && service.serviceC > limitC)
    out.push({ kind: "heat-above-resin", family: system.family, serviceC: service.serviceC, limitC });
  // Zinc primers are bound by epoxy: under a hot top coat they go first.
  if (service.serviceC !== null && system.primer !== "none" && service.serviceC > life.serviceLimitC.epoxy)
    out.push({
      kind: "heat-above-primer",
      primer: system.primer,
      serviceC: service.serviceC,
      limitC: life.serviceLimitC.epoxy,
    });
  if (system.outgas && losesStrength(part)) out.push({ kind: "bake-takes-strength" });
  if (part.features.includes("rubber-or-seals")) out.push({ kind: "rubber-in-oven" });
  if (part.features.includes("hollow-section") && part.features.includes("no-drain-holes"))
    out.push({ kind: "undrained-hollow" });
  if (system.curing === "two-full-cures" && system.preparation === "wipe" && system.primer !== "none")
    out.push({ kind: "primer-cured-unscuffed" });
  return out;
}

/** Heat-treated light metal: a bake hotter than its cure is for its maker to allow. */
const losesStrength = (part: PlannedPart): boolean =>
  part.features.includes("heat-treated") && (part.substrate === "aluminium" || part.substrate === "cast-aluminium");

const stopsPart: readonly RefusalKind[] = ["rubber-in-oven", "undrained-hollow"];

/**
 * From metal, condition, service and life asked for to a system, with a cheaper and a better one beside it: what each
 * gives up, the life to expect and the cost against the others. Failures: those of `checkPart`, `no-exposure`,
 * `bad-life` (years not over 0), `hotter-than-any-resin` (°C and the most any takes).
 */
export function advise(
  part: PlannedPart,
  condition: Condition,
  service: Service,
  schools: Schools = usualSchools,
): Result<Advice> {
  const checked = checkPart(part);
  if (!checked.ok) return checked;
  if (service.exposure.length === 0) return err({ kind: "no-exposure" });
  if (service.lifeYears !== null && !(service.lifeYears > 0 && service.lifeYears <= 100))
    return err({ kind: "bad-life", years: service.lifeYears });
  const hottest = Math.max(...Object.values(life.serviceLimitC));
  if (service.serviceC !== null && service.serviceC > hottest)
    return err({ kind: "hotter-than-any-resin", serviceC: service.serviceC, mostC: hottest });
  const described = (system: CoatingSystem, changes: readonly string[]): AdvisedSystem => ({
    system,
    life: expectedLife(part, condition, service, system),
    relativeCost: relativeCost(system),
    risks: readRisks(part, condition, service, system),
    changes,
  });
  const system = recommend(part, condition, service, schools);
  const recommended = described(system, []);
  const works = (s: CoatingSystem) => refusals(part, service, s).every((r) => stopsPart.includes(r.kind));
  const less = cheaperOf(system, condition).find(([s]) => works(s));
  const more = betterOf(system, part, service).find(([s]) => works(s));
  return ok({
    kind: "advice",
    recommended,
    cheaper: less ? described(less[0], [less[1]]) : null,
    better: more ? described(more[0], [more[1]]) : null,
    stops: refusals(part, service, system).filter((r) => stopsPart.includes(r.kind)),
  });
}

function recommend(part: PlannedPart, condition: Condition, service: Service, schools: Schools): CoatingSystem {
  const facts = factsOf(part, condition, service, null);
  const where = severity(facts);
  const outdoors = where !== "indoor";
  const rusts = facts.has("metal:rusts");
  const dirty = ["condition:scale", "condition:rust", "condition:old-coating"].some((f) => facts.has(f));
  const family = familyFor(facts, service);
  const wantsPrimer =
    outdoors && rusts && (where === "severe" || facts.has("exposure:knocks") || (service.lifeYears ?? 0) > 5);
  const saltyLight = where === "severe" && (facts.has("metal:light") || facts.has("metal:galvanised"));
  // No primer bears what a silicone is chosen for.
  const primer =
    (service.serviceC ?? 0) > life.serviceLimitC.epoxy ? "none" : wantsPrimer ? "zinc" : saltyLight ? "epoxy" : "none";
  const preparation = rusts
    ? dirty || (outdoors && (part.substrate === "hot-rolled-steel" || wantsPrimer))
      ? schools.preparation
      : outdoors
        ? "sand"
        : "wipe"
    : facts.has("condition:old-coating")
      ? schools.preparation
      : part.substrate === "stainless" || part.substrate === "galvanised"
        ? "sand"
        : "wipe";
  return {
    // Old coating of unknown kind, scale or rust are never sanded over where it must last outdoors.
    preparation: dirty && outdoors && rusts ? "blast" : preparation,
    breakEdges: rusts && outdoors && (facts.has("edge:thermal") || facts.has("edge:sharp")),
    outgas:
      !losesStrength(part) &&
      (part.substrate === "galvanised" || (facts.has("metal:cast") && schools.outgasAlwaysForCastings)),
    sealSeams: rusts && outdoors && facts.has("feature:open-lap-seam"),
    pretreatment: !outdoors
      ? "wash"
      : facts.has("metal:light") || part.substrate === "galvanised" || part.substrate === "stainless"
        ? "zirconium"
        : schools.conversion,
    primer,
    primerUm: primer === "none" ? null : [50, 80],
    family,
    coats: 1,
    topUm: family === "silicone" ? [25, 50] : family === "fluoropolymer" ? [50, 80] : [60, 90],
    curing: primer === "none" ? "one-cure" : schools.primerCuring,
  };
}

function familyFor(facts: ReadonlySet<string>, service: Service): Family {
  if (service.serviceC !== null && service.serviceC > life.serviceLimitC.polyester) return "silicone";
  if (facts.has("exposure:chemicals") && !facts.has("outdoors")) return "epoxy";
  if (facts.has("exposure:chemicals")) return "polyurethane";
  // Acrylic dust craters every other powder in the shop: a clear is a polyester unless a person chooses otherwise.
  if (!facts.has("outdoors")) return facts.has("finish:clear") ? "polyester" : "hybrid";
  if (facts.has("exposure:sun") && (service.lifeYears ?? 0) > 10) return "fluoropolymer";
  if (facts.has("exposure:sun") && (facts.has("exposure:coast") || (service.lifeYears ?? 0) > 4))
    return "polyester-high-weathering";
  return "polyester";
}

/** Ways to make it cheaper, the one that gives up least first. */
function cheaperOf(system: CoatingSystem, condition: Condition): [CoatingSystem, string][] {
  const out: [CoatingSystem, string][] = [];
  if (system.family === "fluoropolymer")
    out.push([
      { ...system, family: "polyester-high-weathering", topUm: [60, 90] },
      "high-weathering-for-fluoropolymer",
    ]);
  if (system.family === "polyester-high-weathering") out.push([{ ...system, family: "polyester" }, "standard-grade"]);
  if (system.primer !== "none")
    out.push([{ ...system, primer: "none", primerUm: null, curing: "one-cure" }, "no-primer"]);
  if (system.sealSeams) out.push([{ ...system, sealSeams: false }, "no-seam-seal"]);
  if (system.preparation === "blast" && condition.oldCoating === "none")
    out.push([{ ...system, preparation: "sand" }, "sanded-not-blasted"]);
  if (system.breakEdges) out.push([{ ...system, breakEdges: false }, "edges-as-cut"]);
  if (system.family === "polyurethane") out.push([{ ...system, family: "polyester" }, "standard-grade"]);
  return out;
}

/** Ways to make it last longer or look better, what the service asks for most first. */
function betterOf(system: CoatingSystem, part: PlannedPart, service: Service): [CoatingSystem, string][] {
  const out: [CoatingSystem, string][] = [];
  const outdoors = service.exposure.some((e) => ["weather", "sun", "coast", "salt", "standing-water"].includes(e));
  const rusts = ["hot-rolled-steel", "cold-rolled-steel", "cast-iron"].includes(part.substrate);
  const primed = (s: CoatingSystem): CoatingSystem => ({
    ...s,
    preparation: "blast",
    primer: "zinc",
    primerUm: [50, 80],
    curing: "primer-gelled",
  });
  const bearsPrimer = (service.serviceC ?? 0) <= life.serviceLimitC.epoxy;
  if (outdoors && rusts && bearsPrimer && system.primer === "none") out.push([primed(system), "zinc-primer"]);
  if (outdoors && system.family === "polyester")
    out.push([{ ...system, family: "polyester-high-weathering" }, "higher-grade"]);
  if (outdoors && system.family === "polyester-high-weathering")
    out.push([{ ...system, family: "fluoropolymer", topUm: [50, 80] }, "fluoropolymer"]);
  if (!outdoors && system.preparation === "wipe" && rusts) out.push([{ ...system, preparation: "blast" }, "blast"]);
  if (system.coats === 1 && system.family !== "silicone") out.push([{ ...system, coats: 2 }, "second-coat"]);
  return out;
}
