"use client";
import { useState } from "react";

/** Under what was refused for its order: a lead sets it aside with a reason, which stands on record and on the certificate. */
export function SetAside({ setAside, busy }: { setAside: ((reason: string) => unknown) | null; busy: boolean }) {
  const [reason, setReason] = useState("");
  if (!setAside) return null;
  return (
    <div className="mt-2 flex flex-wrap items-end gap-3 border-watch border-l-4 pl-3">
      <div className="field min-w-[220px] flex-1">
        <label htmlFor="set-aside">A lead may set this aside; say why</label>
        <input
          id="set-aside"
          className="input"
          maxLength={400}
          value={reason}
          onChange={(e) => setReason(e.target.value)}
        />
      </div>
      <button
        type="button"
        className="btn"
        disabled={busy || reason.trim().length < 3}
        onClick={() => void setAside(reason.trim())}
      >
        Set aside and record
      </button>
    </div>
  );
}
