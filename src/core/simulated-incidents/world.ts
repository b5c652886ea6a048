import type { Random } from "../statistics/random";

/**
 * How one piece was made and used: what was set, what it met, in the units of the record. A shop's ordinary day, wandering as
 * lines wander. Nothing of it knows which findings speak for which cause.
 */
export type World = {
  metal: "hot-rolled-steel" | "cold-rolled-steel" | "cast-aluminium" | "galvanised" | "aluminium" | "stainless";
  thickMm: number;
  sharpEdges: boolean;
  laserCut: boolean;
  lap: boolean;
  lapSealed: boolean;
  hollow: boolean;
  recess: boolean;
  farFace: boolean;
  fit: boolean;
  plugged: boolean;
  /** Where the fault is looked at. */
  spot: "face" | "edge" | "recess" | "far" | "seam" | "fit";
  oilG: number;
  rustIn: number;
  spatter: boolean;
  blasted: boolean;
  profileUm: number;
  dustGrade: number;
  saltMg: number;
  wiped: boolean;
  flashMin: number;
  lint: boolean;
  bareHands: boolean;
  prebakeC: number | null;
  bareHours: number;
  oldPaint: boolean;
  coatsUnder: number;
  scuffed: boolean;
  cleaner: number;
  etch: number;
  conversion: boolean;
  rightChemistry: boolean;
  ph: number;
  contactS: number;
  seal: boolean;
  rinseUs: number;
  inhibitor: number;
  stopS: number;
  addition: boolean;
  dryMin: number;
  powderDays: number;
  powderDamp: boolean;
  lotOff: boolean;
  lotNew: boolean;
  flow: "low" | "usual" | "high";
  releasesWater: boolean;
  resin: "polyester" | "epoxy-rich";
  grade: "standard" | "high";
  colourChange: boolean;
  carryOver: number;
  silicone: boolean;
  reclaim: number;
  kv: number;
  gunMm: number;
  airKPa: number;
  hopperOver: boolean;
  earthMohm: number;
  hookCycles: number;
  dewC: number;
  boothAir: number;
  metalC: number;
  gunCharges: boolean;
  fused: boolean;
  knocked: boolean;
  touchedSoft: boolean;
  primer: boolean;
  primerUm: number;
  primerFull: boolean;
  /** Minutes at the powder's own temperature, of the ten asked for a light piece. */
  holdMin: number;
  overMin: number;
  otherSchedule: boolean;
  fromDoor: boolean;
  coldPlace: boolean;
  ovenSpreadC: number;
  slowHeat: boolean;
  fastHeat: boolean;
  heavyInLoad: boolean;
  ovenDirt: boolean;
  burnerInAir: boolean;
  cooledHard: boolean;
  probeWrong: boolean;
  salt: boolean;
  water: boolean;
  knocks: boolean;
  knockHere: boolean;
  cutAfter: boolean;
  sunYears: number;
  hotService: boolean;
};

/** A piece as a shop makes it on an ordinary day. */
export function ordinary(random: Random): World {
  const metal = random.pick([
    "hot-rolled-steel",
    "hot-rolled-steel",
    "cold-rolled-steel",
    "cast-aluminium",
    "galvanised",
    "aluminium",
  ] as const);
  return {
    metal,
    thickMm: random.pick([2, 3, 4, 6]),
    sharpEdges: random.chance(0.35),
    laserCut: false,
    lap: random.chance(0.25),
    lapSealed: true,
    hollow: random.chance(0.3),
    recess: random.chance(0.4),
    farFace: random.chance(0.4),
    fit: random.chance(0.2),
    plugged: true,
    spot: "face",
    oilG: Math.max(0.2, random.normal(1, 0.3)),
    rustIn: metal.includes("rolled") ? Math.max(0, random.normal(0.15, 0.12)) : 0,
    spatter: false,
    blasted: metal.includes("rolled-steel"),
    profileUm: random.normal(48, 5),
    dustGrade: random.pick([0, 1, 1, 2]),
    saltMg: Math.max(0, random.normal(8, 4)),
    wiped: true,
    flashMin: random.normal(12, 3),
    lint: random.chance(0.05),
    bareHands: random.chance(0.05),
    prebakeC: metal === "cast-aluminium" || metal === "galvanised" ? random.normal(232, 4) : null,
    bareHours: Math.max(0.3, random.normal(1.5, 0.6)),
    oldPaint: false,
    coatsUnder: 0,
    scuffed: true,
    cleaner: random.normal(1, 0.06),
    etch: random.normal(1, 0.08),
    conversion: true,
    rightChemistry: true,
    ph: random.normal(5.2, 0.12),
    contactS: random.normal(75, 5),
    seal: true,
    rinseUs: Math.max(5, random.normal(45, 15)),
    inhibitor: random.normal(280, 25),
    stopS: random.chance(0.1) ? random.normal(90, 30) : 0,
    addition: random.chance(0.1),
    dryMin: random.normal(13, 1),
    powderDays: random.normal(120, 60),
    powderDamp: false,
    lotOff: false,
    lotNew: random.chance(0.1),
    flow: random.pick(["usual", "usual", "usual", "high", "low"] as const),
    releasesWater: random.chance(0.1),
    resin: "polyester",
    grade: "standard",
    colourChange: random.chance(0.15),
    carryOver: 0,
    silicone: false,
    reclaim: random.normal(20, 6),
    kv: random.normal(70, 3),
    gunMm: random.normal(250, 15),
    airKPa: random.normal(58, 4),
    hopperOver: false,
    earthMohm: Math.max(0.05, random.normal(0.4, 0.15)),
    hookCycles: random.pick([0, 1, 2, 3, 4]),
    dewC: random.normal(-32, 3),
    boothAir: random.normal(0.45, 0.05),
    metalC: random.normal(24, 3),
    gunCharges: true,
    fused: false,
    knocked: random.chance(0.03),
    touchedSoft: random.chance(0.02),
    primer: random.chance(0.3),
    primerUm: random.normal(60, 5),
    primerFull: false,
    holdMin: random.normal(12, 0.8),
    overMin: 0,
    otherSchedule: false,
    fromDoor: random.chance(0.15),
    coldPlace: false,
    ovenSpreadC: Math.max(1, random.normal(7, 2.5)),
    slowHeat: false,
    fastHeat: false,
    heavyInLoad: false,
    ovenDirt: random.chance(0.05),
    burnerInAir: random.chance(0.1),
    cooledHard: random.chance(0.05),
    probeWrong: random.chance(0.02),
    salt: random.chance(0.3),
    water: random.chance(0.3),
    knocks: random.chance(0.3),
    knockHere: false,
    cutAfter: false,
    sunYears: random.pick([0.5, 1, 2, 3]),
    hotService: false,
  };
}

/** What came of it: film where the fault sits and over the face, oil left, conversion coat, cure, corrosion drive. By rules of the trade's physics, not of diagnosis. */
export type Outcome = {
  readonly filmUm: number;
  readonly faceUm: number;
  readonly oilLeft: number;
  readonly conversionG: number;
  /** Share of the cure asked for, and how far beyond it. */
  readonly cure: number;
  readonly overBake: number;
  /** Charge in the bed over what it bears. */
  readonly chargeOver: number;
  readonly gas: number;
  readonly moisture: number;
  readonly bloom: number;
  readonly bond: number;
  readonly brittle: number;
};

const FILM_AIM = 75;

export function outcomeOf(w: World): Outcome {
  const charging = w.gunCharges ? 1 : 0.35;
  const earth = 1 / (1 + Math.max(0, w.earthMohm - 1) * 0.12 + Math.max(0, w.hookCycles - 5) * 0.05);
  const wetAir = w.dewC > -20 ? 0.85 : 1;
  const draught = 1 - Math.max(0, w.boothAir - 0.55) * 0.9;
  const flowRate = w.airKPa / 58 + (w.hopperOver ? 0.25 : 0);
  const hot = w.metalC > 60 ? 1.6 : 1;
  const near = w.gunMm < 200 ? 1.12 : 1;
  const recoat = w.coatsUnder > 0 && w.kv > 60 ? 0.9 : 1;
  const faceUm = FILM_AIM * flowRate * charging * earth * wetAir * draught * hot * near * recoat;
  const edgeShare = w.sharpEdges || w.laserCut ? (w.flow === "high" ? 0.35 : 0.55) : 0.85;
  const share = { face: 1, edge: edgeShare, recess: 0.6 - Math.max(0, w.kv - 75) * 0.01, far: 0.55, seam: 0.7, fit: 1 }[
    w.spot
  ];
  const filmUm = faceUm * share;
  const oilLeft = w.oilG * Math.exp(-2.2 * Math.max(0, w.cleaner) * (w.wiped ? 1.6 : 0.9)) + (w.bareHands ? 0.35 : 0);
  const phOff = Math.max(0, Math.abs(w.ph - 5.2) - 0.4);
  const conversionG = !w.conversion
    ? 0
    : Math.max(
        0,
        (w.rightChemistry ? 0.6 : 0.12) *
          (w.contactS / 75) *
          (w.ph < 4.6 ? 2.4 : Math.exp(-2.2 * phOff)) *
          Math.exp(-1.1 * oilLeft) *
          (1 - 0.4 * w.rustIn) *
          (w.etch < 0.7 ? 0.6 : 1),
      );
  const lag =
    (w.thickMm > 15 ? 6 : w.thickMm / 10) + (w.coldPlace ? 5 : 0) + (w.fromDoor ? 0.8 : 0) + (w.otherSchedule ? 4 : 0);
  const cure = Math.max(0, w.holdMin - lag + (w.thickMm > 15 || w.coldPlace || w.otherSchedule ? 0 : 1)) / 10;
  const overBake = w.overMin / 20;
  const bed = faceUm / FILM_AIM;
  const chargeOver =
    Math.max(0, (w.kv - 78) / 10) +
    (w.gunMm < 190 ? 0.8 : 0) +
    (w.coatsUnder > 0 ? Math.max(0, (w.kv - 55) / 14) : 0) +
    Math.max(0, bed - 1.5) * 0.6 +
    (w.earthMohm > 5 ? 0.9 : 0) +
    Math.max(0, w.reclaim - 45) / 30;
  const porous = w.metal === "cast-aluminium" ? 1 : w.metal === "galvanised" ? 0.8 : 0;
  const emptied = w.prebakeC === null ? 0 : w.prebakeC >= 215 ? 0.9 : 0.3;
  const gas = porous * (1 - emptied) * (bed > 1.3 ? 1.5 : 1) * (w.fastHeat ? 1.5 : 1);
  const moisture = (w.hollow || w.lap ? 1 : 0.4) * Math.max(0, (11 - w.dryMin) / 4);
  const steel = w.metal.includes("steel") && w.metal !== "stainless";
  const bloom = steel
    ? Math.max(0, (w.stopS - 200) / 240) +
      Math.max(0, (210 - w.inhibitor) / 70) * (w.stopS > 120 || w.bareHours > 3 ? 1.4 : 0.8) +
      Math.max(0, (w.bareHours - 5) / 4) +
      Math.max(0, (w.rinseUs - 120) / 150) +
      Math.max(0, (w.saltMg - 25) / 25) +
      moisture * 0.7
    : 0;
  const bond =
    1 -
    Math.min(1, oilLeft * 0.9) -
    (conversionG < 0.25 ? (0.25 - conversionG) * 2.4 : 0) -
    (conversionG > 1 ? 0.5 : 0) -
    Math.max(0, 0.8 - cure) * 1.2 -
    (w.metal === "hot-rolled-steel" && !w.blasted ? 0.7 : 0) -
    (w.profileUm < 25 ? 0.5 : 0) -
    w.rustIn * (w.blasted ? 0.3 : 0.9) -
    (w.dustGrade >= 4 ? 0.6 : 0) -
    (w.oldPaint ? 0.7 : 0) -
    ((w.coatsUnder > 0 && !w.scuffed) || (w.primer && w.primerFull) ? 0.75 : 0) -
    Math.min(0.6, bloom * 0.35);
  const brittle =
    Math.max(0, 0.75 - cure) * 1.6 +
    overBake * 0.9 +
    Math.max(0, bed - 1.5) * 1.2 +
    (w.cooledHard ? 0.8 : 0) +
    (conversionG > 1 ? 0.6 : 0);
  return { filmUm, faceUm, oilLeft, conversionG, cure, overBake, chargeOver, gas, moisture, bloom, bond, brittle };
}
