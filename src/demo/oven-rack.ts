import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import type { NewRecord } from "@/server/record/store-record";
import type { RequirementInput } from "@/server/requirement";
import { DAY, demoId, type Made, MINUTE, record } from "./demo-record";

export type Work = {
  readonly job: string;
  readonly part: string;
  readonly powder: string;
  readonly customer: string;
  readonly range: readonly [number, number];
  readonly indoor?: boolean;
};
export type OvenRack = {
  readonly number: string;
  readonly work: Work;
  readonly hungMs: number;
  readonly pieces: number;
};

export const rackIdOf = (rack: OvenRack) => demoId(rack.hungMs, `rack:${rack.number}`);

export const jobIdOf = (work: Work, firstMs: number): string => demoId(firstMs, `job:${work.job}`);

export async function openJob(
  db: Kysely<Database>,
  made: Made,
  work: Work,
  firstMs: number,
  anchor: Date,
): Promise<void> {
  const requirement: RequirementInput = {
    film: { rule: "spot-area", minUm: work.range[0], maxUm: work.range[1], level: 3 },
    adhesionWorstIso: 1,
    cureDecidedBy: "index",
  };
  await db
    .insertInto("job")
    .values({
      id: jobIdOf(work, firstMs),
      number: work.job,
      customer_id: made.entity("customer", work.customer),
      part_id: made.entity("part", work.part),
      powder_id: made.entity("powder", work.powder),
      received_at: new Date(firstMs),
      due_on: new Date(anchor.getTime() + 20 * DAY).toISOString().slice(0, 10),
      requirement: JSON.stringify(requirement),
      plan: JSON.stringify({
        stages: ["blast", "conversion", "rinse", "dry-off", "booth", "oven"],
        primer: false,
        exposure: work.indoor ? ["indoor"] : ["weather", "salt"],
        offered: [],
      }),
      created_by: "ines",
    })
    .execute();
}

export async function hangRack(db: Kysely<Database>, rack: OvenRack, jobId: string): Promise<void> {
  const id = rackIdOf(rack);
  await db
    .insertInto("rack")
    .values({ id, number: rack.number, job_id: jobId, hung_at: new Date(rack.hungMs), created_by: "maren" })
    .execute();
  await db
    .insertInto("piece")
    .values(
      Array.from({ length: rack.pieces }, (_, i) => ({
        id: demoId(rack.hungMs, `piece:${rack.number}:${i}`),
        rack_id: id,
        serial: `${rack.number}-${String(i + 1).padStart(2, "0")}`,
        position: i + 1,
      })),
    )
    .execute();
}

export type DemoCoat = {
  readonly no: number;
  readonly layer: "primer" | "top";
  readonly powder: string;
  readonly system: "single" | "primer-gelled";
};

export const coatRecord = (made: Made, rack: OvenRack, atMs: number, jobId: string, coat: DemoCoat): NewRecord =>
  record("coat", atMs, `${rack.number}:coat ${coat.no}`, {
    by: "maren",
    grade: "measured",
    jobId,
    rackId: rackIdOf(rack),
    details: {
      coat: [
        {
          coat_no: coat.no,
          layer: coat.layer,
          lot_id: made.entity("lot", `${coat.powder}/2611-4`),
          booth: "booth 1",
          kv: 70,
          current_ua: 22,
          gun_air_kpa: 58,
          distance_mm: 220,
          earth_mohm: 0.3,
          hook_cycles: 2,
          sprayed_hot: false,
          colour_change_before: coat.no > 1,
          reclaim_percent: 15,
          gun: "gun 1",
          situation: "first-coat",
          system: coat.system,
        },
      ],
    },
  });

/** The thread of a rack up to the oven: blasted, washed, coated. */
export function upToOven(
  made: Made,
  rack: OvenRack,
  closedMs: number,
  jobId: string,
  coat: DemoCoat = { no: 1, layer: "top", powder: rack.work.powder, system: "single" },
): NewRecord[] {
  const base = { by: "maren", grade: "measured" as const, jobId, rackId: rackIdOf(rack) };
  const passage = (stage: string, minutesBefore: number, minutes: number) =>
    record("passage", closedMs - minutesBefore * MINUTE, `${rack.number}:${stage}`, {
      ...base,
      by: "rufus",
      details: {
        passage: [
          {
            stage,
            entered_at: new Date(closedMs - minutesBefore * MINUTE),
            left_at: new Date(closedMs - (minutesBefore - minutes) * MINUTE),
            source: "scan",
          },
        ],
      },
    });
  const step = (name: string, minutesBefore: number, value: number | null, unit: string | null = null) =>
    record("prep-step", closedMs - minutesBefore * MINUTE, `${rack.number}:${name}`, {
      ...base,
      grade: value === null ? "by-procedure" : "measured",
      details: { prep_step: [{ step: name, done: true, value, unit, note: null, how: null }] },
    });
  return [
    passage("blast", 170, 25),
    passage("conversion", 120, 1.5),
    passage("rinse", 118, 1),
    passage("dry-off", 112, 20),
    passage("booth", 60, 30),
    step("blast", 146, 44, "µm"),
    step("dust-tape", 145, 1, "grade"),
    step("look-over", 144, 0, "places"),
    step("blow-off", 66, null),
    step("solvent-wipe", 63, null),
    coatRecord(made, rack, closedMs - 35 * MINUTE, jobId, coat),
  ];
}

type Channel = {
  readonly name: string;
  readonly medium: "air" | "metal";
  readonly trace: { timeS: readonly number[]; tempC: readonly (number | null)[] };
};
export function bakeRecord(
  made: Made,
  racks: readonly { rack: OvenRack; place: string; channel: string | null }[],
  load: { no: string; closedMs: number; minutes: number; timing: string; setC: number },
  channels: readonly Channel[],
  powder: string,
): NewRecord {
  return record("bake", load.closedMs, `load ${load.no}`, {
    by: "maren",
    grade: channels.length > 0 ? "measured" : "by-procedure",
    instrumentId: channels.length > 0 ? made.entity("instrument", "R6") : null,
    details: {
      bake: [
        {
          oven_id: made.entity("oven", "Oven 1"),
          load_no: load.no,
          powder_id: made.entity("powder", powder),
          door_closed_at: new Date(load.closedMs),
          pulled_at: new Date(load.closedMs + load.minutes * MINUTE),
          timing: load.timing,
          set_point_c: load.setC,
        },
      ],
      bake_place: racks.map(({ rack, place, channel }) => ({ rack_id: rackIdOf(rack), place, channel })),
      bake_channel: channels.map((c, i) => ({
        ordinal: i + 1,
        name: c.name,
        medium: c.medium,
        time_s: [...c.trace.timeS],
        temp_c: [...c.trace.tempC],
      })),
    },
  });
}

export const inAndOut = (rack: OvenRack, jobId: string, closedMs: number, minutes: number): NewRecord[] =>
  (
    [
      ["oven", closedMs, minutes],
      ["cool", closedMs + minutes * MINUTE, 60],
    ] as const
  ).map(([stage, atMs, forMin]) =>
    record("passage", atMs, `${rack.number}:${stage}`, {
      by: "maren",
      grade: "measured",
      jobId,
      rackId: rackIdOf(rack),
      details: {
        passage: [{ stage, entered_at: new Date(atMs), left_at: new Date(atMs + forMin * MINUTE), source: "load" }],
      },
    }),
  );

export const rub = (rack: OvenRack, jobId: string, atMs: number, grade: number): NewRecord =>
  record("solvent-rub", atMs, rack.number, {
    by: "tomasz",
    grade: "measured",
    jobId,
    rackId: rackIdOf(rack),
    details: {
      solvent_rub: [{ double_rubs: 50, rub_limit: 50, grade, known_cured_grade: 5, on_panel: true }],
    },
  });
