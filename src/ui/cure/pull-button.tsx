"use client";
import { usePull } from "./use-pull";

/** Pull: one press, stored once however often it is pressed. */
export function PullButton({ recordId, load }: { recordId: string; load: string }) {
  const { busy, text, pull } = usePull(recordId);
  return (
    <span className="flex items-center gap-3">
      <button
        type="button"
        className="btn pri"
        disabled={busy}
        onClick={() => void pull()}
        aria-label={`Pull load ${load} now`}
      >
        {busy ? "Recording …" : "Pulled now"}
      </button>
      {text && <output className="text-out">{text}</output>}
    </span>
  );
}
