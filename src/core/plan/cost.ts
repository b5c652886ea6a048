import {
  fitCureCurve,
  type Metal,
  plateTimeConstant,
  requiredMinutes,
  type SchedulePoint,
  secondsToReach,
} from "../cure";
import { powderKg } from "../powder";
import { err, ok, type Result } from "../result";
import type { PlannedPart, Substrate } from "./part";
import type { CoatingSystem } from "./system";

/** A site's rates; money in its own currency. */
export type Rates = {
  readonly currency: string;
  readonly labourPerHour: number;
  readonly blastM2PerHour: number;
  readonly blastPerHour: number;
  readonly sandM2PerHour: number;
  /** Taking an old coating off, by hand or in a bath, and what it uses up. */
  readonly stripM2PerHour: number;
  readonly stripPerM2: number;
  readonly washM2PerHour: number;
  readonly washPerHour: number;
  readonly sprayM2PerHour: number;
  readonly sealMPerHour: number;
  readonly sealerPerM: number;
  readonly edgeMPerHour: number;
  readonly ovenPerHour: number;
  readonly conveyorPerHour: number;
  readonly handlingMinPerPiece: number;
  readonly handFinishMinPerStep: number;
  readonly transferEfficiency: number;
  readonly powderLoss: number;
  readonly marginPercent: number;
};
export type PowderPrice = {
  readonly specificGravity: number;
  readonly perKg: number;
  readonly schedule: readonly SchedulePoint[];
};
export type CostLine = {
  readonly code:
    | "powder"
    | "primer"
    | "strip"
    | "blast"
    | "sand"
    | "edges"
    | "wash"
    | "sealer"
    | "outgas"
    | "spray"
    | "oven"
    | "handling"
    | "hand-finish";
  readonly quantity: number;
  readonly unit: "kg" | "m²" | "m" | "h" | "pieces";
  readonly hours: number;
  readonly cost: number;
};
export type Costing = {
  readonly kind: "costing";
  readonly lines: readonly CostLine[];
  readonly cost: number;
  readonly price: number;
  readonly perPiece: number;
  readonly powderKg: number;
  readonly primerKg: number;
  /** Length of edges on one piece, m, and whether it was only taken from the box that the piece fits in. */
  readonly edges: { readonly metres: number; readonly ofBox: boolean };
  /** Door to pull of one oven load, min, by the heat-up model. */
  readonly bakeMinutes: number;
  readonly ovenLoads: number;
};

const metalOf: Record<Substrate, Metal> = {
  "hot-rolled-steel": "steel",
  "cold-rolled-steel": "steel",
  "cast-aluminium": "cast-aluminium",
  "cast-iron": "cast-iron",
  aluminium: "aluminium",
  galvanised: "steel",
  stainless: "stainless",
};
/** The oven air stands this far over the sheet's usual metal temperature, °C. */
export const OVEN_OVER_SHEET_C = 10;
const ROOM_C = 20;

/**
 * Door to pull, min: the thickest section to the sheet's middle temperature by the lumped heat-up model, then the time
 * the sheet asks there. Failures: those of the cure curve and of `plateTimeConstant`.
 */
export function bakeMinutesFor(
  part: Pick<PlannedPart, "substrate" | "thickestMm">,
  schedule: readonly SchedulePoint[],
): Result<number> {
  const curve = fitCureCurve(schedule);
  if (!curve.ok) return curve;
  const inOrder = [...schedule].sort((a, b) => a.metalC - b.metalC);
  const toC = (inOrder[Math.floor(inOrder.length / 2)] as SchedulePoint).metalC;
  const tau = plateTimeConstant({ material: metalOf[part.substrate], plateMm: part.thickestMm });
  if (!tau.ok) return tau;
  const seconds = secondsToReach({ tauS: tau.value.tauS, airC: toC + OVEN_OVER_SHEET_C, startC: ROOM_C, toC });
  if (!seconds.ok) return seconds;
  return ok(seconds.value / 60 + requiredMinutes(curve.value, toC));
}

/**
 * Quantity and cost of a job, by line, in a batch oven. Powder by coat = area × mean film × gravity / (efficiency × (1 −
 * loss)). Failures: `bad-count`, `negative-price` (which), and those of powder, cure and heat-up.
 */
export function costJob(input: {
  readonly part: PlannedPart;
  readonly pieces: number;
  readonly system: CoatingSystem;
  readonly top: PowderPrice;
  readonly primer: PowderPrice | null;
  readonly rates: Rates;
  readonly perOven: number;
  /** Length of the edges of a piece, m; null where nobody measured it: those of the box it fits in are taken. */
  readonly edgeM: number | null;
  /** An old coating comes off first. */
  readonly strip?: boolean;
  /** Steps of hand finishing on each piece, its lacquer not counted. */
  readonly handSteps?: number;
}): Result<Costing> {
  const { part, pieces, system, top, primer, rates, perOven, handSteps = 0, strip = false } = input;
  if (!Number.isInteger(pieces) || pieces < 1) return err({ kind: "bad-count", pieces });
  if (!Number.isInteger(perOven) || perOven < 1) return err({ kind: "bad-count", pieces: perOven });
  for (const [name, value] of Object.entries({ ...rates, topPerKg: top.perKg, primerPerKg: primer?.perKg ?? 0 }))
    if (typeof value === "number" && !(value >= 0)) return err({ kind: "negative-price", name, value });
  if (input.edgeM !== null && !(input.edgeM >= 0)) return err({ kind: "bad-input", name: "edgeM", value: input.edgeM });
  const { lengthMm, widthMm, heightMm } = part.box;
  const edges = {
    metres: input.edgeM ?? (4 * (lengthMm + widthMm + heightMm)) / 1000,
    ofBox: input.edgeM === null,
  };
  const edgesM = edges.metres * pieces;
  const areaM2 = part.areaM2 * pieces;
  const coat = (powder: PowderPrice, um: readonly [number, number], coats: number) =>
    powderKg({
      areaM2: areaM2 * coats,
      thicknessUm: (um[0] + um[1]) / 2,
      specificGravity: powder.specificGravity,
      transferEfficiency: rates.transferEfficiency,
      loss: rates.powderLoss,
    });
  const topKg = coat(top, system.topUm, system.coats);
  if (!topKg.ok) return topKg;
  const wantsPrimer = system.primer !== "none" && system.primerUm !== null;
  if (wantsPrimer && !primer) return err({ kind: "no-primer-powder", primer: system.primer });
  const primerKg = wantsPrimer && primer ? coat(primer, system.primerUm as readonly [number, number], 1) : ok(0);
  if (!primerKg.ok) return primerKg;
  const minutes = bakeMinutesFor(part, top.schedule);
  if (!minutes.ok) return minutes;
  const lines: CostLine[] = [];
  const work = (
    code: CostLine["code"],
    quantity: number,
    unit: CostLine["unit"],
    hours: number,
    perHour: number,
    materials = 0,
  ) => {
    if (quantity > 0) lines.push({ code, quantity, unit, hours, cost: hours * perHour + materials });
  };
  const layers = system.coats + (wantsPrimer ? 1 : 0);
  const bakes =
    system.curing === "two-full-cures" ? 2 : Math.max(1, system.coats) + (system.curing === "primer-gelled" ? 0.5 : 0);
  const ovenLoads = Math.ceil(pieces / perOven);
  const bakeHours = (ovenLoads * bakes * minutes.value) / 60;
  if (strip) work("strip", areaM2, "m²", areaM2 / rates.stripM2PerHour, rates.labourPerHour, areaM2 * rates.stripPerM2);
  if (system.preparation === "blast")
    work("blast", areaM2, "m²", areaM2 / rates.blastM2PerHour, rates.blastPerHour + rates.labourPerHour);
  if (system.preparation === "sand") work("sand", areaM2, "m²", areaM2 / rates.sandM2PerHour, rates.labourPerHour);
  if (system.breakEdges) work("edges", edgesM, "m", edgesM / rates.edgeMPerHour, rates.labourPerHour);
  if (system.pretreatment !== "none") work("wash", areaM2, "m²", areaM2 / rates.washM2PerHour, rates.washPerHour);
  if (system.sealSeams)
    work(
      "sealer",
      part.lapM * pieces,
      "m",
      (part.lapM * pieces) / rates.sealMPerHour,
      rates.labourPerHour,
      part.lapM * pieces * rates.sealerPerM,
    );
  if (system.outgas)
    work(
      "outgas",
      (ovenLoads * (minutes.value + 10)) / 60,
      "h",
      (ovenLoads * (minutes.value + 10)) / 60,
      rates.ovenPerHour,
    );
  work("primer", primerKg.value, "kg", 0, 0, primerKg.value * (primer?.perKg ?? 0));
  work("powder", topKg.value, "kg", 0, 0, topKg.value * top.perKg);
  work("spray", areaM2 * layers, "m²", (areaM2 * layers) / rates.sprayM2PerHour, rates.labourPerHour);
  work("oven", bakeHours, "h", bakeHours, rates.ovenPerHour);
  work("handling", pieces, "pieces", (pieces * rates.handlingMinPerPiece) / 60, rates.labourPerHour);
  const byHand = handSteps > 0 ? pieces * (handSteps + 1) : 0;
  work("hand-finish", byHand, "pieces", (byHand * rates.handFinishMinPerStep) / 60, rates.labourPerHour);
  const cost = lines.reduce((sum, line) => sum + line.cost, 0);
  const price = cost * (1 + rates.marginPercent / 100);
  return ok({
    kind: "costing",
    lines,
    cost,
    price,
    perPiece: price / pieces,
    powderKg: topKg.value,
    primerKg: primerKg.value,
    edges,
    bakeMinutes: minutes.value,
    ovenLoads,
  });
}

/** Batch loads against the conveyor for the curing alone: hours and cost of each, the cheaper named. */
export function batchOrConveyor(input: {
  readonly pieces: number;
  readonly perOven: number;
  readonly perMetre: number;
  readonly bakeMinutes: number;
  readonly conveyorM: number;
  readonly rates: Pick<Rates, "ovenPerHour" | "conveyorPerHour">;
}): Result<{
  readonly batchHours: number;
  readonly batchCost: number;
  readonly conveyorHours: number;
  readonly conveyorCost: number;
  readonly speedMPerMin: number;
  readonly cheaper: "batch" | "conveyor";
}> {
  const { pieces, perOven, perMetre, bakeMinutes, conveyorM, rates } = input;
  for (const [name, value] of Object.entries({ pieces, perOven, perMetre, bakeMinutes, conveyorM }))
    if (!(value > 0) || !Number.isFinite(value)) return err({ kind: "bad-size", name, value });
  const batchHours = (Math.ceil(pieces / perOven) * bakeMinutes) / 60;
  const speedMPerMin = conveyorM / bakeMinutes;
  const conveyorHours = (pieces / perMetre + conveyorM) / speedMPerMin / 60;
  const batchCost = batchHours * rates.ovenPerHour;
  const conveyorCost = conveyorHours * rates.conveyorPerHour;
  return ok({
    batchHours,
    batchCost,
    conveyorHours,
    conveyorCost,
    speedMPerMin,
    cheaper: batchCost <= conveyorCost ? "batch" : "conveyor",
  });
}
