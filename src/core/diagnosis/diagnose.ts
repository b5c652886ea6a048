import { err, ok, type Result } from "../result";
import {
  actingSets,
  type Candidate,
  type Contribution,
  type Findings,
  marginals,
  priorLogOdds,
  ruledOutBy,
  spoken,
  weighedAgain,
} from "./acting-sets";
import { type Chain, chainsOf } from "./chains";
import type { Knowledge, Part } from "./knowledge";
import { type Asking, checksThatTell, type NextCheck, type Turn } from "./next-checks";

/** What one finding does to the strength of a cause, all else as it is: also where it speaks for another cause. */
export type Effect = {
  readonly finding: string;
  readonly state: "present" | "absent";
  /** Natural-log odds of acting with the finding, less those without it. */
  readonly effect: number;
  /** Why, where the knowledge of this cause speaks of it; null where it explains another cause instead. */
  readonly because: string | null;
};
export type RankedCause = {
  readonly cause: string;
  readonly label: string;
  readonly stage: string;
  /** What it is in a chain that ends in this defect. */
  readonly part: Part;
  /** How likely it is to act, 0–1. Several may act, so strengths do not add up to one. */
  readonly strength: number;
  readonly role: "primary" | "contributing" | "other" | "ruled-out";
  readonly raised: readonly Contribution[];
  readonly lowered: readonly Contribution[];
  readonly effects: readonly Effect[];
  /** The findings by which it cannot be; null unless ruled out. */
  readonly ruledOutBy: readonly string[] | null;
};
export type Diagnosis = {
  readonly kind: "diagnosis";
  readonly defect: string;
  /** The likeliest first; those ruled out last. */
  readonly causes: readonly RankedCause[];
  /** Those that act together, as chains in words: what led to what. */
  readonly chains: readonly Chain[];
  /** False when the lead is too weak to act on. */
  readonly enoughToTell: boolean;
  /** Causes between which it is not enough to tell apart; empty where it is. */
  readonly rivals: readonly string[];
  readonly used: number;
  /** Everything that can still be found out, by what it tells for its minutes; the first three are the ones offered. */
  readonly checks: readonly NextCheck[];
  readonly nextChecks: readonly NextCheck[];
  /** Answers that would put another cause first. */
  readonly turns: readonly Turn[];
};

/** From here on a cause is taken to act. */
export const ACTS_FROM = 0.5;
/** The lead must be this likely … */
const LEAD_LEAST_STRENGTH = 0.6;
/** … and raised by its own findings by this much, one of them by that much: a picture, not a hint. */
const LEAD_LEAST_RAISED = 2.4;
const LEAD_LEAST_FINDING = 1.2;
/** Of causes as likely as each other, what stood behind or set it off comes before what it did, and what let it last. */
const AHEAD: Readonly<Record<Part, number>> = { root: 0.01, trigger: 0.01, mechanism: 0, condition: -0.004 };
const CHECKS_OFFERED = 3;
const TURNS_OFFERED = 6;
/** Of a cause less likely than this it is not told what moves it. */
const LEAST_TOLD = 1e-3;
/** An effect smaller than this is not told. */
const EFFECT_LEAST = 0.05;

const logit = (p: number): number => {
  const held = Math.min(1 - 1e-9, Math.max(1e-9, p));
  return Math.log(held / (1 - held));
};

/**
 * How likely each candidate cause of a defect is to act, from findings: sets of up to three causes are weighed
 * (`actingSets`), a cause's strength is the share of the sets it is in. Unknown moves nothing; only what is so by
 * definition rules out, and is shown. `baseWeights` replaces the knowledge's own by what a site has confirmed.
 * Same input, same answer. O(findings × causes³), some milliseconds at most.
 * Failures: `unknown-defect`, `unknown-finding`, `bad-state`.
 */
export function diagnose(
  knowledge: Knowledge,
  defect: string,
  findings: Findings,
  baseWeights?: ReadonlyMap<string, number>,
  asking: Asking = {},
): Result<Diagnosis> {
  const known = knowledge.defects.get(defect);
  if (!known) return err({ kind: "unknown-defect", defect });
  for (const [finding, state] of Object.entries(findings)) {
    if (!knowledge.findings.has(finding)) return err({ kind: "unknown-finding", finding });
    if (state !== "present" && state !== "absent" && state !== "unknown")
      return err({ kind: "bad-state", finding, state });
  }
  const all = [...known.causes].map(([id, weight]) => ({
    id,
    weight: baseWeights?.get(id) ?? weight,
    ruledOutBy: ruledOutBy(knowledge.causes.get(id)?.ruledOut ?? [], findings),
  }));
  const open = all.filter((c) => c.ruledOutBy === null);
  const priors = priorLogOdds(open.map((c) => c.weight));
  const ahead = (id: string): number => AHEAD[known.parts.get(id) ?? "mechanism"];
  const candidatesWith = (said: Findings): Candidate[] =>
    open.map((c, i) => ({
      cause: c.id,
      logOdds: priors[i] as number,
      ...spoken(knowledge, known.evidence.get(c.id) ?? [], said),
    }));
  const candidates = candidatesWith(findings);
  const sets = actingSets(knowledge, candidates);
  const strengths = marginals(sets, open.length);
  const speaking = [...new Set(candidates.flatMap((c) => [...c.raised, ...c.lowered].map((x) => x.finding)))].sort();
  const again = weighedAgain(knowledge, sets);
  const inSight = again(candidates);
  const without = new Map(
    (asking.effects === false ? [] : speaking).map((finding) => {
      const { [finding]: _, ...rest } = findings;
      return [finding, again(candidatesWith(rest))] as const;
    }),
  );
  const effectsOn = (i: number): Effect[] =>
    ((inSight[i] as number) < LEAST_TOLD ? [] : [...without.keys()])
      .map((finding): Effect => {
        const row = known.evidence.get(open[i]?.id ?? "")?.find((r) => r.finding === finding);
        const state = findings[finding] as "present" | "absent";
        const speaks = row !== undefined && (state === "present" ? row.whenPresent : row.whenAbsent) !== 0;
        const effect = logit(inSight[i] as number) - logit(without.get(finding)?.[i] as number);
        return { finding, state, effect, because: speaks ? row.because : null };
      })
      .filter((e) => Math.abs(e.effect) >= EFFECT_LEAST)
      .sort((a, b) => Math.abs(b.effect) - Math.abs(a.effect) || (a.finding < b.finding ? -1 : 1));
  const order = open
    .map((c, i) => ({ c, i, strength: strengths[i] as number }))
    .sort(
      (a, b) =>
        b.strength + ahead(b.c.id) - (a.strength + ahead(a.c.id)) ||
        b.strength - a.strength ||
        (a.c.id < b.c.id ? -1 : 1),
    );
  const said = (id: string) => {
    const cause = knowledge.causes.get(id);
    return {
      cause: id,
      label: cause?.label ?? id,
      stage: cause?.stage ?? "",
      part: known.parts.get(id) ?? "mechanism",
    };
  };
  const ranked = order.map(({ c, i, strength }, place): RankedCause => {
    const { raised, lowered } = candidates[i] as Candidate;
    return {
      ...said(c.id),
      strength,
      role:
        place === 0 && raised.length > 0
          ? "primary"
          : strength >= ACTS_FROM && raised.length > 0
            ? "contributing"
            : "other",
      raised,
      lowered,
      effects: effectsOn(i),
      ruledOutBy: null,
    };
  });
  const ruledOut = all
    .filter((c) => c.ruledOutBy !== null)
    .map(
      (c): RankedCause => ({
        ...said(c.id),
        strength: 0,
        role: "ruled-out",
        ...spoken(knowledge, known.evidence.get(c.id) ?? [], findings),
        effects: [],
        ruledOutBy: c.ruledOutBy,
      }),
    );
  const [lead] = ranked;
  const raisedBy = lead?.raised.reduce((sum, c) => sum + c.weight, 0) ?? 0;
  const enoughToTell =
    !!lead &&
    lead.strength >= LEAD_LEAST_STRENGTH &&
    raisedBy >= LEAD_LEAST_RAISED &&
    lead.raised.some((c) => c.weight >= LEAD_LEAST_FINDING);
  const { checks, turns } = checksThatTell(knowledge, known, candidates, sets, findings, asking);
  return ok({
    kind: "diagnosis",
    defect,
    causes: [...ranked, ...ruledOut],
    chains: chainsOf(
      knowledge,
      ranked.filter((c) => c.strength >= ACTS_FROM && c.raised.length > 0),
    ),
    enoughToTell,
    rivals: enoughToTell ? [] : ranked.filter((c) => c.strength >= 0.5 * (lead?.strength ?? 1)).map((c) => c.cause),
    used: speaking.length,
    checks,
    nextChecks: checks.slice(0, CHECKS_OFFERED),
    turns: turns.slice(0, TURNS_OFFERED),
  });
}
