/**
 * Where a function with one valley is least between two points, by golden section, to within a tolerance. Returns how many
 * steps it took and whether it got there within two hundred.
 */
export function goldenMinimum(
  from: number,
  to: number,
  tolerance: number,
  f: (x: number) => number,
): { readonly at: number; readonly iterations: number; readonly converged: boolean } {
  const golden = (Math.sqrt(5) - 1) / 2;
  let [low, high] = [from, to];
  let a = high - golden * (high - low);
  let b = low + golden * (high - low);
  let [fa, fb] = [f(a), f(b)];
  let iterations = 0;
  while (high - low > tolerance && iterations < 200) {
    iterations++;
    if (fa < fb) {
      [high, b, fb] = [b, a, fa];
      a = high - golden * (high - low);
      fa = f(a);
    } else {
      [low, a, fa] = [a, b, fb];
      b = low + golden * (high - low);
      fb = f(b);
    }
  }
  return { at: (low + high) / 2, iterations, converged: high - low <= tolerance };
}
