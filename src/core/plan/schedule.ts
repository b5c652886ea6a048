import { err, ok, type Result } from "../result";

export type StageOfWork = "blast" | "wash" | "booth" | "oven";
export const stagesOfWork = ["blast", "wash", "booth", "oven"] as const;
export type WorkToPlan = {
  readonly job: string;
  /** Hours at each stage, in order; a stage left out is not needed. */
  readonly hours: Readonly<Partial<Record<StageOfWork, number>>>;
  readonly colour: string;
  /** Loads that bake alike go one after another: the sheet's temperature, say. */
  readonly cureGroup: string;
  /** Working hours from now until it is due; null where it has no date. */
  readonly dueInHours: number | null;
  /** Working hours from now at which a person has set it to start; it is never moved. */
  readonly pinnedAtHour: number | null;
};
export type PlannedStage = { readonly stage: StageOfWork; readonly fromHour: number; readonly toHour: number };
export type PlannedJob = {
  readonly job: string;
  readonly stages: readonly PlannedStage[];
  readonly finishHour: number;
  readonly lateHours: number | null;
  readonly pinned: boolean;
  readonly because: "pinned" | "same-colour" | "due-first" | "shortest";
};
export type Conflict =
  | { readonly kind: "late"; readonly job: string; readonly hours: number }
  | {
      readonly kind: "overlap";
      readonly job: string;
      readonly with: string;
      readonly stage: StageOfWork;
      readonly hours: number;
    };
export type Schedule = {
  readonly kind: "schedule";
  readonly jobs: readonly PlannedJob[];
  readonly conflicts: readonly Conflict[];
  readonly colourChanges: number;
};

/** Hours a colour change costs the booth where none is given. */
export const COLOUR_CHANGE_HOURS = 0.5;
/** A due job is not held back for its colour's sake by more than this, h. */
export const COLOUR_WORTH_HOURS = 8;

/**
 * A modest schedule: one place at each stage, jobs in an order that is explained. What a person pinned stands where it
 * was put. Of the rest the most urgent goes next (least hours between its work and its due time), unless the colour in
 * the booth has a job not much less urgent, which saves a change. It promises no best plan, only one that can be followed
 * and is reckoned right. Failures: `bad-hours` (job, stage), `no-work`, `twice` (job). O(n² · stages): 300 jobs in
 * milliseconds.
 */
export function schedule(
  work: readonly WorkToPlan[],
  options: { readonly colourChangeHours?: number; readonly colourNow?: string | null } = {},
): Result<Schedule> {
  const change = options.colourChangeHours ?? COLOUR_CHANGE_HOURS;
  const seen = new Set<string>();
  for (const w of work) {
    if (seen.has(w.job)) return err({ kind: "twice", job: w.job });
    seen.add(w.job);
    const entries = Object.entries(w.hours);
    if (entries.length === 0) return err({ kind: "no-work", job: w.job });
    for (const [stage, hours] of entries)
      if (!(hours > 0) || !Number.isFinite(hours)) return err({ kind: "bad-hours", job: w.job, stage, hours });
    if (w.pinnedAtHour !== null && !(w.pinnedAtHour >= 0))
      return err({ kind: "in-the-past", job: w.job, hour: w.pinnedAtHour });
  }
  const busy: Record<StageOfWork, { from: number; to: number; job: string; colour: string }[]> = {
    blast: [],
    wash: [],
    booth: [],
    oven: [],
  };
  const conflicts: Conflict[] = [];
  const done: PlannedJob[] = [];
  const place = (w: WorkToPlan, startHour: number, fixed: boolean, because: PlannedJob["because"]) => {
    let at = startHour;
    const stages: PlannedStage[] = [];
    for (const stage of stagesOfWork) {
      const hours = w.hours[stage];
      if (hours === undefined) continue;
      const from = fixed ? at : firstGap(busy[stage], at, hours, stage === "booth" ? w.colour : null, change);
      const to = from + hours;
      if (fixed)
        for (const b of busy[stage]) {
          const shared = Math.min(b.to, to) - Math.max(b.from, from);
          if (shared > 1e-9) conflicts.push({ kind: "overlap", job: w.job, with: b.job, stage, hours: shared });
        }
      busy[stage].push({ from, to, job: w.job, colour: w.colour });
      busy[stage].sort((a, b) => a.from - b.from);
      stages.push({ stage, fromHour: from, toHour: to });
      at = to;
    }
    const finishHour = at;
    const lateHours = w.dueInHours === null ? null : Math.max(0, finishHour - w.dueInHours);
    if (lateHours !== null && lateHours > 1e-9) conflicts.push({ kind: "late", job: w.job, hours: lateHours });
    done.push({ job: w.job, stages, finishHour, lateHours, pinned: fixed, because });
  };
  for (const w of [...work]
    .filter((x) => x.pinnedAtHour !== null)
    .sort((a, b) => (a.pinnedAtHour ?? 0) - (b.pinnedAtHour ?? 0)))
    place(w, w.pinnedAtHour as number, true, "pinned");
  const left = work.filter((w) => w.pinnedAtHour === null);
  const slack = (w: WorkToPlan) => (w.dueInHours ?? Number.POSITIVE_INFINITY) - total(w);
  const urgency = [...left].sort((a, b) => slack(a) - slack(b) || total(a) - total(b) || a.job.localeCompare(b.job));
  let colour = options.colourNow ?? null;
  let group: string | null = null;
  while (urgency.length > 0) {
    const first = urgency[0] as WorkToPlan;
    const alike = urgency.filter((w) => w.colour === colour && slack(w) - slack(first) <= COLOUR_WORTH_HOURS);
    const alikeCure = alike.find((w) => w.cureGroup === group) ?? alike[0];
    const next = alikeCure ?? first;
    const because =
      next !== first || next.colour === colour ? "same-colour" : next.dueInHours === null ? "shortest" : "due-first";
    urgency.splice(urgency.indexOf(next), 1);
    place(next, 0, false, because);
    colour = next.colour;
    group = next.cureGroup;
  }
  const booth = busy.booth;
  const changes = booth.reduce(
    (n, b, i) => n + (b.colour !== (i === 0 ? (options.colourNow ?? b.colour) : booth[i - 1]?.colour) ? 1 : 0),
    0,
  );
  return ok({
    kind: "schedule",
    jobs: done.sort((a, b) => (a.stages[0]?.fromHour ?? 0) - (b.stages[0]?.fromHour ?? 0)),
    conflicts,
    colourChanges: changes,
  });
}

const total = (w: WorkToPlan): number => Object.values(w.hours).reduce((a, b) => a + b, 0);

/** The first hour at or after `from` with `hours` free; in the booth a change of colour before and after is reckoned in. */
function firstGap(
  busy: readonly { from: number; to: number; colour: string }[],
  from: number,
  hours: number,
  colour: string | null,
  change: number,
): number {
  let at = from;
  for (const [i, b] of busy.entries()) {
    const before = busy[i - 1];
    const lead = colour !== null && before && before.colour !== colour ? change : 0;
    const start = Math.max(at, before ? before.to + lead : at);
    const tail = colour !== null && b.colour !== colour ? change : 0;
    if (start + hours + tail <= b.from + 1e-9) return start;
    at = Math.max(at, b.to);
  }
  const last = busy[busy.length - 1];
  return Math.max(at, last ? last.to + (colour !== null && last.colour !== colour ? change : 0) : at);
}
