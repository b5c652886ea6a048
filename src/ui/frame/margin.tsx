import type { ReactNode } from "react";
import { cautions } from "../words/cautions";
import { MarginSheet } from "./margin-sheet";

const headings: Record<string, string> = {
  shift: "Latest, racks, cautions",
  plan: "Racks, exports, cautions",
  prepare: "Due here, cautions",
  pretreat: "Log a check, additions, cautions",
  coat: "Due here, cautions",
  cure: "Sheet, timing, cautions",
  test: "Record, reasons, cautions",
  release: "When it passed, decisions, cautions",
  field: "Visits, exposure, cautions",
  causes: "Next check, record, cautions",
};

/** The narrower side: reasons, thread, cautions. A sheet from below on a tablet. */
export function Margin({ step, children }: { step: string; children: ReactNode }) {
  return (
    <MarginSheet heading={headings[step] ?? "Beside it"}>
      {children}
      <div className="caution mt-5 grid gap-1.5">
        {cautions[step]?.map((c) => (
          <p key={c} className="m-0">
            {c}
          </p>
        ))}
      </div>
    </MarginSheet>
  );
}

export function MarginBlock({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mb-5">
      <h2>{title}</h2>
      <div className="mt-1.5">{children}</div>
    </section>
  );
}
