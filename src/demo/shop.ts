import type { SetupInput } from "@/server/setup/setup-data";
import { ovenPlaces } from "./oven-places";
import { type Seed, wash } from "./shop-wash";

const rectangle: [number, number][] = [
  [0, 0],
  [100, 0],
  [100, 100],
  [0, 100],
];
const post = (id: string, name: string, recessFromY: number | null) => ({
  id,
  name,
  outline: rectangle,
  recessFromY,
  spots: [8, 28, 48, 68, 86].map((y, i) => ({
    id: `${id}${i + 1}`,
    at: [50, y] as [number, number],
    note: recessFromY !== null && y > recessFromY - 10 ? "by the foot plate" : "",
  })),
});
const powder = (code: string, name: string, extra: Partial<SetupInput<"powder">>): Seed => ({
  kind: "powder",
  code,
  data: {
    name,
    chemistry: "polyester",
    minUm: 60,
    maxUm: 90,
    specificGravity: 1.6,
    schedule: [
      { metalC: 180, minutes: 20 },
      { metalC: 190, minutes: 15 },
      { metalC: 200, minutes: 10 },
    ],
    overbake: [{ metalC: 200, minutes: 40 }],
    onsetC: 140,
    climbCPerMin: [10, 60],
    shelfLifeDays: 540,
    knownCuredRubGrade: 5,
    traits: [],
    weathering: "standard",
    glossGu: [60, 8],
    swatch: { code: `SW-${code.slice(3)}`, deltaE: 1 },
    storeMostC: 25,
    mostPerCoatUm: 120,
    mostInAllUm: 250,
    hazards: "Dust: respirator; explosive in air. Hardener may sensitise.",
    ...extra,
  },
});

/** Tarnwick Quay Finishing: an invented shop in an invented town. */
export const shop: readonly Seed[] = [
  {
    kind: "site",
    code: "site",
    data: {
      name: "Tarnwick Quay Finishing",
      timeZone: "Europe/London",
      workDays: [1, 2, 3, 4, 5, 6],
      cureDecidedBy: "index",
      crossCutWorstIso: 1,
      bareLimitHours: 4,
      bareLimits: [
        { upToHumidityPercent: 50, hours: 8 },
        { upToHumidityPercent: 65, hours: 4 },
        { upToHumidityPercent: 80, hours: 2 },
        { upToHumidityPercent: 100, hours: 1 },
      ],
      dewPointMarginC: 3,
      compressedAirDewPointC: -20,
      shifts: [
        { name: "Day shift", from: "06:00" },
        { name: "Late shift", from: "14:00" },
        { name: "Night shift", from: "22:00" },
      ],
      blastProfileUm: [35, 60],
      dustTapeWorstGrade: 2,
      solubleSaltMgPerM2: 20,
      waterBreakHoldsS: 30,
      rates: {
        currency: "GBP",
        labourPerHour: 31,
        blastM2PerHour: 9,
        blastPerHour: 24,
        washM2PerHour: 45,
        washPerHour: 62,
        sprayM2PerHour: 28,
        sealMPerHour: 12,
        sealerPerM: 2.4,
        edgeMPerHour: 18,
        ovenPerHour: 46,
        conveyorPerHour: 74,
        handlingMinPerPiece: 3,
        handFinishMinPerStep: 12,
        transferEfficiency: 0.6,
        powderLoss: 0.05,
        marginPercent: 28,
      },
    },
  },
  ...(["Saltmarsh Ferries", "Brackwater Borough", "Ordway Lamps", "Pellan Charge", "Pinnock & Daughter"].map(
    (name, i) => ({ kind: "customer", code: `C${i + 1}`, data: { name } }),
  ) as Seed[]),
  { kind: "customer", code: "C9", data: { name: "Own panels" } },
  {
    kind: "part",
    code: "SHELTER-POST",
    data: {
      name: "Tram shelter post",
      substrate: "hot-rolled-steel",
      thickestMm: 6,
      features: ["hollow-section", "deep-recess"],
      measures: {
        box: { lengthMm: 2600, widthMm: 120, heightMm: 120 },
        thinnestMm: 4,
        massKg: 38,
        areaM2: 1.3,
        lapM: 0,
        edgeM: 1.2,
      },
      marks: [
        { kind: "hang", face: "A", at: [12, 4], note: "threaded hole, hidden by the cap" },
        { kind: "hang", face: "A", at: [88, 4], note: "threaded hole, hidden by the cap" },
        { kind: "drain", face: "A", at: [50, 98], note: "foot plate hole" },
      ],
      faces: [post("A", "Face A, road side", 92), post("B", "Face B, seat side", 92)],
    },
  },
  ...(
    [
      ["MOORING-BASE", "Mooring base, 25 mm", "hot-rolled-steel", 25, 25, 31, 0.4, "T", [400, 400, 25]],
      ["BOLLARD-COVER", "Bollard cover, 2 mm", "cold-rolled-steel", 2, 2, 2.6, 0.36, "T", [420, 420, 40]],
      ["TEST-PANEL", "Test panel", "cold-rolled-steel", 2, 2, 0.24, 0.03, "P", [150, 100, 2]],
      ["LAMP-COLLAR", "Polished lamp collar", "aluminium", 4, 3, 0.9, 0.18, "C", [240, 240, 90]],
    ] as const
  ).map(
    ([code, name, substrate, thickestMm, thinnestMm, massKg, areaM2, face, box]): Seed => ({
      kind: "part",
      code,
      data: {
        name,
        substrate,
        thickestMm,
        features: [],
        measures: {
          box: { lengthMm: box[0], widthMm: box[1], heightMm: box[2] },
          thinnestMm,
          massKg,
          areaM2,
          lapM: 0,
        },
        faces: [
          {
            id: face,
            name: "Face",
            outline: [
              [0, 0],
              [100, 0],
              [100, 100],
              [0, 100],
            ],
            recessFromY: null,
            spots: [
              [20, 20],
              [80, 20],
              [50, 50],
              [20, 80],
              [80, 80],
            ].map(([x, y], i) => ({ id: `${face}${i + 1}`, at: [x, y] as [number, number], note: "" })),
          },
        ],
      },
    }),
  ),
  {
    kind: "part",
    code: "LAMP-HEAD",
    data: {
      name: "Cast lamp head",
      substrate: "cast-aluminium",
      thickestMm: 8,
      features: ["deep-recess"],
      measures: {
        box: { lengthMm: 420, widthMm: 320, heightMm: 260 },
        thinnestMm: 5,
        massKg: 6.8,
        areaM2: 0.62,
        lapM: 0,
      },
      faces: [
        {
          id: "H",
          name: "Hood",
          outline: [
            [20, 0],
            [80, 0],
            [100, 60],
            [100, 100],
            [0, 100],
            [0, 60],
          ],
          recessFromY: null,
          spots: (
            [
              [50, 14],
              [24, 46],
              [76, 46],
              [26, 84],
              [74, 84],
            ] as [number, number][]
          ).map((at, i) => ({ id: `H${i + 1}`, at, note: "" })),
        },
        {
          id: "R",
          name: "Rear",
          outline: rectangle,
          recessFromY: null,
          spots: (
            [
              [26, 24],
              [74, 24],
              [50, 50],
              [26, 78],
              [74, 78],
            ] as [number, number][]
          ).map((at, i) => ({ id: `R${i + 1}`, at, note: "" })),
        },
      ],
    },
  },
  {
    kind: "part",
    code: "FERRY-SEAT",
    data: {
      name: "Landing-stage seat",
      substrate: "hot-rolled-steel",
      thickestMm: 5,
      features: ["sharp-edges"],
      measures: {
        box: { lengthMm: 1500, widthMm: 480, heightMm: 450 },
        thinnestMm: 4,
        massKg: 27,
        areaM2: 1.9,
        lapM: 0,
        edgeM: 4.5,
      },
      marks: [
        { kind: "hang", face: "L", at: [20, 6], note: "slot under the seat" },
        { kind: "hang", face: "L", at: [80, 6], note: "slot under the seat" },
        { kind: "mask", face: "L", at: [50, 96], note: "foot, 4 bolt holes" },
        { kind: "rest", face: "L", at: [50, 99], note: "touch up after cure" },
      ],
      faces: [
        {
          id: "S",
          name: "Seat",
          outline: [
            [0, 20],
            [100, 20],
            [100, 80],
            [0, 80],
          ],
          recessFromY: null,
          spots: (
            [
              [20, 32],
              [74, 32],
              [48, 50],
              [20, 68],
              [74, 68],
            ] as [number, number][]
          ).map((at, i) => ({ id: `S${i + 1}`, at, note: "" })),
        },
        {
          id: "L",
          name: "Legs",
          outline: [
            [10, 0],
            [90, 0],
            [80, 100],
            [20, 100],
          ],
          recessFromY: null,
          spots: [10, 30, 50, 70, 90].map((y, i) => ({ id: `L${i + 1}`, at: [50, y] as [number, number], note: "" })),
        },
      ],
    },
  },
  {
    kind: "part",
    code: "GREENHOUSE-FRAME",
    data: {
      name: "Greenhouse frame",
      substrate: "cold-rolled-steel",
      thickestMm: 3,
      features: ["hollow-section", "open-frame"],
      measures: {
        box: { lengthMm: 1800, widthMm: 40, heightMm: 900 },
        thinnestMm: 2,
        massKg: 9,
        areaM2: 0.9,
        lapM: 0,
        edgeM: 0.8,
      },
      marks: [
        { kind: "hang", face: "F", at: [20, 4], note: "upper rail" },
        { kind: "hang", face: "F", at: [80, 4], note: "upper rail" },
        { kind: "drain", face: "E", at: [50, 96], note: "open tube end" },
      ],
      faces: [post("F", "Frame", null), post("E", "Tube ends", null)],
    },
  },
  {
    kind: "part",
    code: "CHARGER-BOX",
    data: {
      name: "Charger enclosure",
      substrate: "cold-rolled-steel",
      thickestMm: 2,
      features: ["deep-recess"],
      measures: {
        box: { lengthMm: 620, widthMm: 420, heightMm: 1400 },
        thinnestMm: 2,
        massKg: 36,
        areaM2: 3.9,
        lapM: 2.2,
        edgeM: 2,
      },
      faces: [post("D", "Door", null), post("C", "Inside corner", 4)],
    },
  },
  powder("GR-210", "Slate satin", { pricePerKg: 7.8, glossGu: [30, 5] }),
  powder("GR-212", "Slate satin, high-weathering", {
    family: "polyester-high-weathering",
    weathering: "high",
    pricePerKg: 11.4,
  }),
  powder("GR-340", "Kelp green gloss", { pricePerKg: 8.2 }),
  powder("GR-120", "Indoor white hybrid", {
    chemistry: "epoxy-polyester hybrid",
    family: "hybrid",
    weathering: "indoor",
    traits: ["indoor-chemistry-outdoors"],
    pricePerKg: 5.9,
  }),
  powder("GR-505", "Gorse yellow", { specificGravity: 1.7, pricePerKg: 9.1 }),
  powder("GR-815", "Fine-texture anthracite", { minUm: 70, maxUm: 110, climbCPerMin: [12, 60], pricePerKg: 8.8 }),
  powder("GR-700", "Clear gloss", {
    minUm: 50,
    maxUm: 90,
    schedule: [
      { metalC: 170, minutes: 15 },
      { metalC: 180, minutes: 10 },
    ],
    // A clear yellows long before a pigmented powder dulls.
    overbake: [{ metalC: 180, minutes: 35 }],
    onsetC: 130,
    family: "acrylic",
    chemistry: "acrylic",
    weathering: "indoor",
    specificGravity: 1.2,
    glossGu: [90, 6],
    pricePerKg: 12.4,
  }),
  powder("GR-640", "Epoxy primer", {
    chemistry: "epoxy",
    family: "epoxy",
    minUm: 50,
    maxUm: 80,
    traits: ["primer"],
    gel: { metalC: 150, leastMin: 5, mostMin: 12 },
    weathering: "indoor",
    pricePerKg: 7.1,
  }),
  powder("GR-610", "Zinc barrier primer", {
    chemistry: "epoxy",
    family: "epoxy",
    specificGravity: 2.6,
    minUm: 50,
    maxUm: 80,
    traits: ["primer"],
    gel: { metalC: 150, leastMin: 5, mostMin: 10 },
    weathering: "indoor",
    pricePerKg: 10.6,
  }),
  ...(["GR-210", "GR-212", "GR-340", "GR-120", "GR-505", "GR-700", "GR-815", "GR-610", "GR-640"].flatMap((code) =>
    ["2610-2", "2611-4"].map((lot) => ({
      kind: "lot",
      code: `${code}/${lot}`,
      data: {
        powderCode: code,
        madeOn: lot.startsWith("2610") ? "2026-03-02" : "2026-06-11",
        receivedOn: "2026-06-20",
        stockKg: lot.startsWith("2610") ? 160 : 240,
      },
    })),
  ) as Seed[]),
  ...(["GR-210", "GR-340", "GR-505", "GR-815"].map((code) => ({
    kind: "setup-sheet",
    code: `${code} booth 1`,
    data: {
      powderCode: code,
      tip: code === "GR-815" ? "slot, 8 mm" : "flat, 6 mm",
      kv: [60, 80],
      recessKv: 45,
      recoatKv: [35, 55],
      currentMostUa: 40,
      distanceMm: [180, 280],
      passes: [2, 3],
      conveyingAirKPa: [150, 250],
      hookPitchMm: [300, 500],
      hopperFillPercent: [15, 40],
      gunAirKPa: [40, 75],
      earthLimitMohm: 1,
      boothAirMPerS: [0.3, 0.6],
      hookCyclesLimit: 5,
      reclaimLimitPercent: 40,
    },
  })) as Seed[]),
  ...wash,
  ...(
    [
      ["BLAST", "Blast room", "blast-room", [6500, 2400, 2600], null],
      ["WASHER", "Washer opening", "washer", [4000, 900, 1700], null],
      ["BOOTH", "Booth 1", "booth", [5500, 1700, 2200], null],
      ["OVEN", "Oven 1", "oven", [6000, 1800, 2100], null],
      ["HOOK", "Hook", "hook", null, 60],
      ["CART", "Cart", "cart", [5000, 1500, 2200], 900],
      ["RACK", "Standard rack", "rack", [2700, 500, 1600], 420],
    ] as const
  ).map(
    ([code, name, role, inside, mostKg]): Seed => ({
      kind: "equipment",
      code,
      data: {
        name,
        role,
        insideMm: inside && { lengthMm: inside[0], widthMm: inside[1], heightMm: inside[2] },
        mostKg,
      },
    }),
  ),
  {
    kind: "oven",
    code: "Oven 1",
    data: {
      name: "Oven 1, batch, 6 m",
      type: "batch",
      heat: "gas-indirect",
      insideMm: { lengthMm: 6000, widthMm: 1800, heightMm: 2100 },
      places: ovenPlaces,
      usualSetPointC: 205,
      mostSetPointC: 235,
      emptyTauS: 140,
      fullTauS: 420,
      fullKgSteel: 900,
      airAtDoorC: 60,
      idleKw: 22,
      efficiency: 0.55,
      spreadMostC: 10,
      recoveryMostS: 600,
      habits:
        "Preheated to its set point; the door is opened from the side, a minute at the most. Never left alone over a break with clear coat in it.",
    },
  },
  {
    kind: "oven",
    code: "Oven 2",
    data: {
      name: "Oven 2, conveyor with infrared gel zone",
      type: "conveyor",
      heat: "gas-indirect",
      zones: [
        { name: "infrared gel", heat: "infrared", lengthM: 3, airC: 285, hWPerM2K: 42 },
        { name: "convection 1", heat: "convection", lengthM: 14, airC: 208, hWPerM2K: 27 },
        { name: "convection 2", heat: "convection", lengthM: 14, airC: 204, hWPerM2K: 27 },
      ],
      usualSpeedMPerMin: 1.2,
      pitchM: 1.5,
      habits: "Starts at 06:00; the burners stay lit when the line stands.",
    },
  },
  { kind: "instrument", code: "731", data: { name: "Film gauge 731", kind: "film-gauge", serial: "00731" } },
  {
    kind: "instrument",
    code: "R6",
    data: { name: "Six-channel oven recorder", kind: "oven-recorder", serial: "R6-2" },
  },
  { kind: "instrument", code: "M2", data: { name: "pH and conductivity meter", kind: "bath-meter", serial: "M2-17" } },
];

/** Demo sign-ins; shown only where the demo is loaded. */
export const people = [
  { username: "ines", name: "Ines Calder", role: "lead", customer: null },
  { username: "tomasz", name: "Tomasz Reed", role: "inspector", customer: null },
  { username: "bea", name: "Bea Nandy", role: "inspector", customer: null },
  { username: "rufus", name: "Rufus Oke", role: "operator", customer: null },
  { username: "maren", name: "Maren Stile", role: "operator", customer: null },
  { username: "otto", name: "Otto Venn", role: "viewer", customer: "C1" },
  { username: "dagny", name: "Dagny Holm", role: "administrator", customer: null },
] as const;
export const demoPassword = (username: string): string => `${username}-tarnwick-quay`;
