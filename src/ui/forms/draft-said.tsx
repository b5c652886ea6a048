"use client";
import { when } from "../format";
import { usePreferences } from "../preferences-context";

/** That what was typed before is here again: when that was, by the day where it was another, and how to let it go. */
export function DraftSaid({ atMs, drop, what = "What you typed" }: { atMs: number; drop: () => void; what?: string }) {
  const { timeZone } = usePreferences();
  return (
    <p role="status" className="draft-said">
      {what} at {when(new Date(atMs), new Date(), timeZone)} is here again, not recorded yet.{" "}
      <button type="button" className="link min-h-11 px-1" onClick={drop}>
        Start anew
      </button>
    </p>
  );
}
