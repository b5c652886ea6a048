/** A seeded stream of random numbers: the same seed gives the same line. */
export type Random = {
  /** Uniform in [0, 1). */
  readonly uniform: () => number;
  /** Normal, by Box–Muller. */
  readonly normal: (mean: number, sd: number) => number;
  readonly chance: (probability: number) => boolean;
  readonly pick: <T>(items: readonly T[]) => T;
};

/** mulberry32: 32 bits of state, period 2³², ample for a made-up shop. */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  const uniform = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const normal = (mean: number, sd: number) =>
    mean + sd * Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform());
  return {
    uniform,
    normal,
    chance: (probability) => uniform() < probability,
    pick: (items) => {
      if (items.length === 0) throw new RangeError("pick from nothing");
      return items[Math.floor(uniform() * items.length)] as (typeof items)[number];
    },
  };
}
