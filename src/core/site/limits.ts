import { FILM_TO_PROFILE_LEAST } from "../preparation";
import type { Quantity } from "../units";

/** A limit of a shop: what it is, its unit, what may be set, and where the usual figure comes from. */
export type SiteLimit = {
  readonly label: string;
  readonly unit: string;
  readonly usual: number;
  readonly least: number;
  readonly most: number;
  readonly source: string;
  /** What it is of, where it is typed in the person's own unit. */
  readonly quantity: Quantity | null;
};
const limit = (
  label: string,
  unit: string,
  usual: number,
  [least, most]: readonly [number, number],
  source: string,
  quantity: Quantity | null = null,
): SiteLimit => ({ label, unit, usual, least, most, source, quantity });

/** The limits a shop goes by where a bath, a part or a customer says nothing else. Each is a lead’s to set. */
export const siteLimits = {
  crossCutWorstIso: limit("Cross-cut, worst grade that passes", "", 1, [0, 5], "ISO 2409 grades"),
  bareLimitHours: limit("Metal may stand bare", "h", 4, [0.5, 48], "common shop rule; less where the air is wet"),
  unsealedLimitHours: limit("Conversion may stand unsealed", "h", 24, [0.5, 168], "common rule; its sheet goes first"),
  dewPointMarginC: limit(
    "Metal above the dew point, at least",
    "°C",
    3,
    [0, 20],
    "ISO 8502-4",
    "temperatureDifference",
  ),
  compressedAirDewPointC: limit(
    "Dew point of compressed air, at most",
    "°C",
    -20,
    [-70, 10],
    "ISO 8573-1, class 3",
    "temperature",
  ),
  dustTapeWorstGrade: limit("Dust on tape, worst grade", "", 2, [0, 5], "ISO 8502-3 grades"),
  solubleSaltMgPerM2: limit("Soluble salt, at most", "mg/m²", 20, [1, 200], "read by ISO 8502-9; the limit by use"),
  waterBreakHoldsS: limit("Water film holds, at least", "s", 30, [5, 300], "common water-break test"),
  wetLimitS: limit("Wet between two stages, at most", "s", 180, [10, 3600], "common shop rule: clean steel rusts wet"),
  flashOffMinutes: limit("Solvent flashes off, at least", "min", 10, [0, 240], "common rule; its sheet goes first"),
  dryOffMinutes: limit("In the dry-off, at least", "min", 10, [0, 240], "common shop rule"),
  dryOffHollowMinutes: limit("In it with tubes or laps, at least", "min", 18, [0, 480], "common rule: laps hold water"),
  boothMetalC: limit(
    "Metal at the booth, at most",
    "°C",
    45,
    [20, 120],
    "common rule: hot metal takes too much powder",
    "temperature",
  ),
  marginMm: limit("Room round a part", "mm", 50, [0, 1000], "common shop rule", "distance"),
  gapMm: limit("Room between pieces", "mm", 100, [0, 2000], "common shop rule", "distance"),
  filmToProfileLeast: limit(
    "Film over the blast profile, at least, times",
    "",
    FILM_TO_PROFILE_LEAST,
    [1, 10],
    "peaks come near the film’s face under it",
  ),
  workHoursPerDay: limit("The line works, a day", "h", 16, [0.5, 24], "the calendar plans by it"),
  conveyorOvenM: limit("Way through the conveyor oven, for a price", "m", 15, [1, 200], "measured along its rail"),
} as const;
/** A blast profile a shop begins with, µm: lower and upper. */
export const usualBlastProfile = { um: [35, 60], source: "common for powder on steel; its sheet goes first" } as const;
export type SiteLimitName = keyof typeof siteLimits;
export const siteLimitNames = Object.keys(siteLimits) as readonly SiteLimitName[];
