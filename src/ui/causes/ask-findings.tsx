"use client";
import { useState } from "react";
import { Choice } from "../fields/choice";
import { Fold } from "../fields/fold";
import { useRecorder } from "../forms/use-recorder";
import { CheckDrawing } from "./check-drawing";

export type Ask = {
  readonly finding: string;
  readonly label: string;
  readonly how: string;
  readonly minutes: number;
  readonly destroysPart: boolean;
  readonly group: string;
};
type State = "present" | "absent" | "unknown";
const groupName: Readonly<Record<string, string>> = {
  pattern: "Where it shows",
  look: "How it looks",
  part: "The part",
  prep: "Before the wash",
  pretreatment: "In the wash",
  powder: "The powder",
  application: "At the booth",
  film: "The film",
  cure: "In the oven",
  exposure: "Where it stands",
};
/** Of a group so many are asked at first. */
const AT_FIRST = 3;

function useAnswer(caseNumber: string, zone: string | null) {
  const recorder = useRecorder();
  const answer = (finding: string, state: State) =>
    void recorder.send({ kind: "finding", caseNumber, finding: finding as "cast-metal", state, note: "", zone });
  return { ...recorder, answer };
}

function Buttons({ ask, busy, answer }: { ask: Ask; busy: boolean; answer: (finding: string, state: State) => void }) {
  return (
    <span className="mt-1.5 flex flex-wrap gap-2" role="group" aria-label={ask.label}>
      <button type="button" className="btn" disabled={busy} onClick={() => answer(ask.finding, "present")}>
        Yes, so
      </button>
      <button type="button" className="btn" disabled={busy} onClick={() => answer(ask.finding, "absent")}>
        No
      </button>
      <button type="button" className="btn" disabled={busy} onClick={() => answer(ask.finding, "unknown")}>
        Cannot tell
      </button>
    </span>
  );
}

const cost = (ask: Ask): string => `${ask.minutes} min${ask.destroysPart ? ", one part lost" : ", no part lost"}`;

/** The next best checks, each answered where it stands: seen, not so, cannot tell. */
export function NextChecks({ caseNumber, checks }: { caseNumber: string; checks: readonly Ask[] }) {
  const { message, busy, answer } = useAnswer(caseNumber, null);
  if (checks.length === 0) return <p className="soft">Nothing is left to find out that would tell the causes apart.</p>;
  return (
    <div>
      {checks.map((c, i) => (
        <div key={c.finding} className={i === 0 ? "border-t-2 border-ink pt-2" : "row"}>
          <span className="flex gap-2.5">
            <CheckDrawing finding={c.finding} />
            <span>
              <b className={i === 0 ? "text-[15px]" : ""}>{c.how}</b>
              <br />
              <span className="soft">
                {c.label}? <span className="fig">{cost(c)}</span>
              </span>
            </span>
          </span>
          <Buttons ask={c} busy={busy} answer={answer} />
        </div>
      ))}
      {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
    </div>
  );
}

/** What else bears on the defect and is not answered: by group, those that tell most first; of one place where it is only there. */
export function AskGroups({
  caseNumber,
  checks,
  places,
}: {
  caseNumber: string;
  checks: readonly Ask[];
  places: readonly string[];
}) {
  const [zone, setZone] = useState("");
  const [other, setOther] = useState("");
  const named = zone === "other" ? other.trim() : zone;
  const { message, busy, answer } = useAnswer(caseNumber, named === "" ? null : named);
  const groups = [...new Set(checks.map((c) => c.group))];
  const one = (c: Ask) => (
    <div key={c.finding} className="row">
      <span className="flex gap-2.5">
        <CheckDrawing finding={c.finding} />
        <span>
          {c.label}?<br />
          <span className="soft small">
            {c.how} <span className="fig">{cost(c)}</span>
          </span>
        </span>
      </span>
      <Buttons ask={c} busy={busy} answer={answer} />
    </div>
  );
  return (
    <div>
      <div className="mb-2 grid grid-cols-2 gap-2">
        <label className="grid gap-1">
          <span className="soft small">Looked at</span>
          <Choice className="input" value={zone} onChange={setZone}>
            <option value="">all of it</option>
            {places.map((p) => (
              <option key={p} value={p}>
                {p}
              </option>
            ))}
            <option value="other">another place …</option>
          </Choice>
        </label>
        {zone === "other" && (
          <label className="grid gap-1">
            <span className="soft small">Which place</span>
            <input className="input" value={other} maxLength={80} onChange={(e) => setOther(e.target.value)} />
          </label>
        )}
      </div>
      {groups.map((group, i) => {
        const mine = checks.filter((c) => c.group === group);
        return (
          <Fold
            key={group}
            open={i === 0}
            className="border-b border-rule"
            summaryClassName="min-h-11 font-bold"
            summary={
              <>
                {groupName[group] ?? group} <span className="soft fig font-normal">{mine.length}</span>
              </>
            }
          >
            {mine.slice(0, AT_FIRST).map(one)}
            {mine.length > AT_FIRST && (
              <Fold summaryClassName="min-h-11 soft" summary={`${mine.length - AT_FIRST} more that tell less`}>
                {mine.slice(AT_FIRST).map(one)}
              </Fold>
            )}
          </Fold>
        );
      })}
      {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
    </div>
  );
}
