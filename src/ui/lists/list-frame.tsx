"use client";
import { type ReactNode, useEffect, useLayoutEffect, useRef, useState } from "react";
import type { ListProps } from "./rows";
import type { Table as TableType } from "./table";

/** Puts a list to work once the page stands; the row that has the focus keeps it. */
export function ListFrame({ children, ...list }: ListProps & { children: ReactNode }) {
  const frame = useRef<HTMLDivElement>(null);
  const focused = useRef(-1);
  const [working, setWorking] = useState<{ Table: typeof TableType } | null>(null);
  useEffect(() => {
    void import("./table").then((found) => {
      const all = [...(frame.current?.querySelectorAll<HTMLElement>("a") ?? [])];
      focused.current = all.indexOf(document.activeElement as HTMLAnchorElement);
      setWorking(found);
    });
  }, []);
  useLayoutEffect(() => {
    if (working && focused.current >= 0) frame.current?.querySelectorAll<HTMLElement>("a")[focused.current]?.focus();
  }, [working]);
  return <div ref={frame}>{working ? <working.Table {...list} /> : children}</div>;
}
