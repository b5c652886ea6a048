"use client";
import type { StrangeReading } from "@/core/thickness";
import { usePreferences } from "../preferences-context";
import { strangeWords } from "../words/strange-reading";

/** Shown one by one; more than these are counted. */
const MOST_SHOWN = 20;

/** Readings of a file that are unlike their neighbours, each with its line: for somebody to look at before they are kept. */
export function AskedList({
  asked,
  count,
}: {
  asked: readonly { readonly line: number; readonly text: string; readonly strange: StrangeReading }[];
  count: number;
}) {
  const { units } = usePreferences();
  const shown = asked.slice(0, MOST_SHOWN);
  return (
    <div className="grid gap-1">
      {shown.map(({ line, text, strange }) => (
        <div key={line} className="row max-w-[760px] grid-cols-[90px_minmax(0,1fr)]">
          <span className="fig">line {line}</span>
          <span>{strangeWords(text, strange, units)}</span>
        </div>
      ))}
      {count > shown.length && <p className="soft m-0">and {count - shown.length} more</p>}
    </div>
  );
}
