/** Index of the first of sorted numbers that is not under a limit. O(log n). */
export function firstFrom(sorted: ArrayLike<number>, limit: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((sorted[middle] as number) < limit) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * Which points of a long series to draw between two moments, so that no excursion is lost: in each column of the drawing
 * the first, the lowest, the highest and the last; and one point on either side, so that the line runs on. In order of
 * time. With no more points than four a column all are kept. O(points between), after a search.
 */
export function extremesPerColumn(
  times: ArrayLike<number>,
  values: ArrayLike<number>,
  from: number,
  to: number,
  columns: number,
): number[] {
  const first = Math.max(0, firstFrom(times, from) - 1);
  const last = Math.min(times.length, firstFrom(times, to) + 1);
  const out: number[] = [];
  if (last - first <= columns * 4) {
    for (let i = first; i < last; i++) out.push(i);
    return out;
  }
  const width = (to - from) / columns;
  let i = first;
  while (i < last) {
    const column = Math.floor(((times[i] as number) - from) / width);
    const start = i;
    let [low, high] = [i, i];
    while (i < last && Math.floor(((times[i] as number) - from) / width) === column) {
      if ((values[i] as number) < (values[low] as number)) low = i;
      if ((values[i] as number) > (values[high] as number)) high = i;
      i++;
    }
    let before = -1;
    for (const at of [start, Math.min(low, high), Math.max(low, high), i - 1]) {
      if (at > before) out.push(at);
      before = Math.max(before, at);
    }
  }
  return out;
}
