import * as v from "valibot";
import { bathParameters, titratedParameters } from "@/core/bath";
import { columnRoles, dateOrders, timeForms } from "@/core/instrument-files";
import { areaKinds, families, markKinds, partFeatures, spotGroups, substrates, usualSchools, zones } from "@/core/plan";
import { FILM_TO_PROFILE_LEAST } from "@/core/preparation";
import { equipmentRoles } from "@/core/site";
import { upkeepHands, upkeepStages } from "@/core/upkeep";

const finite = v.pipe(v.number(), v.finite());
const window = v.object({
  lower: v.nullable(finite),
  upper: v.nullable(finite),
  watchLower: v.optional(v.nullable(finite), null),
  watchUpper: v.optional(v.nullable(finite), null),
  /** Checked less often than the rest of the bath, h. */
  roundHours: v.optional(v.nullable(finite), null),
  /** What is done when it is out, and how soon it is checked again. */
  reaction: v.optional(v.nullable(v.object({ what: v.string(), recheckMinutes: v.pipe(finite, v.minValue(1)) })), null),
});
const recipe = v.object({
  sampleMl: v.nullable(finite),
  titrant: v.pipe(v.string(), v.trim(), v.maxLength(80, "is longer than 80 characters")),
  indicator: v.pipe(v.string(), v.trim(), v.maxLength(80, "is longer than 80 characters")),
  endPoint: v.pipe(v.string(), v.trim(), v.maxLength(120, "is longer than 120 characters")),
  factor: finite,
  blankMl: v.optional(v.nullable(finite)),
  caution: v.pipe(v.string(), v.trim(), v.maxLength(300, "is longer than 300 characters")),
});
/** Titrations by value: sample, titrant, end point and value per mL. */
export const recipes = v.object(v.entriesFromList(titratedParameters, v.optional(recipe)));
const point = v.tuple([finite, finite]);
const box = v.object({ lengthMm: finite, widthMm: finite, heightMm: finite });

const money = v.pipe(finite, v.minValue(0));
const rates = v.object({
  currency: v.string(),
  labourPerHour: money,
  blastM2PerHour: money,
  blastPerHour: money,
  sandM2PerHour: v.optional(money, 8),
  stripM2PerHour: v.optional(money, 3),
  stripPerM2: v.optional(money, 9),
  washM2PerHour: money,
  washPerHour: money,
  sprayM2PerHour: money,
  sealMPerHour: money,
  sealerPerM: money,
  edgeMPerHour: money,
  ovenPerHour: money,
  conveyorPerHour: money,
  handlingMinPerPiece: money,
  handFinishMinPerStep: v.optional(money, 12),
  transferEfficiency: finite,
  powderLoss: finite,
  marginPercent: finite,
});

const acceptanceClass = v.object({
  distanceM: finite,
  lightLux: finite,
  seconds: finite,
  mostFaults: finite,
  largestMm: finite,
});

/** What each kind of set-up data holds. Versioned by validity: a judgement of last year finds the limits of last year. */
export const setupSchemas = {
  customer: v.object({
    name: v.string(),
    address: v.optional(v.string(), ""),
    deliverTo: v.optional(v.string(), ""),
    contact: v.optional(v.string(), ""),
    /** How each zone of their parts is looked at and what passes; null takes the usual. */
    acceptance: v.optional(v.nullable(v.object({ A: acceptanceClass, B: acceptanceClass, C: acceptanceClass })), null),
  }),
  part: v.object({
    name: v.string(),
    substrate: v.picklist(substrates),
    thickestMm: finite,
    features: v.array(v.picklist(partFeatures)),
    /** What a fit, a quantity and a price need; absent on parts that were never planned. */
    measures: v.optional(
      v.nullable(
        v.object({
          box,
          thinnestMm: finite,
          massKg: finite,
          areaM2: finite,
          lapM: finite,
          edgeM: v.optional(finite, 0),
          assumed: v.optional(v.array(v.string()), []),
        }),
      ),
      null,
    ),
    /** Places on the sketch that planning sets: where it hangs, what is masked or plugged, where it rests and drains. */
    marks: v.optional(
      v.array(
        v.object({
          kind: v.picklist(markKinds),
          face: v.string(),
          at: point,
          note: v.optional(v.string(), ""),
        }),
      ),
      [],
    ),
    /** Sketch in a 0–100 by 0–100 field per face. */
    faces: v.array(
      v.object({
        id: v.string(),
        name: v.string(),
        outline: v.array(point),
        recessFromY: v.nullable(finite),
        /** How closely it is looked at; areas of it otherwise, and those that stay bare, as rectangles. */
        zone: v.optional(v.picklist(zones), "B"),
        sizeMm: v.optional(v.nullable(point), null),
        areas: v.optional(
          v.array(v.object({ kind: v.picklist(areaKinds), from: point, to: point, note: v.optional(v.string(), "") })),
          [],
        ),
        spots: v.array(
          v.object({
            id: v.string(),
            at: point,
            note: v.optional(v.string(), ""),
            group: v.optional(v.picklist(spotGroups), "face"),
          }),
        ),
      }),
    ),
  }),
  powder: v.object({
    name: v.string(),
    chemistry: v.string(),
    minUm: finite,
    maxUm: finite,
    specificGravity: finite,
    schedule: v.array(v.object({ metalC: finite, minutes: finite })),
    overbake: v.array(v.object({ metalC: finite, minutes: finite })),
    onsetC: v.nullable(finite),
    /** A primer part-cured before its top coat: metal, °C, and the least and most minutes at it. */
    gel: v.optional(v.nullable(v.object({ metalC: finite, leastMin: finite, mostMin: finite })), null),
    /** How fast the metal may climb while the powder melts, °C/min. */
    climbCPerMin: v.optional(v.nullable(v.tuple([finite, finite])), null),
    shelfLifeDays: finite,
    knownCuredRubGrade: finite,
    traits: v.array(
      v.picklist([
        "low-flow-powder",
        "high-flow-powder",
        "water-releasing-powder",
        "indoor-chemistry-outdoors",
        "primer",
      ]),
    ),
    weathering: v.picklist(["indoor", "standard", "high"]),
    family: v.optional(v.picklist(families), "polyester"),
    pricePerKg: v.optional(v.nullable(finite), null),
    /** Gloss at 60° as the sheet gives it, GU, and what it may be off by. */
    glossGu: v.optional(v.nullable(v.tuple([finite, finite])), null),
    /** The standard swatch: its number and how far a panel's colour may be from it, ΔE. */
    swatch: v.optional(v.nullable(v.object({ code: v.string(), deltaE: finite })), null),
    /** Warmest it is stored, °C. */
    storeMostC: v.optional(v.nullable(finite), null),
    /** Most film one coat bears; above it, several coats. */
    mostPerCoatUm: v.optional(v.nullable(finite), null),
    /** Most film in all, µm. */
    mostInAllUm: v.optional(v.nullable(finite), null),
    /** Years the maker promises outdoors; null where it promises none. */
    yearsPromised: v.optional(v.nullable(finite), null),
    /** Photos to hold a lot against: the powder raw, and a panel of it cured. */
    photos: v.optional(v.object({ raw: v.nullable(v.string()), cured: v.nullable(v.string()) }), {
      raw: null,
      cured: null,
    }),
    /** What its safety sheet warns of, briefly. */
    hazards: v.optional(v.string(), ""),
  }),
  lot: v.object({
    powderCode: v.string(),
    madeOn: v.string(),
    receivedOn: v.string(),
    stockKg: v.optional(v.nullable(finite), null),
    /** The day its first box was opened; null while it is shut. */
    openedOn: v.optional(v.nullable(v.string()), null),
  }),
  /** Places a part must pass, with what their mouth lets in and what they carry; guns, air and lines. */
  equipment: v.object({
    name: v.string(),
    role: v.picklist(equipmentRoles),
    insideMm: v.nullable(box),
    mostKg: v.nullable(finite),
    /** What is noted of its kind, by name. */
    facts: v.optional(v.record(v.string(), v.union([finite, v.string()])), {}),
    /** No longer used; what went through it stays. */
    retired: v.optional(v.boolean(), false),
  }),
  bath: v.object({
    name: v.string(),
    stage: v.string(),
    role: v.picklist(["cleaner", "conversion", "rinse"]),
    volumeL: finite,
    freeboardL: finite,
    stepL: finite,
    maxSingleL: v.nullable(finite),
    roundHours: finite,
    windows: v.record(v.string(), window),
    titrationFactorPercentPerMl: v.nullable(finite),
    /** How each value is titrated, where it is. */
    recipes: v.optional(recipes, {}),
    concentratePercent: v.nullable(finite),
    product: v.string(),
    targetPercent: v.nullable(finite),
    targetPh: v.nullable(finite),
    phChangePerLPerM3: v.nullable(finite),
    /** What brings pH down, as written on its drum; its effect is learnt from past additions. */
    acidProduct: v.optional(v.string(), ""),
    caution: v.string(),
    contactS: v.nullable(v.tuple([finite, finite])),
    /** Weight of the conversion coat asked for, g/m². */
    weightGPerM2: v.optional(v.nullable(v.tuple([finite, finite])), null),
    /** What else may go in: inhibitor, defoamer; names as on the drums. */
    otherProducts: v.optional(v.array(v.string()), []),
    /** Values that each product moves: an addition of one is no change of the others. */
    moves: v.optional(v.record(v.string(), v.array(v.picklist(bathParameters))), {}),
    /** Taken out of use: its record stays, and nothing is due on it. */
    retired: v.optional(v.boolean(), false),
  }),
  /** A drum or batch of a bath chemical, as it was received. */
  chemical: v.object({
    product: v.string(),
    lot: v.string(),
    receivedOn: v.pipe(v.string(), v.isoDate()),
    litres: v.pipe(finite, v.gtValue(0)),
    pricePerL: v.optional(v.nullable(v.pipe(finite, v.minValue(0))), null),
    usableUntil: v.nullable(v.pipe(v.string(), v.isoDate())),
  }),
  /** A conveyor washer: its stages in order, by their distance from its entrance. */
  line: v.object({
    name: v.string(),
    usualSpeedMPerMin: finite,
    stages: v.array(v.object({ stage: v.string(), fromM: finite, lengthM: finite })),
  }),
  oven: v.object({
    name: v.string(),
    type: v.optional(v.picklist(["batch", "conveyor", "lamps"]), "batch"),
    heat: v.optional(v.picklist(["gas-indirect", "gas-direct", "electric", "infrared"]), "electric"),
    insideMm: v.optional(v.nullable(box), null),
    /** Where racks hang, as seen from the door: share of the width and of the depth, 0–100. */
    places: v.optional(v.array(v.object({ id: v.string(), at: point, note: v.optional(v.string(), "") })), []),
    /** What the air is set to as a rule, °C, and what it may be set to at the most. */
    usualSetPointC: v.optional(finite, 205),
    mostSetPointC: v.optional(finite, 240),
    /** The air's time constant, empty and full, s, and what counts as full, kg of steel; its loss while shut, kW. */
    emptyTauS: v.optional(finite, 140),
    fullTauS: v.optional(finite, 420),
    fullKgSteel: v.optional(finite, 800),
    airAtDoorC: v.optional(finite, 60),
    idleKw: v.optional(finite, 18),
    efficiency: v.optional(finite, 0.6),
    /** The most that places may differ at the hold, °C, and how long recovery after the door may take, s. */
    spreadMostC: v.optional(finite, 10),
    recoveryMostS: v.optional(finite, 600),
    /** Conveyor: stretches in order of travel, usual speed and pitch of the hangers. */
    zones: v.optional(
      v.array(
        v.object({
          name: v.string(),
          heat: v.optional(v.picklist(["infrared", "convection"]), "convection"),
          lengthM: finite,
          airC: finite,
          hWPerM2K: finite,
        }),
      ),
      [],
    ),
    /** Used for nothing else: never one that cooks food. */
    dedicated: v.optional(v.boolean(), true),
    usualSpeedMPerMin: v.optional(finite, 1.2),
    pitchM: v.optional(finite, 1.5),
    habits: v.optional(v.string(), ""),
  }),
  /** What is looked after at fixed intervals, for the line to run as it is set up. */
  upkeep: v.object({
    what: v.string(),
    stage: v.picklist(upkeepStages),
    everyDays: finite,
    look: v.string(),
    leadsTo: v.string(),
    caution: v.string(),
    hands: v.picklist(upkeepHands),
    /** The equipment it is of, by its code; null where it is of the stage. */
    equipment: v.optional(v.nullable(v.string()), null),
    measure: v.nullable(
      v.object({ name: v.string(), unit: v.string(), lower: v.nullable(finite), upper: v.nullable(finite) }),
    ),
    retired: v.optional(v.boolean(), false),
  }),
  /** How a recorder's files of one shape are read, as somebody said it once. */
  "trace-layout": v.object({
    columns: v.array(
      v.object({ heading: v.string(), is: v.picklist(columnRoles), name: v.string(), rack: v.nullable(v.string()) }),
    ),
    form: v.nullable(v.picklist(timeForms)),
    order: v.nullable(v.picklist(dateOrders)),
    unit: v.nullable(v.picklist(["degC", "degF"])),
    mark: v.picklist([".", ","]),
    zone: v.picklist(["shop", "utc"]),
  }),
  instrument: v.object({
    name: v.string(),
    kind: v.string(),
    serial: v.string(),
    /** Verified by a laboratory every so many days; last on, and the number of its certificate. */
    verifyEveryDays: v.optional(v.nullable(finite), null),
    verifiedOn: v.optional(v.nullable(v.pipe(v.string(), v.isoDate())), null),
    certificate: v.optional(v.string(), ""),
    retired: v.optional(v.boolean(), false),
  }),
  "setup-sheet": v.object({
    powderCode: v.string(),
    /** Null is any: a sheet for the part itself, or for the gun, goes before one that is not. */
    partCode: v.optional(v.nullable(v.string()), null),
    gun: v.optional(v.nullable(v.string()), null),
    gunType: v.optional(v.picklist(["corona-negative", "corona-positive", "friction"]), "corona-negative"),
    tip: v.optional(v.string(), ""),
    kv: v.tuple([finite, finite]),
    recessKv: finite,
    /** Over an old film, which holds its charge. */
    recoatKv: v.optional(v.nullable(v.tuple([finite, finite])), null),
    currentMostUa: v.optional(v.nullable(finite), null),
    distanceMm: v.optional(v.nullable(v.tuple([finite, finite])), null),
    passes: v.optional(v.nullable(v.tuple([finite, finite])), null),
    conveyingAirKPa: v.optional(v.nullable(v.tuple([finite, finite])), null),
    hookPitchMm: v.optional(v.nullable(v.tuple([finite, finite])), null),
    hopperFillPercent: v.optional(v.nullable(v.tuple([finite, finite])), null),
    /** Where the gun's air is read for its window. */
    airReadAt: v.optional(v.picklist(["rest", "flowing"]), "flowing"),
    gunAirKPa: v.tuple([finite, finite]),
    earthLimitMohm: finite,
    boothAirMPerS: v.tuple([finite, finite]),
    hookCyclesLimit: finite,
    reclaimLimitPercent: v.optional(finite, 40),
  }),
  site: v.object({
    name: v.string(),
    timeZone: v.string(),
    /** What a person reads in who chose nothing; how numbers are written, and dates in files that leave it open. */
    units: v.optional(v.picklist(["metric", "us"]), "metric"),
    decimalMark: v.optional(v.nullable(v.picklist([".", ","])), null),
    dateOrder: v.optional(v.nullable(v.picklist(dateOrders)), null),
    /** A backup is taken by itself so often while Sorrel runs; null for never. */
    backupEveryHours: v.optional(v.nullable(finite), null),
    cureDecidedBy: v.picklist(["index", "hold"]),
    crossCutWorstIso: finite,
    /** What the shop takes as cured when it plans; a lead sets it above 100 by what its own rubs say. */
    plannedIndex: v.optional(finite, 110),
    /** Plans wait for a hold of the sheet as well, so that the verdict is not left between the two. */
    planHoldToo: v.optional(v.boolean(), true),
    /** Cure is proven by a test on one load in so many. */
    proofEveryLoads: v.optional(finite, 1),
    /** Metal cooler than this may be taken off and packed, °C. */
    handleBelowC: v.optional(finite, 40),
    bareLimitHours: finite,
    /** Where the limit depends on the air: hours by humidity. Empty: the one above. */
    bareLimits: v.optional(v.array(v.object({ upToHumidityPercent: finite, hours: v.pipe(finite, v.gtValue(0)) })), []),
    dewPointMarginC: finite,
    /** An unsealed conversion coat protects so long, h; solvent is left to flash off so long, min. */
    unsealedLimitHours: v.optional(finite, 24),
    flashOffMinutes: v.optional(finite, 10),
    /** Least time in the dry-off, min; tubes and laps want longer. Metal hotter than this at the booth takes too much powder, °C. */
    dryOffMinutes: v.optional(finite, 10),
    dryOffHollowMinutes: v.optional(finite, 18),
    boothMetalC: v.optional(finite, 45),
    /** The least film asked over the blast profile; less than that and peaks come near its face. */
    filmToProfileLeast: v.optional(finite, FILM_TO_PROFILE_LEAST),
    compressedAirDewPointC: finite,
    /** Shifts by name and local start; each runs to the next one's start. */
    shifts: v.optional(v.array(v.object({ name: v.string(), from: v.string() })), [
      { name: "Day shift", from: "06:00" },
      { name: "Late shift", from: "14:00" },
      { name: "Night shift", from: "22:00" },
    ]),
    blastProfileUm: v.tuple([finite, finite]),
    dustTapeWorstGrade: v.optional(finite, 2),
    solubleSaltMgPerM2: v.optional(finite, 20),
    /** Wet between two stages longer than this, s, clean steel begins to rust. */
    wetLimitS: v.optional(finite, 180),
    waterBreakHoldsS: v.optional(finite, 30),
    schools: v.optional(
      v.object({
        conversion: v.picklist(["iron-phosphate", "zirconium"]),
        primerCuring: v.picklist(["primer-gelled", "dry-on-dry", "two-full-cures"]),
        outgasAlwaysForCastings: v.boolean(),
        preparation: v.picklist(["blast", "sand"]),
      }),
      usualSchools,
    ),
    rates: v.optional(v.nullable(rates), null),
    /** When the stages work, for the calendar; and the room left round a part and between pieces, mm. */
    workHoursPerDay: v.optional(finite, 16),
    workStartsAt: v.optional(v.string(), "06:00"),
    /** ISO weekdays, Monday is 1. */
    workDays: v.optional(v.array(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(7))), [1, 2, 3, 4, 5, 6, 7]),
    marginMm: v.optional(finite, 50),
    gapMm: v.optional(finite, 100),
    conveyorOvenM: v.optional(finite, 15),
    /** Warm days in the powder store count more than the calendar's; a rule of thumb that can be switched off. */
    warmStorageCounts: v.optional(v.boolean(), true),
    /** The film gauge is set on smooth steel: on a blasted part without readings of its bare metal its profile is taken off. */
    gaugeSetOnSmooth: v.optional(v.boolean(), false),
    /** The gauge's own tolerance: µm and share of the reading, %. */
    gaugeTolerance: v.optional(v.object({ um: finite, percent: finite }), { um: 1, percent: 2 }),
  }),
} as const;
