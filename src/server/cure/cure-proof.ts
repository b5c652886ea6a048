import { group } from "d3";
import { type Kysely, sql } from "kysely";
import { type CureTest, judgeCureTest, judgeSolventRub } from "@/core/bench";
import { type BeforeAfter, beforeAfter } from "@/core/coating";
import { judgeBake, ownChannels, type ProofAgreement, proofAgreement } from "@/core/cure";
import type { VerdictResult } from "@/core/verdict";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { sectionsOf } from "../bake/section-readings";
import { channelsOf } from "../rack/judge-rack";
import { scheduleOfPowder, setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";

export type ProofPoint = {
  readonly rack: string;
  readonly at: Date;
  readonly powder: string;
  readonly place: string;
  readonly index: number;
  readonly grade: number;
  readonly passed: boolean;
};
export type CureTrial = {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  readonly question: string;
  readonly test: string;
  readonly unit: string;
  readonly programA: string;
  readonly programB: string;
  readonly compared: BeforeAfter;
  readonly note: string;
};
export type CureProofs = {
  readonly points: readonly ProofPoint[];
  readonly agreement: ProofAgreement | null;
  readonly byPlace: readonly {
    readonly place: string;
    readonly rubs: number;
    readonly failed: number;
    readonly meanIndex: number;
  }[];
  /** Agreement month by month of the site's own time, the newest first. */
  readonly byMonth: readonly { readonly month: string; readonly agreement: ProofAgreement }[];
  readonly trials: readonly CureTrial[];
  /** Hardness, impact, bend, gloss and colour beside the index of the bake they followed. */
  readonly others: readonly {
    readonly test: CureTest;
    readonly place: string;
    readonly rack: string;
    readonly at: Date;
    readonly value: number;
    readonly result: VerdictResult;
    readonly index: number;
  }[];
};

/** Tests looked back on, rubs and others each. */
const MOST_RUBS = 400;

/** Rubs beside the cure index of the bake they followed, at the place in the oven; and the trials. Four queries; O(rubs · samples). */
export async function cureProofs(db: Kysely<Database>, person: Person, at: Date): Promise<CureProofs> {
  const { rows } = await sql<{
    number: string;
    at: Date;
    powder_id: string;
    bake_id: string;
    place: string;
    channel: string | null;
    double_rubs: number;
    rub_limit: number;
    grade: number;
    known_cured_grade: number | null;
    pulled_at: Date | null;
    door_closed_at: Date;
    sections: unknown;
  }>`
    select k.number, r.happened_at as at, j.powder_id, b.sections, b.record_id as bake_id, b.place, b.channel, t.double_rubs, t.rub_limit, t.grade, t.known_cured_grade, b.pulled_at, b.door_closed_at
    from record r join solvent_rub t on t.record_id = r.id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
    cross join lateral (select c.record_id, p.place, p.channel, c.pulled_at, c.door_closed_at, c.sections from bake_place p join bake c on c.record_id = p.record_id
      where p.rack_id = r.rack_id and c.door_closed_at <= r.happened_at and ${stands("c.record_id")} order by c.door_closed_at desc limit 1) b
    where r.kind = 'solvent-rub' and r.happened_at <= ${at} and ${forPerson(person, "j.customer_id")}
      and ${stands("r.id")} order by r.happened_at desc limit ${MOST_RUBS}`.execute(db);
  const ids = [...new Set(rows.map((r) => r.bake_id))];
  const [powders, channels, trials, others] = await Promise.all([
    setupAt(db, "powder", at),
    ids.length === 0
      ? []
      : db.selectFrom("bake_channel").selectAll().where("record_id", "in", ids).orderBy("ordinal").execute(),
    trialsBefore(db, at),
    otherTests(db, person, at),
  ]);
  const byBake = group(channels, (c) => c.record_id);
  const points = rows.flatMap((r): ProofPoint[] => {
    const powder = powders.get(r.powder_id);
    if (!powder) return [];
    const verdict = judgeBake(channelsOf(byBake.get(r.bake_id) ?? []), scheduleOfPowder(powder.data), {
      pullS: r.pulled_at ? (r.pulled_at.getTime() - r.door_closed_at.getTime()) / 1000 : null,
      sections: sectionsOf(r.sections),
    });
    const rub = judgeSolventRub({
      doubleRubs: r.double_rubs,
      limit: r.rub_limit,
      grade: r.grade,
      knownCuredGrade: r.known_cured_grade,
    });
    if (!verdict.ok || !rub.ok || rub.value === "unknown") return [];
    const own = verdict.value.channels.find((c) => c.name === r.channel && c.deadFromS === null);
    return [
      {
        rack: r.number,
        at: r.at,
        powder: powder.code,
        place: sectionsOf(r.sections) ? "under lamps" : r.place,
        index: own?.index ?? verdict.value.decidingIndex,
        grade: r.grade,
        passed: rub.value !== "out",
      },
    ];
  });
  const agreement = proofAgreement(points);
  const places = group(points, (p) => p.place);
  const site = await siteAt(db, at);
  const month = new Intl.DateTimeFormat("en-CA", { year: "numeric", month: "2-digit", timeZone: site.timeZone });
  return {
    points,
    agreement: agreement.ok ? agreement.value : null,
    byMonth: [...group(points, (p) => month.format(p.at))]
      .sort(([a], [b]) => b.localeCompare(a))
      .flatMap(([name, own]) => {
        const found = proofAgreement(own);
        return found.ok ? [{ month: name, agreement: found.value }] : [];
      }),
    byPlace: [...places].map(([place, own]) => ({
      place,
      rubs: own.length,
      failed: own.filter((p) => !p.passed).length,
      meanIndex: own.reduce((sum, p) => sum + p.index, 0) / own.length,
    })),
    trials,
    others,
  };
}

/** The other tests with the index of the bake each followed. Three queries; O(tests · samples). */
async function otherTests(db: Kysely<Database>, person: Person, at: Date): Promise<CureProofs["others"]> {
  const { rows } = await sql<{
    number: string;
    at: Date;
    powder_id: string;
    bake_id: string;
    place: string;
    channel: string | null;
    racks: number;
    pulled_at: Date | null;
    door_closed_at: Date;
    test: CureTest;
    readings: number[];
    asked_lower: number | null;
    asked_upper: number | null;
  }>`
    select k.number, r.happened_at as at, j.powder_id, b.*, t.test, t.readings, t.asked_lower, t.asked_upper
    from record r join cure_test t on t.record_id = r.id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
    cross join lateral (select c.record_id as bake_id, p.place, p.channel, c.pulled_at, c.door_closed_at, (select count(*)::int from bake_place x where x.record_id = c.record_id) as racks
      from bake_place p join bake c on c.record_id = p.record_id where p.rack_id = r.rack_id and c.door_closed_at <= r.happened_at
      and ${stands("c.record_id")} order by c.door_closed_at desc limit 1) b
    where r.kind = 'cure-test' and r.happened_at <= ${at} and ${forPerson(person, "j.customer_id")}
      and ${stands("r.id")} order by r.happened_at desc limit ${MOST_RUBS}`.execute(db);
  if (rows.length === 0) return [];
  const [powders, channels] = await Promise.all([
    setupAt(db, "powder", at),
    db
      .selectFrom("bake_channel")
      .selectAll()
      .where("record_id", "in", [...new Set(rows.map((r) => r.bake_id))])
      .orderBy("ordinal")
      .execute(),
  ]);
  return rows.flatMap((r) => {
    const powder = powders.get(r.powder_id)?.data;
    const own = ownChannels(
      channelsOf(channels.filter((c) => c.record_id === r.bake_id)),
      r.number,
      r.channel,
      r.racks,
    );
    const verdict =
      powder && judgeBake(own, { points: powder.schedule, overbake: powder.overbake, onsetC: powder.onsetC });
    const judged = judgeCureTest(r.test, r.readings, r.asked_lower, r.asked_upper);
    return verdict?.ok && judged.ok
      ? [
          {
            test: r.test,
            place: r.place,
            rack: r.number,
            at: r.at,
            value: judged.value.value,
            result: judged.value.result,
            index: verdict.value.decidingIndex,
          },
        ]
      : [];
  });
}

async function trialsBefore(db: Kysely<Database>, at: Date): Promise<CureTrial[]> {
  const { rows } = await sql<{
    id: string;
    happened_at: Date;
    by_user: string;
    question: string;
    test: string;
    unit: string;
    program_a: string;
    program_b: string;
    values_a: number[];
    values_b: number[];
    note: string | null;
  }>`select r.id, r.happened_at, ${personName("r.by_user")} as by_user, t.* from record r join cure_trial t on t.record_id = r.id
    where r.kind = 'cure-trial' and r.happened_at <= ${at} and ${stands("r.id")} order by r.happened_at desc limit 50`.execute(
    db,
  );
  return rows.flatMap((r) => {
    const compared = beforeAfter(r.values_a, r.values_b);
    return compared.ok
      ? [
          {
            recordId: r.id,
            at: r.happened_at,
            by: r.by_user,
            question: r.question,
            test: r.test,
            unit: r.unit,
            programA: r.program_a,
            programB: r.program_b,
            compared: compared.value,
            note: r.note ?? "",
          },
        ]
      : [];
  });
}
