import { err, ok, type Result } from "../result";
import type { CauseKnowledge, CheckPlace, Knowledge } from "./knowledge";

export type FindingState = "present" | "absent" | "unknown";
export type Findings = Readonly<Record<string, FindingState>>;
export type Contribution = {
  readonly finding: string;
  readonly state: "present" | "absent";
  readonly weight: number;
  readonly because: string;
};
export type RankedCause = {
  readonly cause: string;
  readonly label: string;
  readonly stage: string;
  /** Share of all strength, 0–1: probability-like, not a probability. */
  readonly strength: number;
  readonly role: "primary" | "contributing" | "other" | "ruled-out";
  readonly raised: readonly Contribution[];
  readonly lowered: readonly Contribution[];
  /** The necessary condition that is recorded absent; null unless ruled out. */
  readonly ruledOutBy: string | null;
};
export type NextCheck = {
  readonly finding: string;
  readonly label: string;
  readonly how: string;
  readonly minutes: number;
  readonly destroysPart: boolean;
  readonly expectedGainBits: number;
};
export type Diagnosis = {
  readonly kind: "diagnosis";
  readonly defect: string;
  readonly causes: readonly RankedCause[];
  /** False when the lead is too weak to act on. */
  readonly enoughToTell: boolean;
  readonly used: number;
  readonly nextChecks: readonly NextCheck[];
};

/** The lead must hold at least this share, and be raised by at least one finding … */
const LEAD_LEAST_STRENGTH = 0.35;
/** … and stand this factor over the next cause. */
const LEAD_LEAST_RATIO = 1.5;
/** A cause other than the first contributes when its own findings raise it by this much, net. */
const CONTRIBUTING_LEAST_NET = 1.5;
/** How likely a finding is to turn up when nothing speaks for it. */
const FINDING_PRIOR = 0.25;
/** A lost part is reckoned as this many minutes of work. */
const LOST_PART_MINUTES = 30;

type Scored = {
  readonly cause: CauseKnowledge;
  readonly raised: Contribution[];
  readonly lowered: Contribution[];
  readonly score: number;
  readonly ruledOutBy: string | null;
};

/** What may be asked next: where the piece is, and what was answered already, be it that nobody can tell. */
export type Asking = { readonly where?: CheckPlace; readonly answered?: ReadonlySet<string> };

/**
 * Ranks every candidate cause of a defect from findings. Weights are log odds added to the log of the base weight;
 * findings that say the same thing count once, by the strongest of their group on each side; unknown moves nothing;
 * a cause whose necessary condition is recorded absent is ruled out and shown. `baseWeights` replaces the knowledge's
 * own by what a site has confirmed. Same input, same answer. O(causes × findings).
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
  const scored = [...known.causes].map(([id, weight]) =>
    scoreCause(knowledge, knowledge.causes.get(id) as CauseKnowledge, baseWeights?.get(id) ?? weight, findings),
  );
  const strengths = shares(scored);
  const order = scored
    .map((s, i) => ({ s, strength: strengths[i] as number }))
    .sort((a, b) => b.strength - a.strength || (a.s.cause.id < b.s.cause.id ? -1 : 1));
  const [first, second] = order;
  const enoughToTell =
    !!first &&
    first.strength >= LEAD_LEAST_STRENGTH &&
    first.s.raised.length > 0 &&
    first.strength >= LEAD_LEAST_RATIO * (second?.strength ?? 0);
  const leadFindings = new Set(first?.s.raised.map((c) => c.finding));
  const causes = order.map(({ s, strength }, i): RankedCause => {
    const own = s.raised.filter((c) => !leadFindings.has(c.finding)).reduce((sum, c) => sum + c.weight, 0);
    const net = own + s.lowered.reduce((sum, c) => sum + c.weight, 0);
    const role =
      s.ruledOutBy !== null
        ? "ruled-out"
        : i === 0 && s.raised.length > 0
          ? "primary"
          : i > 0 && net >= CONTRIBUTING_LEAST_NET && strength >= 0.02
            ? "contributing"
            : "other";
    return {
      cause: s.cause.id,
      label: s.cause.label,
      stage: s.cause.stage,
      strength,
      role,
      raised: s.raised,
      lowered: s.lowered,
      ruledOutBy: s.ruledOutBy,
    };
  });
  const used = Object.values(findings).filter((state) => state !== "unknown").length;
  return ok({
    kind: "diagnosis",
    defect,
    causes,
    enoughToTell,
    used,
    nextChecks: nextChecks(knowledge, scored, strengths, findings, asking),
  });
}

function scoreCause(knowledge: Knowledge, cause: CauseKnowledge, weight: number, findings: Findings): Scored {
  const all: Contribution[] = [];
  for (const row of cause.evidence) {
    const state = findings[row.finding];
    if (state !== "present" && state !== "absent") continue;
    const moved = state === "present" ? row.whenPresent : row.whenAbsent;
    if (moved !== 0) all.push({ finding: row.finding, state, weight: moved, because: row.because });
  }
  const byStrength = (a: Contribution, b: Contribution) =>
    Math.abs(b.weight) - Math.abs(a.weight) || (a.finding < b.finding ? -1 : 1);
  const strongest = (side: Contribution[]): Contribution[] => {
    const seen = new Set<number>();
    return side.sort(byStrength).filter((c) => {
      const group = knowledge.sameThing.get(c.finding);
      if (group === undefined) return true;
      if (seen.has(group)) return false;
      seen.add(group);
      return true;
    });
  };
  const raised = strongest(all.filter((c) => c.weight > 0));
  const lowered = strongest(all.filter((c) => c.weight < 0));
  const score = Math.log(weight) + [...raised, ...lowered].reduce((sum, c) => sum + c.weight, 0);
  return { cause, raised, lowered, score, ruledOutBy: cause.needs.find((need) => findings[need] === "absent") ?? null };
}

function shares(scored: readonly Scored[]): number[] {
  const open = scored.filter((s) => s.ruledOutBy === null);
  if (open.length === 0) return scored.map(() => 0);
  const top = Math.max(...open.map((s) => s.score));
  const raw = scored.map((s) => (s.ruledOutBy === null ? Math.exp(s.score - top) : 0));
  const sum = raw.reduce((a, b) => a + b, 0);
  return raw.map((r) => r / sum);
}

const entropyBits = (p: readonly number[]): number => p.reduce((sum, x) => (x > 0 ? sum - x * Math.log2(x) : sum), 0);

/** Three unknown findings that would tell the leading causes apart most for their cost: expected information gain per minute. */
function nextChecks(
  knowledge: Knowledge,
  scored: readonly Scored[],
  strengths: readonly number[],
  findings: Findings,
  { where, answered }: Asking,
): NextCheck[] {
  const now = entropyBits(strengths);
  const candidates = new Set(scored.flatMap((s) => s.cause.evidence.map((row) => row.finding)));
  const checks: (NextCheck & { perMinute: number })[] = [];
  for (const id of candidates) {
    const finding = knowledge.findings.get(id);
    if (!finding?.check || findings[id] === "present" || findings[id] === "absent") continue;
    if (answered?.has(id) || (where && !finding.check.at.includes(where))) continue;
    const group = knowledge.sameThing.get(id);
    const groupKnown =
      group !== undefined &&
      Object.keys(findings).some((other) => findings[other] !== "unknown" && knowledge.sameThing.get(other) === group);
    let present = 0;
    const ifPresent: number[] = [];
    const ifAbsent: number[] = [];
    scored.forEach((s, i) => {
      const row = s.cause.evidence.find((e) => e.finding === id);
      const up = FINDING_PRIOR * Math.exp(row?.whenPresent ?? 0);
      const down = (1 - FINDING_PRIOR) * Math.exp(row?.whenAbsent ?? 0);
      const p = up / (up + down);
      const strength = strengths[i] as number;
      present += strength * p;
      ifPresent.push(strength * p);
      ifAbsent.push(strength * (1 - p));
    });
    if (present <= 0 || present >= 1) continue;
    const after =
      present * entropyBits(ifPresent.map((x) => x / present)) +
      (1 - present) * entropyBits(ifAbsent.map((x) => x / (1 - present)));
    const expectedGainBits = (now - after) * (groupKnown ? 0.5 : 1);
    const cost = finding.check.minutes + 5 + (finding.check.destroysPart ? LOST_PART_MINUTES : 0);
    checks.push({
      finding: id,
      label: finding.label,
      how: finding.check.how,
      minutes: finding.check.minutes,
      destroysPart: finding.check.destroysPart,
      expectedGainBits,
      perMinute: expectedGainBits / cost,
    });
  }
  return checks
    .filter((c) => c.expectedGainBits > 1e-6)
    .sort((a, b) => b.perMinute - a.perMinute || (a.finding < b.finding ? -1 : 1))
    .slice(0, 3)
    .map(({ perMinute: _, ...check }) => check);
}
