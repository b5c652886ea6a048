"use client";
import { type ReactNode, useState } from "react";

/** The margin beside the bench; on a tablet a sheet at the foot with its heading showing, opened by a tap. */
export function MarginSheet({ heading, children }: { heading: string; children: ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a margin without a link in it scrolls too, and keys scroll only what takes the focus
    <aside className="margin" aria-label="Margin" data-open={open} tabIndex={0}>
      <button type="button" className="margin-handle" aria-expanded={open} onClick={() => setOpen(!open)}>
        <span>{heading}</span>
        <span aria-hidden="true">{open ? "▼" : "▲"}</span>
      </button>
      <div className="margin-content">{children}</div>
    </aside>
  );
}
