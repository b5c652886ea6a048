import type { SpotGroup } from "@/core/plan";

export type Face = {
  id: string;
  name: string;
  outline: readonly (readonly [number, number])[];
  recessFromY: number | null;
  spots: readonly { id: string; at: readonly [number, number]; note: string; group?: SpotGroup }[];
};

/** A spot this near above a recess line counts as in it, in the sketch’s hundredths. */
const RECESS_REACH = 10;

/** The film face by face from the means of its spots; recess and edges are groups of their own, since a face's mean hides what its inside corner lacks. */
export function faceFilms(faces: readonly Face[], meanBySpot: ReadonlyMap<string, number>) {
  const groups = faces.flatMap((f) => {
    const recess = f.spots.filter(
      (s) => s.group === "recess" || (f.recessFromY !== null && s.at[1] > f.recessFromY - RECESS_REACH),
    );
    const edge = f.spots.filter((s) => s.group === "edge");
    const own = (spots: typeof recess, id: string, name: string) =>
      spots.length > 0 && spots.length < f.spots.length
        ? [{ id: `${f.id}-${id}`, name: `${f.name}: ${name}`, spots }]
        : [];
    return [
      { id: f.id, name: f.name, spots: f.spots },
      ...own(recess, "recess", "at the recess"),
      ...own(edge, "edge", "on its edges"),
    ];
  });
  return groups.map((f) => {
    const own = f.spots.flatMap((s) => meanBySpot.get(s.id) ?? []);
    return {
      id: f.id,
      name: f.name,
      meanUm: own.length > 0 ? own.reduce((a, b) => a + b, 0) / own.length : null,
      lowestUm: own.length > 0 ? Math.min(...own) : null,
      highestUm: own.length > 0 ? Math.max(...own) : null,
      spots: own.length,
      means: own,
      whole: faces.some((w) => w.id === f.id),
    };
  });
}
