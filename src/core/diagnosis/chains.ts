import type { Knowledge, Part } from "./knowledge";

/** One step of a chain, with the words that lead to it from the step before; null for the first. */
export type ChainStep = {
  readonly cause: string;
  readonly label: string;
  readonly part: Part;
  readonly words: string | null;
};
/** Causes that act together, what stood behind first. */
export type Chain = readonly ChainStep[];

const order: Readonly<Record<Part, number>> = { root: 0, trigger: 1, mechanism: 2, condition: 3 };

/** The causes that act, joined by what leads to what: one chain for each group that hangs together, the strongest first. O(causes × links). */
export function chainsOf(
  knowledge: Knowledge,
  acting: readonly { readonly cause: string; readonly label: string; readonly part: Part; readonly strength: number }[],
): readonly Chain[] {
  const among = new Map(acting.map((c) => [c.cause, c]));
  const links = knowledge.links.filter((l) => among.has(l.from) && among.has(l.to));
  const led = new Set(links.map((l) => l.to));
  const starts = [...acting].sort(
    (a, b) =>
      Number(led.has(a.cause)) - Number(led.has(b.cause)) ||
      order[a.part] - order[b.part] ||
      b.strength - a.strength ||
      (a.cause < b.cause ? -1 : 1),
  );
  const seen = new Set<string>();
  const chains: ChainStep[][] = [];
  const follow = (cause: string, words: string | null, chain: ChainStep[]): void => {
    const found = among.get(cause);
    if (!found || seen.has(cause)) return;
    seen.add(cause);
    chain.push({ cause, label: found.label, part: found.part, words });
    const next = links
      .filter((l) => l.from === cause)
      .sort((a, b) => (among.get(b.to)?.strength ?? 0) - (among.get(a.to)?.strength ?? 0) || (a.to < b.to ? -1 : 1));
    for (const link of next) follow(link.to, link.words, chain);
    // What else led to a step of this chain belongs into it.
    for (const step of [...chain])
      for (const link of links) if (link.to === step.cause && !seen.has(link.from)) follow(link.from, "and", chain);
  };
  for (const start of starts) {
    const chain: ChainStep[] = [];
    follow(start.cause, null, chain);
    if (chain.length > 0) chains.push(chain);
  }
  const strongest = (chain: readonly ChainStep[]) => Math.max(...chain.map((s) => among.get(s.cause)?.strength ?? 0));
  return chains.sort((a, b) => strongest(b) - strongest(a));
}
