import * as v from "valibot";
import { adhesionScales } from "@/core/bench";
import { dateOrders } from "@/core/instrument-files";
import { exposures, usualSchools } from "@/core/plan";
import { FILM_TO_PROFILE_LEAST } from "@/core/preparation";
import { frequencies, plannedTests } from "@/core/test-plan";
import { finite } from "./values";

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

export const customer = v.object({
  name: v.string(),
  address: v.optional(v.string(), ""),
  deliverTo: v.optional(v.string(), ""),
  contact: v.optional(v.string(), ""),
  /** How each zone of their parts is looked at and what passes; null takes the usual. */
  acceptance: v.optional(v.nullable(v.object({ A: acceptanceClass, B: acceptanceClass, C: acceptanceClass })), null),
  /** What stands on their papers: words of their own, and the file of their mark. */
  paper: v.optional(v.object({ wording: v.string(), logo: v.nullable(v.string()) }), { wording: "", logo: null }),
});

const count = v.pipe(v.number(), v.integer(), v.minValue(1));
/** How often tests are done on whose work, and how that tightens and eases. */
export const testPlan = v.object({
  name: v.string(),
  scope: v.object({
    /** By their codes, the job by its number; null for any. */
    customer: v.nullable(v.string()),
    part: v.nullable(v.string()),
    job: v.nullable(v.string()),
    exposure: v.array(v.picklist(exposures)),
  }),
  lines: v.array(
    v.object({
      test: v.picklist(plannedTests),
      every: v.picklist(frequencies),
      n: v.nullable(count),
      first: v.boolean(),
    }),
  ),
  switching: v.object({ backAfter: count, easeAfter: v.nullable(count) }),
  retired: v.optional(v.boolean(), false),
});

export const site = v.object({
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
  /** Which standard says how adhesion is cut and which scale is shown first. */
  adhesionScale: v.optional(v.picklist(adhesionScales), "iso"),
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
});
