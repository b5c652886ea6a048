import type { Kysely } from "kysely";
import * as v from "valibot";
import { type Diagnosis, diagnose, learnedWeights, loadKnowledge, withSite } from "@/core/diagnosis";
import { valueOrThrow } from "@/core/result";
import type { Database } from "@/db/schema";
import { badEntry, said, text } from "../input";
import { newId } from "../now";
import { type Outcome, refuse } from "../outcome";
import { type SetupSaved, saveSetup } from "../setup/save-setup";
import type { Person } from "../sign-in/roles";
import { type Clock, momentOf } from "../write";
import { KNOWLEDGE_CODE, knownHere, noneOfOurOwn, type SiteKnowledge } from "./known-here";
import { loadCase } from "./load-case";

const code = v.pipe(v.string(), v.maxLength(60));
const weight = v.pipe(v.number("is no number"), v.minValue(-5, "is under −5"), v.maxValue(5, "is over 5"));
const condition = v.object({
  variable: v.pipe(v.string(), v.minLength(2), v.maxLength(120)),
  over: v.nullable(v.pipe(v.number(), v.finite())),
  under: v.nullable(v.pipe(v.number(), v.finite())),
});
const changeSchema = v.variant("kind", [
  v.object({
    kind: v.literal("weight"),
    defect: v.nullable(code),
    cause: code,
    finding: code,
    whenPresent: weight,
    whenAbsent: weight,
    because: said(300, "is too short: say why"),
  }),
  v.object({ kind: v.literal("weight-back"), defect: v.nullable(code), cause: code, finding: code }),
  v.object({
    kind: v.literal("base"),
    defect: code,
    cause: code,
    weight: v.pipe(v.number("is no number"), v.minValue(0.1, "is under 0.1"), v.maxValue(100, "is over 100")),
  }),
  v.object({ kind: v.literal("learn-anew"), defect: code }),
  v.object({
    kind: v.literal("watch"),
    defect: code,
    cause: code,
    when: v.pipe(v.array(condition), v.minLength(1, "is empty"), v.maxLength(4)),
    fromCase: text(20),
  }),
  v.object({ kind: v.literal("watch-stop"), id: v.pipe(v.string(), v.uuid()) }),
]);
type Change = v.InferOutput<typeof changeSchema>;
const schema = v.object({
  change: changeSchema,
  /** The version that was on screen; null where the site had none of its own. */
  seen: v.nullable(v.pipe(v.string(), v.uuid())),
  reason: said(400, "is too short: say why it is changed"),
});

/** What the site knows with one change made. */
function changed(own: SiteKnowledge, change: Change, at: Date): SiteKnowledge {
  type Weight = SiteKnowledge["weights"][number];
  const same = (w: Weight, c: { defect: string | null; cause: string; finding: string }) =>
    w.defect === c.defect && w.cause === c.cause && w.finding === c.finding;
  switch (change.kind) {
    case "weight": {
      const { kind: _, ...row } = change;
      return { ...own, weights: [...own.weights.filter((w) => !same(w, change)), row as Weight] };
    }
    case "weight-back":
      return { ...own, weights: own.weights.filter((w) => !same(w, change)) };
    case "base": {
      const { kind: _, ...row } = change;
      type Base = SiteKnowledge["bases"][number];
      return {
        ...own,
        bases: [...own.bases.filter((b) => b.defect !== change.defect || b.cause !== change.cause), row as Base],
      };
    }
    case "learn-anew": {
      type From = SiteKnowledge["learnsFrom"][number];
      const row = { defect: change.defect, from: at.toISOString() } as From;
      return { ...own, learnsFrom: [...own.learnsFrom.filter((l) => l.defect !== change.defect), row] };
    }
    case "watch": {
      const { kind: _, ...row } = change;
      const known = own.watches.some(
        (w) => !w.stopped && w.defect === row.defect && JSON.stringify(w.when) === JSON.stringify(row.when),
      );
      type Watch = SiteKnowledge["watches"][number];
      return known ? own : { ...own, watches: [...own.watches, { ...row, id: newId(), stopped: false } as Watch] };
    }
    case "watch-stop":
      return { ...own, watches: own.watches.map((w) => (w.id === change.id ? { ...w, stopped: true } : w)) };
  }
}

/** Whether a change speaks of what there is; null where it does. */
function unfit(change: Change) {
  const knowledge = loadKnowledge();
  if ("defect" in change && change.defect !== null && !knowledge.defects.has(change.defect))
    return { kind: "bad-entry", field: "defect", why: "is no defect", value: change.defect };
  if ("cause" in change && !knowledge.causes.has(change.cause))
    return { kind: "bad-entry", field: "cause", why: "is no cause", value: change.cause };
  if (
    "cause" in change &&
    "defect" in change &&
    change.defect !== null &&
    !knowledge.defects.get(change.defect)?.causes.has(change.cause)
  )
    return { kind: "bad-entry", field: "cause", why: `is not a cause of ${change.defect}`, value: change.cause };
  if ("finding" in change && !knowledge.findings.has(change.finding))
    return { kind: "bad-entry", field: "finding", why: "is no finding", value: change.finding };
  if (change.kind === "watch" && change.when.some((w) => (w.over === null) === (w.under === null) && w.over === null))
    return {
      kind: "bad-entry",
      field: "when",
      why: "has neither an upper nor a lower figure",
      value: change.when[0]?.variable,
    };
  return null;
}

/**
 * Keeps what the site knows otherwise as a new version, with why; the versions before stay. Failures: `bad-entry`,
 * `set-up-changed` where somebody changed it since it was on screen.
 */
export async function keepKnowledge(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(schema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { change, seen, reason } = parsed.output;
  const wrong = unfit(change);
  if (wrong) return refuse(wrong);
  const at = momentOf(clock);
  return saveSetup(
    db,
    person,
    "knowledge",
    {
      code: KNOWLEDGE_CODE,
      seen,
      reason,
      data: seen === null ? changed(noneOfOurOwn, change, at) : (own) => changed(own, change, at),
    },
    clock,
    { what: "knowledge" },
  );
}

/** A case that a change would rank otherwise: who leads, before and after, and where its confirmed cause stands. */
export type ReRanked = {
  readonly number: string;
  readonly defect: string;
  readonly before: { readonly cause: string; readonly strength: number };
  readonly after: { readonly cause: string; readonly strength: number };
  readonly confirmed: { readonly cause: string; readonly before: number; readonly after: number } | null;
};
export type Preview = {
  readonly looked: number;
  readonly cases: number;
  readonly reRanked: readonly ReRanked[];
};
/** Cases gone through at most, the newest; how many there are is said. */
const MOST_CASES = 120;
const AT_ONCE = 3;
/** A strength that moves by less is the same. */
const MOVED = 0.05;

/**
 * Which past cases a change would rank otherwise, before it is kept: nothing is stored. Failures: `bad-entry`. The record of
 * each case is gone through: O(cases of the defects it touches).
 */
export async function previewKnowledge(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<Preview>> {
  const parsed = v.safeParse(v.object({ change: changeSchema }), input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { change } = parsed.output;
  const wrong = unfit(change);
  if (wrong) return refuse(wrong);
  const at = momentOf(clock);
  const here = await knownHere(db, at);
  const next = changed(here.own, change, at);
  const changedKnowledge = withSite(loadKnowledge(), next);
  if (!changedKnowledge.ok) return refuse(changedKnowledge.error);
  const touched = [...here.knowledge.defects.values()].filter((d) =>
    "defect" in change && change.defect !== null
      ? d.id === change.defect
      : "cause" in change && d.causes.has(change.cause),
  );
  const rows = await db
    .selectFrom("root_cause_case")
    .select(["number", "defect"])
    .where("defect", "in", [...touched.map((d) => d.id), "-"])
    .orderBy("opened_at", "desc")
    .execute();
  const looked = rows.slice(0, MOST_CASES);
  const reRanked: ReRanked[] = [];
  for (let start = 0; start < looked.length; start += AT_ONCE)
    reRanked.push(
      ...(
        await Promise.all(
          looked.slice(start, start + AT_ONCE).map(async ({ number, defect }) => {
            const file = await loadCase(db, person, number, at);
            if (!file) return [];
            const counts =
              change.kind === "learn-anew"
                ? new Map<string, number>()
                : (here.confirmed.get(defect) ?? new Map<string, number>());
            const weights = learnedWeights(changedKnowledge.value.defects.get(defect)?.causes ?? new Map(), counts);
            const then = valueOrThrow(diagnose(changedKnowledge.value, defect, file.findings, weights));
            return compare(number, defect, file.diagnosis, then, file.confirmation?.cause ?? null);
          }),
        )
      ).flat(),
    );
  return { ok: true, looked: looked.length, cases: rows.length, reRanked };
}

function compare(number: string, defect: string, was: Diagnosis, is: Diagnosis, confirmed: string | null): ReRanked[] {
  const [a, b] = [was.causes[0], is.causes[0]];
  if (!a || !b) return [];
  const place = (d: Diagnosis) => d.causes.findIndex((c) => c.cause === confirmed) + 1;
  const moved =
    a.cause !== b.cause ||
    was.causes.some(
      (c) => Math.abs(c.strength - (is.causes.find((x) => x.cause === c.cause)?.strength ?? 0)) >= MOVED,
    ) ||
    was.enoughToTell !== is.enoughToTell ||
    (confirmed !== null && place(was) !== place(is));
  return moved
    ? [
        {
          number,
          defect,
          before: { cause: a.cause, strength: a.strength },
          after: { cause: b.cause, strength: b.strength },
          confirmed: confirmed === null ? null : { cause: confirmed, before: place(was), after: place(is) },
        },
      ]
    : [];
}
