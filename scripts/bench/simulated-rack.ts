import * as v from "valibot";
import { outcomeOf, type World } from "@/core/simulated-incidents/world";
import type { Random } from "@/core/statistics/random";
import { type EstablishedFinding, findingsFromRecord } from "@/server/causes/findings-from-record";
import type { RackFile, ThreadRecord } from "@/server/rack/load-rack";
import { setupSchemas } from "@/server/setup/setup-schemas";
import type { BathCondition, Conditions, PassageCondition } from "@/server/trace/conditions";

const site = v.parse(setupSchemas.site, {
  name: "Simulated shop",
  timeZone: "Europe/London",
  cureDecidedBy: "index",
  crossCutWorstIso: 1,
  bareLimitHours: 4,
  dewPointMarginC: 3,
  compressedAirDewPointC: -20,
  shifts: [{ name: "Day", from: "06:00" }],
  blastProfileUm: [35, 60],
  dustTapeWorstGrade: 2,
  solubleSaltMgPerM2: 20,
  waterBreakHoldsS: 30,
});
const sheet = v.parse(setupSchemas["setup-sheet"], {
  powderCode: "S-1",
  kv: [60, 80],
  recessKv: 45,
  recoatKv: [40, 58],
  distanceMm: [200, 300],
  gunAirKPa: [40, 75],
  earthLimitMohm: 1,
  boothAirMPerS: [0.3, 0.6],
  hookCyclesLimit: 5,
  reclaimLimitPercent: 40,
});
const DAY = new Date("2026-05-04T00:00:00Z").getTime();
const HOUR = 3_600_000;

/** How much of what could be recorded a shop does record. */
const RECORDED = { step: 0.85, coat: 0.95, setting: 0.8, film: 0.9, bake: 0.75, rub: 0.6, bath: 0.9, air: 0.7 };

/** The record that a piece left behind, as far as somebody kept it, read by the app's own trace. */
export function establishedOf(world: World, random: Random): readonly EstablishedFinding[] {
  const o = outcomeOf(world);
  let n = 0;
  const kept = (share: number) => random.chance(share);
  const record = (kind: string, hours: number, details: object): ThreadRecord =>
    ({
      base: { id: `r${++n}`, kind, happened_at: new Date(DAY + hours * HOUR), grade: "measured" },
      details,
      supersededBy: null,
    }) as unknown as ThreadRecord;
  const records: ThreadRecord[] = [];
  const step = (name: string, value: number | null, done: boolean) => {
    if (kept(RECORDED.step))
      records.push(
        record("prep-step", 7, { prep_step: [{ step: name, done, value, unit: null, note: done ? null : "left" }] }),
      );
  };
  const stages = ["clean", "conversion", "rinse", "booth", "oven"];
  if (world.blasted) {
    step("blast", world.profileUm, true);
    step("dust-tape", world.dustGrade, true);
    stages.unshift("blast");
    records.push(record("passage", 8 - world.bareHours, { passage: [{ stage: "blast" }] }));
  }
  step("solvent-wipe", null, world.wiped);
  if (kept(0.4)) step("soluble-salt", world.saltMg, true);
  if (kept(0.5)) step("water-break", o.oilLeft > 0.4 ? 12 : 40, true);
  if (world.metal === "cast-aluminium" || world.metal === "galvanised") {
    if (world.prebakeC === null) step("prebake", null, false);
    else step("prebake", world.prebakeC, true);
  }
  if (o.bloom > 1 && kept(0.8))
    records.push(record("metal-mark", 8, { metal_mark: [{ mark: "flash-rust", note: "" }] }));
  const setting = <T>(value: T): T | null => (kept(RECORDED.setting) ? value : null);
  if (kept(RECORDED.coat))
    records.push(
      record("coat", 8, {
        coat: [
          {
            coat_no: world.coatsUnder + 1,
            layer: "top",
            booth: "booth 1",
            kv: setting(world.kv),
            gun_air_kpa: setting(world.airKPa),
            distance_mm: setting(world.gunMm),
            earth_mohm: setting(world.earthMohm),
            hook_cycles: setting(world.hookCycles),
            sprayed_hot: setting(world.metalC > 60),
            metal_c: null,
            colour_change_before: setting(world.colourChange),
            reclaim_percent: setting(world.reclaim),
            booth_air_m_per_s: setting(world.boothAir),
            situation: world.coatsUnder > 0 ? "recoat" : null,
          },
        ],
      }),
    );
  const face = {
    id: "A",
    name: "Face A",
    outline: [],
    recessFromY: null,
    spots: [0, 1, 2, 3].map((i) => ({ id: `A${i}`, at: [i, i], note: "" })),
  };
  if (kept(RECORDED.film))
    records.push(
      record("thickness", 10, {
        thickness_reading: face.spots.flatMap((s, i) =>
          [0, 1, 2].map(() => ({
            face: "A",
            spot: s.id,
            value_um: Math.max(5, (i === 0 ? o.filmUm : o.faceUm) + random.normal(0, 3)),
            rejected_reason: null,
          })),
        ),
      }),
    );
  if (kept(RECORDED.bake)) {
    const hold = Math.max(0, o.cure * 10) + world.overMin;
    const minutes = 6 + Math.round(hold) + 1;
    const at = (m: number) => (m < 6 ? 25 + (m * 175) / 6 : m <= 6 + hold ? 200 : 170);
    records.push(
      record("bake", 9, {
        bake: [
          {
            timing: world.fromDoor ? "door-close" : "metal-at-temperature",
            door_closed_at: new Date(DAY + 9 * HOUR),
            pulled_at: new Date(DAY + 9 * HOUR + minutes * 60_000),
            powder_id: world.otherSchedule ? "other" : "powder",
          },
        ],
        bake_channel: [
          {
            name: "piece",
            medium: "metal",
            time_s: Array.from({ length: minutes + 1 }, (_, m) => m * 60),
            temp_c: Array.from({ length: minutes + 1 }, (_, m) => at(m)),
          },
          ...(kept(0.5)
            ? [
                {
                  name: "hot end",
                  medium: "metal",
                  time_s: Array.from({ length: minutes + 1 }, (_, m) => m * 60),
                  temp_c: Array.from({ length: minutes + 1 }, (_, m) => at(m) + (m >= 6 ? world.ovenSpreadC : 0)),
                },
              ]
            : []),
        ],
      }),
    );
  }
  if (kept(RECORDED.rub))
    records.push(
      record("solvent-rub", 11, {
        solvent_rub: [{ double_rubs: 50, rub_limit: 50, grade: o.cure < 0.75 ? 2 : 5, known_cured_grade: 5 }],
      }),
    );
  const traits = [
    ...(world.flow === "low" ? ["low-flow-powder"] : world.flow === "high" ? ["high-flow-powder"] : []),
    ...(world.releasesWater ? ["water-releasing-powder"] : []),
    ...(world.resin === "epoxy-rich" ? ["indoor-chemistry-outdoors"] : []),
  ];
  const features = [
    ...(world.sharpEdges ? ["sharp-edges"] : []),
    ...(world.laserCut ? ["thermal-cut-edges"] : []),
    ...(world.lap && !world.lapSealed ? ["open-lap-seam"] : []),
    ...(world.hollow ? ["hollow-section"] : []),
    ...(world.recess && world.spot === "recess" ? ["deep-recess"] : []),
    ...(world.fit && world.spot === "fit" ? ["fit-surface"] : []),
  ];
  const rack = {
    id: "rack",
    number: "S1",
    hungAt: new Date(DAY + 6 * HOUR),
    pieces: [],
    job: {
      requirement: {
        film: { rule: "spot-area", minUm: 60, maxUm: 90, level: 3 },
        adhesionWorstIso: 1,
        cureDecidedBy: "index",
      },
      plan: {
        stages,
        primer: world.primer,
        exposure: [
          "weather",
          ...(world.salt ? ["salt"] : []),
          ...(world.water ? ["standing-water"] : []),
          ...(world.knocks ? ["knocks"] : []),
          "sun",
        ],
        offered: [],
      },
    },
    part: {
      code: "S",
      data: { name: "Simulated part", substrate: world.metal, thickestMm: world.thickMm, features, faces: [face] },
    },
    powder: {
      id: "powder",
      code: "S-1",
      data: {
        name: "Simulated powder",
        minUm: 60,
        maxUm: 90,
        schedule: [
          { metalC: 180, minutes: 20 },
          { metalC: 200, minutes: 10 },
        ],
        overbake: [{ metalC: 200, minutes: 40 }],
        onsetC: 140,
        shelfLifeDays: 365,
        knownCuredRubGrade: 5,
        traits,
        weathering: world.grade,
      },
    },
    thread: records,
    current: records,
    passes: [{ number: 1, after: null, records }],
    pass: 0,
    latest: records,
    evidence: records,
    base: { kind: "none", um: 0 },
    doubted: new Set(),
    infrared: new Map(),
  } as unknown as RackFile;
  return findingsFromRecord(rack, conditionsOf(world, random), {
    site,
    setupSheet: sheet,
    lot: kept(0.9) ? ({ madeOn: new Date(DAY - world.powderDays * 24 * HOUR).toISOString() } as never) : null,
    exposure: null,
    face: null,
    compressedAirDewPointC: kept(RECORDED.air) ? { value: world.dewC, recordId: "c1" } : null,
    boothAirMPerS: null,
    humidityPercent: 55,
  }).filter((f) => f.finding !== "film-uneven");
}

/** Baths and passages as they were read about the minute of passage. */
function conditionsOf(world: World, random: Random): Conditions {
  const passages: PassageCondition[] = [];
  const pass = (stage: string, from: number, seconds: number) => {
    const enteredAt = new Date(DAY + 8 * HOUR + from * 1000);
    passages.push({
      rackId: "rack",
      recordId: `p-${stage}`,
      stage,
      enteredAt,
      leftAt: new Date(enteredAt.getTime() + seconds * 1000),
      seconds,
      grade: "measured",
    });
    return from + seconds;
  };
  let t = pass("clean", 0, 90);
  t += world.stopS;
  if (world.conversion) t = pass("conversion", t, world.contactS);
  pass("rinse", t + 5, 40);
  const bath = (
    role: string,
    parameter: string,
    value: number,
    [lower, upper]: readonly [number, number],
  ): BathCondition[] =>
    random.chance(RECORDED.bath)
      ? [
          {
            kind: "bath",
            rackId: "rack",
            bathId: role,
            bath: role,
            bathCode: role,
            role,
            stage: role,
            at: new Date(DAY + 8 * HOUR),
            parameter,
            found: { value, grade: "measured", how: "interpolated", sources: ["c1"] },
            lower,
            upper,
            result: value < lower || value > upper ? "out" : "in",
            contactS: role === "conversion" ? [45, 120] : null,
          } as unknown as BathCondition,
        ]
      : [];
  return {
    passages,
    baths: [
      ...bath("cleaner", "concentration", world.cleaner, [0.8, 1.2]),
      ...(world.conversion ? bath("conversion", "ph", world.ph, [4.8, 5.6]) : []),
      ...bath("conversion", "inhibitor", world.inhibitor, [200, 400]),
      ...bath("rinse", "conductivity", world.rinseUs, [0, 100]),
    ],
  };
}
