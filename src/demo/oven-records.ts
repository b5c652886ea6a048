import type { Kysely } from "kysely";
import { plateTimeConstant } from "@/core/cure";
import { valueOrThrow } from "@/core/result";
import { seededRandom, simulateBake } from "@/core/simulated-line";
import type { Database } from "@/db/schema";
import type { NewRecord } from "@/server/record/store-record";
import { DEMO_SEED, midnightOf } from "./demo-line";
import { DAY, type Made, MINUTE, record } from "./demo-record";
import { GATE_DAYS_AGO, gates, gateUnderLamps } from "./lamp-records";
import { ovenPlaces } from "./oven-places";
import {
  bakeRecord,
  hangRack,
  inAndOut,
  jobIdOf,
  type OvenRack,
  openJob,
  rackIdOf,
  rub,
  upToOven,
  type Work,
} from "./oven-rack";
import { gels, primed, primedLoads } from "./primer-records";

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

const plates: Work = { job: "J-415", part: "MOORING-BASE", powder: "GR-210", customer: "C1", range: [60, 90] };
const covers: Work = { job: "J-416", part: "BOLLARD-COVER", powder: "GR-210", customer: "C1", range: [60, 90] };
/** The shop's own panels, pulled on purpose before and after they are cured: what its rubs say of the index. */
const panels: Work = { job: "J-418", part: "TEST-PANEL", powder: "GR-210", customer: "C9", range: [60, 90] };
const PANELS_DAYS_AGO = 18;
/** Minutes from door to pull, and the rub that followed. */
const panelsPulled = [
  { minutes: 13, rub: 0 },
  { minutes: 14, rub: 1 },
  { minutes: 15, rub: 2 },
  { minutes: 15.8, rub: 3 },
  { minutes: 16.4, rub: 5 },
  { minutes: 16.9, rub: 3 },
  { minutes: 17.5, rub: 5 },
  { minutes: 18.2, rub: 5 },
  { minutes: 19, rub: 5 },
  { minutes: 20, rub: 5 },
] as const;
const collars: Work = {
  job: "J-417",
  part: "LAMP-COLLAR",
  powder: "GR-700",
  customer: "C3",
  range: [50, 90],
  indoor: true,
};

/**
 * Oven 1's surveys over the years, and two stories: 25 mm mooring plates cured beside 2 mm covers by a fixed time from the
 * door, and clear coat yellowed on Fridays, when its load waits in the hot oven over lunch.
 */
export async function loadOvenStories(db: Kysely<Database>, made: Made, anchor: Date): Promise<NewRecord[]> {
  const midnight = midnightOf(anchor).getTime();
  const firstMs = midnight - 30 * DAY;
  const jobId = (w: Work) => jobIdOf(w, firstMs);
  for (const work of [plates, covers, collars, panels, primed, gates]) await openJob(db, made, work, firstMs, anchor);
  const records: NewRecord[] = [];
  let number = 700;
  const hang = async (work: Work, hungMs: number, pieces: number): Promise<OvenRack> => {
    const rack = { number: String(number++).padStart(4, "0"), work, hungMs, pieces };
    await hangRack(db, rack, jobId(work));
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
  for (const [i, panel] of panelsPulled.entries()) {
    const closedMs = midnight - PANELS_DAYS_AGO * DAY + 8 * HOUR + i * 45 * MINUTE;
    const rack = await hang(panels, closedMs - 3 * HOUR, 1);
    records.push(...panelLoad(made, rack, closedMs, `P-${i + 1}`, panel, jobId(panels)));
  }
  for (const [i, gel] of gels.entries()) {
    const closedMs = midnight - gel.daysAgo * DAY + 9 * HOUR;
    const rack = await hang(primed, closedMs - 3 * HOUR, 6);
    records.push(...primedLoads(made, rack, closedMs, i, gel, jobId(primed)));
  }
  const litMs = midnight - GATE_DAYS_AGO * DAY + 9 * HOUR;
  const gate = await hang(gates, litMs - 3 * HOUR, 1);
  records.push(...gateUnderLamps(made, gate, litMs, jobId(gates)));
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

/** One panel with a probe on it, pulled when the clock says so, rubbed the same day and thrown away. */
function panelLoad(
  made: Made,
  rack: OvenRack,
  closedMs: number,
  no: string,
  panel: { readonly minutes: number; readonly rub: number },
  jobId: string,
): NewRecord[] {
  const tauS = valueOrThrow(plateTimeConstant({ material: "steel", plateMm: 2, hWPerM2K: H_OVEN_1 })).tauS;
  const channels = simulateBake(seededRandom(DEMO_SEED + (closedMs % 100_019)), {
    setPointC: 205,
    pieces: [{ channel: "Panel", tauS }],
    doorToPullS: panel.minutes * 60,
    intervalS: 10,
    coolS: 300,
    startC: 20,
  });
  const testedMs = closedMs + 5 * HOUR;
  return [
    ...upToOven(made, rack, closedMs, jobId),
    bakeRecord(
      made,
      [{ rack, place: "B2", channel: "Panel" }],
      { no, closedMs, minutes: panel.minutes, timing: "metal-at-temperature", setC: 205 },
      channels,
      "GR-210",
    ),
    ...inAndOut(rack, jobId, closedMs, panel.minutes),
    rub(rack, jobId, testedMs, panel.rub),
    record("disposition", testedMs + 30 * MINUTE, rack.number, {
      by: "ines",
      grade: "measured",
      jobId,
      rackId: rackIdOf(rack),
      details: {
        disposition: [
          {
            decision: "scrap",
            note: "Trial panel: what the rub says of the index",
            verdict: { decidedOn: "demo" },
            signed_name: "Ines Calder",
          },
        ],
      },
    }),
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
