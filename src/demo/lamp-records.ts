import { type SectionReading, sectionChannels } from "@/core/cure";
import { valueOrThrow } from "@/core/result";
import { seededRandom } from "@/core/simulated-line";
import type { NewRecord } from "@/server/record/store-record";
import { DEMO_SEED } from "./demo-line";
import { type Made, MINUTE, record } from "./demo-record";
import { type OvenRack, rackIdOf, rub, upToOven, type Work } from "./oven-rack";

/** A gate that fits no oven, cured under lamps a section at a time. */
export const gates: Work = { job: "J-420", part: "PIER-GATE", powder: "GR-210", customer: "C1", range: [60, 90] };
export const GATE_DAYS_AGO = 5;
/** Minutes that each section stayed under the lamp, and how hot its metal got, °C. The last was cut short by the end of the shift. */
const under = [
  { section: "Left leaf, top", minutes: 24, metalC: 196 },
  { section: "Left leaf, foot", minutes: 26, metalC: 193 },
  { section: "Right leaf, top", minutes: 24, metalC: 197 },
  { section: "Right leaf, foot", minutes: 20, metalC: 190 },
] as const;
const READ_EVERY_S = 100;
/** How fast the metal under a lamp comes up, s. */
const LAMP_TAU_S = 210;
const MOVE_LAMP_S = 420;

export function gateUnderLamps(made: Made, rack: OvenRack, litMs: number, jobId: string): NewRecord[] {
  const random = seededRandom(DEMO_SEED + 91);
  const sections = under.map((u) => u.section);
  const oven = made.entity("oven", "Lamps 1");
  const base = { by: "maren", grade: "measured" as const, jobId, rackId: rackIdOf(rack) };
  const readings: SectionReading[] = [];
  let fromS = 0;
  for (const { section, minutes, metalC } of under) {
    for (let s = READ_EVERY_S; s <= minutes * 60; s += READ_EVERY_S)
      readings.push({
        section,
        atS: fromS + s,
        metalC: Math.round(metalC - (metalC - 20) * Math.exp(-s / LAMP_TAU_S) + random.normal(0, 1.2)),
        emissivity: 0.95,
        aim: "coated-part",
      });
    fromS += minutes * 60 + MOVE_LAMP_S;
  }
  const pulledMs = litMs + fromS * 1000;
  const channels = valueOrThrow(sectionChannels(sections, readings));
  return [
    ...upToOven(made, rack, litMs, jobId),
    record("bake", litMs, "load K-1", {
      by: "maren",
      grade: "measured",
      details: {
        bake: [
          {
            oven_id: oven,
            load_no: "K-1",
            powder_id: made.entity("powder", gates.powder),
            door_closed_at: new Date(litMs),
            pulled_at: new Date(pulledMs),
            timing: "section-by-section",
            set_point_c: null,
            sections,
          },
        ],
        bake_place: [{ rack_id: rackIdOf(rack), place: "–", channel: null }],
        bake_channel: channels.map((c, i) => ({
          ordinal: i + 1,
          name: c.name,
          medium: c.medium,
          time_s: [...c.trace.timeS],
          temp_c: [...c.trace.tempC],
        })),
      },
    }),
    ...readings.map((r) =>
      record("bake-event", litMs + r.atS * 1000, `${rack.number}:lamp ${r.atS}`, {
        ...base,
        details: {
          bake_event: [
            {
              oven_id: oven,
              load_no: "K-1",
              event: "infrared",
              value_c: r.metalC,
              emissivity: r.emissivity,
              aim: r.aim,
              section: r.section,
            },
          ],
        },
      }),
    ),
    record("passage", litMs, `${rack.number}:oven`, {
      ...base,
      details: {
        passage: [{ stage: "oven", entered_at: new Date(litMs), left_at: new Date(pulledMs), source: "load" }],
      },
    }),
    record("passage", pulledMs, `${rack.number}:cool`, {
      ...base,
      details: {
        passage: [
          {
            stage: "cool",
            entered_at: new Date(pulledMs),
            left_at: new Date(pulledMs + 60 * MINUTE),
            source: "load",
          },
        ],
      },
    }),
    rub(rack, jobId, pulledMs + 70 * MINUTE, 2),
    record("disposition", pulledMs + 90 * MINUTE, rack.number, {
      ...base,
      by: "ines",
      details: {
        disposition: [
          {
            decision: "hold",
            note: "Foot of the right leaf softens: back under the lamp",
            verdict: { decidedOn: "demo" },
            signed_name: "Ines Calder",
          },
        ],
      },
    }),
  ];
}
