import { diagnose, type FindingState, type Findings, loadKnowledge } from "@/core/diagnosis";
import { valueOrThrow } from "@/core/result";
import { faults, type Incident, incident, observe } from "@/core/simulated-incidents";
import { seededRandom } from "@/core/statistics/random";
import { establishedOf } from "./simulated-rack";

const knowledge = loadKnowledge();
const known = new Set(faults.map((f) => f.cause));
/** Strength that a case is followed to, and checks made at most. */
const ENOUGH = 0.9;
const MOST_CHECKS = 40;
/** A case is followed on past its lead by so many checks at most, as long as one tells so much: other causes may act beside it. */
const FURTHER = 10;
const WORTH_BITS = 0.05;
const field: ReadonlySet<string> = new Set([
  "chalking",
  "rust-creep",
  "edge-rust",
  "seam-rust",
  "delamination",
  "pinpoint-rust",
  "filiform",
  "blistering",
]);

/** Incidents over every cause of every defect, a third of them with two causes: as many as come to be. */
export function allIncidents(each: number): Incident[] {
  const out: Incident[] = [];
  let seed = 1;
  for (const defect of knowledge.defects.values()) {
    const causes = [...defect.causes.keys()].filter((c) => known.has(c));
    for (const cause of causes)
      for (let i = 0; i < each; i++) {
        const one = incident(seed++, defect.id, [cause]);
        if (one) out.push(one);
      }
    for (let i = 0; i < Math.ceil((causes.length * each) / 1.4); i++) {
      const random = seededRandom(seed * 31);
      const a = random.pick(causes);
      const b = random.pick(causes);
      const two = a === b ? null : incident(seed, defect.id, [a, b]);
      seed++;
      if (two) out.push(two);
    }
  }
  return out;
}

/** What the record of an incident says, before anybody is asked. */
export function recordOf(one: Incident): Findings {
  const random = seededRandom(one.seed * 17 + 3);
  return Object.fromEntries(establishedOf(one.world, random).map((f) => [f.finding, f.state] as const));
}

type Followed = {
  readonly findings: Findings;
  readonly checks: number;
  readonly minutes: number;
  readonly reached: boolean;
};

/** Asks one check after another until the lead is strong enough: those that the engine offers, or a fixed list in its order. */
function follow(
  one: Incident,
  from: Findings,
  next: (said: Findings, answered: ReadonlySet<string>) => string | null,
  most: number,
): Followed {
  const random = seededRandom(one.seed * 23 + 5);
  let findings = from;
  const answered = new Set<string>();
  let [checks, minutes] = [0, 0];
  for (;;) {
    const said = valueOrThrow(diagnose(knowledge, one.defect, findings, undefined, { effects: false }));
    const reached = said.enoughToTell && (said.causes[0]?.strength ?? 0) >= ENOUGH;
    if (reached || checks >= most) return { findings, checks, minutes, reached };
    const finding = next(findings, answered);
    if (finding === null) return { findings, checks, minutes, reached };
    answered.add(finding);
    const state: FindingState = observe(finding, one.defect, one.world, one.outcome, random) ?? "unknown";
    findings = { ...findings, [finding]: state };
    checks++;
    minutes += knowledge.findings.get(finding)?.check?.minutes ?? 0;
  }
}

const fixed = [...knowledge.findings.values()].filter((f) => f.check).map((f) => f.id);

type Row = { readonly strength: number; readonly acts: boolean };
export type Told = {
  readonly incidents: number;
  readonly two: number;
  readonly first: number;
  readonly complete: number;
  readonly reachedBest: number;
  readonly reachedFixed: number;
  readonly bestChecks: number;
  readonly fixedChecks: number;
  readonly calibration: readonly {
    readonly from: number;
    readonly n: number;
    readonly mean: number;
    readonly acts: number;
  }[];
  readonly wrong: readonly string[];
  /** Of which an acting cause was left under an even chance. */
  readonly partly: readonly string[];
};

/** Runs incidents through record, engine and checks, and counts. */
export function tell(incidents: readonly Incident[]): Told {
  const rows: Row[] = [];
  const wrong: string[] = [];
  const partly: string[] = [];
  let [first, complete, reachedBest, reachedFixed, two] = [0, 0, 0, 0, 0];
  let [bestChecks, fixedChecks, bothReached] = [0, 0, 0];
  for (const one of incidents) {
    const record = recordOf(one);
    const where = field.has(one.defect) ? undefined : ("shop" as const);
    const best = follow(
      one,
      record,
      (said, answered) =>
        valueOrThrow(diagnose(knowledge, one.defect, said, undefined, { where, answered, effects: false }))
          .nextChecks[0]?.finding ?? null,
      MOST_CHECKS,
    );
    let at = 0;
    const list = follow(
      one,
      record,
      (said) => {
        while (at < fixed.length && (said[fixed[at] as string] ?? "unknown") !== "unknown") at++;
        return fixed[at++] ?? null;
      },
      fixed.length,
    );
    if (one.acts.length > 1) two++;
    const right = new Set([...one.acts, ...one.through]);
    // Followed on for the set: with several causes one is found out before the other.
    const random = seededRandom(one.seed * 29 + 7);
    let findings = best.findings;
    for (let more = 0; more < FURTHER; more++) {
      const next = valueOrThrow(
        diagnose(knowledge, one.defect, findings, undefined, {
          where,
          answered: new Set(Object.keys(findings)),
          effects: false,
        }),
      ).nextChecks[0];
      if (!next || next.expectedGainBits < WORTH_BITS) break;
      findings = {
        ...findings,
        [next.finding]: observe(next.finding, one.defect, one.world, one.outcome, random) ?? "unknown",
      };
    }
    const end = valueOrThrow(diagnose(knowledge, one.defect, findings, undefined, { effects: false }));
    const top = end.causes[0]?.cause ?? "";
    if (right.has(top)) first++;
    else
      wrong.push(
        `${one.defect}: ${one.acts.join("+")} → ${end.causes
          .slice(0, 3)
          .map((c) => `${c.cause} ${c.strength.toFixed(2)}`)
          .join(", ")}`,
      );
    if (one.acts.every((a) => end.causes.some((c) => c.cause === a && c.strength >= 0.5))) complete++;
    else
      partly.push(
        `${one.defect}: ${one.acts.map((a) => `${a} ${(end.causes.find((c) => c.cause === a)?.strength ?? 0).toFixed(2)}`).join(" + ")} (and ${one.through.join()}) | ${Object.entries(
          findings,
        )
          .filter(([, v]) => v === "present")
          .map(([f]) => f)
          .join(" ")}`,
      );
    for (const c of end.causes)
      if (c.role !== "ruled-out") rows.push({ strength: c.strength, acts: right.has(c.cause) });
    if (best.reached) reachedBest++;
    if (list.reached) reachedFixed++;
    if (best.reached && list.reached) {
      bothReached++;
      bestChecks += best.checks;
      fixedChecks += list.checks;
    }
  }
  const calibration = Array.from({ length: 10 }, (_, i) => {
    const mine = rows.filter((r) => Math.min(9, Math.floor(r.strength * 10)) === i);
    return {
      from: i / 10,
      n: mine.length,
      mean: mine.reduce((s, r) => s + r.strength, 0) / Math.max(1, mine.length),
      acts: mine.filter((r) => r.acts).length / Math.max(1, mine.length),
    };
  });
  return {
    incidents: incidents.length,
    two,
    first: first / incidents.length,
    complete: complete / incidents.length,
    reachedBest: reachedBest / incidents.length,
    reachedFixed: reachedFixed / incidents.length,
    bestChecks: bestChecks / Math.max(1, bothReached),
    fixedChecks: fixedChecks / Math.max(1, bothReached),
    calibration,
    wrong,
    partly,
  };
}

const percent = (x: number) => `${(100 * x).toFixed(1)} %`;
/** `npm run bench incidents`: what the engine makes of simulated incidents. */
if (process.argv[1]?.includes("incidents")) {
  const incidents = allIncidents(Number(process.argv[2] ?? 2));
  const told = tell(incidents);
  console.log(`${told.incidents} incidents, ${told.two} with two causes`);
  console.log(`first cause right ${percent(told.first)}, acting set complete ${percent(told.complete)}`);
  console.log(
    `90 % strength reached in ${percent(told.reachedBest)} by the checks offered, in ${percent(told.reachedFixed)} by a fixed list; where both did ${told.bestChecks.toFixed(1)} checks against ${told.fixedChecks.toFixed(1)}`,
  );
  console.log("strength   given   true    n");
  for (const c of told.calibration)
    console.log(
      `${c.from.toFixed(1)}–${(c.from + 0.1).toFixed(1)}    ${percent(c.mean).padStart(7)} ${percent(c.acts).padStart(7)} ${c.n}`,
    );
  if (process.argv.includes("--wrong")) for (const w of [...told.wrong, "---", ...told.partly]) console.log(w);
}
