import { ovenPlaces } from "./oven-places";
import { parts } from "./shop-parts";
import { powders } from "./shop-powders";
import { type Seed, wash } from "./shop-wash";

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
    kind: "test-plan",
    code: "T1",
    data: {
      name: "Charger boxes",
      scope: { customer: null, part: "CHARGER-BOX", job: null, exposure: [] },
      lines: [
        { test: "adhesion", every: "nth", n: 4, first: false },
        { test: "rub", every: "lot", n: null, first: false },
      ],
      switching: { backAfter: 5, easeAfter: 10 },
    },
  },
  ...parts,
  ...powders,
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
  {
    kind: "oven",
    code: "Lamps 1",
    data: {
      name: "Lamps 1, for what fits no oven",
      type: "lamps",
      heat: "infrared",
      habits: "Two lamps on a stand, 300 mm off; the rest of the piece behind a screen.",
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
