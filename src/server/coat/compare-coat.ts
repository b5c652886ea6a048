import {
  type BeforeAfter,
  beforeAfter,
  type Change,
  type Compared,
  type Setting,
  USUAL_FROM,
  whatChanged,
} from "@/core/coating";
import { type Learnt, learnt, transferEfficiency } from "@/core/powder";
import type { PastCoat } from "./coat-history";

/** What is compared between two racks, in the order of the booth. */
const numbers = [
  ["kv", "kv"],
  ["currentUa", "currentUa"],
  ["gunAirKPa", "gunAirKPa"],
  ["distanceMm", "distanceMm"],
  ["earthMohm", "earthMohm"],
  ["hookCycles", "hookCycles"],
  ["reclaimPercent", "reclaimPercent"],
  ["metalC", "metalC"],
  ["boothAirSeen", "boothAirMPerS"],
  ["humidity", "humidity"],
  ["dewPointC", "dewPointC"],
  ["blastUm", "blastUm"],
] as const satisfies readonly (readonly [keyof PastCoat, string])[];
const words = [
  ["lot", "lot"],
  ["by", "painter"],
  ["booth", "booth"],
  ["gun", "gun"],
  ["situation", "situation"],
] as const satisfies readonly (readonly [keyof PastCoat, string])[];

/** Draught as it was set down with the coat, else as it was last read in the booth. */
const seen = (coat: PastCoat): PastCoat => ({ ...coat, boothAirSeen: coat.boothAirMPerS ?? coat.boothAirSeen });

export type CoatCompared = {
  readonly good: PastCoat | null;
  readonly changes: readonly Change[];
  readonly same: number;
  readonly notKnown: readonly string[];
};

/** This rack's coat against the last one accepted before it, ranked by what is usual among the others. Pure; O(past coats). */
export function compareCoat(mine: PastCoat, past: readonly PastCoat[]): CoatCompared {
  const older = past.filter((p) => p.rackId !== mine.rackId && p.at < mine.at).map(seen);
  const good = older.find((p) => p.decision === "accept") ?? null;
  if (!good) return { good: null, changes: [], same: 0, notKnown: [] };
  const now = seen(mine);
  // What is usual is what good racks had; with too few of them, what all had.
  const accepted = older.filter((p) => p.decision === "accept");
  const usualOf = accepted.length >= USUAL_FROM ? accepted : older;
  const compared: Compared[] = [
    ...numbers.map(
      ([key, name]): Compared => ({
        kind: "number",
        name,
        now: now[key],
        good: good[key],
        usual: usualOf.flatMap((p) => p[key] ?? []),
      }),
    ),
    ...words.map(
      ([key, name]): Compared => ({
        kind: "word",
        name,
        now: now[key],
        good: good[key],
        usual: usualOf.flatMap((p) => p[key] ?? []),
      }),
    ),
  ];
  const found = whatChanged(compared);
  return found.ok ? { good, ...found.value } : { good, changes: [], same: 0, notKnown: [] };
}

export type SettingMoved = {
  readonly setting: Setting | "lot";
  readonly from: number | string;
  readonly to: number | string;
  readonly since: Date;
  readonly film: BeforeAfter;
};
/** A setting that moved by less than this share is not called changed. */
const MOVED_SHARE = 0.15;
/** Racks on each side. */
const SIDE = 8;

/**
 * The last change of each setting among past coats, with the film before and after it: whether it helped. A setting is
 * changed where the median of the racks from then on lies a seventh or more from the median before it; a lot where its
 * name does. Pure; O(settings × coats).
 */
export function movedSettings(past: readonly PastCoat[], targetUm: number): readonly SettingMoved[] {
  const inOrder = [...past]
    .map(seen)
    .reverse()
    .filter((p) => p.meanUm !== null);
  const moved: SettingMoved[] = [];
  const film = (coats: readonly PastCoat[]) => coats.flatMap((c) => c.meanUm ?? []);
  const compare = (at: number) =>
    beforeAfter(film(inOrder.slice(Math.max(0, at - SIDE), at)), film(inOrder.slice(at, at + SIDE)), targetUm);
  for (const key of ["kv", "gunAirKPa", "boothAirSeen", "distanceMm"] as const) {
    const values = inOrder.map((c) => c[key]);
    for (let i = inOrder.length - 2; i >= 2; i--) {
      const [before, after] = [middle(values.slice(Math.max(0, i - SIDE), i)), middle(values.slice(i, i + SIDE))];
      const [last, first] = [values[i - 1], values[i]];
      if (
        before === null ||
        after === null ||
        last === null ||
        first === null ||
        last === undefined ||
        first === undefined
      )
        continue;
      if (
        Math.abs(after - before) < MOVED_SHARE * Math.abs(before) ||
        Math.abs(first - last) < MOVED_SHARE * Math.abs(last)
      )
        continue;
      const judged = compare(i);
      if (judged.ok)
        moved.push({
          setting: key === "boothAirSeen" ? "boothAirMPerS" : key,
          from: before,
          to: after,
          since: (inOrder[i] as PastCoat).at,
          film: judged.value,
        });
      break;
    }
  }
  for (let i = inOrder.length - 2; i >= 2; i--) {
    const [a, b] = [inOrder[i - 1], inOrder[i]];
    if (!a || !b || a.lot === b.lot) continue;
    const judged = compare(i);
    if (judged.ok) moved.push({ setting: "lot", from: a.lot, to: b.lot, since: b.at, film: judged.value });
    break;
  }
  return moved.sort((a, b) => b.since.getTime() - a.since.getTime());
}

function middle(values: readonly (number | null)[]): number | null {
  const known = values.filter((v): v is number => v !== null).sort((a, b) => a - b);
  return known.length === 0 ? null : (known[Math.floor(known.length / 2)] as number);
}

/** Transfer efficiency learnt from the hopper's weights of past coats; null where none was weighed and measured. O(coats). */
export function learntTransfer(
  past: readonly PastCoat[],
  part: { readonly areaM2: number | null; readonly specificGravity: number },
): Learnt | null {
  const shares = past.flatMap((c) => {
    if (c.usedKg === null || c.meanUm === null || part.areaM2 === null) return [];
    const share = transferEfficiency({
      areaM2: part.areaM2 * c.pieces,
      thicknessUm: c.meanUm,
      specificGravity: part.specificGravity,
      usedKg: c.usedKg,
    });
    return share.ok ? [share.value] : [];
  });
  const found = learnt(shares);
  return found.ok ? found.value : null;
}
