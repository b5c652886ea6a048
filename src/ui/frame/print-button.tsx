"use client";
import type { ReactNode } from "react";

/** Prints the page as it stands; what is not for paper stays off it. */
export function PrintButton({ children }: { children: ReactNode }) {
  return (
    <button type="button" className="btn no-print" onClick={() => window.print()}>
      {children}
    </button>
  );
}
