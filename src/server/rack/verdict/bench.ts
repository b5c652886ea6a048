import {
  type BenchTest,
  type CureTest,
  cureTests,
  type FaultsOfFace,
  judgeCureTest,
  judgeFaults,
  judgePullOff,
  judgeSolventRub,
} from "@/core/bench";
import { within } from "@/core/limits";
import { usualAcceptance } from "@/core/site";
import { type VerdictResult, worstResult } from "@/core/verdict";
import type { RackFile, ThreadRecord } from "../load-rack";
import type { TestCall } from "../test-calls";
import type { Judged, PlanSaid } from "./common";

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
      /** What kind of it, where that was said. */
      readonly subKind?: string | null;
      /** Faults by face and zone against the class of acceptance; absent in verdicts from before there were classes. */
      readonly faults?: readonly FaultsOfFace[];
      /** Faults that were touched up since. */
      readonly touchedUp?: number;
      /** Faces looked at, of those of the part; how far and in what light; null where nobody looked. */
      readonly look: {
        readonly faces: number;
        readonly of: number;
        readonly distanceM: number | null;
        readonly lightLux: number | null;
        readonly by: string;
      } | null;
      readonly asked: boolean;
    })
  | (Judged & { readonly item: "fits"; readonly tried: number; readonly stuck: readonly string[] });
type Item<N extends BenchItem["item"]> = Extract<BenchItem, { item: N }>;
export type NotAsked = BenchTest | "rub" | "appearance";

/** Asked for by few: not named among what nobody asked for. */
const seldom: ReadonlySet<CureTest> = new Set(["gloss-20", "gloss-85", "smoothness", "holidays"]);
const none = { result: "unknown", grade: "unknown", sources: [] } as const;
const notLooked: Item<"appearance"> = {
  item: "appearance",
  ...none,
  defect: null,
  affected: null,
  seen: null,
  look: null,
  asked: true,
};
const notTried: Item<"fits"> = { item: "fits", ...none, tried: 0, stuck: [] };
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
  const { calls } = rack;
  const adheres = (records: readonly ThreadRecord[]) => adhesion(records, requirement.adhesionWorstIso);
  const items: BenchItem[] = [byPlan(calls.get("adhesion"), adheres(of("cross-cut")), adheres)];
  const notAsked: NotAsked[] = [];
  const rubs = of("solvent-rub");
  const rubbed = (records: readonly ThreadRecord[]) => rub(records, requirement.rub?.leastGrade ?? null);
  if (rubs.length > 0 || requirement.rub || calls.has("rub"))
    items.push(byPlan(calls.get("rub"), rubbed(rubs), rubbed));
  else notAsked.push("rub");
  for (const test of cureTests) {
    const asked = requirement.tests.find((t) => t.test === test);
    const done = of("cure-test").filter((r) => r.details.cure_test?.[0]?.test === test);
    const judge = (records: readonly ThreadRecord[]) => cureTest(test, records, asked ?? null);
    if (done.length > 0 || asked || calls.has(test)) items.push(byPlan(calls.get(test), judge(done), judge));
    else if (!seldom.has(test)) notAsked.push(test);
  }
  const asked = requirement.tests.find((t) => t.test === "pull-off");
  const pulls = of("pull-off");
  const pulled = (records: readonly ThreadRecord[]) => pullOff(records, asked?.lower ?? null);
  if (pulls.length > 0 || asked || calls.has("pull-off"))
    items.push(byPlan(calls.get("pull-off"), pulled(pulls), pulled));
  else notAsked.push("pull-off");
  const looks = (records: readonly ThreadRecord[]) => appearance(onlyOf(rack, records), true) ?? notLooked;
  const seen = appearance(rack, calls.has("appearance"));
  if (seen) items.push(byPlan(calls.get("appearance"), seen, looks));
  else notAsked.push("appearance");
  const tries = (records: readonly ThreadRecord[]) => fits(onlyOf(rack, records), true) ?? notTried;
  const tried = fits(rack, calls.has("fits"));
  if (tried) items.push(byPlan(calls.get("fits"), tried, tries));
  return { items, notAsked };
}

/** The rack as if it had what another rack of its unit has on record. */
const onlyOf = (rack: RackFile, records: readonly ThreadRecord[]): RackFile => ({
  ...rack,
  latest: records,
  judged: new Set(records.flatMap((r) => (r.details.defect?.[0]?.pieces as string[] | null | undefined) ?? [])),
});

/**
 * An item as a test plan has it: what was done on the rack itself stands; else a reason for leaving it out is told and
 * watched; where the rack is not asked it stands by its unit's sample, by procedure and no better; a sample that is out says
 * nothing of this one but that it is to be tested itself.
 */
function byPlan<I extends BenchItem>(
  call: TestCall | undefined,
  own: I,
  judge: (records: readonly ThreadRecord[]) => I,
): I {
  if (!call) return own;
  const { asked, every, n, level, why, skipped } = call;
  const plan = (by: PlanSaid["by"], racks: PlanSaid["racks"]): PlanSaid => ({
    asked,
    every,
    n,
    level,
    why,
    by,
    racks,
    skipped: skipped && { reason: skipped.reason, by: skipped.by },
  });
  if (own.sources.length > 0) return { ...own, plan: plan("itself", []) };
  if (skipped)
    return { ...own, result: "watch", grade: "unknown", sources: [skipped.recordId], plan: plan("skipped", []) };
  if (asked) return { ...own, plan: plan("open", []) };
  const tested = call.samples.map((s) => s.rack);
  const sample = call.samples.length > 0 ? judge(call.samples.flatMap((s) => s.records)) : null;
  if (!sample || sample.sources.length === 0) return { ...own, plan: plan("open", call.askedOf) };
  return sample.result === "out"
    ? { ...own, plan: plan("sample-out", tested) }
    : { ...sample, grade: "by-procedure", plan: plan("sample", tested) };
}

function adhesion(tests: readonly ThreadRecord[], worstIso: number): Item<"adhesion"> {
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

function rub(tests: readonly ThreadRecord[], leastGrade: number | null): Item<"rub"> {
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
function cureTest(test: CureTest, tests: readonly ThreadRecord[], asked: Asked): Item<"test"> {
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

function pullOff(tests: readonly ThreadRecord[], leastMPa: number | null): Item<"test"> {
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

const seenFault = (r: ThreadRecord): boolean =>
  r.details.defect?.[0] !== undefined && r.details.defect[0].pieces_affected !== 0;
/** A fault that was seen, on one of the pieces that are judged where it says on which. */
function isFault(r: ThreadRecord, rack: RackFile): boolean {
  const row = r.details.defect?.[0];
  if (!row || !seenFault(r)) return false;
  return !Array.isArray(row.pieces) || row.pieces.some((serial) => rack.judged.has(String(serial)));
}
/** Faults that were touched up, each with when. */
const touchedUp = (rack: RackFile): ReadonlyMap<string, Date> =>
  new Map(
    rack.latest.flatMap((r) =>
      (r.details.touch_up ?? []).flatMap((t): [string, Date][] =>
        t.done && t.defect_id ? [[t.defect_id, r.base.happened_at]] : [],
      ),
    ),
  );

/**
 * The look: faults on record are held against the class of their zone, beyond it is out; every face looked at as asked and
 * nothing found is in, and with faults that the class lets pass to be watched; no look where one is asked is unknown.
 */
function appearance(rack: RackFile, called = false): Item<"appearance"> | null {
  const asked = rack.job.requirement.appearance;
  const all = rack.latest.filter((r) => isFault(r, rack));
  const mended = touchedUp(rack);
  const found = all.filter((r) => !mended.has(r.base.id));
  const faults = judgeFaults(
    found.flatMap((r) => {
      const row = r.details.defect?.[0];
      return row ? [{ face: row.face, x: row.x, y: row.y, sizeMm: row.size_mm, count: row.count ?? 1 }] : [];
    }),
    rack.part.data.faces,
    rack.acceptance ?? usualAcceptance,
  );
  // What was found on other pieces was found by a look at these as well.
  const looks = looksAsAsked(rack, rack.latest.some(seenFault));
  const look = lookOf(rack, looks);
  // The one that is told of: the newest of those that are out, else the newest.
  const outAt = new Set(faults.filter((f) => f.result === "out").map((f) => f.face));
  const told = found.findLast((r) => outAt.has(faceOf(r, rack))) ?? found.at(-1) ?? all.at(-1);
  const row = told?.details.defect?.[0];
  const item = {
    item: "appearance",
    defect: row?.defect ?? null,
    subKind: row?.sub_kind ?? null,
    affected: row?.pieces_affected ?? null,
    seen: row?.pieces_seen ?? null,
    faults,
    touchedUp: all.length - found.length,
    look,
    asked: asked !== null || called,
    sources: [...ids(all), ...ids(looks.all)],
  } as const;
  if (told && outAt.size > 0) return { ...item, result: "out", grade: told.base.grade };
  if (!look)
    return told || asked || called ? { ...item, result: "unknown", grade: told?.base.grade ?? "unknown" } : null;
  // What was touched up is looked at once more before it is anything.
  const unseen = all.some((r) => {
    const at = mended.get(r.base.id);
    return at !== undefined && !looks.counted.some((l) => l.base.happened_at >= at && sees(l, faceOf(r, rack)));
  });
  const whole = look.faces === look.of && !unseen;
  return { ...item, result: !whole ? "unknown" : told ? "watch" : "in", grade: "measured" };
}
/** The face a fault was placed on; null where nobody did, or the part has no such face. */
const faceOf = (r: ThreadRecord, rack: RackFile): string | null =>
  rack.part.data.faces.find((f) => f.id === r.details.defect?.[0]?.face)?.id ?? null;

/** Whether a look was of a face; of a fault that nobody placed any look is. */
const sees = (look: ThreadRecord, face: string | null): boolean =>
  face === null || ((look.details.look?.[0]?.faces as string[] | undefined) ?? []).includes(face);

/** Looks since the bake: all, and those as near and in as much light as asked, by face. */
function looksAsAsked(rack: RackFile, anyFault: boolean) {
  const asked = rack.job.requirement.appearance;
  const bakedAt = rack.latest.findLast((r) => r.base.kind === "bake")?.base.happened_at;
  const all = rack.latest.filter((r) => r.base.kind === "look" && (!bakedAt || r.base.happened_at >= bakedAt));
  const faces = new Set<string>();
  const counted = all.filter((r) => {
    const look = r.details.look?.[0];
    // A look that found something is no look that found nothing, whatever became of what was found.
    if (!look || (look.found && !anyFault)) return false;
    const seen = (look.faces as string[]).filter((id) => {
      const face = rack.part.data.faces.find((f) => f.id === id);
      // What the job asks goes first; else the customer's own class of the face. Usual classes ask nothing.
      const own = face ? (rack.acceptance?.[face.zone] ?? null) : null;
      const [farthest, least] = asked ? [asked.distanceM, asked.lightLux] : [own?.distanceM, own?.lightLux];
      const near = farthest == null || (look.distance_m !== null && within(look.distance_m, null, farthest));
      return near && (least == null || (look.light_lux !== null && within(look.light_lux, least, null)));
    });
    for (const id of seen) faces.add(id);
    return seen.length > 0;
  });
  return { all, counted, faces };
}

function lookOf(rack: RackFile, { all, counted, faces }: ReturnType<typeof looksAsAsked>) {
  const newest = counted.at(-1) ?? all.at(-1);
  return newest
    ? {
        faces: rack.part.data.faces.filter((f) => faces.has(f.id)).length,
        of: rack.part.data.faces.length,
        distanceM: newest.details.look?.[0]?.distance_m ?? null,
        lightLux: newest.details.look?.[0]?.light_lux ?? null,
        by: newest.by,
      }
    : null;
}

/** Threads and fits as they were tried: of each the newest try stands; one that does not go is out. */
function fits(rack: RackFile, called = false): Item<"fits"> | null {
  const tries = rack.latest.filter((r) => r.base.kind === "fit-check");
  const asked = rack.job.requirement.fits || called;
  if (tries.length === 0) return asked ? { item: "fits", ...none, tried: 0, stuck: [] } : null;
  const newest = new Map(
    tries.flatMap((r) => (r.details.fit_try ?? []).map((t): [string, boolean] => [t.fit, t.goes])),
  );
  const stuck = [...newest].filter(([, goes]) => !goes).map(([fit]) => fit);
  return {
    item: "fits",
    result: stuck.length > 0 ? "out" : "in",
    grade: "measured",
    sources: ids(tries),
    tried: newest.size,
    stuck,
  };
}
