import jStat from "jstat";

/**
 * Lower triangle L with L Lᵀ = A of a symmetric positive definite matrix, and what is solved with it. Throws where A is
 * none: whoever builds it adds its noise to the diagonal. O(n³).
 */
export function cholesky(a: readonly (readonly number[])[]) {
  const n = a.length;
  const lower = jStat.cholesky(a);
  const bad = lower.findIndex((row, i) => !((row[i] as number) > 0));
  if (bad >= 0) throw new RangeError(`not positive definite at ${bad}`);
  /** L x = b. */
  const forward = (b: readonly number[]): number[] => {
    const x: number[] = [];
    for (let i = 0; i < n; i++) {
      const row = lower[i] as number[];
      let sum = b[i] as number;
      for (let k = 0; k < i; k++) sum -= (row[k] as number) * (x[k] as number);
      x.push(sum / (row[i] as number));
    }
    return x;
  };
  /** Lᵀ x = b. */
  const back = (b: readonly number[]): number[] => {
    const x = [...b];
    for (let i = n - 1; i >= 0; i--) {
      for (let k = i + 1; k < n; k++)
        x[i] = (x[i] as number) - ((lower[k] as number[])[i] as number) * (x[k] as number);
      x[i] = (x[i] as number) / ((lower[i] as number[])[i] as number);
    }
    return x;
  };
  return {
    forward,
    solve: (b: readonly number[]) => back(forward(b)),
    logDeterminant: 2 * lower.reduce((sum, row, i) => sum + Math.log(row[i] as number), 0),
  };
}
