const third = (v: number, words: readonly [string, string, string]) => words[v < 34 ? 0 : v < 67 ? 1 : 2];
/** Where a place lies on a face of 100 by 100, in words: upper left, middle, lower right. */
export function placeWords(x: number, y: number): string {
  const [row, column] = [third(y, ["upper", "", "lower"]), third(x, ["left", "", "right"])];
  return [row, column].filter(Boolean).join(" ") || "middle";
}
