import type { ActingSets, Candidate, Findings } from "./acting-sets";
import type { CheckPlace, DefectKnowledge, Knowledge } from "./knowledge";

export type NextCheck = {
  readonly finding: string;
  readonly label: string;
  readonly how: string;
  readonly minutes: number;
  readonly destroysPart: boolean;
  /** What the answer is expected to tell of which causes act, bits. */
  readonly expectedGainBits: number;
  /** How likely it is to be so, 0–1, as far as the causes go. */
  readonly likely: number;
};
/** What an answer would do to the lead: the cause that would stand first, where it is another. */
export type Turn = {
  readonly finding: string;
  readonly label: string;
  readonly state: "present" | "absent";
  readonly leads: string;
  readonly strength: number;
};
/** What may be asked next: where the piece is, and what was answered already, be it that nobody can tell. */
export type Asking = {
  readonly where?: CheckPlace;
  readonly answered?: ReadonlySet<string>;
  /** Whether the effect of each finding is worked out, which costs most; it is unless this is false. */
  readonly effects?: boolean;
};

/** How likely a finding is to turn up when nothing speaks for it. */
const FINDING_PRIOR = 0.25;
/** A lost part is reckoned as this many minutes of work. */
const LOST_PART_MINUTES = 30;
/** What goes with every check, however short. */
const WALK_MINUTES = 5;
/** Sets less likely than this change no check. */
const LEAST_SHARE = 1e-4;

const entropyBits = (p: number): number => (p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p));

/** Findings that what is known leaves no need to ask: their own answer, another of theirs that is so, or an answer that nobody could give. */
function settled(knowledge: Knowledge, findings: Findings, asking: Asking): ReadonlySet<string> {
  const out = new Set(asking.answered);
  for (const [finding, state] of Object.entries(findings)) if (state !== "unknown") out.add(finding);
  for (const group of knowledge.exclusive)
    if (group.some((f) => findings[f] === "present")) for (const f of group) out.add(f);
  return out;
}

/**
 * Every unknown finding that can be found out, by what it tells of which causes act per minute of work, best first; and
 * the answers that would put another cause first. O(likely sets × findings that can be asked).
 */
export function checksThatTell(
  knowledge: Knowledge,
  defect: DefectKnowledge,
  candidates: readonly Candidate[],
  sets: ActingSets,
  findings: Findings,
  asking: Asking,
): { readonly checks: readonly NextCheck[]; readonly turns: readonly Turn[] } {
  const likely: number[] = [];
  for (let s = 0; s < sets.count; s++) if ((sets.shares[s] as number) >= LEAST_SHARE) likely.push(s);
  const known = settled(knowledge, findings, asking);
  const groupsKnown = new Set(
    Object.entries(findings).flatMap(([f, state]) => {
      const group = knowledge.countedOnce.get(f);
      return state === "unknown" || group === undefined ? [] : [group];
    }),
  );
  const evidence = candidates.map((c) => new Map(defect.evidence.get(c.cause)?.map((row) => [row.finding, row])));
  const asked = new Set(candidates.flatMap((c) => defect.evidence.get(c.cause)?.map((row) => row.finding) ?? []));
  const leadNow = topOf(likely, sets, () => 1, candidates.length);
  const checks: (NextCheck & { readonly perMinute: number })[] = [];
  const turns: Turn[] = [];
  for (const id of asked) {
    const finding = knowledge.findings.get(id);
    const check = finding?.check;
    if (!finding || !check || known.has(id) || (asking.where && !check.at.includes(asking.where))) continue;
    const chances = new Map<number, number>();
    let present = 0;
    let within = 0;
    let all = 0;
    for (const s of likely) {
      const p = chanceOf(sets, s, evidence, id);
      const share = sets.shares[s] as number;
      chances.set(s, p);
      present += share * p;
      within += share * entropyBits(p);
      all += share;
    }
    present /= all;
    const group = knowledge.countedOnce.get(id);
    const gain = (entropyBits(present) - within / all) * (group !== undefined && groupsKnown.has(group) ? 0.5 : 1);
    const cost = check.minutes + WALK_MINUTES + (check.destroysPart ? LOST_PART_MINUTES : 0);
    const { minutes, destroysPart, how } = check;
    checks.push({
      finding: id,
      label: finding.label,
      how,
      minutes,
      destroysPart,
      expectedGainBits: gain,
      likely: present,
      perMinute: gain / cost,
    });
    for (const state of ["present", "absent"] as const) {
      const top = topOf(
        likely,
        sets,
        (s) => (state === "present" ? (chances.get(s) ?? 0) : 1 - (chances.get(s) ?? 0)),
        candidates.length,
      );
      const leads = candidates[top.index]?.cause;
      if (leads && top.index !== leadNow.index && top.strength >= 0.5)
        turns.push({ finding: id, label: finding.label, state, leads, strength: top.strength });
    }
  }
  return {
    checks: checks
      .filter((c) => c.expectedGainBits > 1e-6)
      .sort((a, b) => b.perMinute - a.perMinute || (a.finding < b.finding ? -1 : 1))
      .map(({ perMinute: _, ...check }) => check),
    turns: turns.sort((a, b) => b.strength - a.strength || (a.finding < b.finding ? -1 : 1)),
  };
}

/** How likely a finding is to be so where one set acts. */
function chanceOf(
  sets: ActingSets,
  set: number,
  evidence: readonly ReadonlyMap<string, { readonly whenPresent: number; readonly whenAbsent: number }>[],
  finding: string,
): number {
  let up = 0;
  let speaksAgainst = 0;
  let down = 0;
  for (let m = 0; m < 3; m++) {
    const i = sets.members[set * 3 + m] as number;
    if (i < 0) break;
    const row = evidence[i]?.get(finding);
    if (!row) continue;
    if (row.whenPresent > 0) up = Math.max(up, row.whenPresent);
    else speaksAgainst += row.whenPresent;
    down += row.whenAbsent;
  }
  const so = FINDING_PRIOR * Math.exp(up + speaksAgainst);
  const not = (1 - FINDING_PRIOR) * Math.exp(down);
  return so / (so + not);
}

/** The cause that stands first when each set is weighed anew. */
function topOf(likely: readonly number[], sets: ActingSets, weigh: (set: number) => number, candidates: number) {
  const sums = new Float64Array(candidates);
  let all = 0;
  for (const s of likely) {
    const share = (sets.shares[s] as number) * weigh(s);
    all += share;
    for (let m = 0; m < 3; m++) {
      const i = sets.members[s * 3 + m] as number;
      if (i < 0) break;
      sums[i] = (sums[i] as number) + share;
    }
  }
  let index = 0;
  for (let i = 1; i < candidates; i++) if ((sums[i] as number) > (sums[index] as number)) index = i;
  return { index, strength: all > 0 ? (sums[index] as number) / all : 0 };
}
