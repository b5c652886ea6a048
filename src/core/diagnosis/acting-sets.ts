import type { Evidence, Knowledge, RuledOut } from "./knowledge";

export type FindingState = "present" | "absent" | "unknown";
export type Findings = Readonly<Record<string, FindingState>>;
export type Contribution = {
  readonly finding: string;
  readonly state: "present" | "absent";
  /** Natural-log odds, as the knowledge has it. */
  readonly weight: number;
  readonly because: string;
};

/** One cause of a defect, with its share before anything was found and what the findings say of it. */
export type Candidate = {
  readonly cause: string;
  readonly logOdds: number;
  readonly raised: readonly Contribution[];
  readonly lowered: readonly Contribution[];
};

/** How many causes act at a time, on average, before anything is known. */
const CAUSES_EXPECTED = 1.9;
const LIKELIEST_PRIOR = 0.45;
/** How much more than their face value the weights count: what makes strengths come true on the simulated incidents (`docs/methods.md`). */
const EVIDENCE_SCALE = 1.3;

/** The rule that rules a cause out, and the findings that do so; null where none does. */
export function ruledOutBy(rules: readonly RuledOut[], findings: Findings): readonly string[] | null {
  const rule = rules.find(
    (r) =>
      r.absent.every((f) => findings[f] === "absent") &&
      r.present.every((f) => findings[f] === "present") &&
      !r.unless.some((f) => findings[f] === "present"),
  );
  return rule ? [...rule.absent, ...rule.present] : null;
}

/** What findings say of one cause: of those that say the same thing the strongest on each side. */
export function spoken(knowledge: Knowledge, rows: readonly Evidence[], findings: Findings) {
  const all: Contribution[] = [];
  for (const row of rows) {
    const state = findings[row.finding];
    if (state !== "present" && state !== "absent") continue;
    const weight = state === "present" ? row.whenPresent : row.whenAbsent;
    if (weight !== 0) all.push({ finding: row.finding, state, weight, because: row.because });
  }
  all.sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight) || (a.finding < b.finding ? -1 : 1));
  const strongest = (side: readonly Contribution[]): Contribution[] => {
    const seen = new Set<number>();
    return side.filter((c) => {
      const group = knowledge.countedOnce.get(c.finding);
      if (group === undefined) return true;
      if (seen.has(group)) return false;
      seen.add(group);
      return true;
    });
  };
  const raised = strongest(all.filter((c) => c.weight > 0));
  const met = new Set(raised.flatMap((c) => knowledge.alternatives.get(c.finding) ?? []));
  const answered = (c: Contribution): boolean => {
    const group = knowledge.alternatives.get(c.finding);
    return c.state === "absent" && group !== undefined && met.has(group);
  };
  return { raised, lowered: strongest(all.filter((c) => c.weight < 0 && !answered(c))) };
}

/** Natural-log odds that each of several causes acts, from base weights on one scale. */
export function priorLogOdds(weights: readonly number[]): number[] {
  const sum = weights.reduce((a, b) => a + b, 0);
  return weights.map((w) => {
    const p = Math.min(LIKELIEST_PRIOR, (CAUSES_EXPECTED * w) / sum);
    return Math.log(p / (1 - p));
  });
}

/** Sets of up to three candidates that may act together, each with how likely it is. `members` holds −1 where fewer act. */
export type ActingSets = {
  readonly count: number;
  readonly members: Int8Array;
  readonly shares: Float64Array;
};

/** What scoring a set needs of its members: what raises each by key, everything else of each in one figure, and their links. */
type Weighed = {
  readonly width: number;
  readonly raise: readonly Float64Array[];
  readonly own: Float64Array;
  readonly link: Float64Array;
};

function weighed(knowledge: Knowledge, candidates: readonly Candidate[], link: Float64Array): Weighed {
  const keys = new Map<string, number>();
  const keyOf = (finding: string): number => {
    const group = knowledge.sameThing.get(finding);
    const key = group === undefined ? finding : `group ${group}`;
    const found = keys.get(key) ?? keys.size;
    keys.set(key, found);
    return found;
  };
  const explained = candidates.map((c) => c.raised.map((r) => [keyOf(r.finding), r.weight] as const));
  const width = keys.size;
  return {
    width,
    link,
    own: Float64Array.from(
      candidates,
      (c) => c.logOdds + EVIDENCE_SCALE * c.lowered.reduce((sum, x) => sum + x.weight, 0),
    ),
    raise: explained.map((rows) => {
      const row = new Float64Array(width);
      for (const [key, weight] of rows) row[key] = Math.max(row[key] as number, EVIDENCE_SCALE * weight);
      return row;
    }),
  };
}

const total = (row: Float64Array): number => {
  let sum = 0;
  for (let k = 0; k < row.length; k++) sum += row[k] as number;
  return sum;
};

/** Scores as shares of all: the largest is taken out first, so that none overflows. */
function sharesOf(scores: Float64Array): Float64Array {
  let top = 0;
  for (let s = 0; s < scores.length; s++) top = Math.max(top, scores[s] as number);
  const shares = new Float64Array(scores.length);
  for (let s = 0; s < scores.length; s++) shares[s] = Math.exp((scores[s] as number) - top);
  const sum = total(shares);
  for (let s = 0; s < shares.length; s++) shares[s] = (shares[s] as number) / sum;
  return shares;
}

/**
 * How likely each set of up to three causes is. A set is scored by how common its members are, by every contradiction
 * of each member, by each finding once, from the member that explains it best (what one cause explains does not raise
 * another beside it), and by the links between members. The set of none stands for what is not in the knowledge.
 * O(causes³ × findings): at 30 causes some 4,500 sets.
 */
export function actingSets(knowledge: Knowledge, candidates: readonly Candidate[]): ActingSets {
  const n = candidates.length;
  const { width, raise, own, link } = weighed(knowledge, candidates, linksBetween(knowledge, candidates));
  const count = 1 + n + (n * (n - 1)) / 2 + (n * (n - 1) * (n - 2)) / 6;
  const members = new Int8Array(count * 3).fill(-1);
  const scores = new Float64Array(count);
  let at = 1;
  const both = new Float64Array(width);
  for (let a = 0; a < n; a++) {
    const rowA = raise[a] as Float64Array;
    members[at * 3] = a;
    scores[at++] = (own[a] as number) + total(rowA);
    for (let b = a + 1; b < n; b++) {
      const rowB = raise[b] as Float64Array;
      let pair = 0;
      for (let k = 0; k < width; k++) {
        const best = Math.max(rowA[k] as number, rowB[k] as number);
        both[k] = best;
        pair += best;
      }
      const ownPair = (own[a] as number) + (own[b] as number) + (link[a * n + b] as number);
      members[at * 3] = a;
      members[at * 3 + 1] = b;
      scores[at++] = ownPair + pair;
      for (let c = b + 1; c < n; c++) {
        const rowC = raise[c] as Float64Array;
        let three = 0;
        for (let k = 0; k < width; k++) three += Math.max(both[k] as number, rowC[k] as number);
        members[at * 3] = a;
        members[at * 3 + 1] = b;
        members[at * 3 + 2] = c;
        scores[at++] = ownPair + (own[c] as number) + (link[a * n + c] as number) + (link[b * n + c] as number) + three;
      }
    }
  }
  return { count, members, shares: sharesOf(scores) };
}

/** Sets with less than this of the likeliest one’s share stay out of sight whatever one finding does. */
const IN_SIGHT = 1e-5;

/**
 * The same candidates weighed by other findings, over the sets that were in sight before: what one finding does, without
 * going through all sets again. O(sets in sight × findings).
 */
export function weighedAgain(knowledge: Knowledge, before: ActingSets): (candidates: readonly Candidate[]) => number[] {
  let top = 0;
  for (let s = 0; s < before.count; s++) top = Math.max(top, before.shares[s] as number);
  const sight: number[] = [];
  for (let s = 0; s < before.count; s++) if ((before.shares[s] as number) >= IN_SIGHT * top) sight.push(s);
  let link: Float64Array | null = null;
  return (candidates) => {
    link ??= linksBetween(knowledge, candidates);
    const n = candidates.length;
    const { width, raise, own } = weighed(knowledge, candidates, link);
    const scores = new Float64Array(sight.length);
    const members = new Int8Array(sight.length * 3);
    for (let i = 0; i < sight.length; i++) {
      const s = sight[i] as number;
      const [a, b, c] = [
        before.members[s * 3] as number,
        before.members[s * 3 + 1] as number,
        before.members[s * 3 + 2] as number,
      ];
      members[i * 3] = a;
      members[i * 3 + 1] = b;
      members[i * 3 + 2] = c;
      if (a < 0) continue;
      const [rowA, rowB, rowC] = [raise[a] as Float64Array, raise[b], raise[c]];
      let score = own[a] as number;
      if (b >= 0) score += (own[b] as number) + (link[a * n + b] as number);
      if (c >= 0) score += (own[c] as number) + (link[a * n + c] as number) + (link[b * n + c] as number);
      for (let k = 0; k < width; k++) {
        let best = rowA[k] as number;
        if (rowB && (rowB[k] as number) > best) best = rowB[k] as number;
        if (rowC && (rowC[k] as number) > best) best = rowC[k] as number;
        score += best;
      }
      scores[i] = score;
    }
    return marginals({ count: sight.length, members, shares: sharesOf(scores) }, n);
  };
}

/** Natural-log odds that two candidates add to each other, by their places: n × n, both ways. */
function linksBetween(knowledge: Knowledge, candidates: readonly Candidate[]): Float64Array {
  const n = candidates.length;
  const place = new Map(candidates.map((c, i) => [c.cause, i]));
  const link = new Float64Array(n * n);
  for (const { from, to, weight } of knowledge.links) {
    const a = place.get(from);
    const b = place.get(to);
    if (a === undefined || b === undefined) continue;
    link[a * n + b] = (link[a * n + b] as number) + weight;
    link[b * n + a] = (link[b * n + a] as number) + weight;
  }
  return link;
}

/** How likely each candidate is to act, 0–1: the share of all sets it is in. */
export function marginals(sets: ActingSets, candidates: number): number[] {
  const out = new Array<number>(candidates).fill(0);
  for (let s = 0; s < sets.count; s++)
    for (let m = 0; m < 3; m++) {
      const i = sets.members[s * 3 + m] as number;
      if (i < 0) break;
      out[i] = (out[i] as number) + (sets.shares[s] as number);
    }
  return out;
}
