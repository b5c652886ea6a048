import { atMost } from "../limits";

/** What powder over an old, cured film asks for before it goes on. */
export const recoatAsks = ["scuff", "earth", "voltage", "voltage-reduced", "tape-test", "photo"] as const;
export type RecoatAsk = (typeof recoatAsks)[number];

/**
 * What is still asked of a coat over an old film: the film scuffed since it was sent back, the earth read (an old film
 * insulates the hook too), the gun's voltage noted and no higher than is set for a recoat, kV (null where no sheet and no
 * earlier coat says). Where the old film is not the shop's own nobody here knows how it holds: a tape test on it, and a
 * photo. Source: shop practice, docs/methods.md.
 */
export function recoatOpen(facts: {
  readonly scuffed: boolean;
  readonly earthRead: boolean;
  readonly kv: number | null;
  readonly mostKv: number | null;
  /** Null where the old film is the shop's own. */
  readonly strangers: { readonly taped: boolean; readonly photographed: boolean } | null;
}): readonly RecoatAsk[] {
  const { scuffed, earthRead, kv, mostKv, strangers } = facts;
  const open: Record<RecoatAsk, boolean> = {
    scuff: !scuffed,
    earth: !earthRead,
    voltage: kv === null,
    "voltage-reduced": kv !== null && mostKv !== null && !atMost(kv, mostKv),
    "tape-test": strangers !== null && !strangers.taped,
    photo: strangers !== null && !strangers.photographed,
  };
  return recoatAsks.filter((ask) => open[ask]);
}
