import { type Kysely, sql } from "kysely";
import { type OvenSurvey, ovenSlug, ovenSurvey } from "@/core/cure";
import { tablesOf } from "@/core/kinds";
import type { VerdictResult } from "@/core/verdict";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { readDetails } from "../record/read-details";
import { type SetupItem, setupAt } from "../setup/setup-data";
import { type LearntOven, learnOven } from "./learn-oven";

export type KeptSurvey = {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  readonly note: string;
  readonly survey: OvenSurvey;
  readonly result: VerdictResult;
};
export type OvenFile = {
  readonly oven: SetupItem<"oven">;
  readonly learnt: LearntOven;
  /** The newest first. */
  readonly surveys: readonly KeptSurvey[];
};

const SURVEYS_SHOWN = 20;

export async function findOven(db: Kysely<Database>, slug: string, at: Date): Promise<SetupItem<"oven"> | null> {
  return [...(await setupAt(db, "oven", at)).values()].find((o) => ovenSlug(o.code) === slug.toLowerCase()) ?? null;
}

/** An oven's surveys, the newest first, each worked out from its probes. Two queries. */
export async function loadSurveys(
  db: Kysely<Database>,
  oven: SetupItem<"oven">,
  at: Date,
  most = SURVEYS_SHOWN,
): Promise<KeptSurvey[]> {
  const { rows } = await sql<{ id: string; happened_at: Date; by_user: string }>`
    select r.id, r.happened_at, ${personName("r.by_user")} as by_user from record r join oven_survey s on s.record_id = r.id
    where s.oven_id = ${oven.id} and r.happened_at <= ${at} and ${stands("r.id")}
    order by r.happened_at desc limit ${most}`.execute(db);
  const details = await readDetails(
    db,
    rows.map((r) => r.id),
    tablesOf("oven-survey"),
  );
  return rows.flatMap((r): KeptSurvey[] => {
    const own = details.get(r.id);
    const head = own?.oven_survey?.[0];
    if (!head) return [];
    const survey = ovenSurvey(
      (own?.survey_place ?? []).map((p) => ({
        place: p.place,
        trace: { timeS: p.time_s as number[], tempC: p.temp_c },
      })),
      head.set_point_c,
      [head.hold_from_s, head.hold_to_s],
      head.door_at_s,
    );
    if (!survey.ok) return [];
    const { spreadC, recoveryS } = survey.value;
    const slow = recoveryS !== null && recoveryS > oven.data.recoveryMostS;
    return [
      {
        recordId: r.id,
        at: r.happened_at,
        by: r.by_user,
        note: head.note ?? "",
        survey: survey.value,
        result: spreadC > oven.data.spreadMostC ? "out" : slow ? "watch" : "in",
      },
    ];
  });
}

/** An oven with what its bakes taught and its surveys over the years. A handful of queries; O(newest sixty bakes). */
export async function loadOvenFile(db: Kysely<Database>, slug: string, at: Date): Promise<OvenFile | null> {
  const oven = await findOven(db, slug, at);
  if (!oven) return null;
  const [learnt, surveys] = await Promise.all([learnOven(db, oven, at), loadSurveys(db, oven, at)]);
  return { oven, learnt, surveys };
}
