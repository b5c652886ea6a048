import { err, ok, type Result } from "../result";
import { seededRandom } from "../statistics/random";

/**
 * Some of a row of places, chosen at random from a seed that is kept, so that anyone can choose them again: a partial
 * shuffle, given back in order. Failure: `bad-input` (more than there are, or not whole). O(places).
 */
export function randomPlaces(places: number, wanted: number, seed: number): Result<readonly number[]> {
  if (!Number.isInteger(places) || places < 0 || places > 1_000_000)
    return err({ kind: "bad-input", name: "places", value: places });
  if (!Number.isInteger(wanted) || wanted < 0 || wanted > places)
    return err({ kind: "bad-input", name: "wanted", value: wanted });
  if (!Number.isInteger(seed)) return err({ kind: "bad-input", name: "seed", value: seed });
  const random = seededRandom(seed);
  const order = Array.from({ length: places }, (_, i) => i);
  for (let i = 0; i < wanted; i++) {
    const j = i + Math.floor(random.uniform() * (places - i));
    [order[i], order[j]] = [order[j] as number, order[i] as number];
  }
  return ok(order.slice(0, wanted).sort((a, b) => a - b));
}
