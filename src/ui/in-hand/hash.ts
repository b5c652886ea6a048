"use client";
import { useMemo, useSyncExternalStore } from "react";

/** Where in the round, as the address says it after the stroke: `#CODE/zone`. */
export function useHash(): readonly [string | null, string | null] {
  const hash = useSyncExternalStore(
    (changed) => {
      window.addEventListener("hashchange", changed);
      return () => window.removeEventListener("hashchange", changed);
    },
    () => window.location.hash,
    () => "",
  );
  return useMemo(() => {
    try {
      const [code = "", ...zone] = hash.slice(1).split("/");
      return [code ? decodeURIComponent(code) : null, zone.length > 0 ? decodeURIComponent(zone.join("/")) : null];
    } catch {
      return [null, null];
    }
  }, [hash]);
}
/** The address of a structure, or of one of its zones. */
export const to = (code: string, zone?: string): string =>
  `#${encodeURIComponent(code)}${zone === undefined ? "" : `/${encodeURIComponent(zone)}`}`;
