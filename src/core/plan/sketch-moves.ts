import { awayFrom, type Face, type SketchPoint, sidesOf } from "./sketch";

const FEWEST_CORNERS = 3;
/** On the sketch's field, in whole hundredths. */
export const onField = ([x, y]: SketchPoint): SketchPoint => {
  const within = (c: number) => Math.min(100, Math.max(0, Math.round(c)));
  return [within(x), within(y)];
};
const at = <T>(items: readonly T[], i: number, over: (item: T) => T): T[] =>
  items.map((item, j) => (j === i ? over(item) : item));

export const moveCorner = (face: Face, i: number, to: SketchPoint): Face => ({
  ...face,
  outline: at(face.outline, i, () => onField(to)),
});
/** A corner more, in the side that is nearest to it. O(corners). */
export function addCorner(face: Face, place: SketchPoint): Face {
  const p = onField(place);
  const away = sidesOf(face.outline).map((side) => awayFrom(p, side));
  const side = away.indexOf(Math.min(...away));
  return { ...face, outline: [...face.outline.slice(0, side + 1), p, ...face.outline.slice(side + 1)] };
}
/** A corner less; the last three stay. */
export const removeCorner = (face: Face, i: number): Face =>
  face.outline.length <= FEWEST_CORNERS ? face : { ...face, outline: face.outline.filter((_, j) => j !== i) };

export const moveSpot = (face: Face, i: number, to: SketchPoint): Face => ({
  ...face,
  spots: at(face.spots, i, (s) => ({ ...s, at: onField(to) })),
});
/** An area moved as it is, kept within the field. */
export function moveArea(face: Face, i: number, by: SketchPoint): Face {
  return {
    ...face,
    areas: at(face.areas, i, (a) => {
      const low = (axis: 0 | 1) => Math.min(a.from[axis], a.to[axis]);
      const high = (axis: 0 | 1) => Math.max(a.from[axis], a.to[axis]);
      const step = (axis: 0 | 1) => Math.round(Math.max(-low(axis), Math.min(100 - high(axis), by[axis])));
      const move = ([x, y]: SketchPoint): SketchPoint => [x + step(0), y + step(1)];
      return { ...a, from: move(a.from), to: move(a.to) };
    }),
  };
}
/** An area's one end dragged: its size. */
export const sizeArea = (face: Face, i: number, to: SketchPoint): Face => ({
  ...face,
  areas: at(face.areas, i, (a) => ({ ...a, to: onField(to) })),
});

/** Whether a place is in an area. */
export const isIn = ([x, y]: SketchPoint, area: { readonly from: SketchPoint; readonly to: SketchPoint }): boolean => {
  const between = (c: number, a: number, b: number) => c >= Math.min(a, b) && c <= Math.max(a, b);
  return between(x, area.from[0], area.to[0]) && between(y, area.from[1], area.to[1]);
};
/** Of a place on a face: how closely it is looked at, or that it stays bare. The area drawn last is on top. */
export const kindAt = (face: Pick<Face, "zone" | "areas">, place: SketchPoint): Face["areas"][number]["kind"] =>
  face.areas.findLast((a) => isIn(place, a))?.kind ?? face.zone;
