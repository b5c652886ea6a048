import type { NextStep } from "@/core/line";
import Link from "../link";
import { nextHref, nextName, nextSoFar } from "../words/next";

const tabs = [
  ["", "Thread"],
  ["prepare", "Prepare"],
  ["coat", "Coat"],
  ["thickness", "Film"],
  ["cure", "Cure"],
  ["bench", "Bench"],
  ["release", "Release"],
] as const;

/** Between the views of one rack. */
export function RackTabs({
  number,
  here,
  standing,
}: {
  number: string;
  here: string;
  /** What it waits for; null once it is decided. */
  standing: { readonly next: NextStep | null; readonly readings: number; readonly asked: number } | null;
}) {
  const next = standing?.next ?? null;
  const there = next ? nextHref(number, next) : null;
  return (
    <div className="no-print mt-2 flex flex-wrap items-center gap-x-8 gap-y-1">
      <nav aria-label={`Rack ${number}`} className="flex gap-5 overflow-x-auto max-[700px]:gap-4">
        {tabs.map(([path, name]) => (
          <Link
            key={path}
            href={`/racks/${number}${path ? `/${path}` : ""}`}
            aria-current={here === path ? "page" : undefined}
            className={`inline-flex min-h-11 items-center border-b-[3px] no-underline ${here === path ? "border-sorrel font-bold text-sorrel" : "border-transparent text-ink hover:border-rule-strong"}`}
          >
            {name}
          </Link>
        ))}
      </nav>
      {next && there && standing && (
        <Link
          className={`inline-flex min-h-11 items-center gap-2 no-underline ${there.endsWith(`/${here}`) ? "text-ink-2" : "font-bold text-sorrel"}`}
          href={there}
          aria-current={there.endsWith(`/${here}`) ? "step" : undefined}
        >
          <span className="small faint">next</span> {nextName[next]} <span className="fig">{nextSoFar(standing)}</span>
          {there.endsWith(`/${here}`) ? "" : " →"}
        </Link>
      )}
    </div>
  );
}
