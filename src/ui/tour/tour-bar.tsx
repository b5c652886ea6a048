"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import Link from "../link";
import type { TourStep } from "./steps";

/** Where a new person is in the first-shift tour: stays in sight on every page until it is through or left. */
export function TourBar({
  step,
  at,
  of,
  keep,
}: {
  step: TourStep;
  at: number;
  of: number;
  keep: (step: number | null) => Promise<void>;
}) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const go = async (next: number | null) => {
    setBusy(true);
    await keep(next).catch(() => {});
    setBusy(false);
    router.refresh();
  };
  return (
    <aside
      aria-label="First-shift tour"
      className="above no-print grid gap-2 border-sorrel border-b-2 bg-sorrel-tint px-6 py-3 text-ink max-[700px]:px-4"
    >
      <p className="m-0">
        <span className="soft">
          First shift, <span className="fig">{at + 1}</span> of <span className="fig">{of}</span>:
        </span>{" "}
        <b>{step.title}.</b> {step.text}
      </p>
      <p className="m-0 flex flex-wrap gap-2">
        <Link className="btn" href={step.href}>
          Go there
        </Link>
        {at + 1 < of ? (
          <button type="button" className="btn pri" disabled={busy} onClick={() => void go(at + 1)}>
            Next
          </button>
        ) : (
          <button type="button" className="btn pri" disabled={busy} onClick={() => void go(null)}>
            That was all
          </button>
        )}
        {at > 0 && (
          <button type="button" className="btn" disabled={busy} onClick={() => void go(at - 1)}>
            Back
          </button>
        )}
        <button type="button" className="btn" disabled={busy} onClick={() => void go(null)}>
          Leave the tour
        </button>
      </p>
    </aside>
  );
}

/** Offered to whoever has recorded nothing yet. */
export function TourOffer({ of, keep }: { of: number; keep: (step: number | null) => Promise<void> }) {
  const router = useRouter();
  const [gone, setGone] = useState(false);
  if (gone) return null;
  return (
    <aside
      aria-label="New here"
      className="no-print mt-3 flex flex-wrap items-center gap-3 border border-rule-strong px-4 py-2"
    >
      <span>
        New here? A first shift in <span className="fig">{of}</span> short steps. It can be left and taken up again from
        your own menu.
      </span>
      <button
        type="button"
        className="btn"
        onClick={() => {
          setGone(true);
          void keep(0)
            .catch(() => {})
            .then(() => router.refresh());
        }}
      >
        Show me
      </button>
    </aside>
  );
}
