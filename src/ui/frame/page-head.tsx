import type { ReactNode } from "react";
import { Awake } from "./awake";

/** Head of a bench: where we are in small, what it is in large, and how it stands at the right. */
export function PageHead({ above, title, children }: { above: ReactNode; title: ReactNode; children?: ReactNode }) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-4 max-[700px]:grid-cols-1">
      <div>
        <div className="small soft">{above}</div>
        <h1 className="mt-0.5">{title}</h1>
      </div>
      <div className="text-right max-[700px]:text-left">{children}</div>
      <Awake />
    </div>
  );
}
