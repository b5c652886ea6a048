import { type Kysely, sql } from "kysely";
import { type BathParameter, judgeBathValue, movedBy, type PanelLook, valueAtPassage } from "@/core/bath";
import type { EvidenceGrade, VerdictResult } from "@/core/verdict";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import type { SetupItem } from "../setup/setup-data";

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
export type PanelTestSeen = {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  readonly test: "adhesion" | "salt-spray";
  readonly washedAt: Date;
  readonly iso: number | null;
  readonly hours: number | null;
  readonly creepMm: number | null;
  readonly coating: string;
  /** What the baths of its stage read at that hour, as for a rack that passed then. */
  readonly baths: readonly {
    readonly parameter: BathParameter;
    readonly value: number | null;
    readonly grade: EvidenceGrade;
    readonly result: VerdictResult;
  }[];
};
export type StripPhoto = { readonly fileId: string; readonly at: Date; readonly caption: string };
/** Newest shown of each. */
const SHOWN = 8;

/** A bath's newest panels, tests, photos of strips, and what was done about its sludge, newest first. Four queries on (bath, time), and two for each tested panel. */
export async function washProofs(
  db: Kysely<Database>,
  bath: SetupItem<"bath">,
  at: Date,
): Promise<{
  readonly panels: readonly PanelSeen[];
  readonly sludge: readonly SludgeSeen[];
  readonly tests: readonly PanelTestSeen[];
  readonly photos: readonly StripPhoto[];
}> {
  const [panels, sludge, tests, photos] = await Promise.all([
    sql<PanelSeen>`
      select r.id as "recordId", r.happened_at as at, ${personName("r.by_user")} as by, r.grade, p.g_per_m2 as "gPerM2", p.colour, p.look, coalesce(p.note, '') as note
      from record r join wash_panel p on p.record_id = r.id where r.bath_id = ${bath.id} and r.kind = 'wash-panel' and r.happened_at <= ${at} and ${stands("r.id")}
      order by r.happened_at desc limit ${SHOWN}`.execute(db),
    sql<SludgeSeen>`
      select r.id as "recordId", r.happened_at as at, ${personName("r.by_user")} as by, p.what, p.depth_mm as "depthMm", coalesce(p.note, '') as note
      from record r join sludge p on p.record_id = r.id where r.bath_id = ${bath.id} and r.kind = 'sludge' and r.happened_at <= ${at} and ${stands("r.id")}
      order by r.happened_at desc limit ${SHOWN}`.execute(db),
    sql<Omit<PanelTestSeen, "baths">>`
      select r.id as "recordId", r.happened_at as at, ${personName("r.by_user")} as by, p.test, p.washed_at as "washedAt", p.iso, p.hours, p.creep_mm as "creepMm", p.coating
      from record r join panel_test p on p.record_id = r.id where r.bath_id = ${bath.id} and r.kind = 'panel-test' and r.happened_at <= ${at} and ${stands("r.id")}
      order by r.happened_at desc limit ${SHOWN}`.execute(db),
    sql<StripPhoto>`
      select r.file_id as "fileId", r.happened_at as at, p.caption from record r join photo p on p.record_id = r.id
      where r.bath_id = ${bath.id} and r.kind = 'photo' and r.happened_at <= ${at} and ${stands("r.id")} order by r.happened_at desc limit ${SHOWN}`.execute(
      db,
    ),
  ]);
  return {
    panels: panels.rows,
    sludge: sludge.rows,
    photos: photos.rows,
    tests: await Promise.all(
      tests.rows.map(async (test) => ({ ...test, baths: await bathAtHour(db, bath, test.washedAt) })),
    ),
  };
}

/** What a bath read at an hour: between the checks around it, never across an addition; graded like a rack's. */
async function bathAtHour(db: Kysely<Database>, bath: SetupItem<"bath">, hour: Date): Promise<PanelTestSeen["baths"]> {
  const near = new Date(hour.getTime() - 2 * 86_400_000);
  const until = new Date(hour.getTime() + 2 * 86_400_000);
  const [checks, events] = await Promise.all([
    sql<{ id: string; at: Date; parameter: BathParameter; value: number }>`
      select r.id, r.happened_at as at, k.parameter, k.value from record r join bath_check k on k.record_id = r.id
      where r.bath_id = ${bath.id} and r.kind = 'bath-check' and r.happened_at between ${near} and ${until} and ${stands("r.id")} order by r.happened_at`.execute(
      db,
    ),
    sql<{ at: Date; event: string; product: string }>`
      select r.happened_at as at, e.event, coalesce(e.product, '') as product from record r join bath_event e on e.record_id = r.id where r.bath_id = ${bath.id} and r.kind = 'bath-event' and r.happened_at between ${near} and ${until} and ${stands("r.id")}`.execute(
      db,
    ),
  ]);
  return (Object.keys(bath.data.windows) as BathParameter[]).map((parameter) => {
    const mine = checks.rows
      .filter((c) => c.parameter === parameter)
      .map((c) => ({ atMs: c.at.getTime(), value: c.value, recordId: c.id }));
    const found = valueAtPassage({
      atMs: hour.getTime(),
      before: mine.findLast((c) => c.atMs <= hour.getTime()) ?? null,
      after: mine.find((c) => c.atMs > hour.getTime()) ?? null,
      eventsMs: events.rows.flatMap((e) => (movedBy(bath.data, e).includes(parameter) ? [e.at.getTime()] : [])),
      roundHours: bath.data.windows[parameter]?.roundHours ?? bath.data.roundHours,
    });
    return {
      parameter,
      value: found.value,
      grade: found.grade,
      result: found.value === null ? "unknown" : judgeBathValue(found.value, bath.data.windows[parameter] ?? null),
    };
  });
}
