import { type BenchTest, type CureTest, judgeCureTest, judgePullOff, judgeSolventRub } from "@/core/bench";
import { within } from "@/core/limits";
import { type VerdictResult, worstResult } from "@/core/verdict";
import type { RackFile, ThreadRecord } from "../load-rack";
import type { Judged } from "./common";

export type BenchItem =
  | (Judged & {
      readonly item: "adhesion";
      readonly iso: number | null;
      readonly astm: string | null;
      readonly worstIso: number;
    })
  | (Judged & {
      readonly item: "rub";
      readonly rubGrade: number | null;
      readonly doubleRubs: number | null;
      /** Null where the customer asks for none. */
      readonly leastGrade: number | null;
    })
  | (Judged & {
      readonly item: "test";
      readonly test: BenchTest;
      readonly value: number | null;
      readonly lower: number | null;
      readonly upper: number | null;
      /** A pull-off whose glue gave way says nothing. */
      readonly noResult: boolean;
    })
  | (Judged & {
      readonly item: "appearance";
      readonly defect: string | null;
      readonly affected: number | null;
      readonly seen: number | null;
      /** Faces looked at, of those of the part; how far and in what light; null where nobody looked. */
      readonly look: {
        readonly faces: number;
        readonly of: number;
        readonly distanceM: number | null;
        readonly lightLux: number | null;
        readonly by: string;
      } | null;
      readonly asked: boolean;
    });
export type NotAsked = BenchTest | "rub" | "appearance";

const none = { result: "unknown", grade: "unknown", sources: [] } as const;
const ids = (records: readonly ThreadRecord[]) => records.map((r) => r.base.id);
/** Of repeats the worst stands, until it is superseded with a reason. */
const severity: Record<VerdictResult, number> = { in: 0, unknown: 1, watch: 2, out: 3 };
const worstOf = <T extends { readonly result: VerdictResult }>(all: readonly T[]): T | undefined =>
  all.reduce<T | undefined>(
    (worst, one) => (!worst || severity[one.result] > severity[worst.result] ? one : worst),
    undefined,
  );

/** What was tested and looked at of a rack, and what nobody asked for. */
export function benchItems(rack: RackFile): { readonly items: BenchItem[]; readonly notAsked: NotAsked[] } {
  const { requirement } = rack.job;
  const of = (kind: string) => rack.latest.filter((r) => r.base.kind === kind);
  const items: BenchItem[] = [adhesion(of("cross-cut"), requirement.adhesionWorstIso)];
  const notAsked: NotAsked[] = [];
  const rubs = of("solvent-rub");
  if (rubs.length > 0 || requirement.rub) items.push(rub(rubs, requirement.rub?.leastGrade ?? null));
  else notAsked.push("rub");
  for (const test of ["pencil-hardness", "impact", "bend", "gloss-60", "colour"] as const) {
    const asked = requirement.tests.find((t) => t.test === test);
    const done = of("cure-test").filter((r) => r.details.cure_test?.[0]?.test === test);
    if (done.length > 0 || asked) items.push(cureTest(test, done, asked ?? null));
    else notAsked.push(test);
  }
  const asked = requirement.tests.find((t) => t.test === "pull-off");
  const pulls = of("pull-off");
  if (pulls.length > 0 || asked) items.push(pullOff(pulls, asked?.lower ?? null));
  else notAsked.push("pull-off");
  const looked = appearance(rack);
  if (looked) items.push(looked);
  else notAsked.push("appearance");
  return { items, notAsked };
}

function adhesion(tests: readonly ThreadRecord[], worstIso: number): BenchItem {
  const rows = tests.flatMap((r) => r.details.cross_cut?.[0] ?? []);
  const row = rows.reduce<(typeof rows)[number] | undefined>((w, x) => (!w || x.iso >= w.iso ? x : w), undefined);
  if (!row) return { item: "adhesion", ...none, iso: null, astm: null, worstIso };
  return {
    item: "adhesion",
    result: row.iso > worstIso ? "out" : row.iso === worstIso && worstIso > 0 ? "watch" : "in",
    grade: "measured",
    sources: ids(tests),
    iso: row.iso,
    astm: row.astm,
    worstIso,
  };
}

function rub(tests: readonly ThreadRecord[], leastGrade: number | null): BenchItem {
  const judged = tests.flatMap((r) => {
    const row = r.details.solvent_rub?.[0];
    if (!row) return [];
    const found = judgeSolventRub({
      doubleRubs: row.double_rubs,
      limit: row.rub_limit,
      grade: row.grade,
      knownCuredGrade: row.known_cured_grade,
    });
    const asked: VerdictResult = leastGrade === null || row.grade >= leastGrade ? "in" : "out";
    return [{ row, result: worstResult([found.ok ? found.value : "unknown", asked]) }];
  });
  const worst = worstOf(judged);
  if (!worst) return { item: "rub", ...none, rubGrade: null, doubleRubs: null, leastGrade };
  return {
    item: "rub",
    result: worst.result,
    grade: "measured",
    sources: ids(tests),
    rubGrade: worst.row.grade,
    doubleRubs: worst.row.double_rubs,
    leastGrade,
  };
}

type Asked = { readonly lower: number | null; readonly upper: number | null } | null;

/** Held against what the job asks; where it asks nothing, against what was asked as it was tested. */
function cureTest(test: CureTest, tests: readonly ThreadRecord[], asked: Asked): BenchItem {
  const judged = tests.flatMap((r) => {
    const row = r.details.cure_test?.[0];
    if (!row) return [];
    const limits = asked ?? { lower: row.asked_lower, upper: row.asked_upper };
    const found = judgeCureTest(
      test,
      row.readings.filter((x): x is number => x !== null),
      limits.lower,
      limits.upper,
    );
    // A number that nobody set a limit for is told, and keeps nothing back.
    const free = asked === null && limits.lower === null && limits.upper === null;
    return [
      {
        value: found.ok ? found.value.value : row.value,
        ...limits,
        result: found.ok && free ? ("in" as const) : found.ok ? found.value.result : ("unknown" as const),
      },
    ];
  });
  const worst = worstOf(judged);
  if (!worst)
    return {
      item: "test",
      test,
      ...none,
      value: null,
      lower: asked?.lower ?? null,
      upper: asked?.upper ?? null,
      noResult: false,
    };
  return { item: "test", test, grade: "measured", sources: ids(tests), ...worst, noResult: false };
}

function pullOff(tests: readonly ThreadRecord[], leastMPa: number | null): BenchItem {
  const judged = tests.flatMap((r) => {
    const row = r.details.pull_off?.[0];
    if (!row) return [];
    const required = leastMPa ?? row.asked_mpa;
    const found = judgePullOff({
      stressMPa: row.stress_mpa,
      requiredMPa: required ?? row.stress_mpa,
      adhesivePercent: row.adhesive_percent,
      cohesivePercent: row.cohesive_percent,
      gluePercent: row.glue_percent,
    });
    const noResult = found.ok && found.value === "no-result";
    const result: VerdictResult = !found.ok || noResult ? "unknown" : found.value === "pass" ? "in" : "out";
    return [{ value: row.stress_mpa, lower: required, noResult, result }];
  });
  // One whose glue gave way is no test at all where another one speaks.
  const worst = worstOf(judged.some((j) => !j.noResult) ? judged.filter((j) => !j.noResult) : judged);
  const test = "pull-off" as const;
  if (!worst) return { item: "test", test, ...none, value: null, lower: leastMPa, upper: null, noResult: false };
  return { item: "test", test, grade: "measured", sources: ids(tests), upper: null, ...worst };
}

/** The look: a defect on record is out, every face looked at as asked and nothing found is in, no look where one is asked is unknown. */
function appearance(rack: RackFile): BenchItem | null {
  const asked = rack.job.requirement.appearance;
  const defect = rack.latest.findLast((r) => r.details.defect?.[0] && r.details.defect[0].pieces_affected !== 0);
  const row = defect?.details.defect?.[0];
  const bakedAt = rack.latest.findLast((r) => r.base.kind === "bake")?.base.happened_at;
  const looks = rack.latest.filter((r) => r.base.kind === "look" && (!bakedAt || r.base.happened_at >= bakedAt));
  // As asked: as near and in as much light; a look that says neither is not known to be.
  const asAsked = looks.filter((r) => {
    const look = r.details.look?.[0];
    // A look that found something is no look that found nothing, whatever became of what was found.
    if (!look || look.found) return false;
    const near =
      asked?.distanceM == null || (look.distance_m !== null && within(look.distance_m, null, asked.distanceM));
    const lit = asked?.lightLux == null || (look.light_lux !== null && within(look.light_lux, asked.lightLux, null));
    return near && lit;
  });
  const newest = asAsked.at(-1) ?? looks.at(-1);
  const faces = new Set(asAsked.flatMap((r) => (r.details.look?.[0]?.faces as string[] | undefined) ?? []));
  const look = newest
    ? {
        faces: rack.part.data.faces.filter((f) => faces.has(f.id)).length,
        of: rack.part.data.faces.length,
        distanceM: newest.details.look?.[0]?.distance_m ?? null,
        lightLux: newest.details.look?.[0]?.light_lux ?? null,
        by: newest.by,
      }
    : null;
  const seen = { defect: null, affected: null, seen: null, look, asked: asked !== null };
  if (defect && row)
    return {
      item: "appearance",
      result: "out",
      grade: defect.base.grade,
      sources: [defect.base.id, ...ids(looks)],
      ...seen,
      defect: row.defect,
      affected: row.pieces_affected,
      seen: row.pieces_seen,
    };
  if (!look) return asked ? { item: "appearance", ...none, ...seen } : null;
  const whole = look.faces === look.of;
  return {
    item: "appearance",
    result: whole ? "in" : "unknown",
    grade: "measured",
    sources: ids(looks),
    ...seen,
  };
}
