"use client";
import { type RefObject, useEffect, useRef } from "react";

/** Hears the keys that are pressed on what stands within an element, which itself is no control. */
export function useKeysWithin(within: RefObject<HTMLElement | null>, onKey: (event: KeyboardEvent) => void): void {
  const newest = useRef(onKey);
  newest.current = onKey;
  useEffect(() => {
    const element = within.current;
    const hear = (event: KeyboardEvent) => newest.current(event);
    element?.addEventListener("keydown", hear);
    return () => element?.removeEventListener("keydown", hear);
  }, [within]);
}
