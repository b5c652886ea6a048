import { err, ok, type Result } from "../result";
import type { EvidenceGrade } from "../verdict";
import { holdAt } from "./cure-index";
import type { Trace } from "./trace";

/** What an infrared thermometer was pointed at: only coated metal of the part says what cure needs. */
export const infraredAims = ["coated-part", "bare-metal", "oven-wall", "rack"] as const;
export type InfraredAim = (typeof infraredAims)[number];
export type InfraredReading = {
  readonly atS: number;
  readonly metalC: number;
  readonly emissivity: number;
  readonly aim: InfraredAim;
};
/** A reading as it was noted: what was left open is a coated part at the emissivity of powder. */
export const infraredReading = (noted: {
  readonly atS: number;
  readonly valueC: number | null;
  readonly emissivity: number | null;
  readonly aim: string | null;
}): InfraredReading => ({
  atS: noted.atS,
  metalC: noted.valueC ?? Number.NaN,
  emissivity: noted.emissivity ?? COATED_EMISSIVITY,
  aim: infraredAims.find((a) => a === noted.aim) ?? "coated-part",
});
export type InfraredDoubt = "bright-metal" | "not-the-part" | "low-emissivity";

/** Of powder, molten or cured. */
export const COATED_EMISSIVITY = 0.95;
/** Under this set emissivity a coated part reads too hot: powder, molten or cured, is near 0.95. */
export const LEAST_COATED_EMISSIVITY = 0.85;
/** Readings further apart than this say nothing of what lies between, s. */
export const INFRARED_APART_S = 300;

/** Why a spot reading is not relied on for cure, or null. Failures: `bad-input` for an emissivity outside (0, 1]. */
export function infraredDoubt(reading: InfraredReading): Result<InfraredDoubt | null> {
  const { emissivity, metalC, aim } = reading;
  if (!(emissivity > 0 && emissivity <= 1)) return err({ kind: "bad-input", name: "emissivity", value: emissivity });
  if (!Number.isFinite(metalC)) return err({ kind: "bad-input", name: "metalC", value: metalC });
  if (aim === "bare-metal") return ok("bright-metal");
  if (aim !== "coated-part") return ok("not-the-part");
  return ok(emissivity < LEAST_COATED_EMISSIVITY ? "low-emissivity" : null);
}

export type InfraredHold = {
  readonly used: number;
  readonly doubted: number;
  /** Longest unbroken stretch between readings at or above, s. */
  readonly longestS: number;
  readonly grade: EvidenceGrade;
  readonly trace: Trace | null;
};

/**
 * Minutes at or above a metal temperature from spot readings: straight between readings no more than five minutes apart,
 * nothing across a longer wait. Measured from three relied-on readings on, assumed under that. Failures: `bad-input`,
 * `times-out-of-order`.
 */
export function infraredHold(readings: readonly InfraredReading[], atC: number): Result<InfraredHold> {
  const relied: InfraredReading[] = [];
  for (const reading of readings) {
    const doubt = infraredDoubt(reading);
    if (!doubt.ok) return doubt;
    if (doubt.value === null) relied.push(reading);
  }
  relied.sort((a, b) => a.atS - b.atS);
  const twin = relied.findIndex((r, i) => i > 0 && r.atS === relied[i - 1]?.atS);
  if (twin > 0)
    return err({ kind: "times-out-of-order", index: twin, previousS: relied[twin]?.atS, timeS: relied[twin]?.atS });
  let longestS = 0;
  let stretch: InfraredReading[] = [];
  const close = (): Result<null> => {
    if (stretch.length >= 2) {
      const held = holdAt({ timeS: stretch.map((r) => r.atS), tempC: stretch.map((r) => r.metalC) }, atC);
      if (!held.ok) return held;
      longestS = Math.max(longestS, held.value.longestS);
    }
    return ok(null);
  };
  for (const reading of relied) {
    const last = stretch.at(-1);
    if (last && reading.atS - last.atS > INFRARED_APART_S) {
      const closed = close();
      if (!closed.ok) return closed;
      stretch = [];
    }
    stretch.push(reading);
  }
  const closed = close();
  if (!closed.ok) return closed;
  return ok({
    used: relied.length,
    doubted: readings.length - relied.length,
    longestS,
    grade: relied.length >= 3 ? "measured" : relied.length > 0 ? "assumed" : "unknown",
    trace: relied.length >= 2 ? { timeS: relied.map((r) => r.atS), tempC: relied.map((r) => r.metalC) } : null,
  });
}
