import { type SimulatedLine, type SimulatedRack, simulateLine } from "@/core/simulated-line";
import { DAY } from "./demo-record";
import { chargerBox, products, tubeFrame } from "./products";

/** Chosen so that every story is there on whatever day and hour the demo is loaded. */
export const DEMO_SEED = 20_261_126;

/** So many days ago the booth's filters were changed and its fan turned up. */
export const FAN_UP_DAYS = 9;

export function midnightOf(anchor: Date): Date {
  const midnight = new Date(anchor);
  midnight.setUTCHours(0, 0, 0, 0);
  return midnight;
}

/** The shop's last weeks up to a moment, with the stories in them: the wrong drum, the gassy delivery, Monday's rust, damp tube ends, the draught in the booth. */
export function demoLine(anchor: Date): SimulatedLine {
  const midnight = midnightOf(anchor).getTime();
  return simulateLine({
    seed: DEMO_SEED,
    fromMs: midnight - 25 * DAY,
    toMs: anchor.getTime(),
    racksPerDay: 4,
    firstRackNumber: 942,
    products,
    wrongAdditionMs: midnight - 16 * DAY + 7 * 3_600_000,
    putRightMs: midnight - 7 * DAY + 9 * 3_600_000,
    gassyDeliveryMs: midnight - 10 * DAY,
    fanUpMs: midnight - FAN_UP_DAYS * DAY + 11 * 3_600_000,
    beside: [
      { product: tubeFrame, everyDays: 2, firstRackNumber: 820 },
      { product: chargerBox, everyDays: 2, firstRackNumber: 760 },
    ],
    inHand: (
      [
        [250, "SHELTER-POST"],
        [205, "SHELTER-POST"],
        [196, "FERRY-SEAT"],
        [128, "LAMP-HEAD"],
        [122, "SHELTER-POST"],
        [112, "FERRY-SEAT"],
        [89, "FERRY-SEAT"],
        [66, "SHELTER-POST"],
        [41, "SHELTER-POST"],
      ] as const
    ).map(([minutes, product]) => ({ minutes, product })),
  });
}

/** Shelter posts sent back and coated again at full voltage; every other one on hooks past their uses. */
export const roughRacks = (line: SimulatedLine, anchor: Date): readonly SimulatedRack[] =>
  line.racks
    .filter(
      (rack) =>
        rack.product === "SHELTER-POST" &&
        rack.rub &&
        !rack.flashRust &&
        (rack.crossCut?.squaresLost ?? 0) < 2 &&
        rack.hungMs > anchor.getTime() - 18 * DAY &&
        rack.hungMs < anchor.getTime() - 3 * DAY,
    )
    .filter((_, i) => i % 3 === 0)
    .slice(-6);

/** One rack of the last days came out thin and went through twice. */
export const recoatedRack = (line: SimulatedLine, anchor: Date): SimulatedRack | undefined =>
  line.racks.find(
    (rack) =>
      rack.product === "SHELTER-POST" &&
      rack.rub &&
      !rack.flashRust &&
      rack.hungMs > anchor.getTime() - 2.6 * DAY &&
      rack.hungMs < anchor.getTime() - 1.2 * DAY,
  );
