import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import type { BathParameter, BathWindow } from "@/core/bath";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { setupSchemas } from "../setup/setup-schemas";

/** Checks sent at most: a tank checked every ten minutes for a year. */
export const MOST_CHECKS = 60_000;

export type BathHistory = {
  /** Milliseconds since 1970 and the values, oldest first. */
  readonly atMs: readonly number[];
  readonly values: readonly number[];
  /** Checks that are on record before the first one sent. */
  readonly older: number;
  /** The window as it was set up, from each moment on. */
  readonly windows: readonly ({ readonly fromMs: number; readonly reason: string } & BathWindow)[];
  readonly events: readonly { readonly atMs: number; readonly event: string; readonly label: string }[];
};

/**
 * Every check of one value of a bath, newest `MOST_CHECKS`, with the windows of their time and what was done to the bath.
 * Three queries on (bath, time); O(checks).
 */
export async function bathHistory(
  db: Kysely<Database>,
  bathId: string,
  parameter: BathParameter,
  at: Date,
): Promise<BathHistory> {
  const [checks, versions, events] = await Promise.all([
    sql<{ at: string; value: number }>`
      select extract(epoch from r.happened_at) * 1000 as at, k.value from record r join bath_check k on k.record_id = r.id and k.parameter = ${parameter}
      where r.bath_id = ${bathId} and r.kind = 'bath-check' and r.happened_at <= ${at} and ${stands("r.id")} order by r.happened_at desc limit ${MOST_CHECKS}`.execute(
      db,
    ),
    db
      .selectFrom("setup_version")
      .select(["valid_from", "reason", "data"])
      .where("entity_id", "=", bathId)
      .where("valid_from", "<=", at)
      .orderBy("valid_from")
      .orderBy("recorded_at")
      .execute(),
    sql<{ at: Date; event: string; product: string | null; litres: number | null }>`
      select r.happened_at as at, e.event, e.product, e.amount_l as litres from record r join bath_event e on e.record_id = r.id
      where r.bath_id = ${bathId} and r.kind = 'bath-event' and r.happened_at <= ${at} and ${stands("r.id")} order by r.happened_at desc limit 2000`.execute(
      db,
    ),
  ]);
  const rows = checks.rows.reverse();
  return {
    atMs: rows.map((row) => Math.round(Number(row.at))),
    values: rows.map((row) => row.value),
    older: rows.length < MOST_CHECKS ? 0 : await olderThan(db, bathId, parameter, new Date(Number(rows[0]?.at))),
    windows: versions.flatMap((version) => {
      const window = v.parse(setupSchemas.bath, version.data).windows[parameter];
      return window ? [{ fromMs: version.valid_from.getTime(), reason: version.reason, ...window }] : [];
    }),
    events: events.rows.reverse().map((e) => ({
      atMs: e.at.getTime(),
      event: e.event,
      label: [e.event, e.litres === null ? "" : `${e.litres} L`, e.product ?? ""].filter(Boolean).join(" "),
    })),
  };
}

/** How many checks of a value lie before a moment. */
async function olderThan(db: Kysely<Database>, bathId: string, parameter: BathParameter, at: Date): Promise<number> {
  const { rows } = await sql<{ n: string }>`
    select count(*) as n from record r join bath_check k on k.record_id = r.id and k.parameter = ${parameter}
    where r.bath_id = ${bathId} and r.kind = 'bath-check' and r.happened_at < ${at} and ${stands("r.id")}`.execute(db);
  return Number(rows[0]?.n ?? 0);
}
