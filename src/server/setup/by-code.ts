/** An item by its code as people write it; undefined when there is none. */
export const byCode = <T extends { readonly code: string }>(items: Iterable<T>, code: string | null): T | undefined =>
  [...items].find((item) => item.code.toLowerCase() === code?.toLowerCase());
