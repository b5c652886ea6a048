import { type Kysely, sql } from "kysely";
import { judgeCureTest } from "@/core/bench";
import { beforeAfter } from "@/core/coating";
import { infraredDoubt, ovenSurvey } from "@/core/cure";
import type { Database } from "@/db/schema";
import { sectionsOf } from "../cure/section-readings";
import { findRack } from "../rack/find-rack";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Entry } from "./entry";
import { type Made, refuse } from "./made";

type Of<K extends Entry["kind"]> = Extract<Entry, { kind: K }>;

async function ovenNamed(db: Kysely<Database>, name: string, at: Date) {
  return [...(await setupAt(db, "oven", at)).values()].find((o) => o.code.toLowerCase() === name.toLowerCase());
}

/**
 * What happened to a load: the door, the melt, a reading by infrared, touch-up, plugs out. A reading that says nothing of
 * the part is kept, and graded so. Failures: `unknown-oven-name`, `unknown-load`, `before-the-door`, `reading-needs-value`,
 * `plugs-need-count`, `over-the-oven`, `cooling-needs-method`, `rack-not-in-load`, `unknown-section`, `section-missing`, those of `infraredDoubt`.
 */
export async function bakeEvent(db: Kysely<Database>, person: Person, entry: Of<"bake-event">): Promise<Made> {
  const oven = await ovenNamed(db, entry.oven, entry.happenedAt);
  if (!oven) return refuse({ kind: "unknown-oven-name", name: entry.oven });
  const { rows } = await sql<{
    door_closed_at: Date;
    sections: unknown;
    job_id: string | null;
    rack_id: string | null;
    n: number;
  }>`
    select b.door_closed_at, b.sections, min(j.id::text)::uuid as job_id, min(k.id::text)::uuid as rack_id, count(distinct k.id)::int as n
    from bake b join bake_place p on p.record_id = b.record_id join rack k on k.id = p.rack_id join job j on j.id = k.job_id
    where b.oven_id = ${oven.id} and b.load_no = ${entry.loadNo} and (${person.customerId}::uuid is null or j.customer_id = ${person.customerId}::uuid)
      and not exists (select 1 from record s where s.supersedes = b.record_id)
    group by b.door_closed_at, b.sections order by b.door_closed_at desc limit 1`.execute(db);
  const load = rows[0];
  if (!load) return refuse({ kind: "unknown-load", load: entry.loadNo, oven: oven.code });
  if (entry.happenedAt < load.door_closed_at)
    return refuse({
      kind: "before-the-door",
      at: entry.happenedAt.toISOString(),
      door: load.door_closed_at.toISOString(),
    });
  const sections = sectionsOf(load.sections);
  const section = entry.section === null ? null : (sections?.find((s) => s === entry.section) ?? undefined);
  if (section === undefined)
    return refuse({ kind: "unknown-section", section: entry.section, sections: sections ?? [] });
  if (sections && entry.event === "infrared" && section === null) return refuse({ kind: "section-missing", sections });
  const named = entry.rack === null ? null : await findRack(db, person, entry.rack);
  if (named === undefined || (named && !(await ridesIn(db, oven.id, entry.loadNo, load.door_closed_at, named.id))))
    return refuse({ kind: "rack-not-in-load", number: entry.rack, load: entry.loadNo });
  let grade: "measured" | "by-procedure" | "assumed" = "by-procedure";
  if (entry.event === "infrared" || entry.event === "cool") {
    if (entry.valueC === null) return refuse({ kind: "reading-needs-value" });
    const doubt = infraredDoubt({
      atS: 0,
      metalC: entry.valueC,
      emissivity: entry.emissivity ?? 0.95,
      aim: entry.aim ?? "coated-part",
    });
    if (!doubt.ok) return refuse(doubt.error);
    grade = doubt.value === null ? "measured" : "assumed";
  }
  if (entry.event === "set-point" && entry.valueC === null) return refuse({ kind: "reading-needs-value" });
  if (entry.event === "set-point" && entry.valueC !== null && entry.valueC > oven.data.mostSetPointC)
    return refuse({ kind: "over-the-oven", setC: entry.valueC, mostC: oven.data.mostSetPointC, oven: oven.code });
  if (entry.event === "cooling" && entry.method === null) return refuse({ kind: "cooling-needs-method" });
  if (entry.event === "plugs-out" && entry.count === null) return refuse({ kind: "plugs-need-count" });
  return {
    ok: true,
    // A load of one rack stands on that rack's thread; one of several stands with the load.
    where: named
      ? { jobId: named.job_id, rackId: named.id }
      : load.n === 1
        ? { jobId: load.job_id ?? undefined, rackId: load.rack_id ?? undefined }
        : {},
    grade,
    details: {
      bake_event: [
        {
          oven_id: oven.id,
          load_no: entry.loadNo,
          event: entry.event,
          value_c: entry.valueC,
          emissivity: entry.event === "infrared" || entry.event === "cool" ? (entry.emissivity ?? 0.95) : null,
          aim: entry.event === "infrared" ? (entry.aim ?? "coated-part") : null,
          count: entry.count,
          asked: entry.asked,
          note: entry.note || null,
          since_door_s: entry.sinceDoorS,
          section: entry.section,
          method: entry.event === "cooling" ? entry.method : null,
        },
      ],
    },
  };
}

async function ridesIn(db: Kysely<Database>, ovenId: string, loadNo: string, closedAt: Date, rackId: string) {
  const row = await db
    .selectFrom("bake_place")
    .innerJoin("bake", "bake.record_id", "bake_place.record_id")
    .select("bake.record_id")
    .where("bake.oven_id", "=", ovenId)
    .where("bake.load_no", "=", loadNo)
    .where("bake.door_closed_at", "=", closedAt)
    .where("bake_place.rack_id", "=", rackId)
    .executeTakeFirst();
  return row !== undefined;
}

/** A survey of an oven, worked out before it is kept. Failures: `unknown-oven-name`, `value-given-twice`, those of `ovenSurvey`. */
export async function ovenSurveyed(db: Kysely<Database>, entry: Of<"oven-survey">): Promise<Made> {
  const oven = await ovenNamed(db, entry.oven, entry.happenedAt);
  if (!oven) return refuse({ kind: "unknown-oven-name", name: entry.oven });
  const names = entry.places.map((p) => p.place);
  const twice = names.find((n, i) => names.indexOf(n) !== i);
  if (twice) return refuse({ kind: "value-given-twice", parameter: twice });
  const survey = ovenSurvey(
    entry.places.map(({ place, timeS, tempC }) => ({ place, trace: { timeS, tempC } })),
    entry.setPointC,
    [entry.holdFromS, entry.holdToS],
    entry.doorAtS,
  );
  if (!survey.ok) return refuse(survey.error);
  return {
    ok: true,
    where: {},
    grade: "measured",
    details: {
      oven_survey: [
        {
          oven_id: oven.id,
          set_point_c: entry.setPointC,
          hold_from_s: entry.holdFromS,
          hold_to_s: entry.holdToS,
          door_at_s: entry.doorAtS,
          note: entry.note || null,
        },
      ],
      survey_place: entry.places.map(({ place, timeS, tempC }, i) => ({
        ordinal: i + 1,
        place,
        time_s: timeS,
        temp_c: tempC,
      })),
    },
  };
}

/** A test of a rack beside the rub, worked out before it is kept. Failures: `unknown-rack`, those of `judgeCureTest`. */
export async function cureTested(db: Kysely<Database>, person: Person, entry: Of<"cure-test">): Promise<Made> {
  const rack = await findRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const judged = judgeCureTest(entry.test, entry.readings, entry.lower, entry.upper);
  if (!judged.ok) return refuse(judged.error);
  return {
    ok: true,
    where: { jobId: rack.job_id, rackId: rack.id },
    grade: "measured",
    details: {
      cure_test: [
        {
          test: entry.test,
          value: judged.value.value,
          readings: entry.readings,
          asked_lower: entry.lower,
          asked_upper: entry.upper,
          on_panel: entry.onPanel,
        },
      ],
    },
  };
}

/** Two programs, the same test. Failures: those of `beforeAfter`. */
export function cureTrial(entry: Of<"cure-trial">): Made {
  const compared = beforeAfter(entry.valuesA, entry.valuesB);
  if (!compared.ok) return refuse(compared.error);
  return {
    ok: true,
    where: {},
    grade: "measured",
    details: {
      cure_trial: [
        {
          question: entry.question,
          test: entry.test,
          unit: entry.unit,
          program_a: entry.programA,
          program_b: entry.programB,
          values_a: entry.valuesA,
          values_b: entry.valuesB,
          note: entry.note || null,
        },
      ],
    },
  };
}
