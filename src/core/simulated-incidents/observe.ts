import type { FindingState } from "../diagnosis";
import type { Random } from "../statistics/random";
import { type Outcome, outcomeOf, type World } from "./world";

/** How often somebody who looks says the wrong thing. */
const WRONG = 0.06;

/**
 * What somebody would find who looked: of the look, the place, the pattern and what people remember. By the piece as it is,
 * with an error now and then. Null of what cannot be told by looking, or is the record's to say.
 */
export function observe(finding: string, defect: string, w: World, o: Outcome, random: Random): FindingState | null {
  const so = truth(finding, defect, w, o, random);
  if (so === null) return null;
  return so !== random.chance(WRONG) ? "present" : "absent";
}

function truth(finding: string, defect: string, w: World, o: Outcome, random: Random): boolean | null {
  const bed = o.faceUm / 75;
  const steel = w.metal.includes("rolled");
  switch (finding) {
    case "film-high":
      return o.filmUm > 90;
    case "film-low":
      return o.filmUm < 60;
    case "film-right":
      return o.filmUm >= 60 && o.filmUm <= 90;
    case "film-uneven":
      return !w.gunCharges || w.boothAir > 0.8 || w.earthMohm > 5 || w.hopperOver;
    case "primer-film-low":
      return w.primer && w.primerUm < 40;
    case "texture-coarse":
      return defect === "orange-peel" || defect === "sags" ? bed > 1.15 || w.slowHeat : bed > 1.5;
    case "texture-tight":
      return bed < 0.75 || w.flow === "low" || w.reclaim > 60 || w.powderDays > 400;
    case "texture-starred":
      return o.chargeOver > 0.6;
    case "hole-to-metal":
      return defect === "pinholes" && o.gas > 0.4;
    case "residue-in-crater":
      return defect === "craters" && (o.oilLeft > 0.3 || w.dewC > -15 || w.silicone);
    case "specks-other-colour":
      return w.carryOver > 0 && (defect === "inclusions" || random.chance(0.4));
    case "fibre-shape":
      return defect === "inclusions" && w.lint;
    case "fused-bits":
      return w.fused;
    case "weld-spatter-seen":
      return w.spatter;
    case "yellow-brown":
      return o.overBake > 1 || w.burnerInAir || w.hotService;
    case "chalk-rubs-off":
      return defect === "chalking";
    case "liquid-in-blister":
      return (
        defect === "blistering" && (w.saltMg > 40 || w.rinseUs > 200 || o.moisture > 0.7 || (w.lap && !w.lapSealed))
      );
    case "flake-back-scale":
      return w.metal === "hot-rolled-steel" && !w.blasted;
    case "flake-back-rust":
      return steel && ((w.rustIn > 0.5 && !w.blasted) || o.bloom > 1);
    case "flake-back-clean":
      return (
        o.bond < 0.6 &&
        !(w.rustIn > 0.5) &&
        !(w.metal === "hot-rolled-steel" && !w.blasted) &&
        o.cure > 0.7 &&
        w.coatsUnder === 0 &&
        !w.primerFull
      );
    case "breaks-between-coats":
      return (w.coatsUnder > 0 && !w.scuffed) || (w.primer && w.primerFull) || w.oldPaint;
    case "metal-pitted":
      return w.rustIn > 0.6;
    case "fingerprint-shape":
      return w.bareHands || w.touchedSoft;
    case "mark-in-film-only":
      return w.touchedSoft;
    case "crisp-edge":
      return w.knocked || (w.fit && !w.plugged);
    case "only-recesses":
      return w.spot === "recess";
    case "only-edges":
      return w.spot === "edge";
    case "only-far-faces":
      return w.spot === "far";
    case "only-seams":
      return w.spot === "seam" || (w.spatter && defect === "inclusions");
    case "filter-side":
      return w.boothAir > 0.8;
    case "through-the-face":
      return w.spot === "face" && (defect === "pinpoint-rust" || defect === "blistering");
    case "near-damage":
      return w.knockHere;
    case "gets-worse-in-shift":
      return w.reclaim > 55 || w.fused;
    case "whole-load":
      return (
        w.spot === "face" &&
        !w.coldPlace &&
        !w.heavyInLoad &&
        !w.knocked &&
        !w.touchedSoft &&
        !w.knockHere &&
        w.metal !== "cast-aluminium"
      );
    case "one-hook-place":
      return w.earthMohm > 5;
    case "low-on-structure":
      return w.salt && w.water;
    case "sun-side":
      return defect === "chalking" && w.sunYears >= 2;
    case "years-in-sun":
      return w.sunYears >= 4;
    case "salt-exposure":
      return w.salt;
    case "standing-water":
      return w.water;
    case "impact-service":
      return w.knocks;
    case "cut-after-coating":
      return w.cutAfter;
    case "hot-service":
      return w.hotService;
    case "gun-close":
      return w.gunMm < 200;
    case "hopper-overfull":
      return w.hopperOver;
    case "powder-damp":
      return w.powderDamp || w.dewC > -12;
    case "charge-dropped":
      return !w.gunCharges;
    case "knocked-before-cure":
      return w.knocked;
    case "touched-at-flow":
      return w.touchedSoft;
    case "cooled-hard":
      return w.cooledHard;
    case "oven-dirty":
      return w.ovenDirt;
    case "burner-in-air":
      return w.burnerInAir;
    case "bare-hands":
      return w.bareHands;
    case "lint-left":
      return w.lint;
    case "incompatible-before":
      return w.silicone;
    case "etch-low":
      return w.etch < 0.7;
    case "probe-check-failed":
      return w.probeWrong;
    case "heat-up-slow":
      return w.slowHeat;
    case "heat-up-fast":
      return w.fastHeat;
    case "old-coating-left":
      return w.oldPaint;
    case "mill-scale-left":
      return w.metal === "hot-rolled-steel" && !w.blasted;
    case "solvent-flash-short":
      return w.flashMin < 5;
    case "coating-weight-low":
      return o.conversionG < 0.25;
    case "coating-weight-high":
      return o.conversionG > 1;
    case "primer-fully-cured":
      return w.primer && w.primerFull;
    case "pretreatment-wrong-for-metal":
      return !w.rightChemistry;
    case "seal-missed":
      return !w.seal;
    case "after-lot-change":
      return w.lotNew;
    case "after-bath-addition":
      return w.addition;
    case "only-castings":
      return w.metal === "cast-aluminium" && (o.gas > 0.4 || random.chance(0.2));
    case "only-recoats":
      return w.coatsUnder > 0;
    case "one-oven-place":
      return w.coldPlace;
    case "heavy-pieces-only":
      return w.heavyInLoad;
    case "heavy-section":
      return w.heavyInLoad;
    case "hidden-face":
      return w.farFace && w.spot === "far";
    case "water-break-fail":
      return o.oilLeft > 0.4;
    case "solvent-rub-fail":
      return o.cure < 0.75;
    case "solvent-rub-pass":
      return o.cure >= 0.9;
    case "air-wet":
      return w.dewC > -20;
    case "soluble-salt-high":
      return w.saltMg > 20;
    case "blast-dust-left":
      return w.dustGrade > 2;
    case "profile-low":
      return w.blasted && w.profileUm < 35;
    case "profile-high":
      return w.blasted && w.profileUm > 60;
    case "no-blast":
      return !w.blasted;
    case "solvent-wipe-missed":
      return !w.wiped;
    case "moisture-left":
      return o.moisture > 0.5;
    case "flash-rust-seen":
      return o.bloom > 1;
    case "line-stopped-wet":
      return w.stopS > 240;
    case "inhibitor-low":
      return w.inhibitor < 200;
    case "long-wait-before-coat":
      return w.bareHours > 4;
    case "rinse-dirty":
      return w.rinseUs > 100;
    case "cleaner-out":
      return w.cleaner < 0.8;
    case "conversion-out":
      return Math.abs(w.ph - 5.2) > 0.4;
    case "contact-time-short":
      return w.conversion && w.contactS < 45;
    case "pretreatment-skipped":
      return !w.conversion;
    case "prebake-missed":
      return (w.metal === "cast-aluminium" || w.metal === "galvanised") && w.prebakeC === null;
    case "prebake-too-cool":
      return w.prebakeC !== null && w.prebakeC < 200;
    case "schedule-of-other-powder":
      return w.otherSchedule;
    case "hold-short":
      return o.cure < 0.9;
    case "cure-index-high":
      return o.overBake > 1;
    case "oven-uneven":
      return w.ovenSpreadC > 20;
    case "timed-from-door":
      return w.fromDoor;
    case "kv-high":
      return w.kv > (w.coatsUnder > 0 ? 58 : 80);
    case "output-high":
      return w.airKPa > 75;
    case "output-low":
      return w.airKPa < 40;
    case "ground-poor":
      return w.earthMohm > 1;
    case "hooks-coated":
      return w.hookCycles > 5;
    case "booth-air-high":
      return w.boothAir > 0.6;
    case "reclaim-high":
      return w.reclaim > 40;
    case "sprayed-hot":
      return w.metalC > 60;
    case "powder-expired":
      return w.powderDays > 365;
    case "colour-change-before":
      return w.colourChange;
    case "existing-coating-under":
      return w.coatsUnder > 0;
    case "scuff-missed":
      return w.coatsUnder > 0 && !w.scuffed;
    case "open-lap-seam":
      return w.lap && !w.lapSealed;
    case "thermal-cut-edges":
      return w.laserCut;
    case "sharp-edges":
      return w.sharpEdges;
    case "fit-surface":
      return w.fit && w.spot === "fit";
    case "deep-recess":
      return w.recess && w.spot === "recess";
    case "weather-grade-low":
      return w.grade === "standard" && w.salt;
    case "indoor-chemistry-outdoors":
      return w.resin === "epoxy-rich";
    default:
      return null;
  }
}

export { outcomeOf };
