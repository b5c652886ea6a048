import { type Kysely, sql } from "kysely";
import { afterStop, judgeStop, type LineStop, type PassageBySpeed, type StoppedAt } from "@/core/line";
import type { VerdictResult } from "@/core/verdict";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";

export type StoredPassage = PassageBySpeed & {
  readonly recordId: string;
  readonly rackId: string;
  readonly jobId: string;
  readonly rack: string;
};
/** A rack is through a washer within this time, stops included, h. */
const THROUGH_WITHIN_HOURS = 12;

/**
 * Passages of the racks that were in the line at a moment, by rack, in order. One query on (stage, time).
 * A passage that names no line, as scanned ones do, may be of any. A rack that has none that ends after the moment was out
 * of the line already; one by a key ends with the next of its rack, and has no end (Infinity) while there is none.
 */
export async function inLineAt(
  db: Kysely<Database>,
  line: { readonly id: string; readonly stages: readonly string[] },
  at: Date,
  person: Person | null = null,
  /** Passages reckoned from the line's speed move with a stop; scanned ones, and those by a key, have it in them already. */
  sources: readonly string[] = ["line-speed"],
): Promise<ReadonlyMap<string, readonly StoredPassage[]>> {
  const since = new Date(at.getTime() - THROUGH_WITHIN_HOURS * 3_600_000);
  const until = new Date(at.getTime() + 2 * THROUGH_WITHIN_HOURS * 3_600_000);
  const { rows } = await sql<{
    id: string;
    rack_id: string;
    job_id: string;
    number: string;
    stage: string;
    entered_at: Date;
    left_at: Date | null;
  }>`
    select r.id, r.rack_id, r.job_id, k.number, p.stage, p.entered_at, coalesce(p.left_at, n.entered_at) as left_at from passage p join record r on r.id = p.record_id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
    left join lateral (select q.entered_at from record m join passage q on q.record_id = m.id where p.left_at is null and m.rack_id = r.rack_id and m.kind = 'passage' and q.entered_at > p.entered_at and ${stands("m.id")} order by q.entered_at limit 1) n on true
    where p.stage = any(${line.stages}::text[]) and (p.line_id is null or p.line_id = ${line.id}) and p.entered_at >= ${since} and p.entered_at <= ${until} and p.source = any(${sources}::text[]) and (p.left_at is not null or p.source = 'key')
      and ${person ? forPerson(person, "j.customer_id") : sql`true`}
      and ${stands("r.id")} order by k.number, p.entered_at`.execute(db);
  const byRack = new Map<string, StoredPassage[]>();
  for (const row of rows) {
    const mine = byRack.get(row.rack_id) ?? [];
    mine.push({
      recordId: row.id,
      rackId: row.rack_id,
      jobId: row.job_id,
      rack: row.number,
      stage: row.stage,
      enteredMs: row.entered_at.getTime(),
      leftMs: row.left_at?.getTime() ?? Number.POSITIVE_INFINITY,
    });
    byRack.set(row.rack_id, mine);
  }
  const inside = (run: readonly StoredPassage[]) =>
    (run[0]?.enteredMs ?? Number.POSITIVE_INFINITY) <= at.getTime() && (run.at(-1)?.leftMs ?? 0) > at.getTime();
  return new Map([...byRack].filter(([, run]) => inside(run)));
}

/** Stops of a line that began in a span, oldest first; corrected ones left out. */
export async function stopsBetween(db: Kysely<Database>, lineId: string, from: Date, to: Date): Promise<LineStop[]> {
  const { rows } = await sql<{ from_at: Date; to_at: Date }>`
    select s.from_at, s.to_at from line_stop s join record r on r.id = s.record_id where s.line_id = ${lineId} and s.from_at >= ${from} and s.from_at <= ${to}
      and ${stands("r.id")} order by s.from_at`.execute(db);
  return rows.map((row) => ({ fromMs: row.from_at.getTime(), toMs: row.to_at.getTime() }));
}

/** A run through the line with the stops it met, one after another: each moves what was still to come. */
export function throughStops(
  passages: readonly PassageBySpeed[],
  stops: readonly LineStop[],
): readonly PassageBySpeed[] {
  return stops.reduce((run, stop) => {
    const after = afterStop(run, stop);
    return after.ok && after.value ? after.value.passages : run;
  }, passages);
}

export type StopSeen = {
  readonly recordId: string;
  readonly line: string;
  readonly from: Date;
  readonly to: Date;
  readonly cause: string;
  readonly by: string;
  readonly racks: readonly {
    readonly number: string;
    readonly at: StoppedAt;
    /** In all, the stop with it; null where when it left is not on record. */
    readonly seconds: number | null;
    /** What it may take, s: the contact asked for, or the longest it may stand wet; null where none is set or it is dry. */
    readonly limitS: readonly [number | null, number] | null;
    readonly result: VerdictResult;
  }[];
};
/** Stages where a piece is dry: standing there longer rusts nothing. */
const DRY_STAGES = ["dry-off", "dry", "cool"];

/** The stops of the last days, newest first, each with the racks that stood in the line and what it did to them. O(stops × racks in the line). */
export async function loadLineStops(
  db: Kysely<Database>,
  person: Person,
  at: Date,
  days = 2,
): Promise<readonly StopSeen[]> {
  const since = new Date(at.getTime() - days * 86_400_000);
  const [lines, baths, site, { rows }] = await Promise.all([
    setupAt(db, "line", at),
    setupAt(db, "bath", at),
    siteAt(db, at),
    sql<{ id: string; line_id: string; from_at: Date; to_at: Date; cause: string; by_user: string }>`
      select r.id, s.line_id, s.from_at, s.to_at, s.cause, ${personName("r.by_user")} as by_user from line_stop s join record r on r.id = s.record_id
      where s.from_at >= ${since} and s.from_at <= ${at} and ${stands("r.id")} order by s.from_at desc limit 20`.execute(
      db,
    ),
  ]);
  return Promise.all(
    rows.map(async (row): Promise<StopSeen> => {
      const line = lines.get(row.line_id);
      const stages = line?.data.stages.map((s) => s.stage) ?? [];
      const runs = await inLineAt(db, { id: row.line_id, stages }, row.from_at, person, ["line-speed", "scan", "key"]);
      const stop = { fromMs: row.from_at.getTime(), toMs: row.to_at.getTime() };
      return {
        recordId: row.id,
        line: line?.code ?? "",
        from: row.from_at,
        to: row.to_at,
        cause: row.cause,
        by: row.by_user,
        racks: [...runs.values()].flatMap((run): StopSeen["racks"] => {
          const stood = stoodAt(run, stop.fromMs);
          const number = run[0]?.rack;
          if (!stood || !number) return [];
          const contactS =
            stood.at.where === "in-stage"
              ? ([...baths.values()].find((b) => b.data.stage === (stood.at as { stage: string }).stage)?.data
                  .contactS ?? null)
              : null;
          const limits = { contactS, wetLimitS: site.wetLimitS, dryStages: DRY_STAGES };
          const wet = stood.at.where === "between" && !DRY_STAGES.includes(stood.at.after);
          const limitS = wet ? ([null, site.wetLimitS] as const) : contactS;
          return Number.isFinite(stood.seconds)
            ? [{ number, ...stood, limitS, result: judgeStop(stood, limits) }]
            : [{ number, ...stood, seconds: null, limitS, result: "unknown" as const }];
        }),
      };
    }),
  );
}

/** Where a rack stood at a moment and for how long in all, by its passages as they are on record: the stop is already in them. */
function stoodAt(run: readonly PassageBySpeed[], ms: number): { at: StoppedAt; seconds: number } | null {
  const inside = run.find((p) => p.enteredMs <= ms && ms < p.leftMs);
  if (inside)
    return { at: { where: "in-stage", stage: inside.stage }, seconds: (inside.leftMs - inside.enteredMs) / 1000 };
  const next = run.findIndex((p) => p.enteredMs > ms);
  const before = run[next - 1];
  const after = run[next];
  return before && after
    ? {
        at: { where: "between", after: before.stage, before: after.stage },
        seconds: (after.enteredMs - before.leftMs) / 1000,
      }
    : null;
}
