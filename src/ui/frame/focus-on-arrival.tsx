"use client";
import { useEffect } from "react";

/**
 * The station's first field is in focus as one arrives, so that the first key already counts. Not where a finger would
 * then find a keyboard over half the page, and never away from what has the focus already.
 */
export function FocusOnArrival({ on }: { on: string }) {
  useEffect(() => {
    if (document.activeElement !== document.body || !window.matchMedia("(pointer: fine)").matches) return;
    document.querySelector<HTMLElement>(on)?.focus({ preventScroll: true });
  }, [on]);
  return null;
}
