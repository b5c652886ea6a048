"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { OneOf } from "../fields/one-of";
import { useEntryForm } from "../forms/use-entry-form";
import { decisionWords } from "../words/decisions";
import { failureText } from "../words/failures";

type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/** The lead's decision with its reason, signed by password. What was typed stays when it is refused. */
export function DecideForm({
  rack,
  seen,
  mayAccept,
  whyNot,
  gaps,
  notes,
  decide,
}: {
  rack: string;
  seen: string | null;
  mayAccept: boolean;
  whyNot: string;
  /** What is asked and out or not known: a concession covers each by name. */
  gaps: readonly { readonly name: string; readonly word: string; readonly text: string }[];
  /** What is in with something to watch. */
  notes: readonly string[];
  decide: (input: {
    id: string;
    rack: string;
    decision: string;
    note: string;
    seen: string | null;
    conceded: number;
    password: string;
  }) => Promise<Outcome>;
}) {
  const router = useRouter();
  const held = useEntryForm(`decision ${rack}`, { decision: "", note: "" });
  const [decision, setDecision] = held.field("decision");
  const [note, setNote] = held.field("note");
  const [password, setPassword] = useState("");
  const [failure, setFailure] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const id = useRef(uuidv7());
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setBusy(true);
    setFailure(null);
    const outcome: Outcome = await decide({
      id: id.current,
      rack,
      decision,
      note,
      seen,
      conceded: decision === "concession" ? gaps.length : 0,
      password,
    }).catch(() => ({
      ok: false as const,
      failure: { kind: "not-saved" },
    }));
    setBusy(false);
    setPassword("");
    if (!outcome.ok) return setFailure(failureText(outcome.failure));
    id.current = uuidv7();
    held.done();
    setNote("");
    router.refresh();
  };
  return (
    <form onSubmit={submit} className="no-print grid max-w-[560px] gap-3">
      {held.said}
      <OneOf
        label="Decision"
        value={decision}
        options={Object.entries(decisionWords).map(([value, label]) => ({
          value,
          label,
          disabled: value === "accept" && !mayAccept,
        }))}
        onChange={setDecision}
      />
      {!mayAccept && (
        <p className="small soft">Accept is closed. {whyNot.charAt(0).toUpperCase() + whyNot.slice(1)}.</p>
      )}
      {decision === "accept" && notes.length > 0 && (
        <ul className="m-0 border-watch border-l-4 pl-6">
          {notes.map((n) => (
            <li key={n}>{n}</li>
          ))}
        </ul>
      )}
      {decision === "concession" && (
        <div className="border-watch border-l-4 pl-3">
          <p className="m-0">
            {gaps.length === 0
              ? "Nothing is open: this concession covers no gap."
              : "This concession covers, and the certificate names:"}
          </p>
          {gaps.map((g) => (
            <p key={g.name} className="m-0">
              <b>{g.name}</b>: {g.word}. <span className="soft">{g.text}</span>
            </p>
          ))}
        </div>
      )}
      <div className="field">
        <label htmlFor="note">Reason, in a sentence</label>
        <textarea
          id="note"
          className="input"
          rows={2}
          required
          minLength={3}
          maxLength={600}
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
      </div>
      <div className="field max-w-[280px]">
        <label htmlFor="sign">Your password signs it</label>
        <input
          id="sign"
          type="password"
          className="input"
          autoComplete="current-password"
          required
          value={password}
          onChange={(e) => setPassword(e.target.value)}
        />
      </div>
      {failure && (
        <p role="alert" className="border-l-4 border-out pl-3 text-out">
          {failure}
        </p>
      )}
      <p>
        <button type="submit" className="btn pri" disabled={busy || decision === ""}>
          {busy ? "Signing …" : "Sign and record"}
        </button>
      </p>
    </form>
  );
}
