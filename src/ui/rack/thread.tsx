import Link from "next/link";
import type { ReactNode } from "react";
import type { EvidenceGrade, VerdictResult } from "@/core/verdict";
import { Grade, Shape } from "../marks/verdict";

export type Bead = {
  readonly key: string;
  readonly stage: string;
  readonly time: string;
  readonly text: ReactNode;
  readonly note: string;
  readonly result: VerdictResult;
  readonly grade: EvidenceGrade;
  readonly href: string | null;
  readonly dashed?: boolean;
};

/** A rack's life as one line with beads; dashed where it runs on out of the shop. */
export function Thread({ beads }: { beads: readonly Bead[] }) {
  return (
    <ol className="ruled relative mt-3 list-none p-0">
      {beads.map((bead, i) => (
        <li
          key={bead.key}
          className="row relative min-h-[54px] grid-cols-[92px_28px_minmax(0,1fr)_auto_26px] items-center gap-2 max-[700px]:grid-cols-[64px_24px_minmax(0,1fr)_auto_24px]"
        >
          <span>
            <b>{bead.stage}</b>
            <br />
            <span className="fig faint small">{bead.time}</span>
          </span>
          <span aria-hidden="true" className="relative flex h-full items-center">
            <i
              className={`absolute left-[5px] w-1 ${bead.dashed ? "bg-[repeating-linear-gradient(var(--sorrel)_0_5px,transparent_5px_10px)]" : "bg-sorrel"} ${i === 0 ? "top-1/2 -bottom-2" : i === beads.length - 1 ? "-top-2 bottom-1/2" : "-inset-y-2"}`}
            />
            <i className="relative size-[15px] rounded-full border-4 border-sorrel bg-bench" />
          </span>
          <span className="leading-snug">
            {bead.href ? (
              <Link className="text-ink no-underline hover:underline" href={bead.href} prefetch={false}>
                {bead.text}
              </Link>
            ) : (
              bead.text
            )}
          </span>
          <span className="flex items-center gap-2 text-right">
            {bead.note && <span className="small soft">{bead.note}</span>}
            <Shape result={bead.result} />
          </span>
          <Grade grade={bead.grade} />
        </li>
      ))}
    </ol>
  );
}
