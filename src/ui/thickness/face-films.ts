export type Face = {
  id: string;
  name: string;
  outline: readonly (readonly [number, number])[];
  recessFromY: number | null;
  spots: readonly { id: string; at: readonly [number, number]; note: string }[];
};

/** A spot this near above a recess line counts as in it, in the sketch’s hundredths. */
const RECESS_REACH = 10;

/** The film face by face from the means of its spots; a recess is a group of its own, since a face's mean hides what its inside corner lacks. */
export function faceFilms(faces: readonly Face[], meanBySpot: ReadonlyMap<string, number>) {
  const groups = faces.flatMap((f) => {
    const recess = f.spots.filter((s) => f.recessFromY !== null && s.at[1] > f.recessFromY - RECESS_REACH);
    const whole = { id: f.id, name: f.name, spots: f.spots };
    return recess.length > 0 && recess.length < f.spots.length
      ? [whole, { id: `${f.id}-recess`, name: `${f.name}: at the recess`, spots: recess }]
      : [whole];
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
    };
  });
}
