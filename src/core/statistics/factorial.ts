/** ln k! as a running table, grown as asked. */
const table: number[] = [0];
/** ln k!, for whole k of 0 or more. O(1), after O(k) the first time. */
export function lnFactorial(k: number): number {
  for (let i = table.length; i <= k; i++) table.push((table[i - 1] as number) + Math.log(i));
  return table[k] as number;
}
/** ln of the ways to choose k of n. */
export const lnChoose = (n: number, k: number): number => lnFactorial(n) - lnFactorial(k) - lnFactorial(n - k);
