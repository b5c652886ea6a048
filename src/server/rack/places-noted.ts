import type { RackFile } from "./load-rack";

/** A place on the part that somebody noted under the lamp: to be read and looked at, whatever became of it. */
export type PlaceNoted = { readonly face: string; readonly x: number; readonly y: number; readonly what: string };

/** What was noted of this pass's coats under the lamp, each place once, in order of time; wiped fits are not film. */
export function placesNoted(rack: RackFile): readonly PlaceNoted[] {
  const seen = new Map<string, PlaceNoted>();
  for (const record of rack.latest)
    for (const { face, x, y, what } of record.details.light_spot ?? [])
      if (what !== "wiped") seen.set(`${face}/${x}/${y}`, { face, x, y, what });
  return [...seen.values()];
}
