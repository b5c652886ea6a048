/** Stands for everyone where no proxy tells addresses apart: only the limit by name holds then. */
export const UNKNOWN_ADDRESS = "-";

/**
 * Who is asking, for the limit on tries. The header is taken only behind a proxy that sets it (`TRUSTED_PROXY=1`),
 * and then the last address, the one the proxy itself saw: anyone can write the others.
 */
export function addressOf(
  head: { get(name: string): string | null },
  trusted = process.env.TRUSTED_PROXY === "1",
): string {
  if (!trusted) return UNKNOWN_ADDRESS;
  return head.get("x-forwarded-for")?.split(",").at(-1)?.trim() || UNKNOWN_ADDRESS;
}
