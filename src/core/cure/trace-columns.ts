import { extremesPerColumn, firstFrom } from "../control-charts";
import type { Trace } from "./trace";

/**
 * Which samples of a trace to draw between two moments, in stretches without a missing number: in each column the first,
 * the lowest, the highest and the last, so that no excursion is lost. O(samples between).
 */
export function traceColumns(trace: Trace, fromS: number, toS: number, columns: number): number[][] {
  const first = Math.max(0, firstFrom(trace.timeS, fromS) - 1);
  const last = Math.min(trace.timeS.length, firstFrom(trace.timeS, toS) + 1);
  const stretches: number[][] = [];
  let start = -1;
  for (let i = first; i <= last; i++) {
    const there = i < last && trace.tempC[i] !== null;
    if (there && start < 0) start = i;
    if (!there && start >= 0) {
      const [times, values] = [trace.timeS.slice(start, i), trace.tempC.slice(start, i) as number[]];
      const from = start;
      stretches.push(extremesPerColumn(times, values, fromS, toS, columns).map((at) => at + from));
      start = -1;
    }
  }
  return stretches;
}

/** A trace with no more samples than are wanted, each excursion kept. What is missing stays missing. */
export function thinTrace(trace: Trace, columns: number): Trace {
  if (trace.timeS.length <= 4 * columns) return trace;
  const [from, to] = [trace.timeS[0] as number, trace.timeS.at(-1) as number];
  const timeS: number[] = [];
  const tempC: (number | null)[] = [];
  for (const stretch of traceColumns(trace, from, to, columns)) {
    const before = (stretch[0] ?? 0) - 1;
    if (before >= 0 && trace.tempC[before] === null) {
      timeS.push(trace.timeS[before] as number);
      tempC.push(null);
    }
    for (const i of stretch) {
      timeS.push(trace.timeS[i] as number);
      tempC.push(trace.tempC[i] as number);
    }
  }
  return { timeS, tempC };
}
