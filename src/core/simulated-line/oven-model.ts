import type { Trace } from "../cure";
import type { Random } from "../statistics/random";

export type SimulatedPiece = { readonly channel: string; readonly tauS: number };

/**
 * A batch oven: air climbs to its set point, each piece follows by its own time constant, and cools after the pull.
 * Temperatures as a recorder gives them, to 0.1 °C, with its noise.
 */
export function simulateBake(
  random: Random,
  bake: {
    setPointC: number;
    pieces: readonly SimulatedPiece[];
    doorToPullS: number;
    intervalS: number;
    coolS: number;
    startC: number;
  },
): { name: string; medium: "air" | "metal"; trace: Trace }[] {
  const airTauS = 140;
  const steps = Math.floor((bake.doorToPullS + bake.coolS) / bake.intervalS) + 1;
  const timeS = Array.from({ length: steps }, (_, i) => i * bake.intervalS);
  const tenth = (x: number) => Math.round(x * 10) / 10;
  const airAt = (s: number) =>
    s <= bake.doorToPullS ? bake.setPointC - (bake.setPointC - 60) * Math.exp(-s / airTauS) : 28;
  const follow = (tauS: number) => {
    let c = bake.startC;
    return timeS.map((s, i) => {
      if (i > 0)
        c +=
          (airAt(s - bake.intervalS / 2) - c) *
          (1 - Math.exp(-bake.intervalS / (s > bake.doorToPullS ? tauS * 1.6 : tauS)));
      return tenth(c + random.normal(0, 0.25));
    });
  };
  return [
    { name: "Air", medium: "air", trace: { timeS, tempC: timeS.map((s) => tenth(airAt(s) + random.normal(0, 0.6))) } },
    ...bake.pieces.map((piece) => ({
      name: piece.channel,
      medium: "metal" as const,
      trace: { timeS, tempC: follow(piece.tauS) },
    })),
  ];
}
