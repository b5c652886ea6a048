import { type Kysely, sql } from "kysely";
import { type UpkeepResult, type UpkeepStage, type UpkeepStanding, upkeepStanding } from "@/core/upkeep";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { type SetupItem, setupAt } from "../setup/setup-data";

export type UpkeepDone = {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  readonly result: UpkeepResult;
  readonly value: number | null;
  readonly unit: string | null;
  readonly who: string | null;
  readonly note: string | null;
};
export type UpkeepFile = {
  readonly item: SetupItem<"upkeep">;
  /** Newest first. */
  readonly done: readonly UpkeepDone[];
  readonly standing: UpkeepStanding;
};

/** In what order they are looked at: out first, then never done, then by when they are due. */
const urgency = ({ standing }: UpkeepFile): number =>
  standing.state === "not-in-order" ? Number.NEGATIVE_INFINITY : (standing.dueMs ?? 0);

/**
 * What is kept up, with what was last found, the most urgent first. Two queries; O(items × their upkeeps on record), a
 * few hundred a year.
 */
export async function loadUpkeep(
  db: Kysely<Database>,
  at: Date,
  { stage = null, history = 1 }: { readonly stage?: UpkeepStage | null; readonly history?: number } = {},
): Promise<readonly UpkeepFile[]> {
  const items = [...(await setupAt(db, "upkeep", at)).values()].filter(
    ({ data }) => !data.retired && (stage === null || data.stage === stage),
  );
  if (items.length === 0) return [];
  const { rows } = await sql<UpkeepDone & { item: string }>`
    select i.id as item, d.* from unnest(${items.map((i) => i.id)}::uuid[]) as i(id) cross join lateral (
      select r.id as "recordId", r.happened_at as at, ${personName("r.by_user")} as by, u.result, u.value, u.unit, u.who, u.note from upkeep_done u join record r on r.id = u.record_id
      where u.item_id = i.id and r.happened_at <= ${at} and ${stands("r.id")}
      order by r.happened_at desc, r.id desc limit ${history}) d`.execute(db);
  return items
    .map((item) => {
      const done = rows.filter((row) => row.item === item.id);
      const last = done[0] ? { atMs: done[0].at.getTime(), result: done[0].result } : null;
      return { item, done, standing: upkeepStanding(item.data.everyDays, last, at.getTime()) };
    })
    .sort((a, b) => urgency(a) - urgency(b) || a.item.code.localeCompare(b.item.code, "en", { numeric: true }));
}
