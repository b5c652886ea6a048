import { type Kysely, sql } from "kysely";
import { type BathParameter, judgeBathValue, movedBy, type ValueAtPassage, valueAtPassage } from "@/core/bath";
import type { EvidenceGrade, VerdictResult } from "@/core/verdict";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { setupAt } from "../setup/setup-data";

export type BathCondition = {
  readonly kind: "bath";
  readonly rackId: string;
  readonly bathId: string;
  readonly bath: string;
  readonly bathCode: string;
  readonly role: string;
  readonly stage: string;
  readonly at: Date;
  readonly parameter: BathParameter;
  readonly found: ValueAtPassage;
  readonly lower: number | null;
  readonly upper: number | null;
  readonly result: VerdictResult;
  /** The stage's contact-time window, s, as the bath was set up; null where none is set. */
  readonly contactS: readonly [number, number] | null;
};
export type PassageCondition = {
  readonly rackId: string;
  readonly recordId: string;
  readonly stage: string;
  readonly enteredAt: Date;
  readonly leftAt: Date | null;
  readonly seconds: number | null;
  readonly grade: EvidenceGrade;
};
export type Conditions = { readonly passages: readonly PassageCondition[]; readonly baths: readonly BathCondition[] };

type Row = {
  rack_id: string;
  record_id: string;
  stage: string;
  entered_at: Date;
  left_at: Date | null;
  source: string;
  bath_id: string | null;
  parameter: BathParameter | null;
  before_at: Date | null;
  before_value: number | null;
  before_id: string | null;
  after_at: Date | null;
  after_value: number | null;
  after_id: string | null;
  events: { readonly at: string; readonly event: string; readonly product: string }[] | null;
};

/** A check further off than this many rounds, or than a fortnight, says nothing of a passage. */
const ROUNDS_REACHED = 3;
const LEAST_REACH_HOURS = 14 * 24;

/**
 * The conditions when racks passed: each passage joined to what was recorded about that stage, bath values taken at
 * the minute of passage. One set-based query for one rack or thousands; each look-up is an index probe on
 * (bath, time) that reaches no further than three rounds, so that the cost grows with passages × parameters, not with the
 * length of the history, also where a value is hardly ever read.
 */
export async function conditionsWhenPassed(
  db: Kysely<Database>,
  rackIds: readonly string[],
  at: Date,
): Promise<Conditions> {
  if (rackIds.length === 0) return { passages: [], baths: [] };
  const baths = [...(await setupAt(db, "bath", at)).values()].filter((bath) => !bath.data.retired);
  const watched = baths.flatMap((bath) =>
    Object.entries(bath.data.windows).map(([parameter, window]) => ({
      stage: bath.data.stage,
      id: bath.id,
      parameter,
      reachHours: Math.max(LEAST_REACH_HOURS, ROUNDS_REACHED * (window.roundHours ?? bath.data.roundHours)),
    })),
  );
  const { rows } = await sql<Row>`
    with watched (stage, bath_id, parameter, reach) as (select s, b, p, h * interval '1 hour' from unnest(${watched.map((w) => w.stage)}::text[], ${watched.map((w) => w.id)}::uuid[], ${watched.map((w) => w.parameter)}::text[], ${watched.map((w) => w.reachHours)}::float8[]) as u (s, b, p, h)),
    passed as (select r.rack_id, r.id, p.stage, p.entered_at, coalesce(p.left_at, lead(p.entered_at) over (partition by r.rack_id order by p.entered_at, r.id)) as left_at, p.source
      from record r join passage p on p.record_id = r.id where r.rack_id = any(${rackIds}::uuid[]) and r.kind = 'passage' and ${stands("r.id")})
    select p.rack_id, p.id as record_id, p.stage, p.entered_at, p.left_at, p.source,
      w.bath_id, w.parameter, b.happened_at as before_at, b.value as before_value, b.id as before_id, a.happened_at as after_at, a.value as after_value, a.id as after_id, e.events
    from passed p
    left join watched w on w.stage = p.stage
    left join lateral (select c.id, c.happened_at, k.value from record c join bath_check k on k.record_id = c.id and k.parameter = w.parameter
      where c.bath_id = w.bath_id and c.kind = 'bath-check' and c.happened_at <= p.entered_at and c.happened_at >= p.entered_at - w.reach and ${stands("c.id")}
      order by c.happened_at desc limit 1) b on true
    left join lateral (select c.id, c.happened_at, k.value from record c join bath_check k on k.record_id = c.id and k.parameter = w.parameter
      where c.bath_id = w.bath_id and c.kind = 'bath-check' and c.happened_at > p.entered_at and c.happened_at <= p.entered_at + w.reach and ${stands("c.id")}
      order by c.happened_at limit 1) a on true
    left join lateral (select jsonb_agg(jsonb_build_object('at', v.happened_at, 'event', x.event, 'product', coalesce(x.product, ''))) as events from record v join bath_event x on x.record_id = v.id where v.bath_id = w.bath_id and v.kind = 'bath-event' and ${stands("v.id")}
      and v.happened_at > coalesce(b.happened_at, p.entered_at - interval '2 days') and v.happened_at <= coalesce(a.happened_at, p.entered_at + interval '2 days')) e on true
    order by p.rack_id, p.entered_at, w.parameter`.execute(db);
  const byId = new Map(baths.map((bath) => [bath.id, bath]));
  const passages = new Map<string, PassageCondition>();
  const found: BathCondition[] = [];
  for (const row of rows) {
    passages.set(row.record_id, {
      rackId: row.rack_id,
      recordId: row.record_id,
      stage: row.stage,
      enteredAt: row.entered_at,
      leftAt: row.left_at,
      seconds: row.left_at ? (row.left_at.getTime() - row.entered_at.getTime()) / 1000 : null,
      grade: row.source === "line-speed" ? "by-procedure" : "measured",
    });
    const bath = row.bath_id ? byId.get(row.bath_id) : undefined;
    if (!bath || !row.parameter) continue;
    const check = (atRow: Date | null, value: number | null, id: string | null) =>
      atRow && value !== null && id ? { atMs: atRow.getTime(), value, recordId: id } : null;
    const value = valueAtPassage({
      atMs: row.entered_at.getTime(),
      before: check(row.before_at, row.before_value, row.before_id),
      after: check(row.after_at, row.after_value, row.after_id),
      // An addition of one thing is no change of another.
      eventsMs: (row.events ?? []).flatMap((e) =>
        (movedBy(bath.data, e) as readonly string[]).includes(row.parameter ?? "") ? [Date.parse(e.at)] : [],
      ),
      roundHours: bath.data.windows[row.parameter]?.roundHours ?? bath.data.roundHours,
    });
    const window = bath.data.windows[row.parameter] ?? null;
    found.push({
      kind: "bath",
      rackId: row.rack_id,
      bathId: bath.id,
      bath: bath.data.name,
      bathCode: bath.code,
      role: bath.data.role,
      contactS: bath.data.contactS,
      stage: row.stage,
      at: row.entered_at,
      parameter: row.parameter,
      found: value,
      lower: window?.lower ?? null,
      upper: window?.upper ?? null,
      result: value.value === null ? "unknown" : judgeBathValue(value.value, window),
    });
  }
  return { passages: [...passages.values()], baths: found };
}
