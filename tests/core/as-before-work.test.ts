import { readFileSync } from "node:fs";
import { describe, test, vi } from "vitest";
import {
  coach,
  coatSituations,
  judgePreFlight,
  preFlightItems,
  type Setting,
  usualPreFlightLimits,
  whatChanged,
} from "@/core/coating";
import { diagnose, loadKnowledge } from "@/core/diagnosis";
import { gaugeRow, gaugeTable, readBathFile, readGaugeFile, readOvenFile } from "@/core/instrument-files";
import {
  advise,
  batchOrConveyor,
  type Condition,
  costJob,
  drainingOf,
  type Equipment,
  exposures,
  factsOf,
  fitAtSite,
  hangingOf,
  intakeLineOf,
  lineStagesOf,
  nothingDone,
  oldCoatings,
  type PlannedPart,
  parseIntakeLine,
  parseIntakeList,
  partFeatures,
  type Rates,
  routeCard,
  rustGrades,
  type Service,
  schedule,
  stagesOfWork,
  substrates,
  usualSchools,
} from "@/core/plan";
import { parseShorthand } from "@/core/shorthand";
import { seededRandom, simulateBake, simulateConversionBath, simulateLine } from "@/core/simulated-line";
import { asBefore, madeUp } from "../support/as-before";

// Wide nets take their time on a machine that does something else beside.
vi.setConfig({ testTimeout: 60_000 });

const part = (up: ReturnType<typeof madeUp>): PlannedPart => {
  const thinnestMm = up.between(1, 6);
  const box = { lengthMm: up.whole(200, 2400), widthMm: up.whole(120, 900), heightMm: up.whole(100, 900) };
  return {
    substrate: up.one(substrates),
    features: up.some(partFeatures, 0.2),
    box,
    thinnestMm,
    thickestMm: up.chance(0.7) ? thinnestMm + up.between(0, 3) : thinnestMm + up.between(6, 24),
    massKg: up.between(2, 30),
    areaM2: up.between(3, 6),
    lapM: up.chance(0.3) ? up.between(0.5, 3) : 0,
  };
};
const condition = (up: ReturnType<typeof madeUp>): Condition => ({
  rust: up.one(rustGrades),
  scale: up.chance(0.3),
  oldCoating: up.chance(0.6) ? "none" : up.one(oldCoatings),
  weldSpatter: up.chance(0.2),
  oil: up.chance(0.3),
});
const service = (up: ReturnType<typeof madeUp>): Service => ({
  exposure: up.chance(0.2) ? ["indoor"] : [up.one(exposures), ...up.some(exposures, 0.15)],
  lifeYears: up.chance(0.4) ? null : up.whole(1, 20),
  finish: up.one(["standard", "smooth", "texture", "clear"] as const),
  serviceC: up.chance(0.8) ? null : up.whole(40, 420),
});
const rates: Rates = {
  currency: "EUR",
  labourPerHour: 42,
  blastM2PerHour: 9,
  blastPerHour: 65,
  sandM2PerHour: 5,
  stripM2PerHour: 3,
  stripPerM2: 8,
  washM2PerHour: 60,
  washPerHour: 90,
  sprayM2PerHour: 25,
  sealMPerHour: 18,
  sealerPerM: 0.6,
  edgeMPerHour: 22,
  ovenPerHour: 38,
  conveyorPerHour: 75,
  handlingMinPerPiece: 3,
  handFinishMinPerStep: 12,
  transferEfficiency: 0.6,
  powderLoss: 0.05,
  marginPercent: 20,
};
const powder = {
  specificGravity: 1.5,
  perKg: 6.2,
  schedule: [
    { metalC: 180, minutes: 20 },
    { metalC: 190, minutes: 14 },
    { metalC: 200, minutes: 10 },
  ],
};

describe("as before: work", () => {
  test("what is advised, routed and reckoned for made-up parts", async () => {
    const up = madeUp(101);
    const cases = up.many(44, (i) => {
      const [p, c, s] = [part(up), condition(up), service(up)];
      const schools =
        i % 3
          ? usualSchools
          : {
              ...usualSchools,
              conversion: "zirconium" as const,
              primerCuring: "two-full-cures" as const,
              outgasAlwaysForCastings: false,
              preparation: "sand" as const,
            };
      const advice = advise(p, c, s, schools);
      const given = `${p.substrate} ${p.features.join("+")}; rust ${c.rust}${c.scale ? ", scale" : ""}, old coating ${c.oldCoating}; ${s.exposure.join("+")}, ${s.lifeYears} years, ${s.finish}, ${s.serviceC} °C`;
      if (!advice.ok) return [[given, advice] as const];
      const { system } = advice.value.recommended;
      const cost = costJob({
        part: p,
        pieces: up.whole(1, 80),
        system,
        top: powder,
        primer: up.chance(0.9) ? powder : null,
        rates,
        perOven: up.whole(1, 12),
        edgeM: 1.4,
        handSteps: up.chance(0.2) ? 2 : 0,
      });
      const card = routeCard({
        part: p,
        condition: c,
        system,
        cureMetalC: 190,
        cureMinutes: 15,
        blastProfileUm: [40, 75],
        contactS: [60, 120],
        masks: up.chance(0.4) ? 3 : 0,
        handSteps: up.chance(0.2) ? 2 : 0,
      });
      const short = (a: typeof advice.value.recommended | null) =>
        a && { ...a, risks: a.risks.map((r) => `${r.id} ${r.likelihood}`) };
      return [
        [
          given,
          {
            ...advice.value,
            recommended: short(advice.value.recommended),
            cheaper: short(advice.value.cheaper),
            better: short(advice.value.better),
          },
        ] as const,
        ["  facts", [...factsOf(p, c, s, system)].sort().join(" ")] as const,
        [
          "  card",
          card
            .map(
              (step) =>
                `${step.code}${step.hold ? "!" : ""}${step.checks.length ? `(${step.checks})` : ""}${step.parameters.map((q) => `[${q.name} ${q.lower}–${q.upper} ${q.unit}]`).join("")}`,
            )
            .join(" "),
        ] as const,
        ["  line", lineStagesOf(card)] as const,
        ["  cost", cost] as const,
      ];
    });
    await asBefore("work-advice", [
      ...cases.flat(),
      [
        "batch or conveyor",
        [
          [1, 4, 2],
          [60, 4, 2],
          [900, 12, 3],
        ].map(([pieces, perOven, perMetre]) =>
          batchOrConveyor({
            pieces: pieces as number,
            perOven: perOven as number,
            perMetre: perMetre as number,
            bakeMinutes: 32,
            conveyorM: 24,
            rates,
          }),
        ),
      ],
      ["of no pieces", batchOrConveyor({ pieces: 0, perOven: 1, perMetre: 1, bakeMinutes: 30, conveyorM: 10, rates })],
      [
        "a half piece",
        costJob({
          part: part(madeUp(1)),
          pieces: 1.5,
          system: nothingDone,
          top: powder,
          primer: null,
          rates,
          perOven: 1,
          edgeM: 0,
        }),
      ],
      [
        "an oven that takes none",
        costJob({
          part: part(madeUp(1)),
          pieces: 1,
          system: nothingDone,
          top: powder,
          primer: null,
          rates,
          perOven: 0,
          edgeM: 0,
        }),
      ],
      [
        "a price under nothing",
        costJob({
          part: part(madeUp(1)),
          pieces: 1,
          system: nothingDone,
          top: { ...powder, perKg: -1 },
          primer: null,
          rates,
          perOven: 1,
          edgeM: 0,
        }),
      ],
    ]);
  });
  test("fits, hangs, drains; the calendar", async () => {
    const up = madeUp(202);
    const places: Equipment[] = [
      {
        code: "B1",
        name: "Booth 1",
        role: "booth",
        inside: { lengthMm: 2400, widthMm: 1200, heightMm: 1900 },
        mostKg: null,
      },
      {
        code: "O1",
        name: "Oven 1",
        role: "oven",
        inside: { lengthMm: 3200, widthMm: 1500, heightMm: 2000 },
        mostKg: 800,
      },
      { code: "H", name: "Hook", role: "hook", inside: null, mostKg: 25 },
      { code: "R", name: "Rack", role: "rack", inside: { lengthMm: 1600, widthMm: 600, heightMm: 1800 }, mostKg: 120 },
    ];
    const work = up
      .many(25, (i) => ({
        job: `J${i}`,
        hours: Object.fromEntries(stagesOfWork.filter(() => up.chance(0.8)).map((s) => [s, up.between(0.5, 5)])),
        colour: up.one(["red", "blue", "grey"]),
        cureGroup: up.one(["180", "200"]),
        dueInHours: up.chance(0.7) ? up.whole(5, 120) : null,
        pinnedAtHour: up.chance(0.2) ? up.whole(0, 40) : null,
      }))
      .filter((w) => Object.keys(w.hours).length > 0);
    await asBefore("work-fit", [
      ...up.many(20, (i) => {
        const p = part(up);
        return [
          `part ${i}: ${Object.values(p.box)} mm, ${p.massKg} kg`,
          fitAtSite(p, places, { marginMm: up.one([0, 50, 120]), gapMm: up.whole(20, 150) }),
        ] as const;
      }),
      ["without a rack", fitAtSite(part(madeUp(3)), places.slice(0, 3), { marginMm: 50, gapMm: 50 })],
      ["without a gap", fitAtSite(part(madeUp(3)), places, { marginMm: 50, gapMm: -1 })],
      [
        "only just",
        fitAtSite({ box: { lengthMm: 1600, widthMm: 600, heightMm: 1800 }, massKg: 25 }, places, {
          marginMm: 0,
          gapMm: 0,
        }),
      ],
      ...up.many(16, (i) => {
        const points = up.many(up.whole(0, 3), () => ({ xMm: up.whole(0, 1000), yMm: up.whole(0, 500) }));
        const centre = { xMm: up.whole(0, 1000), yMm: up.whole(0, 500) };
        return [`hangs ${i}: ${JSON.stringify([points, centre])}`, hangingOf(points, centre)] as const;
      }),
      [
        "hangs at its very ends",
        [0, 1000].map((xMm) =>
          hangingOf(
            [
              { xMm: 0, yMm: 400 },
              { xMm: 1000, yMm: 400 },
            ],
            { xMm, yMm: 100 },
          ),
        ),
      ],
      [
        "five degrees",
        [5, 5.04, 5.06, 6].map((deg) =>
          hangingOf(
            [
              { xMm: 0, yMm: 400 },
              { xMm: 1000, yMm: 400 + 1000 * Math.tan((deg * Math.PI) / 180) },
            ],
            { xMm: 500, yMm: 100 },
          ),
        ),
      ],
      [
        "one place",
        hangingOf(
          [
            { xMm: 5, yMm: 1 },
            { xMm: 5, yMm: 9 },
          ],
          { xMm: 5, yMm: 0 },
        ),
      ],
      ...[-90, -12, -0.5, -0.4, 0, 0.4, 0.5, 3, 30, 91].map(
        (tiltDeg) =>
          [
            `drains at ${tiltDeg}°`,
            [
              [],
              [{ xMm: 0, yMm: 0 }],
              [{ xMm: 1000, yMm: 10 }],
              [
                { xMm: 1000, yMm: 11 },
                { xMm: 500, yMm: 0 },
              ],
            ].map((drains) => drainingOf({ drains, lengthMm: 1000, heightMm: 300, tiltDeg })),
          ] as const,
      ),
      ["of no height", drainingOf({ drains: [], lengthMm: 1000, heightMm: 0, tiltDeg: 0 })],
      ["calendar", schedule(work)],
      ["calendar, red in the booth, an hour a change", schedule(work, { colourChangeHours: 1, colourNow: "red" })],
      ["calendar of none", schedule([])],
      ["calendar with one twice", schedule([...work, ...work.slice(0, 1)])],
    ]);
  });
  test("what is typed: parts, and the entry line", async () => {
    const up = madeUp(303);
    await asBefore("work-typed", [
      ...[
        "Lamp head,cast aluminium,400x300x250,8,4.2,0.6,20",
        "Gate; hot rolled; 1800×900×40; 2-8; 22kg; 3.4m2; x4; laser; laps 2.4",
        "Bracket, stainless, 40x30x20 cm, 6mm, 12 lb, 12 pcs",
        "Cover\tgalv\t1.2x0.8x0.1 m\t1.5",
        "Block, cast iron, 300x200x100, 40",
        "Post, steel, 2600x120x120, 6, 2 tube 60x2000, rhs 60x40x2000, plate 800x400",
        "Rail, aluminium, 12x4x2 in, 3",
        "Frame, cold rolled, 1800x40x900, 3-2, hollow, no drain, threads, tumbled, hinges, rubber",
        "Gate, steel, 400x300x250",
        "Gate, steel",
        "Gate, 400x300x250, 8",
        "Gate, steel, 400x300x250, 8, purple",
        "Gate, steel, 400x300x250, 8, 1,2,3,4,5",
        "Gate, steel, 400x300x250, 500",
        "Gate, steel, 400x300x250, 8, x0",
        "Gate, steel, 400x300x250, 8, x100001",
        "",
        "Gate, steel, 400x300x250, 8, 900",
        "Gate, steel, 400x300x250, 8, 4, 0.01",
      ].map((line) => [line || "(nothing)", parseIntakeLine(line)] as const),
      ...up.many(12, () => {
        const line = intakeLineOf({ ...part(up), name: "Part" }, up.whole(1, 30));
        return [line, parseIntakeLine(line).ok] as const;
      }),
      [
        "a list",
        parseIntakeList("Gate, steel, 400x300x250, 8\n\n# note\nBracket, stainless, 400x300x200, 6\nbad line\n"),
      ],
      ...[
        "rack 1042 dft a3 72 75 71",
        "rack 42 dft 72",
        "1042 dft a1 2.8 2.9",
        "tank 3 ph 5.1 at 48C",
        "tank 3 ph 5.1 cond 900 at 118F",
        "tank 3 ti 4.2ml",
        "tank 3",
        "tank 3 ph",
        "tank 3 ph five",
        "rack 1046 in conversion",
        "rack 1046 in kitchen",
        "rack 1046 blast 62um",
        "rack 1046 blast 2.4mil",
        "rack 1046 wipe",
        "rack 1046 hang",
        "rack 1042 cut 1/25",
        "rack 1042 cut 26/25",
        "rack 1042 rub 5",
        "rack 1042 rub 9",
        "oven 1 load 478 1031 1032",
        "oven 1 load",
        "oven 1 pulled",
        "oven 1 melted",
        "oven 1 door open",
        "oven 1 door shut",
        "oven 1 metal 188",
        "oven 1 set 205",
        "oven 1 off",
        "oven 1 dances",
        "air 22 61",
        "air 22C 61%",
        "metal 19",
        "stop washer 1 4 min",
        "washer 1 3.2",
        "washer 1 10 ft/min",
        "booth 1 0.4",
        "1042",
        "42",
        "gate",
        "",
        "/",
        "rack",
        "rack x dft 70",
        "tank 2 add 4 l cleaner",
        "tank 2 drain 100",
        "earth 0.3",
        "75.2 um",
        "2.9 mil",
        "RACK 1042 DFT A3 72",
        "  rack   1042   dft  72  ",
        "rack 1042 dft a3 72,5 75,1",
        "rack 1042 defect orange peel",
        "rack 1042 note hello",
      ].flatMap((line) => [
        [`“${line}”`, parseShorthand(line)] as const,
        [`“${line}”, US`, parseShorthand(line, "us")] as const,
      ]),
    ]);
  });
  test("files as instruments write them", async () => {
    const sample = (name: string) => readFileSync(`tests/samples/${name}`, "utf8");
    const [six, log] = [sample("oven-six-channel.csv"), sample("bath-log.csv")];
    const short = (text: string, lines: number) => text.split(/\r?\n/).slice(0, lines).join("\n");
    const oven = (text: string, unit: "degC" | "degF" | null = null) => {
      const read = readOvenFile(text, unit);
      return read.ok
        ? {
            ...read.value,
            channels: read.value.channels.map((c) => ({
              ...c,
              trace: [c.trace.timeS.length, c.trace.tempC.slice(0, 3), c.trace.timeS.slice(-2)],
            })),
          }
        : read;
    };
    const table = (text: string) => {
      const shape = gaugeTable(text);
      return shape.ok
        ? [
            shape.value,
            text
              .split(/\r?\n/)
              .slice(shape.value.headerLine)
              .map((l) => gaugeRow(l, shape.value)),
          ]
        : shape;
    };
    const rows =
      "Rack;Spot;Thickness (µm);Flag\n1042;A1;72,4;\n1042;A1;OVER;R\n1042;A2;;\n1042;A2;71;deleted\n\n# note\n1042;A2;abc;\n1042;A2;-3;\n1042;A2;12000;\n1042;A3;n/a;";
    await asBefore("work-files", [
      ["semicolons, row by row", table(short(sample("gauge-semicolon.csv"), 14))],
      ["mils, row by row", table(short(sample("gauge-mil.csv"), 12))],
      ["racks, row by row", table(rows)],
      ["racks, whole", readGaugeFile(rows.split("\n").slice(0, 5).join("\n"))],
      [
        "no heading",
        [
          gaugeTable("1;2;3\n4;5;6"),
          gaugeTable(""),
          gaugeTable("No.,Thickness\n1,72"),
          gaugeTable("No.,Thickness\n1,72", "um").ok,
        ],
      ],
      [
        "decimal marks",
        [
          "Thickness µm;x\n72,4;1",
          'Thickness µm,x\n"72,4",1',
          "Thickness µm;x\n1,234;1",
          'Thickness µm,x\n"1,234",1',
          "Thickness µm;x\n0,234;1",
          "Thickness µm;x\n7.5;1",
        ].map((t) => readGaugeFile(t)),
      ],
      ["a stream", readGaugeFile(sample("gauge-stream.txt"))],
      [
        "a stream of no unit",
        [readGaugeFile("72\n73\n"), readGaugeFile("72\n73\n", "um"), readGaugeFile("2.8\n2.9\n", "mil")],
      ],
      ["broken", readGaugeFile(sample("gauge-broken.csv"))],
      ["oven", oven(short(six, 40))],
      ["oven, cut off", oven(short(six, 39).slice(0, -8))],
      ["oven in Fahrenheit", oven(sample("oven-fahrenheit.tsv"))],
      ["oven without a unit", [oven("Time,A\n0,20\n10,30\n20,40"), oven("Time,A\n0,20\n10,30\n20,40", "degF")]],
      ["oven, a column of no name", oven("Time,A,\n0,20,21\n10,30,31\n20,40,41", "degC")],
      ["oven, unlike rows of one time", oven("Time,A (C)\n0,20\n10,30\n10,31\n20,40")],
      ["oven, words among figures", oven("Time,A (C)\n0,20\nten,30\n20,hot\n30,40")],
      ["oven of two lines", oven("Time,A (C)\n0,20")],
      ["oven without a time", oven("A (C),B (C)\n20,21\n30,31\n40,41")],
      ["oven by hours and minutes", oven("Time,Air (C),A (C)\n0:00,20,20\n0:10,30,25\n1:00:20,40,30")],
      ["baths", readBathFile(log)],
      ["baths, day first", readBathFile(log, true)],
      ["baths, month first", readBathFile(log, false)],
      [
        "baths of nothing",
        [
          readBathFile(""),
          readBathFile("a,b\n1,2"),
          readBathFile(
            "date,time,tank,parameter,value,unit\n25/05/2026,06:15,Tank 3,pH,eleven,\n25/05/2026,06:15,Tank 3,colour,4,",
          ),
        ],
      ],
    ]);
  });
  test("the coach, the pre-flight and what changed", async () => {
    const up = madeUp(404);
    const windows: Partial<Record<Setting, readonly [number | null, number | null]>> = {
      kv: [50, 80],
      gunAirKPa: [null, 120],
      boothAirMPerS: [0.3, 0.6],
      distanceMm: [150, 300],
      reclaimPercent: [null, 30],
      metalC: [5, 45],
    };
    const limits = {
      ...usualPreFlightLimits,
      gunAirKPa: [40, 120] as const,
      earthLimitMohm: 1,
      boothAirMPerS: [0.3, 0.6] as const,
      hookCyclesLimit: 12,
      compressedAirDewPointC: 3,
    };
    await asBefore("work-coat", [
      ...preFlightItems.map(
        (item) =>
          [
            `coach, ${item} off`,
            coach({
              features: [],
              cast: false,
              situation: "first-coat",
              coatNo: 1,
              traits: [],
              off: [item],
              values: {},
              windows: {},
              recessKv: 45,
              lotDaysLeft: 90,
              outgassed: false,
              lastKv: null,
            }),
          ] as const,
      ),
      ...up.many(40, (i) => {
        const facts = {
          features: up.some(["deep-recess", "sharp-edges", "thermal-cut-edges", "threads"], 0.3),
          cast: up.chance(0.3),
          situation: up.one(coatSituations),
          coatNo: up.whole(1, 3),
          traits: up.some(["high-flow-powder", "water-releasing-powder"], 0.3),
          off: up.some(preFlightItems, 0.08),
          values: {
            kv: up.whole(40, 100),
            gunAirKPa: up.whole(60, 160),
            boothAirMPerS: up.between(0.1, 0.9),
            distanceMm: up.whole(80, 350),
            reclaimPercent: up.whole(0, 50),
            metalC: up.chance(0.5) ? null : up.whole(10, 90),
          },
          windows,
          recessKv: up.chance(0.5) ? 45 : null,
          lotDaysLeft: up.chance(0.3) ? null : up.whole(-20, 200),
          outgassed: up.chance(0.3),
          lastKv: up.chance(0.5) ? null : up.whole(50, 90),
        };
        return [
          `coach ${i}: ${JSON.stringify({ ...facts, windows: undefined })}`,
          coach(facts).map((r) => [r.defect, r.cause, r.weight, r.because, r.first]),
        ] as const;
      }),
      [
        "coach at the very limits",
        coach({
          features: [],
          cast: false,
          situation: "first-coat",
          coatNo: 1,
          traits: [],
          off: [],
          values: { kv: 80, gunAirKPa: 120, boothAirMPerS: 0.6, distanceMm: 150, reclaimPercent: 30, metalC: 45 },
          windows,
          recessKv: 45,
          lotDaysLeft: 0,
          outgassed: false,
          lastKv: 80,
        }),
      ],
      ...up.many(24, (i) => {
        const entries = preFlightItems
          .filter(() => up.chance(0.8))
          .map((item) => ({
            item,
            how: up.one(["measured", "measured", "by-procedure", "skipped"] as const),
            value: up.chance(0.7) ? up.one([0.2, 0.5, 2, 5, 40, 60, 90, 130, 600]) : null,
            good: up.one([true, true, null, false]),
            note: "",
          }));
        return [`pre-flight ${i}: ${JSON.stringify(entries)}`, judgePreFlight(entries, limits, i % 2 === 0)] as const;
      }),
      ...[100, 61, 60, 59, 101].map(
        (flowing) =>
          [
            `air falls to ${flowing}`,
            judgePreFlight(
              [
                { item: "air-rest", how: "measured", value: 100, good: null, note: "" },
                { item: "air-flowing", how: "measured", value: flowing, good: null, note: "" },
              ],
              limits,
              false,
            ).items.slice(4, 6),
          ] as const,
      ),
      [
        "changed",
        whatChanged([
          { kind: "number", name: "kV", now: 80, good: 70, usual: [68, 70, 71, 72, 70] },
          { kind: "number", name: "gun air", now: 80, good: 70, usual: [68, 70] },
          { kind: "number", name: "distance", now: 200, good: 200, usual: [200] },
          { kind: "number", name: "draught", now: 0.7, good: 0.4, usual: [0.4, 0.4, 0.4, 0.4] },
          { kind: "number", name: "alone", now: 3, good: 1, usual: [] },
          { kind: "number", name: "unread", now: null, good: 1, usual: [] },
          { kind: "word", name: "painter", now: "Bea", good: "Ines", usual: ["Ines", "Ines", "Bea", "Tomasz"] },
          { kind: "word", name: "lot", now: "b", good: "a", usual: ["a", "a", "a", "a", "a"] },
          { kind: "word", name: "tip", now: "flat", good: "flat", usual: [] },
          { kind: "word", name: "shift", now: "night", good: "day", usual: ["day"] },
        ]),
      ],
      ["changed to no number", whatChanged([{ kind: "number", name: "kV", now: Number.NaN, good: 70, usual: [] }])],
    ]);
  });
  test("causes of made-up findings, for each defect", async () => {
    const knowledge = loadKnowledge();
    const up = madeUp(505);
    const names = [...knowledge.findings.keys()];
    await asBefore(
      "work-causes",
      [...knowledge.defects.keys()].flatMap((defect) =>
        up.many(4, (i) => {
          const relevant = [
            ...new Set(
              [...(knowledge.defects.get(defect)?.causes.keys() ?? [])].flatMap((c) =>
                (knowledge.causes.get(c)?.evidence ?? []).map((e) => e.finding),
              ),
            ),
          ];
          const findings = Object.fromEntries(
            [...up.some(relevant, 0.35), ...up.some(names, 0.01)].map((f) => [
              f,
              up.one(["present", "absent", "unknown"] as const),
            ]),
          );
          const said = diagnose(knowledge, defect, findings);
          return [
            `${defect} ${i}`,
            said.ok
              ? {
                  enough: said.value.enoughToTell,
                  used: said.value.used,
                  causes: said.value.causes
                    .slice(0, 6)
                    .map((c) => [
                      c.cause,
                      c.role,
                      c.strength,
                      c.raised.map((r) => `${r.finding} ${r.weight}`),
                      c.lowered.map((r) => `${r.finding} ${r.weight}`),
                      c.ruledOutBy,
                    ]),
                  next: said.value.nextChecks.slice(0, 5).map((n) => [n.finding, n.expectedGainBits, n.minutes]),
                }
              : said,
          ] as const;
        }),
      ),
    );
  });
  test("the simulated line, as the demo has it", async () => {
    const HOUR = 3_600_000;
    const DAY = 24 * HOUR;
    const product = {
      key: "RAIL",
      cast: false,
      powder: "GR-210",
      targetUm: 74,
      pieces: 8,
      setPointC: 205,
      doorToPullS: 2000,
      faces: [
        { face: "A", spots: ["A1", "A2"], effectUm: [0, -14] },
        { face: "B", spots: ["B1"], effectUm: [3] },
      ],
      tauS: [
        { channel: "thin", tauS: 200 },
        { channel: "thick", tauS: 380 },
      ],
    };
    const line = simulateLine({
      seed: 11,
      fromMs: 4 * DAY,
      toMs: 20 * DAY + 15.3 * HOUR,
      racksPerDay: 2,
      firstRackNumber: 200,
      products: [product, { ...product, key: "HEAD", cast: true }],
      wrongAdditionMs: 8 * DAY + 9 * HOUR,
      putRightMs: 10 * DAY + 7 * HOUR,
      gassyDeliveryMs: 13 * DAY,
      fanUpMs: 17 * DAY,
      inHand: [
        { minutes: 20, product: "RAIL" },
        { minutes: 70, product: "HEAD" },
        { minutes: 150, product: "RAIL" },
      ],
      beside: [{ product: { ...product, key: "FRAME", hollow: true }, everyDays: 4, firstRackNumber: 900 }],
    });
    const bath = simulateConversionBath(seededRandom(5), {
      fromMs: 4 * DAY,
      toMs: 20 * DAY,
      wrongAdditionMs: 9 * DAY,
      putRightMs: 11 * DAY,
    });
    await asBefore("work-line", [
      ...line.racks.map(
        (r) =>
          [
            `rack ${r.number}`,
            {
              ...r,
              bake: r.bake && {
                ...r.bake,
                channels: r.bake.channels.map((c) => [
                  c.name,
                  c.trace.timeS.length,
                  c.trace.tempC.filter((_, k) => k % 60 === 0),
                ]),
              },
            },
          ] as const,
      ),
      ["conversion", line.conversion],
      ["rinse", line.rinse],
      ["air", line.air],
      ["bath checks", bath.checks],
      ["bath events", bath.events],
      ["pH by the hour", Array.from({ length: 60 }, (_, i) => bath.phAt(4 * DAY + i * 6 * HOUR))],
      ["inhibitor by the hour", Array.from({ length: 60 }, (_, i) => bath.inhibitorAt(4 * DAY + i * 6 * HOUR))],
      [
        "a bake",
        simulateBake(seededRandom(9), {
          setPointC: 205,
          pieces: [{ channel: "a", tauS: 300 }],
          doorToPullS: 900,
          intervalS: 60,
          coolS: 300,
          startC: 21,
        }),
      ],
    ]);
  });
});
