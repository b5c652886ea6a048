declare module "jstat" {
  const jStat: {
    studentt: { inv(p: number, degreesOfFreedom: number): number; cdf(x: number, degreesOfFreedom: number): number };
    beta: { inv(p: number, alpha: number, beta: number): number };
    normal: { cdf(x: number, mean: number, sd: number): number; inv(p: number, mean: number, sd: number): number };
  };
  export default jStat;
}
