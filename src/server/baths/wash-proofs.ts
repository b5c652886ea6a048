import { type Kysely, sql } from "kysely";
import type { PanelLook } from "@/core/bath";
import type { EvidenceGrade } from "@/core/verdict";
import type { Database } from "@/db/schema";

export type PanelSeen = {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  readonly grade: EvidenceGrade;
  readonly gPerM2: number | null;
  readonly colour: string | null;
  readonly look: PanelLook;
  readonly note: string;
};
export type SludgeSeen = {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  readonly what: "measured" | "desludged" | "filter-changed";
  readonly depthMm: number | null;
  readonly note: string;
};
/** Newest shown of each. */
const SHOWN = 8;

/** A bath's newest panels and what was done about its sludge, newest first. Two queries on (bath, time). */
export async function washProofs(
  db: Kysely<Database>,
  bathId: string,
  at: Date,
): Promise<{ readonly panels: readonly PanelSeen[]; readonly sludge: readonly SludgeSeen[] }> {
  const stands = sql.raw("not exists (select 1 from record s where s.supersedes = r.id)");
  const [panels, sludge] = await Promise.all([
    sql<PanelSeen>`
      select r.id as "recordId", r.happened_at as at, r.by_user as by, r.grade, p.g_per_m2 as "gPerM2", p.colour, p.look, coalesce(p.note, '') as note
      from record r join wash_panel p on p.record_id = r.id where r.bath_id = ${bathId} and r.kind = 'wash-panel' and r.happened_at <= ${at} and ${stands}
      order by r.happened_at desc limit ${SHOWN}`.execute(db),
    sql<SludgeSeen>`
      select r.id as "recordId", r.happened_at as at, r.by_user as by, p.what, p.depth_mm as "depthMm", coalesce(p.note, '') as note
      from record r join sludge p on p.record_id = r.id where r.bath_id = ${bathId} and r.kind = 'sludge' and r.happened_at <= ${at} and ${stands}
      order by r.happened_at desc limit ${SHOWN}`.execute(db),
  ]);
  return { panels: panels.rows, sludge: sludge.rows };
}
