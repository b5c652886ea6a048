import type { ReactNode } from "react";
import type { EvidenceGrade, VerdictResult } from "@/core/verdict";
import Link from "../link";
import { Grade, Shape } from "../marks/verdict";

export type Bead = {
  readonly key: string;
  readonly stage: string;
  readonly time: string;
  /** What it is ordered by; none of what is missing. */
  readonly atMs?: number;
  readonly text: ReactNode;
  readonly note: string;
  readonly result: VerdictResult;
  readonly grade: EvidenceGrade;
  readonly href: string | null;
  readonly dashed?: boolean;
  /** Which pass through the shop it belongs to; 0 is the first, each recoat or strip branches off to the right. */
  readonly branch?: number;
};

/** Width of one branch of the drawn thread, px. */
const BRANCH_PX = 14;

/** A rack's life as one line with beads; dashed where it runs on out of the shop. */
export function Thread({ beads }: { beads: readonly Bead[] }) {
  return (
    <ol className="ruled relative mt-3 list-none p-0">
      {beads.map((bead, i) => {
        const branch = bead.branch ?? 0;
        const before = i === 0 ? null : (beads[i - 1]?.branch ?? 0);
        const after = i === beads.length - 1 ? null : (beads[i + 1]?.branch ?? 0);
        const line = bead.dashed
          ? "bg-[repeating-linear-gradient(var(--sorrel)_0_5px,transparent_5px_10px)]"
          : "bg-sorrel";
        const left = (n: number) => 5 + Math.min(n, 3) * BRANCH_PX;
        return (
          <li
            key={bead.key}
            className="row relative min-h-[54px] grid-cols-[92px_58px_minmax(0,1fr)_auto_26px] items-center gap-2 max-[700px]:grid-cols-[64px_44px_minmax(0,1fr)_auto_24px]"
          >
            <span>
              <b>{bead.stage}</b>
              <br />
              <span className="fig faint small">{bead.time}</span>
            </span>
            <span aria-hidden="true" className="relative flex h-full items-center">
              {before !== null && (
                <i className={`absolute -top-2 bottom-1/2 w-1 ${line}`} style={{ left: left(branch) }} />
              )}
              {after !== null && after === branch && (
                <i className={`absolute top-1/2 -bottom-2 w-1 ${line}`} style={{ left: left(branch) }} />
              )}
              {after !== null && after !== branch && (
                <i
                  className="absolute top-1/2 -bottom-2 rounded-tr-[10px] border-t-4 border-r-4 border-sorrel"
                  style={{ left: left(branch), width: left(after) - left(branch) + 4 }}
                />
              )}
              <i
                className="absolute size-[15px] rounded-full border-4 border-sorrel bg-bench"
                style={{ left: left(branch) - 5.5 }}
              />
            </span>
            <span className="leading-snug">
              {before !== null && before !== branch && (
                <span className="sr-only">Pass {branch + 1} through the shop: </span>
              )}
              {bead.href ? (
                <Link className="text-ink no-underline hover:underline" href={bead.href}>
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
        );
      })}
    </ol>
  );
}
