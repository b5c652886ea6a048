declare module "jstat" {
  const jStat: {
    /** Lower triangle of a symmetric positive definite matrix; not a number in it where it is none. */
    cholesky(matrix: readonly (readonly number[])[]): number[][];
    studentt: { inv(p: number, degreesOfFreedom: number): number; cdf(x: number, degreesOfFreedom: number): number };
    beta: { inv(p: number, alpha: number, beta: number): number };
    normal: { cdf(x: number, mean: number, sd: number): number; inv(p: number, mean: number, sd: number): number };
  };
  export default jStat;
}
