import { crossCutGrade } from "@/core/bench";
import { plateTimeConstant } from "@/core/cure";
import { valueOrThrow } from "@/core/result";
import { seededRandom, simulateBake } from "@/core/simulated-line";
import type { NewRecord } from "@/server/record/store-record";
import { DEMO_SEED } from "./demo-line";
import { type Made, MINUTE, record } from "./demo-record";
import { bakeRecord, coatRecord, inAndOut, type OvenRack, rackIdOf, rub, upToOven, type Work } from "./oven-rack";

/** Covers with an epoxy primer gelled before their top coat. */
export const primed: Work = {
  job: "J-419",
  part: "BOLLARD-COVER",
  powder: "GR-210",
  customer: "C1",
  range: [110, 170],
};
/** One gelled as its sheet asks; one left in a hot oven, whose top coat then lifts. */
export const gels = [
  { daysAgo: 9, setC: 185, minutes: 8.5, squaresLost: 0 },
  { daysAgo: 6, setC: 205, minutes: 11, squaresLost: 4 },
] as const;
const TOP_MIN = 24;

/** Primer, its gel, top coat, the cure of both, and the cross-cut through them. */
export function primedLoads(
  made: Made,
  rack: OvenRack,
  closedMs: number,
  i: number,
  gel: (typeof gels)[number],
  jobId: string,
): NewRecord[] {
  const tauS = valueOrThrow(plateTimeConstant({ material: "steel", plateMm: 2, hWPerM2K: 30 })).tauS;
  const bake = (setPointC: number, minutes: number, seed: number) =>
    simulateBake(seededRandom(DEMO_SEED + seed), {
      setPointC,
      pieces: [{ channel: "Cover", tauS }],
      doorToPullS: minutes * 60,
      intervalS: 10,
      coolS: 400,
      startC: 20,
    });
  const topMs = closedMs + 95 * MINUTE;
  const load = (no: string, atMs: number, minutes: number, setC: number) => ({
    no,
    closedMs: atMs,
    minutes,
    timing: "metal-at-temperature",
    setC,
  });
  const hung = [{ rack, place: "B2", channel: "Cover" }];
  const testedMs = topMs + (TOP_MIN + 90) * MINUTE;
  const grade = valueOrThrow(crossCutGrade((100 * gel.squaresLost) / 25));
  return [
    ...upToOven(made, rack, closedMs, jobId, { no: 1, layer: "primer", powder: "GR-640", system: "primer-gelled" }),
    bakeRecord(
      made,
      hung,
      load(`G-${2 * i + 1}`, closedMs, gel.minutes, gel.setC),
      bake(gel.setC, gel.minutes, 31 + i),
      "GR-640",
    ),
    ...inAndOut(rack, jobId, closedMs, gel.minutes),
    coatRecord(made, rack, topMs - 30 * MINUTE, jobId, {
      no: 2,
      layer: "top",
      powder: "GR-210",
      system: "primer-gelled",
    }),
    bakeRecord(made, hung, load(`G-${2 * i + 2}`, topMs, TOP_MIN, 205), bake(205, TOP_MIN, 41 + i), "GR-210"),
    ...inAndOut(rack, jobId, topMs, TOP_MIN),
    rub(rack, jobId, testedMs, 5),
    record("cross-cut", testedMs + 10 * MINUTE, rack.number, {
      by: "tomasz",
      grade: "measured",
      jobId,
      rackId: rackIdOf(rack),
      details: {
        cross_cut: [
          {
            removed_percent: grade.removedPercent,
            squares_lost: gel.squaresLost,
            squares: 25,
            spacing_mm: 2,
            iso: grade.iso,
            astm: grade.astmB,
            on_panel: false,
          },
        ],
      },
    }),
  ];
}
