"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { countOf } from "../format";
import { useEntryForm } from "../forms/use-entry-form";
import { failureText } from "../words/failures";

type Failed = { readonly kind: string; readonly [detail: string]: unknown };
export type HoldOutcome =
  | {
      readonly ok: true;
      readonly held: readonly string[];
      readonly already: readonly string[];
      readonly refused: readonly { readonly rack: string; readonly failure: Failed }[];
    }
  | { readonly ok: false; readonly failure: Failed };

/** Holds everything that can still be held, in one step, signed; what could not be held is told by rack. */
export function HoldForm({
  caseNumber,
  racks,
  because,
  hold,
}: {
  caseNumber: string;
  racks: readonly string[];
  because: string;
  hold: (input: { caseNumber: string; racks: string[]; note: string; password: string }) => Promise<HoldOutcome>;
}) {
  const router = useRouter();
  const held = useEntryForm(`hold ${caseNumber}`, { note: because });
  const [note, setNote] = held.field("note");
  const [password, setPassword] = useState("");
  const [busy, setBusy] = useState(false);
  const [came, setCame] = useState<HoldOutcome | null>(null);
  if (racks.length === 0 && came === null) return null;
  return (
    <form
      className="no-print mt-3 grid max-w-[560px] gap-3"
      aria-label="Hold what can be held"
      onSubmit={async (e) => {
        e.preventDefault();
        setBusy(true);
        setCame(null);
        const outcome = await hold({ caseNumber, racks: [...racks], note, password }).catch(
          (): HoldOutcome => ({ ok: false, failure: { kind: "not-saved" } }),
        );
        setBusy(false);
        setPassword("");
        setCame(outcome);
        if (outcome.ok) {
          held.done();
          router.refresh();
        }
      }}
    >
      {held.said}
      <label className="grid gap-1">
        <span className="soft small">Why they are held</span>
        <input
          id="hold-note"
          className="input"
          value={note}
          maxLength={400}
          required
          onChange={(e) => setNote(e.target.value)}
        />
      </label>
      <label className="grid gap-1">
        <span className="soft small">Your password, as a signature</span>
        <input
          className="input"
          type="password"
          autoComplete="current-password"
          value={password}
          required
          onChange={(e) => setPassword(e.target.value)}
        />
      </label>
      <div>
        <button type="submit" className="btn pri" disabled={busy || racks.length === 0}>
          {busy ? "Holding …" : `Hold ${countOf(racks.length, "rack")} now`}
        </button>
      </div>
      {came && (
        <div role="status">
          {came.ok ? (
            <>
              <p className="m-0 text-in">
                {countOf(came.held.length, "rack")} held
                {came.already.length > 0 ? `, ${came.already.length} were held already` : ""}.
              </p>
              {came.refused.map((r) => (
                <p key={r.rack} className="m-0 text-out">
                  Rack {r.rack}: {failureText(r.failure)}
                </p>
              ))}
            </>
          ) : (
            <p className="m-0 text-out">{failureText(came.failure)}</p>
          )}
        </div>
      )}
    </form>
  );
}
