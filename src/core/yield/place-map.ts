import { wilsonInterval } from "../statistics";

/** Cells a face is parted in, each way: as fine as a hand points. */
export const MAP_CELLS = 8;

export type PlaceSeen = {
  readonly rack: string;
  readonly face: string;
  /** Of the face, 0–100 each way. */
  readonly x: number;
  readonly y: number;
};
export type MapCell = {
  readonly face: string;
  readonly column: number;
  readonly row: number;
  /** Racks with a place in it, each once. */
  readonly racks: readonly string[];
  /** Of the racks on which this face was looked at, 0–1, with 95 %; null where none is on record. */
  readonly share: number | null;
  readonly interval: readonly [number, number] | null;
};

/** The cell a place of a face falls into; what lies on the far edge belongs to the last. */
export const cellOf = (at: number): number => Math.min(MAP_CELLS - 1, Math.max(0, Math.floor((at / 100) * MAP_CELLS)));

/**
 * Places of many racks added up on the faces of their part: of each cell the racks that had one there, and their share of the
 * racks on which that face was looked at. The most first. O(places). Source of the interval: Wilson 1927.
 */
export function placeMap(places: readonly PlaceSeen[], looked: ReadonlyMap<string, number>): readonly MapCell[] {
  const cells = new Map<string, { face: string; column: number; row: number; racks: Set<string> }>();
  for (const p of places) {
    const [column, row] = [cellOf(p.x), cellOf(p.y)];
    const key = `${p.face} ${column} ${row}`;
    const cell = cells.get(key) ?? { face: p.face, column, row, racks: new Set<string>() };
    cell.racks.add(p.rack);
    cells.set(key, cell);
  }
  return [...cells.values()]
    .map(({ racks, ...cell }): MapCell => {
      const of = looked.get(cell.face) ?? 0;
      // A place that was noted was looked at, whatever was ticked.
      const n = Math.max(of, racks.size);
      return {
        ...cell,
        racks: [...racks].sort(),
        share: of === 0 ? null : racks.size / n,
        interval: of === 0 ? null : wilsonInterval(racks.size, n),
      };
    })
    .sort(
      (a, b) => b.racks.length - a.racks.length || a.face.localeCompare(b.face) || a.row - b.row || a.column - b.column,
    );
}
