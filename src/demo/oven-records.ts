import type { Kysely } from "kysely";
import { plateTimeConstant } from "@/core/cure";
import { valueOrThrow } from "@/core/result";
import { seededRandom, simulateBake } from "@/core/simulated-line";
import type { Database } from "@/db/schema";
import type { NewRecord } from "@/server/record/store-record";
import type { Requirement } from "@/server/requirement";
import { DEMO_SEED, midnightOf } from "./demo-line";
import { DAY, demoId, type Made, MINUTE, record } from "./demo-record";
import { ovenPlaces } from "./oven-places";

const HOUR = 60 * MINUTE;
/** What Oven 1 does to hanging steel, W/(m² K). */
const H_OVEN_1 = 30;
/** By the clock on the wall, whatever hangs in it: the shop's habit for mooring work. */
export const FIXED_DOOR_TO_PULL_MIN = 32;
const CLEAR_MIN = 24;
/** Over lunch on a Friday. */
const LUNCH_MIN = 78;
const CRATES = [-20, -13, -8, -3] as const;
const WEEKS_OF_CLEAR = 4;

type Work = {
  readonly job: string;
  readonly part: string;
  readonly powder: string;
  readonly customer: string;
  readonly range: readonly [number, number];
};
const plates: Work = { job: "J-415", part: "MOORING-BASE", powder: "GR-210", customer: "C1", range: [60, 90] };
const covers: Work = { job: "J-416", part: "BOLLARD-COVER", powder: "GR-210", customer: "C1", range: [60, 90] };
const collars: Work = { job: "J-417", part: "LAMP-COLLAR", powder: "GR-700", customer: "C3", range: [50, 90] };

type OvenRack = { readonly number: string; readonly work: Work; readonly hungMs: number; readonly pieces: number };

/**
 * Oven 1's surveys over the years, and two stories: 25 mm mooring plates cured beside 2 mm covers by a fixed time from the
 * door, and clear coat yellowed on Fridays, when its load waits in the hot oven over lunch.
 */
export async function loadOvenStories(db: Kysely<Database>, made: Made, anchor: Date): Promise<NewRecord[]> {
  const midnight = midnightOf(anchor).getTime();
  const firstMs = midnight - 30 * DAY;
  const jobId = (w: Work) => demoId(firstMs, `job:${w.job}`);
  for (const work of [plates, covers, collars]) {
    const requirement: Requirement = {
      film: { rule: "spot-area", minUm: work.range[0], maxUm: work.range[1], level: 3 },
      adhesionWorstIso: 1,
      cureDecidedBy: "index",
    };
    await db
      .insertInto("job")
      .values({
        id: jobId(work),
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
          exposure: work === collars ? ["indoor"] : ["weather", "salt"],
          offered: [],
        }),
        created_by: "ines",
      })
      .execute();
  }
  const records: NewRecord[] = [];
  let number = 700;
  const hang = async (work: Work, hungMs: number, pieces: number): Promise<OvenRack> => {
    const rack = { number: String(number++).padStart(4, "0"), work, hungMs, pieces };
    const id = rackIdOf(rack);
    await db
      .insertInto("rack")
      .values({ id, number: rack.number, job_id: jobId(work), hung_at: new Date(hungMs), created_by: "maren" })
      .execute();
    await db
      .insertInto("piece")
      .values(
        Array.from({ length: pieces }, (_, i) => ({
          id: demoId(hungMs, `piece:${rack.number}:${i}`),
          rack_id: id,
          serial: `${rack.number}-${String(i + 1).padStart(2, "0")}`,
          position: i + 1,
        })),
      )
      .execute();
    return rack;
  };
  for (const [i, daysAgo] of CRATES.entries()) {
    const closedMs = midnight + daysAgo * DAY + 10 * HOUR;
    const plate = await hang(plates, closedMs - 3 * HOUR, 4);
    const cover = await hang(covers, closedMs - 3 * HOUR, 12);
    // Only the last load had probes in it: until then nobody could know.
    records.push(...mooringLoad(made, plate, cover, closedMs, `M-${i + 1}`, i === CRATES.length - 1, jobId));
  }
  for (let week = WEEKS_OF_CLEAR; week >= 0; week--)
    for (const weekday of [2, 5]) {
      const dayMs = midnight - week * 7 * DAY - ((new Date(midnight).getUTCDay() - weekday + 7) % 7) * DAY;
      const closedMs = dayMs + 11 * HOUR + 25 * MINUTE;
      if (closedMs + 4 * HOUR > anchor.getTime() || closedMs < firstMs + DAY) continue;
      const rack = await hang(collars, closedMs - 3 * HOUR, 10);
      records.push(...clearLoad(made, rack, closedMs, `C-${week}${weekday}`, weekday === 5, jobId(collars)));
    }
  records.push(...surveys(made, midnight));
  records.push(
    record("cure-trial", midnight - 26 * DAY + 15 * HOUR, "trial preheated", {
      by: "tomasz",
      grade: "measured",
      details: {
        cure_trial: [
          {
            question: "Oven preheated or lit with the load in it",
            test: "gloss at 60°",
            unit: "GU",
            program_a: "from cold",
            program_b: "preheated to 205 °C",
            values_a: [61.2, 58.9, 60.4, 59.1, 60.8],
            values_b: [63.1, 62.4, 64.0, 61.9, 63.3],
            note: null,
          },
        ],
      },
    }),
  );
  return records;
}

const rackIdOf = (rack: OvenRack) => demoId(rack.hungMs, `rack:${rack.number}`);

/** The thread of a rack up to the oven: blasted, washed, coated. */
function upToOven(made: Made, rack: OvenRack, closedMs: number, jobId: string): NewRecord[] {
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
  return [
    passage("blast", 170, 25),
    passage("conversion", 120, 3),
    passage("rinse", 116, 2),
    passage("dry-off", 112, 20),
    passage("booth", 60, 30),
    record("coat", closedMs - 35 * MINUTE, rack.number, {
      ...base,
      details: {
        coat: [
          {
            coat_no: 1,
            layer: "top",
            lot_id: made.entity("lot", `${rack.work.powder}/2611-4`),
            booth: "booth 1",
            kv: 70,
            current_ua: 22,
            gun_air_kpa: 58,
            distance_mm: 220,
            earth_mohm: 0.3,
            hook_cycles: 2,
            sprayed_hot: false,
            colour_change_before: false,
            reclaim_percent: 15,
            gun: "gun 1",
            situation: "first-coat",
            system: "single",
          },
        ],
      },
    }),
  ];
}

type Channel = {
  readonly name: string;
  readonly medium: "air" | "metal";
  readonly trace: { timeS: readonly number[]; tempC: readonly (number | null)[] };
};
function bakeRecord(
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

const inAndOut = (rack: OvenRack, jobId: string, closedMs: number, minutes: number): NewRecord[] =>
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

const rub = (rack: OvenRack, jobId: string, atMs: number, grade: number): NewRecord =>
  record("solvent-rub", atMs, rack.number, {
    by: "tomasz",
    grade: "measured",
    jobId,
    rackId: rackIdOf(rack),
    details: {
      solvent_rub: [{ double_rubs: 50, rub_limit: 50, grade, known_cured_grade: 5, on_panel: true }],
    },
  });

function mooringLoad(
  made: Made,
  plate: OvenRack,
  cover: OvenRack,
  closedMs: number,
  no: string,
  probed: boolean,
  jobId: (w: Work) => string,
): NewRecord[] {
  const tau = (mm: number) =>
    valueOrThrow(plateTimeConstant({ material: "steel", plateMm: mm, hWPerM2K: H_OVEN_1 })).tauS;
  const channels = probed
    ? simulateBake(seededRandom(DEMO_SEED + 5), {
        setPointC: 205,
        pieces: [
          { channel: "Cover", tauS: tau(2) },
          { channel: "Plate", tauS: tau(25) },
        ],
        doorToPullS: FIXED_DOOR_TO_PULL_MIN * 60,
        intervalS: 20,
        coolS: 900,
        startC: 19,
      })
    : [];
  const testedMs = closedMs + (FIXED_DOOR_TO_PULL_MIN + 120) * MINUTE;
  const base = { by: "tomasz", grade: "measured" as const, jobId: jobId(plates), rackId: rackIdOf(plate) };
  return [
    ...upToOven(made, plate, closedMs, jobId(plates)),
    ...upToOven(made, cover, closedMs, jobId(covers)),
    bakeRecord(
      made,
      [
        { rack: plate, place: "B2", channel: probed ? "Plate" : null },
        { rack: cover, place: "A1", channel: probed ? "Cover" : null },
      ],
      { no, closedMs, minutes: FIXED_DOOR_TO_PULL_MIN, timing: "door-close", setC: 205 },
      channels,
      "GR-210",
    ),
    ...inAndOut(plate, jobId(plates), closedMs, FIXED_DOOR_TO_PULL_MIN),
    ...inAndOut(cover, jobId(covers), closedMs, FIXED_DOOR_TO_PULL_MIN),
    rub(plate, jobId(plates), testedMs, probed ? 0 : 1),
    rub(cover, jobId(covers), testedMs + 10 * MINUTE, 5),
    record("defect", testedMs + 20 * MINUTE, plate.number, {
      ...base,
      details: {
        defect: [
          {
            defect: "soft-film",
            face: "T",
            x: 50,
            y: 50,
            extent_percent: 100,
            pieces_affected: 4,
            pieces_seen: 4,
            note: "Looks perfect; comes off on the cloth",
          },
        ],
      },
    }),
    record("disposition", testedMs + 50 * MINUTE, plate.number, {
      ...base,
      by: "ines",
      details: {
        disposition: [
          { decision: "hold", note: "Soft: solvent rub", verdict: { decidedOn: "demo" }, signed_name: "Ines Calder" },
        ],
      },
    }),
  ];
}

function clearLoad(
  made: Made,
  rack: OvenRack,
  closedMs: number,
  no: string,
  friday: boolean,
  jobId: string,
): NewRecord[] {
  const minutes = friday ? LUNCH_MIN : CLEAR_MIN;
  const tauS = valueOrThrow(plateTimeConstant({ material: "aluminium", plateMm: 4, hWPerM2K: H_OVEN_1 })).tauS;
  const channels = simulateBake(seededRandom(DEMO_SEED + (closedMs % 100_003)), {
    setPointC: 186,
    pieces: [{ channel: "Collar", tauS }],
    doorToPullS: minutes * 60,
    intervalS: 20,
    coolS: 600,
    startC: 20,
  });
  const base = { by: "tomasz", grade: "measured" as const, jobId, rackId: rackIdOf(rack) };
  const testedMs = closedMs + (minutes + 60) * MINUTE;
  return [
    ...upToOven(made, rack, closedMs, jobId),
    bakeRecord(
      made,
      [{ rack, place: "C3", channel: "Collar" }],
      { no, closedMs, minutes, timing: "metal-at-temperature", setC: 186 },
      channels,
      "GR-700",
    ),
    ...inAndOut(rack, jobId, closedMs, minutes),
    record("bake-event", closedMs + 6 * MINUTE, `${rack.number}:melt`, {
      ...base,
      by: "maren",
      grade: "by-procedure",
      details: { bake_event: [{ oven_id: made.entity("oven", "Oven 1"), load_no: no, event: "melted" }] },
    }),
    rub(rack, jobId, testedMs, 5),
    record("cure-test", testedMs + 8 * MINUTE, `${rack.number}:colour`, {
      ...base,
      details: {
        cure_test: [
          {
            test: "colour",
            value: friday ? 2.7 : 0.4,
            readings: [friday ? 2.7 : 0.4],
            asked_lower: null,
            asked_upper: 1,
            on_panel: true,
          },
        ],
      },
    }),
    ...(friday
      ? [
          record("defect", testedMs + 15 * MINUTE, rack.number, {
            ...base,
            details: {
              defect: [
                {
                  defect: "colour-shift",
                  face: "C",
                  x: 50,
                  y: 40,
                  extent_percent: 100,
                  pieces_affected: 10,
                  pieces_seen: 10,
                  note: "Yellow against the panel, all of them",
                },
              ],
            },
          }),
        ]
      : []),
  ];
}

/** Three surveys of Oven 1: its door side falls off as the seal ages. */
function surveys(made: Made, midnight: number): NewRecord[] {
  const random = seededRandom(DEMO_SEED + 77);
  const timeS = Array.from({ length: 91 }, (_, i) => i * 60);
  const told = [
    { daysAgo: 395, door: -3, back: 2.5, note: "after the yearly service" },
    { daysAgo: 204, door: -5, back: 3, note: "" },
    { daysAgo: 12, door: -9.5, back: 3.5, note: "seal at the lower left hard and cracked; ordered" },
  ];
  return told.map(({ daysAgo, door, back, note }) =>
    record("oven-survey", midnight - daysAgo * DAY + 7 * HOUR, `survey ${daysAgo}`, {
      by: "tomasz",
      grade: "measured",
      instrumentId: made.entity("instrument", "R6"),
      details: {
        oven_survey: [
          {
            oven_id: made.entity("oven", "Oven 1"),
            set_point_c: 200,
            hold_from_s: 1800,
            hold_to_s: 3540,
            door_at_s: 3600,
            note: note || null,
          },
        ],
        survey_place: ovenPlaces.map((place, n) => {
          const [x, y] = place.at;
          const off = (y > 60 ? door : y < 30 ? back : 0) + (x < 30 && y > 60 ? door / 4 : 0);
          return {
            ordinal: n + 1,
            place: place.id,
            time_s: timeS,
            temp_c: timeS.map((s) => {
              const climbed = 200 + off - (180 + off) * Math.exp(-s / 420);
              const opened = s < 3600 ? 0 : (34 + (y > 60 ? 14 : 0)) * Math.exp(-(s - 3600) / 260);
              return Math.round((climbed - opened + random.normal(0, 0.3)) * 10) / 10;
            }),
          };
        }),
      },
    }),
  );
}
