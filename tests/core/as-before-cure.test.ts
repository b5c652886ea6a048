import { describe, test, vi } from "vitest";
import {
  adviseLoad,
  type BakeChannel,
  fitCureCurve,
  fitHeatUp,
  fitOverbakeCurve,
  gelSchedule,
  heatingRate,
  heatThrough,
  indexByLayer,
  infraredHold,
  isExtrapolated,
  judgeBake,
  judgeClimb,
  learnHeatTransfer,
  loadEnergy,
  type Metal,
  ovenSurvey,
  type PlannedPiece,
  placesFromLines,
  planLoad,
  plannedAt,
  proofAgreement,
  proofRate,
  requiredMinutes,
  sectionChannels,
  sectionStates,
  segmentsOf,
  speedBand,
  speedChangeEffects,
  stopEffects,
  type Trace,
  throughConveyor,
  traceFaults,
  zonesFromLines,
} from "@/core/cure";
import { asBefore, madeUp } from "../support/as-before";

// Wide nets take their time on a machine that does something else beside.
vi.setConfig({ testTimeout: 60_000 });

const sheet = {
  points: [
    { metalC: 180, minutes: 20 },
    { metalC: 190, minutes: 14 },
    { metalC: 200, minutes: 10 },
  ],
  overbake: [
    { metalC: 200, minutes: 32 },
    { metalC: 220, minutes: 15 },
  ],
};
const onePoint = { points: [{ metalC: 190, minutes: 15 }] };
/** Metal of a time constant in air that rises to a set point, a sample every so many seconds, with a recorder's noise. */
function baked(
  of: {
    tauS: number;
    setC: number;
    airTauS?: number;
    startC?: number;
    noiseC?: number;
    every?: number;
    lastS?: number;
    pulledS?: number;
  },
  seed = 1,
): Trace {
  const { tauS, setC, airTauS = 140, startC = 22, noiseC = 0, every = 15, lastS = 2400, pulledS = 1e9 } = of;
  const up = madeUp(seed);
  const timeS: number[] = [];
  const tempC: number[] = [];
  let [air, metal] = [60, startC];
  for (let s = 0; s <= lastS; s += every) {
    timeS.push(s);
    tempC.push(Math.round(10 * (metal + up.between(-noiseC, noiseC, 3))) / 10);
    air = s >= pulledS ? 24 : setC - (setC - air) * Math.exp(-every / airTauS);
    metal = air - (air - metal) * Math.exp(-every / (s >= pulledS ? 1.6 * tauS : tauS));
  }
  return { timeS, tempC };
}
const channel = (name: string, trace: Trace, medium: "air" | "metal" = "metal"): BakeChannel => ({
  name,
  medium,
  trace,
});

describe("as before: cure", () => {
  test("curves, required times, what lies beyond the sheet", async () => {
    const curve = fitCureCurve(sheet.points);
    const single = fitCureCurve(onePoint.points);
    const over = curve.ok ? fitOverbakeCurve(sheet.overbake, curve.value) : curve;
    const overOne = curve.ok ? fitOverbakeCurve(sheet.overbake.slice(0, 1), curve.value) : curve;
    await asBefore("cure-curves", [
      ["three points", curve],
      ["one point", single],
      ["one point, 100 kJ/mol", fitCureCurve(onePoint.points, 100)],
      ["over-bake of two", over],
      ["over-bake of one", overOne],
      ...[150, 164, 165, 166, 175, 190, 215, 216, 230].map(
        (c) =>
          [`${c} °C`, curve.ok ? [requiredMinutes(curve.value, c), isExtrapolated(curve.value, c)] : null] as const,
      ),
      ["no points", fitCureCurve([])],
      ["two times", fitCureCurve([...onePoint.points, ...onePoint.points])],
      [
        "slower when hotter",
        fitCureCurve([
          { metalC: 180, minutes: 10 },
          { metalC: 200, minutes: 20 },
        ]),
      ],
      ["no minutes", fitCureCurve([{ metalC: 180, minutes: 0 }])],
      ["bad energy", fitCureCurve(onePoint.points, 0)],
      [
        "over-bake slower when hotter",
        curve.ok &&
          fitOverbakeCurve(
            [
              { metalC: 180, minutes: 10 },
              { metalC: 200, minutes: 20 },
            ],
            curve.value,
          ),
      ],
      ["gel", gelSchedule({ metalC: 160, leastMin: 4, mostMin: 9 }, sheet.points)],
      ["gel as long as the cure", gelSchedule({ metalC: 180, leastMin: 4, mostMin: 20 }, sheet.points)],
      ["gel turned round", gelSchedule({ metalC: 160, leastMin: 9, mostMin: 4 }, sheet.points)],
    ]);
  });
  test("bakes judged", async () => {
    const up = madeUp(5);
    const cases = up.many(40, (i) => {
      const tau = up.between(80, 900, 0);
      const setC = up.between(165, 235, 0);
      const pulledS = up.between(700, 3000, 0);
      const channels = [
        channel("Thin", baked({ tauS: tau * 0.6, setC, pulledS, lastS: 3600, noiseC: 0.4 }, i)),
        channel("Thick", baked({ tauS: tau, setC, pulledS, lastS: 3600, noiseC: 0.4 }, i + 100)),
      ];
      const judged = judgeBake(channels, i % 5 === 0 ? onePoint : sheet, { decidedBy: i % 2 ? "hold" : "index" });
      return [
        `τ ${tau}, ${setC} °C, ${pulledS} s`,
        judged.ok ? { ...judged.value, curve: undefined } : judged,
      ] as const;
    });
    await asBefore("cure-bakes", cases);
  });
  test("loads planned, advised and paid for", async () => {
    const up = madeUp(8);
    const metals: Metal[] = [
      "steel",
      "aluminium",
      "cast-iron",
      "stainless",
      "zinc",
      "brass",
      "cast-aluminium",
      "glass",
    ];
    const cases = up.many(36, (i) => {
      const pieces: PlannedPiece[] = up.many(up.whole(1, 4), (n) => ({
        id: `p${n}`,
        section: { metal: up.one(metals), sectionMm: up.between(1, 22), hWPerM2K: up.between(18, 34) },
        schedule: up.chance(0.8) ? sheet : onePoint,
        startC: up.chance(0.8) ? 22 : up.between(60, 190, 0),
        ...(up.chance(0.3) ? { airOffC: up.between(-8, 8) } : {}),
        ...(up.chance(0.3)
          ? { earned: { index: up.between(0, 140), overbake: up.between(0, 60), heldS: [0, 60, 120] } }
          : {}),
      }));
      const air = {
        startC: up.between(22, 120, 0),
        tauS: up.between(60, 500, 0),
        program: up.chance(0.7)
          ? [{ fromS: 0, airC: up.between(185, 230, 0) }]
          : [
              { fromS: 0, airC: 235 },
              { fromS: up.between(300, 900, 0), airC: up.between(170, 195, 0), tauS: 500 },
            ],
      };
      const options = { leastIndex: up.one([100, 110, 130]), holdToo: up.chance(0.5) };
      const planned = planLoad(air, pieces, options);
      const advised = adviseLoad(air, pieces, options.leastIndex, options.holdToo);
      return [
        `load ${i}`,
        planned.ok
          ? {
              ...planned.value,
              pieces: planned.value.pieces.map((p) => ({
                ...p,
                timeS: p.timeS.length,
                metalC: p.metalC.filter((_, k) => k % 120 === 0),
                curve: p.curve.b,
                overbake: p.overbake?.filter((_, k) => k % 180 === 0) ?? null,
                index: [300, 900, 1777.5, 1e6].map((s) => plannedAt(p.index, s)),
              })),
              advice: advised.ok ? advised.value.advice : advised,
            }
          : planned,
      ] as const;
    });
    await asBefore("cure-loads", [
      ...cases,
      ["nothing in it", planLoad({ startC: 60, tauS: 100, program: [{ fromS: 0, airC: 200 }] }, [])],
      [
        "no program",
        planLoad({ startC: 60, tauS: 100, program: [] }, [
          { id: "a", section: { tauS: 300 }, schedule: sheet, startC: 22 },
        ]),
      ],
      [
        "least index of nothing",
        planLoad(
          { startC: 60, tauS: 100, program: [{ fromS: 0, airC: 200 }] },
          [{ id: "a", section: { tauS: 300 }, schedule: sheet, startC: 22 }],
          { leastIndex: 0 },
        ),
      ],
      [
        "heat",
        loadEnergy({
          pieces: [
            { metal: "steel", massKg: 300, fromC: 22, toC: 200 },
            { metal: "aluminium", massKg: 20, fromC: 22, toC: 200 },
          ],
          idleKw: 14,
          bakeS: 2100,
          efficiency: 0.6,
        }),
      ],
      ["heat at no efficiency", loadEnergy({ pieces: [], idleKw: 14, bakeS: 2100, efficiency: 0 })],
      ["heat of less than no time", loadEnergy({ pieces: [], idleKw: 14, bakeS: -1, efficiency: 0.5 })],
      ["heat idle at less than nothing", loadEnergy({ pieces: [], idleKw: -14, bakeS: 100, efficiency: 0.5 })],
    ]);
  });
  test("a conveyor: speeds, stops, a change of speed", async () => {
    const zones = [
      { name: "boost", lengthM: 3, airC: 260, hWPerM2K: 45 },
      { name: "hold", lengthM: 14, airC: 205, hWPerM2K: 28 },
      { name: "end", lengthM: 6, airC: 195, hWPerM2K: 25 },
    ];
    const piece = (sectionMm: number, metal: Metal = "steel") => ({
      id: `${metal} ${sectionMm}`,
      metal,
      sectionMm,
      schedule: sheet,
    });
    const run = (r: ReturnType<typeof throughConveyor>) =>
      r.ok
        ? { ...r.value, trace: [r.value.trace.timeS.length, r.value.trace.tempC.filter((_, k) => k % 40 === 0)] }
        : r;
    await asBefore("cure-conveyor", [
      ...[1.2, 3, 6, 12, 20].flatMap((mm) =>
        [0.4, 0.8, 1.3].map((v) => [`${mm} mm at ${v}`, run(throughConveyor(zones, piece(mm), v))] as const),
      ),
      ["stop in the boost", run(throughConveyor(zones, piece(3), 0.9, { stop: { atM: 1.5, forS: 600 } }))],
      ["stop at a seam of two zones", run(throughConveyor(zones, piece(3), 0.9, { stop: { atM: 3, forS: 600 } }))],
      ["stop of no length", run(throughConveyor(zones, piece(3), 0.9, { stop: { atM: 3, forS: 0 } }))],
      ["changed half-way", run(throughConveyor(zones, piece(3), 0.9, { change: { atM: 11, toMPerMin: 1.4 } }))],
      ["warm to begin with", run(throughConveyor(zones, piece(3), 0.9, { startC: 80, roomC: 30 }))],
      ["band of thin and thick", speedBand(zones, [piece(1.2), piece(12)], 110)],
      ["band of one", speedBand(zones, [piece(3, "aluminium")])],
      ["band of plates too heavy", speedBand(zones, [piece(90)])],
      ["band without an over-bake limit", speedBand(zones, [{ ...piece(3), schedule: onePoint }])],
      ["band of none", speedBand(zones, [])],
      ["band in no zones", speedBand([], [piece(3)])],
      ["zone of no length", speedBand([{ ...zones[0], name: "x", lengthM: 0, airC: 200, hWPerM2K: 20 }], [piece(3)])],
      ["zone of 1000 °C", speedBand([{ name: "x", lengthM: 1, airC: 1000, hWPerM2K: 20 }], [piece(3)])],
      ["at no speed", run(throughConveyor(zones, piece(3), 0))],
      ["stops", stopEffects(zones, piece(3), 0.9, 480)],
      ["slower", speedChangeEffects(zones, piece(3), 1, 0.6)],
    ]);
  });
  test("what is wrong with channels", async () => {
    const up = madeUp(21);
    const air = channel("Air", baked({ tauS: 1, setC: 205, noiseC: 0.5 }, 3), "air");
    const of = (tauS: number, seed: number, over: Partial<Parameters<typeof baked>[0]> = {}) =>
      baked({ tauS, setC: 205, noiseC: 0.3, pulledS: 2100, lastS: 2700, ...over }, seed);
    const bent = (trace: Trace, f: (c: number, s: number) => number | null): Trace => ({
      timeS: trace.timeS,
      tempC: trace.tempC.map((c, i) => f(c as number, trace.timeS[i] as number)),
    });
    const cases: (readonly [string, readonly BakeChannel[]])[] = [
      ["healthy", [air, channel("A", of(150, 1)), channel("B", of(400, 2)), channel("C", of(700, 3))]],
      ["healthy without air", [channel("A", of(150, 1)), channel("B", of(400, 2)), channel("C", of(700, 3))]],
      ["in the air", [air, channel("A", of(12, 1)), channel("B", of(400, 2))]],
      ["in the air, none on the air", [channel("A", of(10, 1)), channel("B", of(500, 2)), channel("C", of(600, 3))]],
      ["changed over", [channel("Air", of(500, 4), "air"), channel("A", of(5, 5)), channel("B", of(450, 6))]],
      [
        "Fahrenheit",
        [air, channel("A", of(300, 1)), channel("B", of(400, 2))].map((c) => ({
          ...c,
          trace: bent(c.trace, (x) => x * 1.8 + 32),
        })),
      ],
      [
        "a jump",
        [
          air,
          channel(
            "A",
            bent(of(300, 1), (c, s) => (s === 900 ? c + 90 : c)),
          ),
          channel("B", of(400, 2)),
        ],
      ],
      [
        "a drift",
        [
          air,
          channel(
            "A",
            bent(of(200, 1), (c, s) => c + Math.max(0, s - 1200) / 120),
          ),
          channel("B", of(220, 2)),
          channel("C", of(240, 3)),
          channel("D", of(260, 4)),
        ],
      ],
      [
        "a drift down",
        [
          channel(
            "A",
            bent(of(200, 1), (c, s) => c - Math.max(0, s - 1200) / 90),
          ),
          channel("B", of(220, 2)),
          channel("C", of(240, 3)),
        ],
      ],
      [
        "a dead one",
        [
          air,
          channel(
            "A",
            bent(of(200, 1), (c, s) => (s > 600 ? null : c)),
          ),
          channel("B", of(220, 2)),
        ],
      ],
      ...up.many(12, (i) => {
        const n = up.whole(2, 5);
        return [
          `made up ${i}`,
          up.many(n, (k) =>
            channel(
              `c${k}`,
              of(up.between(20, 800, 0), i * 10 + k, { setC: up.between(180, 230, 0) }),
              up.chance(0.2) ? "air" : "metal",
            ),
          ),
        ] as const;
      }),
    ];
    await asBefore(
      "cure-faults",
      cases.flatMap(([what, channels]) => [
        [what, traceFaults(channels)] as const,
        [`${what}, against its sheet`, traceFaults(channels, sheet)] as const,
      ]),
    );
  });
  test("spot readings: held, by section, now", async () => {
    const up = madeUp(34);
    const reading = (atS: number, metalC: number, section = "Top", over = {}) => ({
      atS,
      metalC,
      emissivity: 0.95,
      aim: "coated-part" as const,
      section,
      ...over,
    });
    const sections = ["Top", "Middle", "Foot"];
    const some = up.many(40, (i) => reading(i * up.whole(40, 70), up.between(150, 210), up.one(sections)));
    await asBefore("cure-spots", [
      ["held", infraredHold(some, 180)],
      [
        "doubted",
        infraredHold(
          [
            ...some.slice(0, 5),
            reading(9000, 200, "Top", { emissivity: 0.6 }),
            reading(9100, 200, "Top", { aim: "oven-wall" }),
          ],
          180,
        ),
      ],
      ["two at once", infraredHold([reading(10, 190), reading(10, 191)], 180)],
      ["none", infraredHold([], 180)],
      ["just five minutes apart", infraredHold([reading(0, 190), reading(300, 190), reading(601, 190)], 180)],
      ["channels", sectionChannels(sections, some)],
      ["channels of two at once", sectionChannels(["Top"], [reading(10, 190), reading(10, 191)])],
      ...[0, 400, 1200, 2600].map(
        (s) =>
          [
            `states at ${s}`,
            sectionStates(
              sections,
              some.filter((r) => r.atS <= s),
              sheet,
              s,
              110,
            ),
          ] as const,
      ),
      ["states long after", sectionStates(sections, some, sheet, 9000)],
    ]);
  });
  test("ovens: surveys, what was learnt, lists typed in", async () => {
    const up = madeUp(55);
    const place = (name: string, offC: number, seed: number) => ({
      place: name,
      trace: baked({ tauS: 60, setC: 205 + offC, noiseC: 0.3, every: 30, lastS: 3600, pulledS: 5000 }, seed),
    });
    const opened = (t: Trace): Trace => ({
      timeS: t.timeS,
      tempC: t.tempC.map((c, i) =>
        (t.timeS[i] as number) >= 2400 && (t.timeS[i] as number) < 2700 ? (c as number) - 40 : c,
      ),
    });
    const places = [place("A1", -4, 1), place("B2", 0, 2), place("C3", 5, 3)];
    await asBefore("cure-ovens", [
      ["survey", ovenSurvey(places, 205, [1200, 2000])],
      [
        "survey with its door",
        ovenSurvey(
          places.map((p) => ({ ...p, trace: opened(p.trace) })),
          205,
          [1200, 2000],
          2400,
        ),
      ],
      [
        "survey that never came back",
        ovenSurvey(
          places.map((p) => ({ ...p, trace: opened(p.trace) })),
          260,
          [1200, 2000],
          2400,
        ),
      ],
      ["survey of one", ovenSurvey(places.slice(0, 1), 205, [1200, 2000])],
      ["survey of no time", ovenSurvey(places, 205, [2000, 2000])],
      ["survey set to 1000", ovenSurvey(places, 1000, [1200, 2000])],
      ["survey where nothing was on record", ovenSurvey(places, 205, [90_000, 91_000])],
      ...[1, 2, 4, 5, 20].map(
        (n) => [`learnt from ${n}`, learnHeatTransfer(up.many(n, () => up.between(22, 34)))] as const,
      ),
      ["learnt from none", learnHeatTransfer([])],
      ["learnt from nothing", learnHeatTransfer([0])],
      [
        "fit",
        fitHeatUp(
          baked({ tauS: 240, setC: 200, airTauS: 1 }).timeS,
          baked({ tauS: 240, setC: 200, airTauS: 1, noiseC: 0.2 }).tempC as number[],
        ),
      ],
      [
        "fit of a short one",
        fitHeatUp(
          baked({ tauS: 900, setC: 200, airTauS: 1, lastS: 600 }).timeS,
          baked({ tauS: 900, setC: 200, airTauS: 1, lastS: 600 }).tempC as number[],
        ),
      ],
      ["fit of what never warmed", fitHeatUp([0, 10, 20, 30], [20, 21, 24, 25])],
      ["fit of three", fitHeatUp([0, 10, 20], [20, 60, 90])],
      ["climb", heatingRate(baked({ tauS: 300, setC: 205 }))],
      ["climb that never got there", heatingRate(baked({ tauS: 300, setC: 120 }))],
      ["climb from 150 on", heatingRate(baked({ tauS: 300, setC: 205, startC: 155 }))],
      ...[4, 5, 9, 12, 12.1].map((v) => [`climb of ${v}`, judgeClimb(v, [5, 12])] as const),
      ["climb of no range", judgeClimb(5, [12, 5])],
      ["proof", proofAgreement(up.many(40, () => ({ index: up.between(60, 180, 0), passed: up.chance(0.7) })))],
      [
        "proof of those that all held",
        proofAgreement(up.many(12, () => ({ index: up.between(100, 180, 0), passed: true }))),
      ],
      [
        "proof of nine",
        proofAgreement([{ index: 95, passed: false }, ...up.many(9, (i) => ({ index: 100 + i, passed: true }))]),
      ],
      ["proof of none", proofAgreement([])],
      ["proof of less than nothing", proofAgreement([{ index: -1, passed: true }])],
      [
        "layers",
        indexByLayer([
          { coatNo: 2, index: 120, overbakeIndex: 40 },
          { coatNo: 1, index: 110, overbakeIndex: null },
          { coatNo: 1, index: 60, overbakeIndex: 20 },
          { coatNo: 2, index: 10, overbakeIndex: 7 },
        ]),
      ],
      ...[[], [true], [false, false, true, false], [true, false, false, false, false], [false, false, false]].map(
        (p) => [`proven ${p}`, proofRate(p, 3)] as const,
      ),
      ["proven every none", proofRate([true], 0)],
      ["places", placesFromLines("A1, 10, 20\nB2; 30; 40; by the door\n\n C3\t5\t95")],
      ["places twice", placesFromLines("A1, 10, 20\na1, 30, 40")],
      ["a place outside", placesFromLines("A1, 10, 120")],
      ["a place without a figure", placesFromLines("A1, ten, 12")],
      ["zones", zonesFromLines("boost, infrared, 3, 260, 45\nhold, convection, 14, 205, 28")],
      ["a zone of no kind", zonesFromLines("boost, steam, 3, 260, 45")],
      ["a zone with too little", zonesFromLines("boost, infrared, 3")],
      ["a zone of no length", zonesFromLines("boost, infrared, 0, 260, 45")],
      ["a zone too hot", zonesFromLines("boost, infrared, 3, 1260, 45")],
      ["no zones", zonesFromLines("  \n")],
      [
        "through",
        heatThrough(
          {
            startC: 40,
            tauS: 150,
            program: [
              { fromS: 0, airC: 220 },
              { fromS: 600, airC: 180, tauS: 900 },
            ],
          },
          { tauS: 300, startC: 22 },
          1800,
          60,
        ),
      ],
      [
        "through in no steps",
        heatThrough({ startC: 40, tauS: 150, program: [{ fromS: 0, airC: 220 }] }, { tauS: 300, startC: 22 }, 1800, 0),
      ],
      [
        "through a program out of order",
        heatThrough(
          {
            startC: 40,
            tauS: 150,
            program: [
              { fromS: 0, airC: 220 },
              { fromS: 0, airC: 200 },
            ],
          },
          { tauS: 300, startC: 22 },
          600,
          60,
        ),
      ],
      [
        "cut up",
        segmentsOf({ timeS: [0, 10, 20, 30, 90, 100, 110, 141], tempC: [20, 30, null, 50, 60, 70, null, 80] }),
      ],
    ]);
  });
});
