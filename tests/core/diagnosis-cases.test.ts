import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { diagnose, loadKnowledge } from "@/core/diagnosis";
import { valueOrThrow } from "@/core/result";

/** Made-up cases as a coater would tell them: defect, what is so, what is not so, and the cause an experienced one would name first. */
const cases: [defect: string, present: string, absent: string, cause: string][] = [
  ["orange-peel", "film-high texture-coarse sprayed-hot", "", "hot-spray-overbuild"],
  ["orange-peel", "existing-coating-under only-recoats texture-starred", "film-high", "recoat-insulation"],
  ["orange-peel", "film-right kv-high texture-starred", "existing-coating-under", "overcharging"],
  ["orange-peel", "heat-up-slow film-right whole-load", "kv-high", "slow-heat-up"],
  ["orange-peel", "powder-expired powder-damp whole-load film-right", "", "powder-aged"],
  ["orange-peel", "film-low texture-tight", "ground-poor", "film-too-thin"],
  ["orange-peel", "ground-poor one-hook-place hooks-coated", "film-high", "poor-ground"],
  ["orange-peel", "low-flow-powder film-right whole-load", "heat-up-slow kv-high", "powder-low-flow"],
  ["orange-peel", "booth-air-high filter-side", "film-high", "booth-draught"],
  ["pinholes", "galvanised prebake-missed", "cast-metal", "zinc-gas"],
  ["pinholes", "moisture-left hollow-section only-seams", "cast-metal galvanised", "trapped-moisture"],
  ["pinholes", "cast-metal only-castings prebake-too-cool", "prebake-missed", "outgas-too-cool"],
  ["pinholes", "film-high water-releasing-powder whole-load", "cast-metal galvanised", "powder-water-release"],
  ["pinholes", "solvent-flash-short only-seams", "moisture-left", "solvent-trapped"],
  ["pinholes", "heat-up-fast whole-load", "cast-metal moisture-left film-high", "fast-heat-up"],
  ["pinholes", "film-high", "cast-metal galvanised water-releasing-powder moisture-left", "film-too-thick"],
  ["soft-film", "one-oven-place oven-uneven solvent-rub-fail", "heavy-section", "oven-cold-spot"],
  ["soft-film", "schedule-of-other-powder hold-short whole-load", "", "wrong-schedule"],
  ["soft-film", "probe-check-failed solvent-rub-pass", "cure-index-low", "instrument-wrong"],
  ["soft-film", "hold-short timed-from-door whole-load", "heavy-section", "undercure-hold"],
  [
    "adhesion-loss",
    "water-break-fail solvent-wipe-missed flake-back-clean",
    "conversion-out solvent-rub-fail",
    "oil-residue",
  ],
  ["adhesion-loss", "breaks-between-coats primer-fully-cured", "no-primer", "intercoat"],
  ["adhesion-loss", "coating-weight-high conversion-out", "contact-time-short", "conversion-heavy"],
  ["adhesion-loss", "pretreatment-wrong-for-metal light-metal", "", "wrong-pretreatment"],
  ["adhesion-loss", "flash-rust-seen line-stopped-wet flake-back-rust", "hold-short", "flash-rust-before-coat"],
  ["adhesion-loss", "heavy-pieces-only heavy-section solvent-rub-fail", "one-oven-place", "undercure-mass"],
  ["adhesion-loss", "conversion-out after-bath-addition", "hold-short water-break-fail", "conversion-thin"],
  ["delamination", "flake-back-rust metal-pitted no-blast", "mill-scale-left flake-back-scale", "rust-left"],
  ["delamination", "only-edges thermal-cut-edges", "near-damage", "cut-edge-oxide"],
  ["delamination", "flake-back-clean no-blast profile-low", "mill-scale-left", "no-anchor"],
  ["delamination", "breaks-between-coats scuff-missed existing-coating-under", "old-coating-left", "intercoat"],
  ["delamination", "old-coating-left existing-coating-under breaks-between-coats", "scuff-missed", "old-coating"],
  ["rust-creep", "conversion-out coating-weight-low", "near-damage salt-exposure no-primer", "conversion-thin"],
  ["rust-creep", "cut-after-coating salt-exposure", "no-primer", "bare-cut-edge"],
  ["rust-creep", "primer-film-low salt-exposure near-damage", "no-primer", "primer-thin"],
  ["rust-creep", "near-damage impact-service", "salt-exposure conversion-out no-primer", "service-damage"],
  ["rust-creep", "low-on-structure standing-water salt-exposure", "near-damage no-primer", "salt-and-wet-service"],
  ["rust-creep", "soluble-salt-high metal-pitted", "near-damage no-primer conversion-out", "soluble-salt"],
  ["light-coverage", "hidden-face only-far-faces film-low", "deep-recess", "face-not-reached"],
  ["craters", "residue-in-crater water-break-fail", "air-wet", "oil-residue"],
  ["inclusions", "specks-other-colour colour-change-before", "fibre-shape", "cross-contamination"],
  ["inclusions", "fibre-shape lint-left", "oven-dirty", "lint-dust"],
  ["chalking", "sun-side years-in-sun weather-grade-low", "indoor-chemistry-outdoors", "weather-grade"],
  ["blistering", "liquid-in-blister soluble-salt-high", "rinse-dirty", "soluble-salt"],
  ["edge-rust", "sharp-edges high-flow-powder only-edges", "thermal-cut-edges cut-after-coating", "edge-pull-back"],
  ["seam-rust", "open-lap-seam only-seams standing-water", "", "open-seam"],
  ["flash-rust", "inhibitor-low line-stopped-wet flash-rust-seen", "", "flash-rust-before-coat"],
  ["brittle-film", "cure-index-high yellow-brown", "cooled-hard", "overcure"],
  ["bare-marks", "touched-at-flow mark-in-film-only", "crisp-edge", "marked-while-soft"],
  ["bare-marks", "one-hook-place crisp-edge", "knocked-before-cure", "rack-contact"],
  ["pinpoint-rust", "profile-high film-low through-the-face", "cast-metal", "profile-peaks"],
  ["colour-shift", "yellow-brown cure-index-high", "specks-other-colour", "overcure"],
  ["coated-fit", "fit-surface", "film-high", "masking-missed"],
  ["back-ionisation", "kv-high texture-starred", "existing-coating-under film-high", "overcharging"],
  ["sags", "film-high output-high", "sprayed-hot", "film-too-thick"],
];

const knowledge = loadKnowledge();
const words = (text: string) => text.split(" ").filter(Boolean);

describe("cases as told by a coater", () => {
  for (const [defect, present, absent, cause] of cases) {
    test(`${defect}: ${present}${absent ? ` / not ${absent}` : ""} → ${cause}`, () => {
      const findings = Object.fromEntries([
        ...words(present).map((f) => [f, "present"] as const),
        ...words(absent).map((f) => [f, "absent"] as const),
      ]);
      const { causes } = valueOrThrow(diagnose(knowledge, defect, findings));
      expect(causes.slice(0, 3).map((c) => c.cause)).toContain(cause);
      expect(causes[0]?.cause).toBe(cause);
    });
  }
});

type Told = { defect: string; present: string[]; absent: string[] };
type Own = {
  several: (Told & { acts: string[] })[];
  contradicted: (Told & { cause: string })[];
  weak: Told[];
  thin: (Told & { cause: string })[];
};
const own: Own = JSON.parse(readFileSync("tests/vectors/diagnosis-own.json", "utf8"));
const told = ({ defect, present, absent }: Told) =>
  valueOrThrow(
    diagnose(
      knowledge,
      defect,
      Object.fromEntries([
        ...present.map((f) => [f, "present"] as const),
        ...absent.map((f) => [f, "absent"] as const),
      ]),
    ),
  );
const name = ({ defect, present, absent }: Told) =>
  `${defect}: ${present.join(" ")}${absent.length > 0 ? ` / not ${absent.join(" ")}` : ""}`;

describe("all that act stand in front, with one place to spare", () => {
  for (const c of own.several)
    test(`${name(c)} → ${c.acts.join(", ")}`, () => {
      const first = told(c)
        .causes.slice(0, c.acts.length + 1)
        .map((x) => x.cause);
      expect(first).toEqual(expect.arrayContaining(c.acts));
    });
});
describe("one reading against a cause does not take it out of sight", () => {
  for (const c of own.contradicted)
    test(`${name(c)} → ${c.cause}`, () => {
      expect(
        told(c)
          .causes.slice(0, 3)
          .map((x) => x.cause),
      ).toContain(c.cause);
    });
});
describe("too little is called too little, with what would settle it", () => {
  for (const c of own.weak)
    test(name(c), () => {
      const got = told(c);
      expect(got.enoughToTell).toBe(false);
      expect(got.rivals.length).toBeGreaterThan(0);
      expect(got.nextChecks.length).toBeGreaterThan(0);
    });
});
describe("defects of which little was known", () => {
  for (const c of own.thin)
    test(`${name(c)} → ${c.cause}`, () => {
      expect(told(c).causes[0]?.cause).toBe(c.cause);
    });
});
