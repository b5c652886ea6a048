import type { ThreadRecord } from "./thread";

export type Rework = "scuff-and-recoat" | "strip";
/** One way through the shop: the first, or what follows a decision to recoat or to strip. */
export type Pass = {
  readonly number: number;
  /** The decision that sent it back; null for the first pass. */
  readonly after: { readonly decision: Rework; readonly record: ThreadRecord } | null;
  readonly records: readonly ThreadRecord[];
};

const reworkOf = (record: ThreadRecord): Rework | null => {
  const decision = record.details.disposition?.[0]?.decision;
  return decision === "scuff-and-recoat" || decision === "strip" ? decision : null;
};

/** The thread cut at each decision to recoat or strip, in order of time; the decision belongs to the pass it ends. Always at least one pass. */
export function passesOf(current: readonly ThreadRecord[]): readonly Pass[] {
  const passes: { number: number; after: Pass["after"]; records: ThreadRecord[] }[] = [
    { number: 1, after: null, records: [] },
  ];
  for (const record of current) {
    passes.at(-1)?.records.push(record);
    const decision = reworkOf(record);
    if (decision) passes.push({ number: passes.length + 1, after: { decision, record }, records: [] });
  }
  return passes;
}

/**
 * What a pass is judged on: its own film, cure and tests; and for what came before the coat, everything since the
 * metal was last bare. A recoat keeps the first preparation and wash, a strip keeps nothing.
 */
export function evidenceFor(passes: readonly Pass[], index: number): readonly ThreadRecord[] {
  const bare = passes.slice(0, index + 1).findLastIndex((p) => p.after === null || p.after.decision === "strip");
  return passes.slice(bare, index + 1).flatMap((p) => p.records);
}
