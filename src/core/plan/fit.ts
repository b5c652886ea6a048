import { err, ok, type Result } from "../result";
import type { Box } from "./part";

/** A place a part must go through: what its mouth lets in and what it carries. Lengths along the way of travel. */
export type Equipment = {
  readonly code: string;
  readonly name: string;
  readonly role: "booth" | "oven" | "washer" | "blast-room" | "cart" | "hook" | "rack";
  /** Clear inside, mm; null where it only carries. */
  readonly inside: Box | null;
  readonly mostKg: number | null;
};
/** Which side of the part lies along, across and up; named by what is up, since that is what a hand decides. */
export type Orientation = {
  readonly alongMm: number;
  readonly acrossMm: number;
  readonly upMm: number;
  readonly name: string;
};
export type FitAt = {
  readonly equipment: string;
  readonly role: Equipment["role"];
  readonly fits: boolean;
  /** Least room left on any side, mm; under zero by how much it is too large. Null where only weight counts. */
  readonly clearanceMm: number | null;
  readonly tight: "along" | "across" | "up" | "mass" | null;
  readonly overKg: number | null;
};
export type FitTried = {
  readonly orientation: Orientation;
  readonly at: readonly FitAt[];
  readonly fitsAll: boolean;
  readonly clearanceMm: number;
};
export type Fit = {
  readonly kind: "fit";
  readonly tried: readonly FitTried[];
  /** The orientation that passes everywhere with most room; null where none does. */
  readonly best: FitTried | null;
  /** Where none fits: the equipment that keeps it out in the orientation that comes nearest. */
  readonly keptOutBy: readonly FitAt[];
};

/** Places a part goes into; the others only carry it. */
const goneInto: ReadonlySet<Equipment["role"]> = new Set(["booth", "oven", "washer", "blast-room"]);
/**
 * What a fit says nothing of: rooms whose size nobody set up, by name; `nothing` where no room's size is known at all, so
 * that no way of turning a part was looked at.
 */
export function notSized(places: readonly Equipment[]): {
  readonly names: readonly string[];
  readonly nothing: boolean;
} {
  const passed = places.filter((p) => goneInto.has(p.role));
  return {
    names: passed.filter((p) => !p.inside).map((p) => p.name),
    nothing: passed.every((p) => !p.inside),
  };
}

/** Room a hand wants round a part, mm; a site can set its own. */
export const USUAL_MARGIN_MM = 50;

/** Six ways to turn a box, equal ones once. */
export function orientationsOf(box: Box): readonly Orientation[] {
  const sides: [string, number][] = [
    ["length", box.lengthMm],
    ["width", box.widthMm],
    ["height", box.heightMm],
  ];
  const seen = new Set<string>();
  const out: Orientation[] = [];
  for (const [upName, upMm] of [sides[2], sides[1], sides[0]] as [string, number][]) {
    const rest = sides.filter(([name]) => name !== upName) as [[string, number], [string, number]];
    for (const [along, across] of [rest, [rest[1], rest[0]]] as [[string, number], [string, number]][]) {
      const key = `${along[1]}|${across[1]}|${upMm}`;
      if (seen.has(key)) continue;
      seen.add(key);
      out.push({ alongMm: along[1], acrossMm: across[1], upMm, name: `${upName} up, ${along[0]} along` });
    }
  }
  return out;
}

/**
 * Every orientation of a part against every place it must pass, with the room left. Failures: `bad-size` (name, value).
 * O(orientations × equipment): a handful; 200 parts are tried in a few milliseconds.
 */
export function fitPart(
  part: { readonly box: Box; readonly massKg: number },
  equipment: readonly Equipment[],
  marginMm = USUAL_MARGIN_MM,
): Result<Fit> {
  for (const [name, value] of Object.entries({ ...part.box, massKg: part.massKg }))
    if (!(value > 0) || !Number.isFinite(value)) return err({ kind: "bad-size", name, value });
  if (!(marginMm >= 0)) return err({ kind: "bad-size", name: "margin, mm", value: marginMm });
  const tried = orientationsOf(part.box).map((orientation): FitTried => {
    const at = equipment.map((e) => fitAt(orientation, part.massKg, e, marginMm));
    const rooms = at.flatMap((a) => (a.clearanceMm === null ? [] : [a.clearanceMm]));
    return {
      orientation,
      at,
      fitsAll: at.every((a) => a.fits),
      clearanceMm: rooms.length ? Math.min(...rooms) : Number.POSITIVE_INFINITY,
    };
  });
  const byRoom = [...tried].sort((a, b) => b.clearanceMm - a.clearanceMm);
  const best = byRoom.find((t) => t.fitsAll) ?? null;
  return ok({ kind: "fit", tried, best, keptOutBy: best ? [] : (byRoom[0]?.at.filter((a) => !a.fits) ?? []) });
}

function fitAt(o: Orientation, massKg: number, e: Equipment, marginMm: number): FitAt {
  const overKg = e.mostKg !== null && massKg > e.mostKg ? massKg - e.mostKg : null;
  const base = { equipment: e.name, role: e.role, overKg };
  if (!e.inside) return { ...base, fits: overKg === null, clearanceMm: null, tight: overKg === null ? null : "mass" };
  const rooms: [FitAt["tight"], number][] = [
    ["along", e.inside.lengthMm - o.alongMm],
    ["across", e.inside.widthMm - o.acrossMm],
    ["up", e.inside.heightMm - o.upMm],
  ];
  const [tight, room] = rooms.reduce((a, b) => (b[1] < a[1] ? b : a));
  // The margin is wanted on both sides of the part.
  const clearanceMm = room - 2 * marginMm;
  const fits = clearanceMm >= 0 && overKg === null;
  return { ...base, fits, clearanceMm, tight: clearanceMm < 0 ? tight : overKg === null ? null : "mass" };
}

export type Loading = {
  readonly perRow: number;
  readonly rows: number;
  readonly perRack: number;
  /** What stops more: room across, room up, or what the rack carries. */
  readonly limitedBy: "across" | "up" | "mass";
  /** On average along a conveyor: pieces need not end at a metre. */
  readonly perMetre: number;
  readonly racksDeep: number;
  readonly racksLong: number;
  readonly perOven: number;
};

/**
 * How many hang on a rack, on a metre of conveyor and in an oven load, at a gap between pieces. A rack's frame is its
 * width and height; the oven takes racks side by side at the part's own depth. Failures: `bad-size`, `does-not-fit`.
 */
export function howManyHang(input: {
  readonly orientation: Orientation;
  readonly massKg: number;
  readonly rack: { readonly widthMm: number; readonly heightMm: number; readonly mostKg: number };
  readonly oven: { readonly lengthMm: number; readonly widthMm: number };
  readonly gapMm: number;
}): Result<Loading> {
  const { orientation: o, massKg, rack, oven, gapMm } = input;
  for (const [name, value] of Object.entries({
    massKg,
    rackWidthMm: rack.widthMm,
    rackHeightMm: rack.heightMm,
    rackMostKg: rack.mostKg,
    ovenLengthMm: oven.lengthMm,
    ovenWidthMm: oven.widthMm,
  }))
    if (!(value > 0) || !Number.isFinite(value)) return err({ kind: "bad-size", name, value });
  if (!(gapMm >= 0) || !Number.isFinite(gapMm)) return err({ kind: "bad-size", name: "gap, mm", value: gapMm });
  const along = (room: number, size: number) => Math.floor((room + gapMm) / (size + gapMm) + 1e-9);
  const perRow = along(rack.widthMm, o.alongMm);
  const rows = along(rack.heightMm, o.upMm);
  const byMass = Math.floor(rack.mostKg / massKg + 1e-9);
  if (perRow === 0 || rows === 0 || byMass === 0)
    return err({ kind: "does-not-fit", along: perRow === 0, up: rows === 0, mass: byMass === 0 });
  const byRoom = perRow * rows;
  const perRack = Math.min(byRoom, byMass);
  const racksDeep = Math.max(1, along(oven.widthMm, o.acrossMm));
  const racksLong = Math.max(1, Math.floor(oven.lengthMm / rack.widthMm + 1e-9));
  return ok({
    perRow,
    rows,
    perRack,
    limitedBy: byMass < byRoom ? "mass" : rows === 1 ? "up" : "across",
    perMetre: (1000 / (o.alongMm + gapMm)) * rows,
    racksDeep,
    racksLong,
    perOven: perRack * racksDeep * racksLong,
  });
}

/** A part against a site: how it passes, and where it does, how many hang and go into an oven load. */
export type FitAtSite = { readonly fit: Result<Fit>; readonly loading: Result<Loading> | null };

/**
 * The fit and the loading of one part by the site's own places: racks carry, the first oven bakes. Loading is null where
 * the part fits no way, or the site has no rack or oven. Failures as in `fitPart` and `howManyHang`.
 */
export function fitAtSite(
  part: { readonly box: Box; readonly massKg: number },
  places: readonly Equipment[],
  rooms: { readonly marginMm: number; readonly gapMm: number },
): FitAtSite {
  const fit = fitPart(
    part,
    places.filter((p) => p.role !== "rack"),
    rooms.marginMm,
  );
  const rack = places.find((p) => p.role === "rack");
  const oven = places.find((p) => p.role === "oven");
  if (!fit.ok || !fit.value.best || !rack?.inside || !oven?.inside) return { fit, loading: null };
  return {
    fit,
    loading: howManyHang({
      orientation: fit.value.best.orientation,
      massKg: part.massKg,
      rack: { widthMm: rack.inside.lengthMm, heightMm: rack.inside.heightMm, mostKg: rack.mostKg ?? MOST_RACK_KG },
      oven: { lengthMm: oven.inside.lengthMm, widthMm: oven.inside.widthMm },
      gapMm: rooms.gapMm,
    }),
  };
}
/** What a rack is taken to carry where the site does not say, kg. */
const MOST_RACK_KG = 1000;

/** A place on the part, mm from its left end and from its lower edge, seen from the front. */
export type HangPoint = { readonly xMm: number; readonly yMm: number };
export type Hanging = {
  readonly hangs: "level" | "tilts" | "tips";
  /** Tilt from level, degrees; with two points or more the part cannot swing while its weight is between them. */
  readonly tiltDeg: number;
  /** The end that hangs lower. */
  readonly lowEnd: "left" | "right" | null;
  /** Share of the weight on each point, left to right; what one point may have to carry. */
  readonly shares: readonly number[];
};
/** Beyond this tilt, degrees, wash liquid and powder lie unevenly. */
export const LEVEL_WITHIN_DEG = 5;

/**
 * Whether a part hangs or tips: its centre of mass against its hang points. Below two points it hangs with its weight
 * between them; outside them, or above its points, it turns. From one point it swings until its centre is below it.
 * Failures: `no-hang-points`, `points-in-one-place`.
 */
export function hangingOf(points: readonly HangPoint[], centreOfMass: HangPoint): Result<Hanging> {
  if (points.length === 0) return err({ kind: "no-hang-points" });
  const inOrder = [...points].sort((a, b) => a.xMm - b.xMm);
  const first = inOrder[0] as HangPoint;
  const last = inOrder[inOrder.length - 1] as HangPoint;
  const highest = Math.max(...points.map((p) => p.yMm));
  const drop = highest - centreOfMass.yMm;
  const round = (deg: number) => Math.round(deg * 10) / 10;
  const end = (toTheRight: number) => (toTheRight > 0 ? "right" : toTheRight < 0 ? "left" : null);
  if (inOrder.length === 1) {
    const offset = centreOfMass.xMm - first.xMm;
    if (drop <= 0) return ok({ hangs: "tips", tiltDeg: 180, lowEnd: null, shares: [1] });
    const tiltDeg = round((Math.atan2(Math.abs(offset), drop) * 180) / Math.PI);
    // The heavier side goes down.
    return ok({ hangs: tiltDeg <= LEVEL_WITHIN_DEG ? "level" : "tilts", tiltDeg, lowEnd: end(offset), shares: [1] });
  }
  const span = last.xMm - first.xMm;
  if (!(span > 0)) return err({ kind: "points-in-one-place", xMm: first.xMm });
  const right = (centreOfMass.xMm - first.xMm) / span;
  const shares = inOrder.map((_, i) => (i === 0 ? 1 - right : i === inOrder.length - 1 ? right : 0));
  if (right < 0 || right > 1 || drop <= 0)
    return ok({ hangs: "tips", tiltDeg: drop <= 0 ? 180 : 90, lowEnd: drop <= 0 ? null : end(right - 0.5), shares });
  // Hooks are level: the end whose hole sits higher on the part hangs lower.
  const tiltDeg = round((Math.atan2(Math.abs(last.yMm - first.yMm), span) * 180) / Math.PI);
  const lowEnd = end(last.yMm - first.yMm);
  return ok({ hangs: tiltDeg <= LEVEL_WITHIN_DEG ? "level" : "tilts", tiltDeg, lowEnd, shares });
}

/** Left standing below the lowest drain, mm, before it counts as held. */
export const DRAINS_WITHIN_MM = 10;
export type Draining = {
  readonly drains: "runs-out" | "holds" | "no-drain";
  /** Depth of liquid that stays under the lowest drain hole as the part hangs, mm; the whole height without one. */
  readonly standingMm: number;
  /** The lower corner that the liquid runs to. */
  readonly lowest: "left" | "right" | "level";
};

/**
 * Whether wash liquid runs out of a hollow part as it hangs: the depth left standing under its lowest drain hole, once it
 * has turned by its tilt. Positions are mm on the front face, from its left end and lower edge. Counts the hollow as one
 * space; a drain in each closed section is asked for separately. Failures: `bad-size`.
 */
export function drainingOf(input: {
  readonly drains: readonly HangPoint[];
  readonly lengthMm: number;
  readonly heightMm: number;
  /** Turned from level, degrees; positive where the left end hangs lower. */
  readonly tiltDeg: number;
}): Result<Draining> {
  const { drains, lengthMm, heightMm, tiltDeg } = input;
  for (const [name, value] of Object.entries({ lengthMm, heightMm }))
    if (!(value > 0) || !Number.isFinite(value)) return err({ kind: "bad-size", name, value });
  if (!Number.isFinite(tiltDeg) || Math.abs(tiltDeg) > 90)
    return err({ kind: "bad-size", name: "tilt, degrees", value: tiltDeg });
  const turn = (tiltDeg * Math.PI) / 180;
  const level = (p: HangPoint) => p.xMm * Math.sin(turn) + p.yMm * Math.cos(turn);
  const corners = [0, lengthMm].flatMap((xMm) => [0, heightMm].map((yMm) => level({ xMm, yMm })));
  const bottom = Math.min(...corners);
  const lowest = Math.abs(tiltDeg) < 0.5 ? "level" : tiltDeg > 0 ? "left" : "right";
  if (drains.length === 0) return ok({ drains: "no-drain", standingMm: Math.max(...corners) - bottom, lowest });
  const standingMm = Math.max(0, Math.min(...drains.map(level)) - bottom);
  return ok({ drains: standingMm <= DRAINS_WITHIN_MM + 1e-9 ? "runs-out" : "holds", standingMm, lowest });
}
