import { type Kysely, sql } from "kysely";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

export type GaugeCheck = {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  readonly holds: boolean;
  readonly note: string | null;
  readonly shims: readonly {
    readonly certifiedUm: number;
    readonly toleranceUm: number;
    readonly meanUm: number;
    readonly holds: boolean;
  }[];
};

/** Checks of a gauge on its shims, newest first. One query; O(limit × shims). */
export async function gaugeChecks(
  db: Kysely<Database>,
  instrumentId: string,
  at: Date,
  limit = 20,
): Promise<readonly GaugeCheck[]> {
  const { rows } = await sql<GaugeCheck>`
    select r.id as "recordId", r.happened_at as at, ${personName("r.by_user")} as by, g.holds, g.note,
      (select json_agg(json_build_object('certifiedUm', s.certified_um, 'toleranceUm', s.tolerance_um, 'meanUm', s.mean_um, 'holds', s.holds) order by s.ordinal) from gauge_shim s where s.record_id = r.id) as shims
    from record r join gauge_check g on g.record_id = r.id where r.instrument_id = ${instrumentId} and r.kind = 'gauge-check' and r.happened_at <= ${at}
      and ${stands("r.id")} order by r.happened_at desc, r.id desc limit ${limit}`.execute(db);
  return rows;
}

export type InQuestion = {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  readonly rack: string;
  readonly readings: number;
};

/**
 * Sets read with a gauge between its last good check and a check it failed: each is in question until read again. Empty
 * where the newest check holds. One query on (instrument, time); O(sets between).
 */
export async function readingsInQuestion(
  db: Kysely<Database>,
  instrumentId: string,
  checks: readonly GaugeCheck[],
): Promise<readonly InQuestion[]> {
  const [newest] = checks;
  if (!newest || newest.holds) return [];
  const good = checks.find((c) => c.holds);
  const { rows } = await sql<InQuestion>`
    select r.id as "recordId", r.happened_at as at, ${personName("r.by_user")} as by, k.number as rack, (select count(*)::int from thickness_reading t where t.record_id = r.id) as readings
    from record r join rack k on k.id = r.rack_id where r.instrument_id = ${instrumentId} and r.kind = 'thickness'
      and r.happened_at > ${good?.at ?? new Date(0)} and r.happened_at <= ${newest.at} and ${stands("r.id")}
    order by r.happened_at desc limit 500`.execute(db);
  return rows;
}

/**
 * Of some sets of readings, those whose gauge failed the first check after them, or the last one before. One query; O(sets).
 */
export async function doubtedSets(db: Kysely<Database>, recordIds: readonly string[]): Promise<ReadonlySet<string>> {
  if (recordIds.length === 0) return new Set();
  const check = sql`from record c join gauge_check g on g.record_id = c.id where c.instrument_id = r.instrument_id and c.kind = 'gauge-check' and ${stands("c.id")}`;
  const { rows } = await sql<{ id: string }>`
    select r.id from record r where r.id = any(${recordIds}::uuid[]) and r.instrument_id is not null and (
      coalesce((select not g.holds ${check} and c.happened_at >= r.happened_at order by c.happened_at limit 1), false)
      or coalesce((select not g.holds ${check} and c.happened_at < r.happened_at order by c.happened_at desc limit 1), false))`.execute(
    db,
  );
  return new Set(rows.map((row) => row.id));
}
