import type { Rates } from "@/core/plan";

/** Rates of a made-up shop, round enough to work out by hand. */
export const rates: Rates = {
  currency: "GBP",
  labourPerHour: 30,
  blastM2PerHour: 10,
  blastPerHour: 20,
  sandM2PerHour: 8,
  stripM2PerHour: 5,
  stripPerM2: 4,
  washM2PerHour: 40,
  washPerHour: 60,
  sprayM2PerHour: 30,
  sealMPerHour: 12,
  sealerPerM: 2,
  edgeMPerHour: 20,
  ovenPerHour: 45,
  conveyorPerHour: 70,
  handlingMinPerPiece: 3,
  handFinishMinPerStep: 12,
  transferEfficiency: 0.6,
  powderLoss: 0.05,
  marginPercent: 25,
};
