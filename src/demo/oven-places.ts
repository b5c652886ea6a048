/** Where racks hang in Oven 1: three columns from the back to the door. */
export const ovenPlaces = (["A", "B", "C"] as const).flatMap((column, i) =>
  [3, 2, 1].map((row, j) => ({
    id: `${column}${row}`,
    at: [14 + 36 * i, 12 + 38 * j] as [number, number],
    note: row === 1 ? "by the door" : "",
  })),
);
