import type { SetupInput, SetupKind } from "@/server/setup/setup-data";

export type Seed = { [K in SetupKind]: { kind: K; code: string; data: SetupInput<K> } }[SetupKind];

/** Drums of the wash's chemicals: received and usable so many days before and after the demo's day. */
export const chemicals = [
  {
    product: "Conversion make-up acid",
    lot: "A-118",
    litres: 600,
    pricePerL: 1.9,
    receivedDaysAgo: 800,
    usableForDays: 90,
  },
  {
    product: "Conversion make-up acid",
    lot: "A-131",
    litres: 200,
    pricePerL: 2.1,
    receivedDaysAgo: 12,
    usableForDays: 340,
  },
  {
    product: "Conversion concentrate",
    lot: "C-77",
    litres: 400,
    pricePerL: 4.6,
    receivedDaysAgo: 800,
    usableForDays: 160,
  },
  { product: "Nitrite inhibitor", lot: "N-20", litres: 60, pricePerL: 3.2, receivedDaysAgo: 800, usableForDays: 25 },
] as const;

/** The shop's wash: its tanks with their windows, and the washer they stand in. */
export const wash: readonly Seed[] = [
  {
    kind: "bath",
    code: "Tank 3",
    data: {
      name: "Tank 3 conversion",
      stage: "conversion",
      role: "conversion",
      volumeL: 4200,
      freeboardL: 160,
      stepL: 0.5,
      maxSingleL: 25,
      roundHours: 4,
      windows: {
        ph: {
          lower: 4.8,
          upper: 5.8,
          watchLower: 4.9,
          watchUpper: 5.6,
          reaction: {
            what: "Look at the drum last used, correct with make-up acid as reckoned; hold what passed since the last good check for a cross-cut",
            recheckMinutes: 30,
          },
        },
        concentration: {
          lower: 1.5,
          upper: 2.5,
          watchLower: 1.6,
          watchUpper: null,
          reaction: {
            what: "Titrate again with a fresh blank; then add as reckoned, split, with a check between",
            recheckMinutes: 30,
          },
        },
        inhibitor: {
          lower: 180,
          upper: 600,
          watchLower: 220,
          watchUpper: null,
          roundHours: 26,
          reaction: {
            what: "Add inhibitor before the first rack; look at what stood wet since for flash rust",
            recheckMinutes: 30,
          },
        },
        temperature: { lower: 42, upper: 55, watchLower: null, watchUpper: null },
      },
      titrationFactorPercentPerMl: 0.25,
      recipes: {
        concentration: {
          sampleMl: 10,
          titrant: "sodium hydroxide 0.1 N",
          indicator: "5 drops of phenolphthalein",
          endPoint: "pink that stays for 15 s",
          factor: 0.25,
          blankMl: 0.2,
          caution: "Caustic in the burette: goggles, gloves; fill it below eye height.",
        },
        inhibitor: {
          sampleMl: 25,
          titrant: "potassium permanganate 0.042 N",
          indicator: "20 drops of sulphuric acid 50 %",
          endPoint: "pink that stays for 15 s",
          factor: 60,
          caution: "Nitrite with acid gives off poisonous gas: only the sample in its flask, under the hood.",
        },
      },
      concentratePercent: 100,
      product: "Conversion concentrate",
      otherProducts: ["Nitrite inhibitor"],
      targetPercent: 2.1,
      targetPh: 5.2,
      phChangePerLPerM3: -0.19,
      acidProduct: "Conversion make-up acid",
      weightGPerM2: [0.2, 0.9],
      caution: "Acid: gloves, goggles; acid into water, never the other way. Supplier's sheet first.",
      contactS: [60, 120],
    },
  },
  {
    kind: "bath",
    code: "Tank 4",
    data: {
      name: "Tank 4 rinse",
      stage: "rinse",
      role: "rinse",
      volumeL: 3000,
      freeboardL: 100,
      stepL: 10,
      maxSingleL: null,
      roundHours: 8,
      windows: {
        conductivity: {
          lower: null,
          upper: 150,
          watchLower: null,
          watchUpper: 110,
          reaction: {
            what: "Open the overflow; if it does not fall in half an hour, dump to the treated drain and refill",
            recheckMinutes: 30,
          },
        },
      },
      titrationFactorPercentPerMl: null,
      concentratePercent: null,
      product: "",
      targetPercent: null,
      targetPh: null,
      phChangePerLPerM3: null,
      acidProduct: "",
      caution: "Wet floor; dump only to the treated drain, by permit.",
      contactS: [30, 90],
    },
  },
  {
    kind: "line",
    code: "Washer 1",
    data: {
      name: "Washer 1, spray, four stages",
      usualSpeedMPerMin: 1.2,
      stages: [
        { stage: "clean", fromM: 0, lengthM: 2.4 },
        { stage: "conversion", fromM: 3.6, lengthM: 1.8 },
        { stage: "rinse", fromM: 6.6, lengthM: 1.2 },
        { stage: "dry-off", fromM: 9, lengthM: 12 },
      ],
    },
  },
];
