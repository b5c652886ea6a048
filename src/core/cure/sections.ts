import { err, ok, type Result } from "../result";
import type { EvidenceGrade } from "../verdict";
import { cureIndex, heldUntilNow } from "./cure-index";
import { INFRARED_APART_S, type InfraredReading, infraredDoubt } from "./infrared";
import type { BakeChannel, PowderSchedule } from "./judge-bake";
import { DEFAULT_ONSET_BELOW_SHEET_C, fitCureCurve, requiredMinutes } from "./schedule";
import type { Trace } from "./trace";

/** A reading of the metal of one section of a piece that is too large for an oven. */
export type SectionReading = InfraredReading & { readonly section: string };

/** Between readings near enough to count the metal is taken as straight, with a sample every so often, s: a longer wait then shows as a gap. */
const EVERY_S = 10;

/** Readings no more than five minutes apart belong together; one that stands alone adds nothing. */
function stretchesOf(relied: readonly InfraredReading[]): readonly (readonly InfraredReading[])[] {
  const stretches: InfraredReading[][] = [];
  for (const reading of relied) {
    const open = stretches.at(-1);
    const last = open?.at(-1);
    if (open && last && reading.atS - last.atS <= INFRARED_APART_S) open.push(reading);
    else stretches.push([reading]);
  }
  return stretches.filter((stretch) => stretch.length >= 2);
}

/** Straight lines through each stretch, sampled evenly. */
function traceOf(relied: readonly InfraredReading[]): Trace {
  const timeS: number[] = [];
  const tempC: number[] = [];
  for (const stretch of stretchesOf(relied)) {
    const [first, last] = [stretch[0], stretch.at(-1)] as [InfraredReading, InfraredReading];
    let k = 0;
    for (let s = first.atS; s < last.atS; s += EVERY_S) {
      while ((stretch[k + 1]?.atS ?? last.atS) <= s) k++;
      const [from, to] = [stretch[k], stretch[k + 1]] as [InfraredReading, InfraredReading];
      timeS.push(s);
      tempC.push(from.metalC + ((to.metalC - from.metalC) * (s - from.atS)) / (to.atS - from.atS));
    }
    timeS.push(last.atS);
    tempC.push(last.metalC);
  }
  return { timeS, tempC };
}

/** The readings since the last wait that was too long. */
function newestStretch(relied: readonly SectionReading[]): readonly SectionReading[] {
  const broken = relied.findLastIndex((r, i) => i > 0 && r.atS - (relied[i - 1]?.atS ?? 0) > INFRARED_APART_S);
  return relied.slice(Math.max(0, broken));
}

type Kept = {
  readonly bySection: ReadonlyMap<string, readonly SectionReading[]>;
  readonly doubted: ReadonlyMap<string, number>;
};
/** Readings that are relied on, by section in order of time. Failures: those of `infraredDoubt`, `times-out-of-order`. */
function keptOf(sections: readonly string[], readings: readonly SectionReading[]): Result<Kept> {
  const bySection = new Map<string, SectionReading[]>(sections.map((s) => [s, []]));
  const doubted = new Map<string, number>();
  for (const reading of readings) {
    const mine = bySection.get(reading.section);
    if (!mine) return err({ kind: "unknown-section", section: reading.section, sections });
    const doubt = infraredDoubt(reading);
    if (!doubt.ok) return doubt;
    if (doubt.value === null) mine.push(reading);
    else doubted.set(reading.section, (doubted.get(reading.section) ?? 0) + 1);
  }
  for (const mine of bySection.values()) {
    mine.sort((a, b) => a.atS - b.atS);
    const twin = mine.findIndex((r, i) => i > 0 && r.atS === mine[i - 1]?.atS);
    if (twin > 0)
      return err({ kind: "times-out-of-order", index: twin, previousS: mine[twin]?.atS, timeS: mine[twin]?.atS });
  }
  return ok({ bySection, doubted });
}

/** The sections as channels of a bake; one without two relied-on readings near enough is none. Failures: those of the readings, `unknown-section`. */
export function sectionChannels(
  sections: readonly string[],
  readings: readonly SectionReading[],
): Result<readonly BakeChannel[]> {
  const kept = keptOf(sections, readings);
  if (!kept.ok) return kept;
  return ok(
    sections.flatMap((name): BakeChannel[] => {
      const mine = kept.value.bySection.get(name) ?? [];
      const trace = traceOf(mine);
      return trace.timeS.length > 0 ? [{ name, medium: "metal", trace }] : [];
    }),
  );
}

export type SectionState = {
  readonly section: string;
  readonly state: "not-begun" | "under-way" | "cured";
  /** Index earned by the readings, and what it would be now if the metal stayed as it was last read, up to five minutes on. */
  readonly index: number;
  readonly indexNow: number;
  readonly last: { readonly metalC: number; readonly atS: number } | null;
  /** Since the last reading the stretch is broken: what came since adds nothing until it is read twice again. */
  readonly broken: boolean;
  /** Without a break at or over the lowest temperature of the sheet until the last reading, s. */
  readonly heldS: number;
  /** Seconds still needed at the temperature last read; null where that earns nothing. */
  readonly moreS: number | null;
  readonly readings: number;
  readonly doubted: number;
  readonly grade: EvidenceGrade;
};

/**
 * A piece cured section by section under lamps, as it stands: each section by its own readings against the sheet.
 * Failures: those of the readings and the curve, `unknown-section`. O(readings).
 */
export function sectionStates(
  sections: readonly string[],
  readings: readonly SectionReading[],
  schedule: PowderSchedule,
  nowS: number,
  leastIndex = 100,
): Result<readonly SectionState[]> {
  const curve = fitCureCurve(schedule.points);
  if (!curve.ok) return curve;
  const kept = keptOf(sections, readings);
  if (!kept.ok) return kept;
  const onsetC = schedule.onsetC ?? curve.value.lowestC - DEFAULT_ONSET_BELOW_SHEET_C;
  const states: SectionState[] = [];
  for (const section of sections) {
    const mine = kept.value.bySection.get(section) ?? [];
    const last = mine.at(-1) ?? null;
    const trace = traceOf(mine);
    const earned = trace.timeS.length > 0 ? cureIndex(trace, curve.value, onsetC) : null;
    if (earned && !earned.ok) return earned;
    const index = earned?.value.index ?? 0;
    const sinceS = last ? Math.max(0, nowS - last.atS) : 0;
    const perS = last && last.metalC >= onsetC ? 100 / (60 * requiredMinutes(curve.value, last.metalC)) : 0;
    const broken = sinceS > INFRARED_APART_S;
    const indexNow = index + (broken ? 0 : perS * sinceS);
    states.push({
      section,
      state: mine.length === 0 ? "not-begun" : index >= leastIndex ? "cured" : "under-way",
      index,
      indexNow,
      last: last && { metalC: last.metalC, atS: last.atS },
      broken,
      heldS: heldUntilNow(traceOf(newestStretch(mine)), curve.value.lowestC),
      moreS: index >= leastIndex ? 0 : perS > 0 ? Math.max(0, leastIndex - indexNow) / perS : null,
      readings: mine.length,
      doubted: kept.value.doubted.get(section) ?? 0,
      grade: mine.length >= 3 ? "measured" : mine.length > 0 ? "assumed" : "unknown",
    });
  }
  return ok(states);
}
