import { type Rework, reworkOf } from "@/core/line";
import type { ThreadRecord } from "./thread";

/** One way through the shop: the first, or what follows a decision to wipe off, to recoat or to strip. */
export type Pass = {
  readonly number: number;
  /** The decision that sent it back; null for the first pass. */
  readonly after: { readonly decision: Rework; readonly record: ThreadRecord } | null;
  readonly records: readonly ThreadRecord[];
};

const sentBackBy = (record: ThreadRecord): Rework | null => reworkOf(record.details.disposition?.[0]?.decision);

/** The thread cut at each decision to wipe off, recoat or strip, in order of time; the decision belongs to the pass it ends. Always at least one pass. */
export function passesOf(current: readonly ThreadRecord[]): readonly Pass[] {
  const passes: { number: number; after: Pass["after"]; records: ThreadRecord[] }[] = [
    { number: 1, after: null, records: [] },
  ];
  for (const record of current) {
    passes.at(-1)?.records.push(record);
    const decision = sentBackBy(record);
    if (decision) passes.push({ number: passes.length + 1, after: { decision, record }, records: [] });
  }
  return passes;
}

/** The pass that what is under this one's powder began with: powder wiped off changes nothing of that. */
export const passUnder = (passes: readonly Pass[], index: number): number =>
  Math.max(
    0,
    passes.slice(0, index + 1).findLastIndex((p) => p.after?.decision !== "wipe-off"),
  );
/** The decision whose metal or film this pass goes over; null for the first metal. */
export const sentBackFor = (rack: { readonly passes: readonly Pass[]; readonly pass: number }): Rework | null =>
  rack.passes[passUnder(rack.passes, rack.pass)]?.after?.decision ?? null;

/** What came off with the powder that was wiped off. */
const ofLoosePowder: ReadonlySet<string> = new Set(["coat", "lamp-check", "powder-height", "pre-flight"]);

/** Ids of what powder that was wiped off took with it: its coats and looks, and the drying where it was rinsed. */
export function wipedOff(passes: readonly Pass[]): ReadonlySet<string> {
  const ids = new Set<string>();
  for (const [i, pass] of passes.entries()) {
    if (pass.after?.decision !== "wipe-off") continue;
    const rinsed = pass.after.record.details.disposition?.[0]?.rinsed === true;
    for (const r of passes[i - 1]?.records ?? []) if (ofLoosePowder.has(r.base.kind)) ids.add(r.base.id);
    if (rinsed)
      for (const r of passes.slice(0, i).flatMap((p) => p.records))
        if (r.base.kind === "dry-off" || r.details.passage?.[0]?.stage === "dry-off") ids.add(r.base.id);
  }
  return ids;
}

/**
 * What a pass is judged on: its own film, cure and tests; and for what came before the coat, everything since the
 * metal was last bare. A recoat keeps the first preparation and wash; powder wiped off keeps them without itself, and without
 * the drying where it was rinsed; a strip keeps nothing.
 */
export function evidenceFor(passes: readonly Pass[], index: number): readonly ThreadRecord[] {
  const bare = passes.slice(0, index + 1).findLastIndex((p) => p.after === null || p.after.decision === "strip");
  const own = passes.slice(0, index + 1);
  const gone = wipedOff(own);
  return own.slice(bare).flatMap((p) => p.records.filter((r) => !gone.has(r.base.id)));
}
