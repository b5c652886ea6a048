import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { judgeBake, ownChannels, type PowderSchedule } from "@/core/cure";
import type { VerdictResult } from "@/core/verdict";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { sectionsOf } from "../bake/section-readings";
import { layerOnTop } from "../bake/sheet-of";
import { channelsOf } from "../rack/judge-rack";
import { scheduleOfPowder, setupAt } from "../setup/setup-data";
import { setupSchemas } from "../setup/setup-schemas";

export type JudgedAgain = {
  readonly rack: string;
  readonly load: string;
  readonly at: Date;
  readonly before: { readonly result: VerdictResult; readonly index: number } | null;
  readonly now: { readonly result: VerdictResult; readonly index: number } | null;
};
export type AgainStep =
  | { readonly kind: "progress"; readonly done: number; readonly of: number }
  | { readonly kind: "changed"; readonly bake: JudgedAgain }
  | { readonly kind: "end"; readonly judged: number; readonly changed: number; readonly withoutTrace: number };

/** Bakes read and judged at a time. */
const AT_A_TIME = 25;
/** More than these are not judged again at once. */
const MOST_BAKES = 5000;

type Row = {
  record_id: string;
  at: Date;
  pulled_at: Date | null;
  load_no: string;
  number: string;
  channel: string | null;
  sections: unknown;
  racks: number;
};

/**
 * Every bake of a powder judged by its sheet as it stood then and as it stands now, step by step; those whose verdict is
 * another are told. Stops when `signal` does. O(bakes · channels · samples), twenty-five bakes in memory at a time.
 */
export async function* judgeAgain(
  db: Kysely<Database>,
  powderId: string,
  at: Date,
  signal: AbortSignal | null = null,
): AsyncGenerator<AgainStep> {
  const [now, { rows: versions }, { rows }] = await Promise.all([
    setupAt(db, "powder", at),
    sql<{ valid_from: Date; data: unknown }>`
      select valid_from, data from setup_version where entity_id = ${powderId} and valid_from <= ${at} order by valid_from, recorded_at`.execute(
      db,
    ),
    sql<Row>`
      select b.record_id, b.door_closed_at as at, b.pulled_at, b.load_no, b.sections, k.number, p.channel,
        (select count(*)::int from bake_place x where x.record_id = b.record_id) as racks
      from job j join rack k on k.job_id = j.id join bake_place p on p.rack_id = k.id join bake b on b.record_id = p.record_id
      where j.powder_id = ${powderId} and b.door_closed_at <= ${at} and b.pulled_at is not null and ${stands("b.record_id")}
        and ${layerOnTop} <> 'primer'
      order by b.door_closed_at desc limit ${MOST_BAKES}`.execute(db),
  ]);
  const newest = now.get(powderId)?.data;
  if (!newest) return;
  const sheets = versions.map((version) => ({
    from: version.valid_from,
    schedule: scheduleOfPowder(v.parse(setupSchemas.powder, version.data)),
  }));
  const current = scheduleOfPowder(newest);
  let [changed, withoutTrace] = [0, 0];
  for (let i = 0; i < rows.length; i += AT_A_TIME) {
    if (signal?.aborted) return;
    const some = rows.slice(i, i + AT_A_TIME);
    const channels = await db
      .selectFrom("bake_channel")
      .selectAll()
      .where("record_id", "in", [...new Set(some.map((r) => r.record_id))])
      .orderBy("ordinal")
      .execute();
    for (const row of some) {
      const all = channelsOf(channels.filter((c) => c.record_id === row.record_id));
      if (all.length === 0) {
        withoutTrace++;
        continue;
      }
      const own = ownChannels(all, row.number, row.channel, row.racks);
      const pullS = row.pulled_at ? (row.pulled_at.getTime() - row.at.getTime()) / 1000 : null;
      const judge = (schedule: PowderSchedule) => {
        const verdict = judgeBake(own, schedule, { pullS, sections: sectionsOf(row.sections) });
        return verdict.ok ? { result: verdict.value.result, index: verdict.value.decidingIndex } : null;
      };
      const then = sheets.findLast((s) => s.from <= row.at)?.schedule ?? sheets[0]?.schedule ?? current;
      const [before, after] = [judge(then), judge(current)];
      if (before?.result !== after?.result) {
        changed++;
        yield {
          kind: "changed",
          bake: { rack: row.number, load: row.load_no, at: row.at, before, now: after },
        };
      }
    }
    yield { kind: "progress", done: Math.min(rows.length, i + AT_A_TIME), of: rows.length };
  }
  yield { kind: "end", judged: rows.length - withoutTrace, changed, withoutTrace };
}
