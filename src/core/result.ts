/** A computation's outcome. Failures that data can cause are values, not exceptions. */
export type Result<T, E extends Failure = Failure> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly error: E };

/** Every failure names its `kind` and carries the numbers that show why. The interface turns it into words. */
export type Failure = { readonly kind: string; readonly [detail: string]: unknown };

export const ok = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value });
export const err = <const E extends Failure>(error: E): { readonly ok: false; readonly error: E } => ({
  ok: false,
  error,
});

/** Takes the value out, or throws: for callers who have already checked, and for tests. */
export function valueOrThrow<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new RangeError(JSON.stringify(result.error));
}
