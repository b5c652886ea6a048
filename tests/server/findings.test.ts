import * as v from "valibot";
import { describe, expect, test } from "vitest";
import { type EstablishedFinding, findingsFromRecord } from "@/server/causes/findings-from-record";
import type { RackFile, ThreadRecord } from "@/server/rack/load-rack";
import type { SetupInput } from "@/server/setup/setup-data";
import { setupSchemas } from "@/server/setup/setup-schemas";
import type { BathCondition, Conditions } from "@/server/trace/conditions";

const site = v.parse(setupSchemas.site, {
  name: "Test shop",
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
} satisfies SetupInput<"site">);
const sheet = v.parse(setupSchemas["setup-sheet"], {
  powderCode: "T-1",
  kv: [60, 80],
  recessKv: 45,
  gunAirKPa: [40, 75],
  earthLimitMohm: 1,
  boothAirMPerS: [0.3, 0.6],
  hookCyclesLimit: 5,
  reclaimLimitPercent: 40,
} satisfies SetupInput<"setup-sheet">);
const at = (hour: number) => new Date(Date.UTC(2026, 4, 4, hour));

let counter = 0;
const record = (kind: string, hour: number, details: object): ThreadRecord =>
  ({
    base: { id: `r${++counter}`, kind, happened_at: at(hour), grade: "measured" },
    details,
    supersededBy: null,
  }) as unknown as ThreadRecord;
const step = (name: string, value: number | null = null, done = true, hour = 7) =>
  record("prep-step", hour, { prep_step: [{ step: name, done, value, unit: null, note: null }] });
const coat = (over: object = {}, hour = 9) =>
  record("coat", hour, {
    coat: [
      {
        coat_no: 1,
        layer: "top",
        booth: "booth 1",
        kv: 70,
        gun_air_kpa: 60,
        earth_mohm: 0.5,
        hook_cycles: 2,
        sprayed_hot: false,
        colour_change_before: false,
        reclaim_percent: 20,
        ...over,
      },
    ],
  });
const film = (um: number, face = "A") =>
  record("thickness", 12, {
    thickness_reading: [-2, 0, 2].map((d) => ({ face, spot: `${face}1`, value_um: um + d, rejected_reason: null })),
  });
const passage = (stage: string, hour: number) => record("passage", hour, { passage: [{ stage }] });
const rub = (grade: number) =>
  record("solvent-rub", 13, { solvent_rub: [{ double_rubs: 50, rub_limit: 50, grade, known_cured_grade: 5 }] });

function rackOf(
  records: readonly ThreadRecord[],
  over: { part?: object; powder?: object; plan?: object } = {},
): RackFile {
  const face = {
    id: "A",
    name: "Face A",
    outline: [],
    recessFromY: null,
    spots: [{ id: "A1", at: [50, 50], note: "" }],
  };
  return {
    id: "rack",
    number: "T1",
    hungAt: at(6),
    pieces: [],
    job: {
      requirement: {
        film: { rule: "spot-area", minUm: 60, maxUm: 90, level: 3 },
        adhesionWorstIso: 1,
        cureDecidedBy: "index",
      },
      plan: {
        stages: ["blast", "conversion", "booth", "oven"],
        primer: false,
        exposure: ["weather"],
        offered: [],
        ...over.plan,
      },
    },
    part: {
      code: "T",
      data: {
        name: "Test part",
        substrate: "hot-rolled-steel",
        thickestMm: 4,
        features: [],
        faces: [face],
        ...over.part,
      },
    },
    powder: {
      code: "T-1",
      data: {
        name: "Test powder",
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
        traits: [],
        weathering: "standard",
        ...over.powder,
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
}
const nothing: Conditions = { passages: [], baths: [] };
type Context = Parameters<typeof findingsFromRecord>[2];
const context: Context = {
  site,
  setupSheet: sheet,
  lot: null,
  exposure: null,
  face: null,
  compressedAirDewPointC: null,
  boothAirMPerS: null,
};
const found = (
  rack: RackFile,
  finding: string,
  conditions = nothing,
  over: Partial<Context> = {},
): EstablishedFinding => {
  const all = findingsFromRecord(rack, conditions, { ...context, ...over }).filter((f) => f.finding === finding);
  expect(all, finding).toHaveLength(1);
  return all[0] as EstablishedFinding;
};

describe("preparation", () => {
  test.each([
    ["profile-low", 34, "present"],
    ["profile-low", 35, "absent"],
    ["profile-high", 61, "present"],
    ["profile-high", 60, "absent"],
  ])("%s at %i µm: %s", (finding, um, state) => {
    expect(found(rackOf([step("blast", um)]), finding)).toMatchObject({ state, grade: "measured" });
  });
  test("a blast done, left out, not recorded though called for, and not called for", () => {
    expect(found(rackOf([step("blast", 45)]), "no-blast").state).toBe("absent");
    expect(found(rackOf([step("blast", null, false)]), "no-blast").state).toBe("present");
    expect(found(rackOf([]), "no-blast")).toMatchObject({ state: "unknown", what: { kind: "never-recorded" } });
    expect(found(rackOf([], { plan: { stages: ["conversion"] } }), "no-blast")).toMatchObject({
      state: "present",
      grade: "by-procedure",
    });
  });
  test.each([
    ["blast-dust-left", "dust-tape", 2, 3],
    ["soluble-salt-high", "soluble-salt", 20, 21],
    ["water-break-fail", "water-break", 30, 29],
  ])("%s from %s: %i is fine, %i is not, none is not known", (finding, name, good, bad) => {
    expect(found(rackOf([step(name, good)]), finding).state).toBe("absent");
    const out = found(rackOf([step(name, bad)]), finding);
    expect(out).toMatchObject({ state: "present", grade: "measured", what: { kind: "value", value: bad } });
    expect(out.sources).toHaveLength(1);
    expect(found(rackOf([]), finding)).toMatchObject({ state: "unknown", sources: [] });
  });
  test("a wipe done, left out, or never written down are three things", () => {
    expect(found(rackOf([step("solvent-wipe")]), "solvent-wipe-missed").state).toBe("absent");
    expect(found(rackOf([step("solvent-wipe", null, false)]), "solvent-wipe-missed").state).toBe("present");
    expect(found(rackOf([]), "solvent-wipe-missed").state).toBe("unknown");
  });
  test("the outgassing bake: not called for on plain steel, missed or too cool on a casting", () => {
    const casting = { part: { substrate: "cast-aluminium" } };
    expect(found(rackOf([]), "prebake-missed")).toMatchObject({ state: "absent", what: { kind: "not-called-for" } });
    expect(found(rackOf([], casting), "prebake-missed").state).toBe("unknown");
    expect(found(rackOf([step("prebake", null, false)], casting), "prebake-missed").state).toBe("present");
    const cool = rackOf([step("prebake", 190)], casting);
    expect(found(cool, "prebake-missed").state).toBe("absent");
    expect(found(cool, "prebake-too-cool")).toMatchObject({ state: "present", what: { value: 190, lower: 200 } });
    expect(found(rackOf([step("prebake", 228)], casting), "prebake-too-cool").state).toBe("absent");
  });
  test("how long the metal stood bare, from blast to powder", () => {
    expect(found(rackOf([passage("blast", 4), coat({}, 9)]), "long-wait-before-coat")).toMatchObject({
      state: "present",
      what: { value: 5, upper: 4 },
    });
    expect(found(rackOf([passage("blast", 6), coat({}, 9)]), "long-wait-before-coat").state).toBe("absent");
    expect(found(rackOf([coat()]), "long-wait-before-coat").state).toBe("unknown");
  });
  test("the newest of two tapes counts", () => {
    expect(found(rackOf([step("dust-tape", 4, true, 7), step("dust-tape", 1, true, 8)]), "blast-dust-left").state).toBe(
      "absent",
    );
  });
});

describe("the wash", () => {
  const bath = (role: string, parameter: string, value: number | null, result: string): BathCondition =>
    ({
      kind: "bath",
      rackId: "rack",
      bathId: role,
      bath: `Tank ${role}`,
      bathCode: `Tank ${role}`,
      role,
      stage: "conversion",
      at: at(8),
      parameter,
      found: { value, grade: value === null ? "unknown" : "measured", how: "interpolated", sources: ["c1"] },
      lower: 1,
      upper: 6,
      result,
      contactS: [60, 120],
    }) as BathCondition;
  const through = (seconds: number | null) => [
    {
      rackId: "rack",
      recordId: "p1",
      stage: "conversion",
      enteredAt: at(8),
      leftAt: null,
      seconds,
      grade: "measured" as const,
    },
  ];
  test("out if any value of the role is; not known if none was ever checked", () => {
    const conditions = (result: string, value: number | null = 5) => ({
      passages: through(90),
      baths: [
        bath("conversion", "ph", value, result),
        bath("conversion", "concentration", value === null ? null : 2, "in"),
      ],
    });
    expect(found(rackOf([]), "conversion-out", conditions("out", 6.1))).toMatchObject({
      state: "present",
      what: { quantity: "ph", value: 6.1 },
    });
    expect(found(rackOf([]), "conversion-out", conditions("in")).state).toBe("absent");
    expect(
      found(rackOf([]), "conversion-out", { passages: through(90), baths: [bath("conversion", "ph", null, "unknown")] })
        .state,
    ).toBe("unknown");
    expect(found(rackOf([]), "rinse-dirty", conditions("out")).state).toBe("unknown");
  });
  test.each([
    [59, "present"],
    [60, "absent"],
    [500, "absent"],
  ])("%i s in the conversion: contact short is %s", (seconds, state) => {
    expect(
      found(rackOf([]), "contact-time-short", {
        passages: through(seconds),
        baths: [bath("conversion", "ph", 5, "in")],
      }).state,
    ).toBe(state);
  });
  test("a rack that passed elsewhere but not here skipped it; one that passed nowhere is not known", () => {
    const elsewhere = { passages: [{ ...(through(10)[0] as object), stage: "rinse" }] as never, baths: [] };
    expect(found(rackOf([]), "pretreatment-skipped", elsewhere)).toMatchObject({
      state: "present",
      grade: "by-procedure",
    });
    expect(found(rackOf([]), "pretreatment-skipped").state).toBe("unknown");
    expect(found(rackOf([]), "pretreatment-skipped", { passages: through(90), baths: [] }).state).toBe("absent");
  });
});

describe("film and cure", () => {
  test.each([
    [50, "absent", "present", "absent"],
    [60, "absent", "absent", "present"],
    [75, "absent", "absent", "present"],
    [90, "absent", "absent", "present"],
    [91, "present", "absent", "absent"],
  ])("a mean of %i µm on a sheet of 60 to 90", (um, high, low, right) => {
    const rack = rackOf([film(um)]);
    expect(["film-high", "film-low", "film-right"].map((f) => found(rack, f).state)).toEqual([high, low, right]);
  });
  test("on the face where the defect sits, not on the whole part", () => {
    const rack = rackOf([film(130)]);
    expect(found(rack, "film-high", nothing, { face: "A" }).state).toBe("present");
    expect(found(rack, "film-high", nothing, { face: "B" })).toMatchObject({ state: "unknown" });
  });
  test.each([
    [5, "absent", "present"],
    [4, "absent", "absent"],
    [3, "absent", "absent"],
    [2, "present", "absent"],
    [0, "present", "absent"],
  ])("a rub of grade %i: fails %s, passes %s", (grade, fails, passes) => {
    const rack = rackOf([rub(grade)]);
    expect(found(rack, "solvent-rub-fail").state).toBe(fails);
    expect(found(rack, "solvent-rub-pass").state).toBe(passes);
  });
  const bake = (minutes: number, metalC: number, timing = "metal-at-temperature") =>
    record("bake", 10, {
      bake: [{ timing, door_closed_at: at(10), pulled_at: new Date(at(10).getTime() + minutes * 60_000) }],
      bake_channel: [
        {
          name: "Thick",
          medium: "metal",
          time_s: Array.from({ length: minutes + 1 }, (_, i) => i * 60),
          temp_c: Array.from({ length: minutes + 1 }, () => metalC),
        },
      ],
    });
  test("ten minutes at 200 °C are the sheet's cure; five are half of it", () => {
    const full = rackOf([bake(10, 200)]);
    expect(found(full, "cure-index-low").state).toBe("absent");
    expect(found(full, "hold-short").state).toBe("absent");
    const half = found(rackOf([bake(5, 200)]), "cure-index-low");
    expect(half).toMatchObject({ state: "present", what: { kind: "value", where: "Thick" } });
    expect(half.what.kind === "value" && half.what.value).toBeCloseTo(50, 0);
    expect(found(rackOf([bake(5, 200)]), "hold-short").state).toBe("present");
  });
  test("fifty minutes at 200 °C are past its over-bake", () => {
    expect(found(rackOf([bake(50, 200)]), "cure-index-high").state).toBe("present");
    expect(found(rackOf([bake(20, 200)]), "cure-index-high").state).toBe("absent");
  });
  test("timed from the door is a finding of its own", () => {
    expect(found(rackOf([bake(10, 200, "door-close")]), "timed-from-door").state).toBe("present");
    expect(found(rackOf([bake(10, 200)]), "timed-from-door").state).toBe("absent");
  });
  test("without a bake nothing of it is known", () => {
    for (const f of ["hold-short", "cure-index-low", "cure-index-high"])
      expect(found(rackOf([]), f).state).toBe("unknown");
  });
});

describe("gun, earth and powder", () => {
  test.each([
    ["kv-high", { kv: 81 }, { kv: 80 }],
    ["output-high", { gun_air_kpa: 76 }, { gun_air_kpa: 75 }],
    ["ground-poor", { earth_mohm: 1.2 }, { earth_mohm: 1 }],
    ["hooks-coated", { hook_cycles: 6 }, { hook_cycles: 5 }],
    ["reclaim-high", { reclaim_percent: 41 }, { reclaim_percent: 40 }],
    ["sprayed-hot", { sprayed_hot: true }, { sprayed_hot: false }],
    ["colour-change-before", { colour_change_before: true }, { colour_change_before: false }],
    ["existing-coating-under", { coat_no: 2 }, { coat_no: 1 }],
  ])("%s", (finding, bad, good) => {
    expect(found(rackOf([coat(bad)]), finding).state).toBe("present");
    expect(found(rackOf([coat(good)]), finding).state).toBe("absent");
  });
  test("what was not read, or has no set-up sheet to hold it against, is not known", () => {
    expect(found(rackOf([coat({ earth_mohm: null })]), "ground-poor").state).toBe("unknown");
    expect(found(rackOf([coat()]), "ground-poor", nothing, { setupSheet: null }).state).toBe("unknown");
    expect(found(rackOf([]), "kv-high").state).toBe("unknown");
  });
  test("the lot's age on the day it was sprayed, not today", () => {
    const lot = { powderCode: "T-1", madeOn: "2025-05-04", receivedOn: "2025-06-01", stockKg: null, openedOn: null };
    expect(found(rackOf([coat()]), "powder-expired", nothing, { lot })).toMatchObject({
      state: "present",
      what: { upper: 365 },
    });
    expect(found(rackOf([coat()]), "powder-expired", nothing, { lot: { ...lot, madeOn: "2025-05-06" } }).state).toBe(
      "absent",
    );
  });
  test("compressed air and booth air against the site and the sheet", () => {
    const air = (value: number) => ({ compressedAirDewPointC: { value, recordId: "a" } });
    expect(found(rackOf([coat()]), "air-wet", nothing, air(-19))).toMatchObject({ state: "present", sources: ["a"] });
    expect(found(rackOf([coat()]), "air-wet", nothing, air(-20)).state).toBe("absent");
    const booth = (value: number) => ({ boothAirMPerS: { value, recordId: "b" } });
    expect(found(rackOf([coat()]), "booth-air-high", nothing, booth(0.7)).state).toBe("present");
    expect(found(rackOf([coat()]), "booth-air-high", nothing, booth(0.6)).state).toBe("absent");
    expect(found(rackOf([coat()]), "booth-air-high").state).toBe("unknown");
  });
});

describe("the job", () => {
  test("a declined primer is a finding with who declined it", () => {
    const offered = [
      {
        code: "zinc-primer",
        what: "Zinc primer",
        state: "declined",
        by: "the customer",
        on: "2026-03-01",
        risk: "creep",
      },
    ];
    expect(found(rackOf([], { plan: { offered } }), "no-primer")).toMatchObject({
      state: "present",
      what: { kind: "option-declined", what: "Zinc primer", by: "the customer" },
    });
    expect(found(rackOf([], { plan: { primer: true } }), "no-primer").state).toBe("absent");
  });
  test("indoor chemistry counts only outdoors; a standard grade is low only in sun by the sea", () => {
    const indoor = { powder: { traits: ["indoor-chemistry-outdoors"], weathering: "indoor" } };
    expect(found(rackOf([], indoor), "indoor-chemistry-outdoors", nothing, { exposure: ["weather"] }).state).toBe(
      "present",
    );
    expect(found(rackOf([], indoor), "indoor-chemistry-outdoors", nothing, { exposure: ["indoor"] }).state).toBe(
      "absent",
    );
    expect(found(rackOf([]), "weather-grade-low", nothing, { exposure: ["sun", "salt"] }).state).toBe("present");
    expect(found(rackOf([]), "weather-grade-low", nothing, { exposure: ["sun"] }).state).toBe("absent");
  });
  test("what the structure meets outweighs what the plan said", () => {
    const planned = found(rackOf([], { plan: { exposure: ["indoor"] } }), "salt-exposure");
    expect(planned).toMatchObject({ state: "absent", grade: "by-procedure" });
    expect(
      found(rackOf([], { plan: { exposure: ["indoor"] } }), "salt-exposure", nothing, { exposure: ["salt"] }),
    ).toMatchObject({
      state: "present",
      grade: "measured",
    });
  });
  test("no finding is established twice, and each is one the engine knows", async () => {
    const { loadKnowledge } = await import("@/core/diagnosis");
    const all = findingsFromRecord(rackOf([coat(), film(70), step("blast", 45), rub(5)]), nothing, context).map(
      (f) => f.finding,
    );
    expect(new Set(all).size).toBe(all.length);
    const known = loadKnowledge().findings;
    for (const finding of all) expect(known.has(finding), finding).toBe(true);
  });
});
