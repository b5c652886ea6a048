import type { ReactNode } from "react";
import type { EvidenceGrade, VerdictResult } from "@/core/verdict";
import { gradeWords } from "../words/grades";

const colour: Record<VerdictResult, string> = {
  in: "text-in",
  watch: "text-watch",
  out: "text-out",
  unknown: "text-unknown",
};
const word: Record<VerdictResult, string> = { in: "in", watch: "watch", out: "out", unknown: "not known" };

/** Disc in, triangle watch, square out, dashed ring unknown: read by shape before colour. */
export function Shape({ result, label = true }: { result: VerdictResult; label?: boolean }) {
  return (
    <svg
      width="14"
      height="13"
      viewBox="0 0 14 13"
      className={`inline-block flex-none self-center ${colour[result]}`}
      role={label ? "img" : undefined}
      aria-label={label ? word[result] : undefined}
      aria-hidden={label ? undefined : true}
    >
      {result === "in" && <circle cx="7" cy="6.5" r="5.6" fill="currentColor" />}
      {result === "watch" && <path d="M7 .8 13.4 12.2H.6Z" fill="currentColor" />}
      {result === "out" && <rect x="1.3" y=".8" width="11.4" height="11.4" fill="currentColor" />}
      {result === "unknown" && (
        <circle cx="7" cy="6.5" r="5" fill="none" stroke="currentColor" strokeWidth="1.6" strokeDasharray="2.4 2" />
      )}
    </svg>
  );
}

/** Shape, word and colour together. The word says the fact. */
export function Verdict({ result, children }: { result: VerdictResult; children: ReactNode }) {
  return (
    <span
      className={`inline-flex items-baseline gap-1.5 whitespace-nowrap ${result === "unknown" ? "font-medium" : "font-[650]"} ${colour[result]}`}
    >
      <Shape result={result} label={false} />
      {children}
    </span>
  );
}

/** How a fact is known: full measured, half by procedure, empty dashed assumed, dotted unknown. */
export function Grade({ grade }: { grade: EvidenceGrade }) {
  const dash = grade === "assumed" ? "3 2" : grade === "unknown" ? "1.2 2" : undefined;
  const fill = grade === "measured" ? 20 : grade === "by-procedure" ? 10 : 0;
  return (
    <svg
      width="22"
      height="9"
      viewBox="0 0 22 9"
      role="img"
      aria-label={gradeWords[grade]}
      className="inline-block flex-none text-ink-2"
    >
      <title>{gradeWords[grade]}</title>
      <rect
        x=".7"
        y=".7"
        width="20.6"
        height="7.6"
        rx="1"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.4"
        strokeDasharray={dash}
      />
      {fill > 0 && <rect x="1" y="1" width={fill} height="7" fill="currentColor" />}
    </svg>
  );
}

/** A rack on the rail: its outline changes with its state, so that it reads without colour. */
export function Tag({ result, title }: { result: VerdictResult; title: string }) {
  return (
    <svg
      width="11"
      height="17"
      viewBox="0 0 11 17"
      role="img"
      aria-label={title}
      className={result === "in" ? "text-ink-2" : colour[result]}
    >
      <title>{title}</title>
      {result === "in" && (
        <path
          d="M1 1h9v11.5a3 3 0 0 1-3 3H4a3 3 0 0 1-3-3Z"
          fill="var(--bench)"
          stroke="currentColor"
          strokeWidth="1.5"
        />
      )}
      {result === "unknown" && (
        <path
          d="M1 1h9v11.5a3 3 0 0 1-3 3H4a3 3 0 0 1-3-3Z"
          fill="var(--bench)"
          stroke="currentColor"
          strokeWidth="1.5"
          strokeDasharray="2.4 2"
        />
      )}
      {result === "watch" && <path d="M1 1h9v9L5.5 16 1 10Z" fill="currentColor" />}
      {result === "out" && <path d="M.5.5h10v16H.5Z" fill="currentColor" />}
    </svg>
  );
}
