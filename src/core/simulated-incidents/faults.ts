import type { Random } from "../statistics/random";
import { type Outcome, outcomeOf, type World } from "./world";

/** Something that goes wrong on the line or in use: what it does to the piece. */
export type Fault = { readonly cause: string; readonly apply: (w: World, random: Random) => void };
const steel = (w: World, random: Random) => {
  if (w.metal.includes("rolled")) return;
  w.metal = random.pick(["hot-rolled-steel", "cold-rolled-steel"] as const);
  w.blasted = true;
  w.prebakeC = null;
};
const over = (w: World, random: Random) => {
  w.coatsUnder = 1;
  if (w.kv < 62) w.kv = random.normal(70, 3);
};

/** Every cause that the trade names, as what happens. */
export const faults: readonly Fault[] = [
  {
    cause: "output-too-high",
    apply: (w, r) => {
      w.airKPa = r.normal(100, 5);
      w.hopperOver = r.chance(0.5);
    },
  },
  {
    cause: "output-too-low",
    apply: (w, r) => {
      w.airKPa = r.normal(26, 3);
    },
  },
  {
    cause: "film-too-thick",
    apply: (w, r) => {
      w.airKPa = r.normal(74, 1);
      w.gunMm = r.normal(205, 4);
      w.hopperOver = true;
    },
  },
  {
    cause: "film-too-thin",
    apply: (w, r) => {
      w.airKPa = r.normal(42, 1);
      w.boothAir = r.normal(0.58, 0.01);
      w.kv = r.normal(61, 1);
    },
  },
  {
    cause: "poor-ground",
    apply: (w, r) => {
      w.earthMohm = r.normal(14, 4);
      w.hookCycles = Math.round(r.normal(11, 2));
    },
  },
  {
    cause: "overcharging",
    apply: (w, r) => {
      w.kv = r.normal(95, 3);
      w.gunMm = r.normal(170, 8);
    },
  },
  { cause: "recoat-insulation", apply: over },
  {
    cause: "wet-air",
    apply: (w, r) => {
      w.dewC = r.normal(-4, 4);
    },
  },
  {
    cause: "booth-draught",
    apply: (w, r) => {
      w.boothAir = r.normal(1.05, 0.08);
    },
  },
  {
    cause: "hot-spray-overbuild",
    apply: (w, r) => {
      w.metalC = r.normal(95, 10);
    },
  },
  {
    cause: "faraday-recess",
    apply: (w, r) => {
      w.recess = true;
      w.spot = "recess";
      w.kv = r.normal(77, 2);
    },
  },
  {
    cause: "face-not-reached",
    apply: (w) => {
      w.farFace = true;
      w.spot = "far";
    },
  },
  {
    cause: "charge-lost",
    apply: (w) => {
      w.gunCharges = false;
    },
  },
  {
    cause: "edge-pull-back",
    apply: (w, r) => {
      w.sharpEdges = true;
      w.flow = r.chance(0.7) ? "high" : w.flow;
      w.spot = "edge";
    },
  },
  {
    cause: "handled-before-cure",
    apply: (w) => {
      w.knocked = true;
    },
  },
  {
    cause: "masking-missed",
    apply: (w) => {
      w.fit = true;
      w.plugged = false;
      w.spot = "fit";
    },
  },
  {
    cause: "marked-while-soft",
    apply: (w) => {
      w.touchedSoft = true;
    },
  },
  {
    cause: "powder-aged",
    apply: (w, r) => {
      w.powderDays = r.normal(560, 60);
      w.powderDamp = true;
    },
  },
  {
    cause: "powder-lot",
    apply: (w) => {
      w.lotNew = true;
      w.lotOff = true;
    },
  },
  {
    cause: "powder-water-release",
    apply: (w, r) => {
      w.releasesWater = true;
      w.airKPa = r.normal(85, 3);
    },
  },
  {
    cause: "powder-fines",
    apply: (w, r) => {
      w.reclaim = r.normal(72, 5);
    },
  },
  {
    cause: "powder-low-flow",
    apply: (w) => {
      w.flow = "low";
      w.releasesWater = false;
    },
  },
  {
    cause: "powder-high-flow",
    apply: (w) => {
      w.flow = "high";
    },
  },
  {
    cause: "cross-contamination",
    apply: (w) => {
      w.colourChange = true;
      w.carryOver = 1;
    },
  },
  {
    cause: "incompatible-carry-over",
    apply: (w) => {
      w.silicone = true;
    },
  },
  {
    cause: "impact-fusion",
    apply: (w) => {
      w.fused = true;
    },
  },
  {
    cause: "wrong-chemistry",
    apply: (w) => {
      w.resin = "epoxy-rich";
      w.sunYears = Math.max(w.sunYears, 1);
    },
  },
  {
    cause: "weather-grade",
    apply: (w) => {
      w.grade = "standard";
      w.salt = true;
      w.sunYears = 4;
    },
  },
  {
    cause: "sun-ageing",
    apply: (w) => {
      w.grade = "high";
      w.sunYears = 9;
    },
  },
  {
    cause: "undercure-hold",
    apply: (w, r) => {
      w.holdMin = r.normal(4.5, 0.8);
    },
  },
  {
    cause: "undercure-mass",
    apply: (w) => {
      w.thickMm = 25;
      w.heavyInLoad = true;
    },
  },
  {
    cause: "oven-cold-spot",
    apply: (w, r) => {
      w.coldPlace = true;
      w.ovenSpreadC = r.normal(34, 4);
    },
  },
  {
    cause: "overcure",
    apply: (w, r) => {
      w.overMin = r.normal(32, 5);
    },
  },
  {
    cause: "wrong-schedule",
    apply: (w) => {
      w.otherSchedule = true;
    },
  },
  {
    cause: "slow-heat-up",
    apply: (w) => {
      w.slowHeat = true;
    },
  },
  {
    cause: "fast-heat-up",
    apply: (w) => {
      w.fastHeat = true;
    },
  },
  {
    cause: "thermal-shock",
    apply: (w) => {
      w.cooledHard = true;
    },
  },
  {
    cause: "oven-dirt",
    apply: (w) => {
      w.ovenDirt = true;
    },
  },
  {
    cause: "burner-gas",
    apply: (w) => {
      w.burnerInAir = true;
    },
  },
  {
    cause: "instrument-wrong",
    apply: (w) => {
      w.probeWrong = true;
    },
  },
  {
    cause: "intercoat",
    apply: (w, r) => {
      if (r.chance(0.5)) {
        w.coatsUnder = 1;
        w.scuffed = false;
        w.kv = 58;
      } else {
        w.primer = true;
        w.primerFull = true;
      }
    },
  },
  {
    cause: "oil-residue",
    apply: (w, r) => {
      w.oilG = r.normal(9, 1);
      w.wiped = false;
    },
  },
  {
    cause: "cleaner-weak",
    apply: (w, r) => {
      w.cleaner = r.normal(0.35, 0.06);
      w.oilG = Math.max(w.oilG, 1.4);
      w.wiped = false;
    },
  },
  {
    cause: "hand-contact",
    apply: (w) => {
      w.bareHands = true;
    },
  },
  {
    cause: "lint-dust",
    apply: (w, r) => {
      if (r.chance(0.5)) w.lint = true;
      else {
        w.blasted = true;
        w.dustGrade = 5;
      }
    },
  },
  {
    cause: "weld-spatter",
    apply: (w) => {
      w.spatter = true;
    },
  },
  {
    cause: "mill-scale",
    apply: (w) => {
      w.metal = "hot-rolled-steel";
      w.blasted = false;
    },
  },
  {
    cause: "rust-left",
    apply: (w, r) => {
      steel(w, r);
      w.rustIn = r.normal(0.9, 0.1);
      w.blasted = false;
    },
  },
  {
    cause: "old-coating",
    apply: (w) => {
      w.oldPaint = true;
    },
  },
  {
    cause: "no-anchor",
    apply: (w, r) => {
      w.profileUm = r.normal(12, 3);
      w.blasted = false;
      if (w.metal === "hot-rolled-steel") w.metal = "cold-rolled-steel";
    },
  },
  {
    cause: "cut-edge-oxide",
    apply: (w, r) => {
      steel(w, r);
      w.laserCut = true;
      w.spot = "edge";
    },
  },
  {
    cause: "casting-gas",
    apply: (w) => {
      w.metal = "cast-aluminium";
      w.prebakeC = null;
    },
  },
  {
    cause: "zinc-gas",
    apply: (w) => {
      w.metal = "galvanised";
      w.prebakeC = null;
    },
  },
  {
    cause: "outgas-too-cool",
    apply: (w, r) => {
      w.metal = "cast-aluminium";
      w.prebakeC = r.normal(195, 5);
    },
  },
  {
    cause: "solvent-trapped",
    apply: (w, r) => {
      w.flashMin = r.normal(1.5, 0.5);
      w.wiped = true;
    },
  },
  {
    cause: "profile-peaks",
    apply: (w, r) => {
      steel(w, r);
      w.blasted = true;
      w.profileUm = r.normal(98, 6);
    },
  },
  {
    cause: "soluble-salt",
    apply: (w, r) => {
      steel(w, r);
      w.saltMg = r.normal(75, 10);
    },
  },
  {
    cause: "etch-too-light",
    apply: (w, r) => {
      w.metal = "aluminium";
      w.etch = r.normal(0.4, 0.06);
    },
  },
  {
    cause: "conversion-thin",
    apply: (w, r) => {
      const how = r.uniform();
      if (how < 0.4) {
        w.ph = r.normal(6.2, 0.1);
        w.addition = true;
      } else if (how < 0.7) w.conversion = false;
      else w.contactS = r.normal(18, 4);
    },
  },
  {
    cause: "conversion-heavy",
    apply: (w, r) => {
      w.ph = r.normal(4.3, 0.08);
      w.contactS = r.normal(150, 15);
      w.addition = true;
    },
  },
  {
    cause: "poor-rinse",
    apply: (w, r) => {
      w.rinseUs = r.normal(420, 60);
    },
  },
  {
    cause: "wrong-pretreatment",
    apply: (w, r) => {
      w.metal = r.pick(["galvanised", "aluminium"] as const);
      w.rightChemistry = false;
    },
  },
  {
    cause: "flash-rust-before-coat",
    apply: (w, r) => {
      steel(w, r);
      if (r.chance(0.6)) {
        w.stopS = r.normal(620, 60);
        w.inhibitor = r.normal(160, 15);
      } else w.bareHours = r.normal(11, 1.5);
    },
  },
  {
    cause: "trapped-moisture",
    apply: (w, r) => {
      w.hollow = true;
      w.dryMin = r.normal(5, 1);
      w.spot = "seam";
    },
  },
  {
    cause: "open-seam",
    apply: (w) => {
      w.lap = true;
      w.lapSealed = false;
      w.spot = "seam";
    },
  },
  {
    cause: "no-barrier-primer",
    apply: (w, r) => {
      steel(w, r);
      w.primer = false;
      w.salt = true;
    },
  },
  {
    cause: "primer-thin",
    apply: (w, r) => {
      steel(w, r);
      w.primer = true;
      w.primerUm = r.normal(22, 4);
      w.salt = true;
    },
  },
  {
    cause: "service-damage",
    apply: (w) => {
      w.knocks = true;
      w.knockHere = true;
    },
  },
  {
    cause: "bare-cut-edge",
    apply: (w) => {
      w.cutAfter = true;
      w.spot = "edge";
    },
  },
  {
    cause: "salt-and-wet-service",
    apply: (w) => {
      w.salt = true;
      w.water = true;
    },
  },
  {
    cause: "service-heat",
    apply: (w) => {
      w.hotService = true;
    },
  },
  { cause: "rack-contact", apply: () => {} },
];

/** For each cause what has to be otherwise for it not to act: the fields that a good shop has. */
export const goodInstead: Readonly<Record<string, (w: World) => Partial<World>>> = {
  "output-too-high": () => ({ airKPa: 58, hopperOver: false }),
  "output-too-low": () => ({ airKPa: 58 }),
  "film-too-thick": () => ({ airKPa: 58, hopperOver: false, gunMm: 250, metalC: 24 }),
  "film-too-thin": (w) => ({
    airKPa: Math.max(w.airKPa, 58),
    boothAir: 0.45,
    kv: 70,
    gunCharges: true,
    earthMohm: 0.4,
  }),
  "poor-ground": () => ({ earthMohm: 0.4, hookCycles: 2 }),
  overcharging: (w) => ({ kv: w.coatsUnder > 0 ? 50 : 68, gunMm: 250 }),
  "recoat-insulation": () => ({ coatsUnder: 0 }),
  "wet-air": () => ({ dewC: -32 }),
  "booth-draught": () => ({ boothAir: 0.45 }),
  "hot-spray-overbuild": () => ({ metalC: 24 }),
  "faraday-recess": (w) => (w.spot === "recess" ? { spot: "face" } : {}),
  "face-not-reached": (w) => (w.spot === "far" ? { spot: "face" } : {}),
  "charge-lost": () => ({ gunCharges: true }),
  "edge-pull-back": () => ({ sharpEdges: false, laserCut: false, flow: "usual" }),
  "handled-before-cure": () => ({ knocked: false }),
  "masking-missed": () => ({ plugged: true }),
  "marked-while-soft": () => ({ touchedSoft: false }),
  "powder-aged": () => ({ powderDays: 100, powderDamp: false }),
  "powder-lot": () => ({ lotOff: false }),
  "powder-water-release": () => ({ releasesWater: false }),
  "powder-fines": () => ({ reclaim: 20 }),
  "powder-low-flow": (w) => (w.flow === "low" ? { flow: "usual" } : {}),
  "powder-high-flow": (w) => (w.flow === "high" ? { flow: "usual" } : {}),
  "cross-contamination": () => ({ carryOver: 0 }),
  "incompatible-carry-over": () => ({ silicone: false }),
  "impact-fusion": () => ({ fused: false }),
  "wrong-chemistry": () => ({ resin: "polyester" }),
  "weather-grade": (w) => (w.grade === "standard" && w.sunYears < 6 ? { grade: "high" } : {}),
  "sun-ageing": () => ({ sunYears: 0.5 }),
  "undercure-hold": () => ({ holdMin: 14 }),
  "undercure-mass": () => ({ thickMm: 3 }),
  "oven-cold-spot": () => ({ coldPlace: false }),
  overcure: () => ({ overMin: 0 }),
  "wrong-schedule": () => ({ otherSchedule: false }),
  "slow-heat-up": () => ({ slowHeat: false }),
  "fast-heat-up": () => ({ fastHeat: false }),
  "thermal-shock": () => ({ cooledHard: false }),
  "oven-dirt": () => ({ ovenDirt: false }),
  "burner-gas": () => ({ burnerInAir: false }),
  intercoat: () => ({ scuffed: true, primerFull: false }),
  "oil-residue": () => ({ oilG: 0.2, bareHands: false }),
  "cleaner-weak": (w) => ({ cleaner: Math.max(w.cleaner, 1) }),
  "hand-contact": () => ({ bareHands: false }),
  "lint-dust": () => ({ lint: false, dustGrade: 1 }),
  "weld-spatter": () => ({ spatter: false }),
  "mill-scale": (w) => (w.metal === "hot-rolled-steel" ? { blasted: true } : {}),
  "rust-left": () => ({ rustIn: 0.1 }),
  "old-coating": () => ({ oldPaint: false }),
  "no-anchor": (w) => ({ profileUm: Math.max(48, w.profileUm) }),
  "cut-edge-oxide": () => ({ laserCut: false }),
  "casting-gas": (w) => (w.metal === "cast-aluminium" ? { prebakeC: 235 } : {}),
  "zinc-gas": (w) => (w.metal === "galvanised" ? { prebakeC: 235 } : {}),
  "outgas-too-cool": (w) => (w.prebakeC !== null && w.prebakeC < 215 ? { prebakeC: 235 } : {}),
  "solvent-trapped": () => ({ flashMin: 12 }),
  "profile-peaks": (w) => ({ profileUm: Math.min(50, w.profileUm) }),
  "soluble-salt": () => ({ saltMg: 8 }),
  "etch-too-light": () => ({ etch: 1 }),
  "conversion-thin": () => ({ conversion: true, ph: 5.2, contactS: 75 }),
  "conversion-heavy": (w) => (w.ph < 4.6 ? { ph: 5.2, contactS: 75 } : {}),
  "poor-rinse": () => ({ rinseUs: 45 }),
  "wrong-pretreatment": () => ({ rightChemistry: true }),
  "flash-rust-before-coat": () => ({ stopS: 0, inhibitor: 280, bareHours: 1.5 }),
  "trapped-moisture": () => ({ dryMin: 14 }),
  "open-seam": () => ({ lapSealed: true }),
  "no-barrier-primer": (w) => (w.primer ? {} : { primer: true, primerUm: 60 }),
  "primer-thin": (w) => (w.primer ? { primerUm: 60 } : {}),
  "service-damage": () => ({ knockHere: false }),
  "bare-cut-edge": () => ({ cutAfter: false }),
  "salt-and-wet-service": () => ({ salt: false, water: false }),
  "service-heat": () => ({ hotService: false }),
};

/** How bad each defect is on a piece, 1 from where it is seen: by what was done to it and what came of that. */
export function severity(defect: string, w: World, o: Outcome): number {
  const bed = o.faceUm / 75;
  const isSteel = w.metal.includes("rolled") || w.metal === "galvanised";
  const drive = (w.salt ? 1 : 0.25) + (w.water ? 0.7 : 0.1);
  const barrier = w.primer ? (w.primerUm > 40 ? 0.25 : 0.7) : 1;
  const broken = (w.knockHere ? 1 : 0) + (w.cutAfter ? 1 : 0);
  switch (defect) {
    case "orange-peel":
      return (
        Math.max(0, bed - 1.15) * 4 +
        Math.max(0, 0.72 - bed) * 5 +
        o.chargeOver * 1.1 +
        (w.flow === "low" ? 1.1 : 0) +
        (w.slowHeat ? 1.3 : 0) +
        (w.powderDays > 400 || w.powderDamp ? 1.2 : 0) +
        (w.dewC > -15 ? 1 : 0) +
        (w.metalC > 70 ? 0.8 : 0) +
        (w.reclaim > 55 ? 1 : 0) +
        (w.lotOff ? 1 : 0) +
        (w.boothAir > 0.9 ? 0.8 : 0) +
        (w.earthMohm > 8 ? 0.9 : 0)
      );
    case "pinholes":
      return (
        o.gas * 1.4 +
        o.moisture * 1.3 +
        (w.releasesWater && bed > 1.25 ? 1.3 : 0) +
        (w.flashMin < 4 ? 1.2 : 0) +
        (w.oldPaint ? 1 : 0) +
        Math.max(0, o.oilLeft - 0.4) * 1.2 +
        (w.fastHeat ? 0.9 : 0) +
        Math.max(0, bed - 1.5) * 1.5 +
        (w.powderDamp ? 0.6 : 0) +
        w.rustIn * 0.5
      );
    case "craters":
      return (
        Math.max(0, o.oilLeft - 0.25) * 2.2 +
        (w.dewC > -15 ? 1.4 : 0) +
        (w.silicone ? 1.6 : 0) +
        (w.carryOver > 0 ? 1.1 : 0) +
        (w.bareHands ? 0.8 : 0) +
        (w.rinseUs > 250 ? 0.4 : 0)
      );
    case "inclusions":
      return (
        (w.lint ? 1.3 : 0) +
        (w.dustGrade >= 4 ? 1.3 : 0) +
        (w.carryOver > 0 ? 1.3 : 0) +
        (w.ovenDirt ? 1.3 : 0) +
        (w.fused ? 1.3 : 0) +
        (w.spatter ? 1.3 : 0) +
        (w.reclaim > 60 ? 0.9 : 0) +
        (w.powderDamp ? 0.8 : 0) +
        (w.oldPaint ? 0.7 : 0)
      );
    case "light-coverage":
      return Math.max(0, 62 - o.filmUm) / 18;
    case "sags":
      return (
        Math.max(0, bed - 1.3) * 3 +
        (w.flow === "high" ? Math.max(0, bed - 0.95) * 3 + 0.5 : 0) +
        (w.metalC > 70 ? 0.7 : 0) +
        (w.fastHeat ? 0.7 : 0)
      );
    case "back-ionisation":
      return o.chargeOver * 1.3;
    case "colour-shift":
      return (
        o.overBake * 0.9 +
        (w.carryOver > 0 ? 1 : 0) +
        (w.lotOff ? 1.1 : 0) +
        Math.max(0, 48 - o.filmUm) / 14 +
        (w.burnerInAir ? 1 : 0) +
        (w.hotService ? 1.2 : 0)
      );
    case "gloss-off":
      return (
        o.overBake * 0.8 +
        Math.max(0, 0.75 - o.cure) * 3 +
        (w.lotOff ? 1.1 : 0) +
        (w.carryOver > 0 || w.silicone ? 1.1 : 0) +
        (w.reclaim > 60 ? 1 : 0) +
        Math.max(0, 45 - o.filmUm) / 12 +
        (w.powderDays > 400 ? 1 : 0) +
        (w.slowHeat ? 0.6 : 0)
      );
    case "soft-film":
      return Math.max(0, 0.8 - o.cure) * 3.5 + (w.hotService ? 1.1 : 0);
    case "brittle-film":
      return o.brittle * 1.4;
    case "adhesion-loss":
      return Math.max(0, 0.75 - o.bond) * 3;
    case "delamination":
      return (
        Math.max(0, 0.7 - o.bond) * 2 +
        (w.spot === "edge" && w.laserCut ? 1 : 0) +
        (o.filmUm < 40 && w.spot === "edge" ? 0.5 : 0) +
        (w.salt && w.water ? 0.4 : 0) +
        (w.saltMg > 50 ? 0.7 : 0)
      );
    case "blistering":
      return (
        o.moisture * 1.4 +
        Math.max(0, (w.saltMg - 25) / 30) +
        Math.max(0, (w.rinseUs - 150) / 180) +
        o.gas * 0.7 +
        Math.max(0, o.oilLeft - 0.5) +
        (w.lap && !w.lapSealed && w.water ? 1 : 0) +
        (w.oldPaint ? 0.8 : 0)
      );
    case "rust-creep":
      return isSteel ? broken * drive * barrier * (o.conversionG < 0.25 ? 1.5 : 0.9) : 0;
    case "edge-rust":
      return isSteel && w.spot === "edge"
        ? (w.cutAfter ? 1.3 : Math.max(0, 55 - o.filmUm) / 20 + (w.laserCut ? 0.7 : 0)) *
            (0.5 + 0.6 * drive) *
            (0.4 + 0.6 * barrier)
        : 0;
    case "seam-rust":
      return isSteel && w.spot === "seam"
        ? ((w.lap && !w.lapSealed ? 1.3 : 0) +
            o.moisture * 0.9 +
            (w.rinseUs > 250 ? 0.9 : 0) +
            (w.saltMg > 50 ? 0.8 : 0)) *
            (0.4 + 0.6 * drive)
        : 0;
    case "flash-rust":
      return o.bloom;
    case "chalking":
      return (
        (w.resin === "epoxy-rich" ? 1.2 * Math.min(2, w.sunYears) : 0) +
        (w.sunYears / (w.grade === "high" ? 8 : 3.5)) * (w.salt ? 1.15 : 0.9) +
        Math.max(0, 0.7 - o.cure)
      );
    case "bare-marks":
      return (w.knocked ? 1.3 : 0) + (w.touchedSoft ? 1.3 : 0) + (w.bareHands ? 0.4 : 0);
    case "coated-fit":
      return w.spot === "fit"
        ? (w.plugged ? 0 : 1.4) + Math.max(0, bed - 1.3) * 2 + (w.knocked ? 0.8 : 0) + (w.boothAir > 0.9 ? 0.8 : 0)
        : 0;
    case "pinpoint-rust":
      return isSteel
        ? (Math.max(0, w.profileUm - 60) / 28 +
            Math.max(0, 50 - o.filmUm) / 14 +
            (w.dustGrade >= 4 ? 0.9 : 0) +
            w.rustIn * (w.blasted ? 0.2 : 0.8) +
            (w.saltMg > 50 ? 0.7 : 0)) *
            (0.5 + 0.5 * drive)
        : 0;
    case "filiform":
      return w.metal === "aluminium"
        ? (broken + (w.spot === "edge" ? 0.5 : 0.15)) *
            (0.5 + 0.7 * drive) *
            (o.conversionG < 0.3 || w.etch < 0.7 ? 1.5 : 0.7)
        : 0;
    default:
      return 0;
  }
}

export { outcomeOf };
