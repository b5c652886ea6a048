"use client";
import { useState } from "react";
import { fieldsOf } from "../fields/in-form";
import { OneOf } from "../fields/one-of";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { decisionWords } from "../words/decisions";

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
  decide: Save<{ readonly password: string; readonly [field: string]: unknown }>;
}) {
  const held = useEntryForm(`decision ${rack}`, { decision: "", note: "" });
  const saving = useSave(decide, held, { said: "Signed and recorded.", keyed: true });
  const F = fieldsOf(held);
  const [decision, setDecision] = held.field("decision");
  // Kept nowhere but here: a password is no draft.
  const [password, setPassword] = useState("");
  return (
    <Entry
      held={held}
      id="decision"
      sending={saving}
      button="Sign and record"
      primary
      className="no-print grid max-w-[560px] gap-3"
      begin={["note"]}
      send={async ({ refuse }) => {
        if (decision === "") refuse("decision", "Choose the decision first.");
        const conceded = decision === "concession" ? gaps.length : 0;
        const { note } = held.values;
        const signed = await saving.send({ rack, decision, note, seen, conceded, password });
        setPassword("");
        return signed;
      }}
    >
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
      <F.Words name="note" id="note" label="Reason, in a sentence" rows={2} most={600} least={3} required />
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
    </Entry>
  );
}
