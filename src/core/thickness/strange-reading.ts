/** What a reading may be instead of a film. */
export type StrangeReading =
  | { readonly kind: "unit-jump"; readonly asUm: number; readonly slip: "mil-as-um" | "um-as-mil" }
  | { readonly kind: "off-the-part" }
  | { readonly kind: "far-off"; readonly usualUm: number };

/** Readings before it that are looked at, and how many it takes to know what is usual. */
const LOOKED_BACK = 12;
const USUAL_FROM = 3;
const UM_PER_MIL = 25.4;
/** A gauge held into the air, or on bare metal, reads nothing or nearly. */
const NOTHING_UM = 1;

/**
 * A reading in a batch that does not look like its neighbours: as mil among µm or µm among mil (within a third of them
 * once converted, and four times off as it stands), nothing at all (the gauge was off the part), or four times more or
 * less than is usual here. Null where it looks like the others, or too few were read. Only asked, never changed.
 */
export function strangeReading(valueUm: number, beforeUm: readonly number[]): StrangeReading | null {
  const near = beforeUm.slice(-LOOKED_BACK).sort((a, b) => a - b);
  if (valueUm < NOTHING_UM) return { kind: "off-the-part" };
  if (near.length < USUAL_FROM) return null;
  const usualUm = near[Math.floor(near.length / 2)] as number;
  const ratio = valueUm / usualUm;
  if (ratio > 1 / 4 && ratio < 4) return null;
  const alike = (um: number) => um > usualUm / 1.5 && um < usualUm * 1.5;
  if (ratio < 1 && alike(valueUm * UM_PER_MIL))
    return { kind: "unit-jump", asUm: valueUm * UM_PER_MIL, slip: "mil-as-um" };
  if (ratio > 1 && alike(valueUm / UM_PER_MIL))
    return { kind: "unit-jump", asUm: valueUm / UM_PER_MIL, slip: "um-as-mil" };
  return { kind: "far-off", usualUm };
}

/** A value this near to the one before it needs no look at the twelve. */
const LIKE_THE_LAST = 1.5;

/** Looks over readings one by one as they come; those it finds strange are no neighbours of the next. O(1) a reading. */
export class NeighbourWatch {
  private readonly near: number[] = [];
  look(valueUm: number): StrangeReading | null {
    const last = this.near.at(-1);
    const like =
      last !== undefined &&
      valueUm >= NOTHING_UM &&
      valueUm < last * LIKE_THE_LAST &&
      valueUm * LIKE_THE_LAST > last &&
      this.near.length >= USUAL_FROM;
    const strange = like ? null : strangeReading(valueUm, this.near);
    if (!strange) {
      this.near.push(valueUm);
      if (this.near.length > LOOKED_BACK) this.near.shift();
    }
    return strange;
  }
}

/** The readings of a batch that are unlike their neighbours, with their place in it. O(readings). */
export function strangeReadings(
  valuesUm: readonly number[],
): readonly { readonly index: number; readonly strange: StrangeReading }[] {
  const watch = new NeighbourWatch();
  return valuesUm.flatMap((value, index) => {
    const strange = watch.look(value);
    return strange ? [{ index, strange }] : [];
  });
}
