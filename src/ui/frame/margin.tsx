import type { ReactNode } from "react";
import { cautions } from "../words/cautions";

/** The narrower side: reasons, thread, cautions. Below the bench on a tablet. */
export function Margin({ step, children }: { step: string; children: ReactNode }) {
  return (
    <aside className="margin" aria-label="Margin">
      {children}
      <p className="caution mt-5">{cautions[step]}</p>
    </aside>
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
