"use client";
import { useState } from "react";
import { decisions, leaves, railStages, reworkOf } from "@/core/line";
import { madeStages } from "@/core/release";
import { fieldsOf, type Options } from "../fields/in-form";
import { OneOf } from "../fields/one-of";
import { countOf } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { decisionWords } from "../words/decisions";
import { stageNames } from "../words/reasons";
import { type PieceOnRack, PiecesChoice } from "./pieces-choice";

/** What keeps a decision from being made, for one choice of pieces. */
export type Gaps = {
  /** What is asked and out or not known: a concession covers each by name. */
  readonly gaps: readonly { readonly name: string; readonly word: string; readonly text: string }[];
  readonly whyNot: string;
};

const madeNames: Options = [
  ["", "not known"],
  ...madeStages.map((s): [string, string] => [s, s === "as-it-came" ? "as it came in" : (stageNames[s] ?? s)]),
];
const foundNames: Options = [
  ["", "not said"],
  ...railStages.slice(1, 7).map((s): [string, string] => [s, stageNames[s] ?? s]),
];

/** The lead's decision with its reason, signed by password. What was typed stays when it is refused. */
export function DecideForm({
  rack,
  seen,
  warm,
  whole,
  kinds,
  byPiece,
  pieces,
  notes,
  decide,
}: {
  rack: string;
  seen: string | null;
  /** Too warm to pack: accept waits. */
  warm: boolean;
  whole: Gaps;
  /** What would keep a piece back were it alone, as that differs; and which of them is each piece's, by its place. */
  kinds: readonly Gaps[];
  byPiece: Readonly<Record<number, number>>;
  pieces: readonly PieceOnRack[];
  /** What is in with something to watch. */
  notes: readonly string[];
  decide: Save<{ readonly password: string; readonly [field: string]: unknown }>;
}) {
  const held = useEntryForm(`decision ${rack}`, {
    decision: "",
    note: "",
    pieces: [] as readonly number[],
    made: "",
    found: "test",
    minutes: "",
    classGiven: "",
    customerName: "",
    theirWord: "",
    zone: "",
    limit: "",
    until: "",
  });
  const saving = useSave(decide, held, { said: "Signed and recorded.", keyed: true });
  const F = fieldsOf(held);
  const [decision, setDecision] = held.field("decision");
  const [chosen, setChosen] = held.field("pieces");
  // Kept nowhere but here: a password is no draft.
  const [password, setPassword] = useState("");
  const own = chosen.length === 0 ? whole : gapsOf(chosen.flatMap((n) => kinds[byPiece[n] ?? -1] ?? []));
  const mayAccept = own.gaps.length === 0 && !warm;
  const rework = reworkOf(decision) !== null || decision === "touch-up";
  const covers = decision === "concession" || decision === "downgrade";
  return (
    <Entry
      held={held}
      id="decision"
      sending={saving}
      button="Sign and record"
      primary
      className="no-print grid max-w-[680px] gap-3"
      begin={["note", "pieces", "minutes"]}
      send={async (read) => {
        if (decision === "") read.refuse("decision", "Choose the decision first.");
        const { note, made, found, customerName, theirWord, zone, limit, until, classGiven } = held.values;
        const signed = await saving.send({
          rack,
          decision,
          note,
          seen,
          conceded: covers ? own.gaps.length : 0,
          pieces: chosen.length === 0 ? null : [...chosen],
          foundAt: decision === "accept" || found === "" ? null : found,
          madeAt: decision === "accept" || made === "" ? null : made,
          minutes: rework ? read.maybe("minutes") : null,
          classGiven: classGiven || null,
          concession:
            decision === "concession"
              ? { customerName, theirWord, zone, limit, until: until === "" ? null : until }
              : null,
          password,
        });
        setPassword("");
        return signed;
      }}
    >
      <PiecesChoice pieces={pieces} chosen={chosen} choose={setChosen} />
      <OneOf
        label="Decision"
        value={decision}
        options={decisions
          .filter((d) => d !== "wipe-off")
          .map((value) => ({
            value: value as string,
            label: decisionWords[value] ?? value,
            disabled: (value === "accept" && !mayAccept) || (chosen.length > 0 && !leaves(value)),
          }))}
        onChange={setDecision}
      />
      {chosen.length > 0 && (
        <p className="small soft m-0">
          {countOf(chosen.length, "piece")} leave the rack; the rest keeps its thread. What is held or sent back is
          decided on all that hangs there.
        </p>
      )}
      {!mayAccept && own.whyNot !== "" && (
        <p className="small soft m-0">Accept is closed. {own.whyNot.charAt(0).toUpperCase() + own.whyNot.slice(1)}.</p>
      )}
      {decision === "accept" && notes.length > 0 && (
        <ul className="m-0 border-watch border-l-4 pl-6">
          {notes.map((n) => (
            <li key={n}>{n}</li>
          ))}
        </ul>
      )}
      {covers && (
        <div className="border-watch border-l-4 pl-3">
          <p className="m-0">
            {own.gaps.length === 0
              ? `Nothing is open: this ${decision === "concession" ? "concession" : "downgrade"} covers no gap.`
              : `This ${decision === "concession" ? "concession" : "downgrade"} covers, and the certificate names:`}
          </p>
          {own.gaps.map((g) => (
            <p key={g.name} className="m-0">
              <b>{g.name}</b>: {g.word}. <span className="soft">{g.text}</span>
            </p>
          ))}
        </div>
      )}
      {decision === "concession" && (
        <div className="grid grid-cols-2 gap-3 max-[700px]:grid-cols-1">
          <F.Words name="customerName" label="Who of the customer’s takes it so" most={80} least={3} required />
          <F.Words name="theirWord" label="Their word, and where it is written" most={400} least={3} required />
          <F.Words name="zone" label="Where on the piece" most={120} placeholder="zone C, inside of the foot" />
          <F.Words name="limit" label="How far it goes" most={200} placeholder="mark under 5 mm" />
          <F.When name="until" label="Holds until" />
        </div>
      )}
      {decision === "downgrade" && (
        <F.Words
          name="classGiven"
          label="Downgraded to class"
          most={40}
          required
          placeholder="B, indoor use"
          className="max-w-[280px]"
        />
      )}
      {decision !== "" && decision !== "accept" && (
        <div className="flex flex-wrap items-end gap-3">
          <F.Pick name="made" label="Where the fault was made" of={madeNames} className="w-[190px]" />
          <F.Pick name="found" label="Where it was found" of={foundNames} className="w-[170px]" />
          {rework && <F.Num name="minutes" label="Work it takes, min" className="w-[150px]" />}
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

/** What keeps some pieces back: what keeps any one of them back. */
function gapsOf(own: readonly Gaps[]): Gaps {
  const gaps = new Map(own.flatMap((o) => o.gaps.map((g): [string, (typeof o.gaps)[number]] => [g.name, g])));
  return { gaps: [...gaps.values()], whyNot: own.find((o) => o.whyNot !== "")?.whyNot ?? "" };
}
