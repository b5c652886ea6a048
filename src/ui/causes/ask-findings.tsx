"use client";
import { Choice } from "../fields/choice";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";

type Ask = {
  readonly finding: string;
  readonly label: string;
  readonly how: string;
  readonly minutes: number;
  readonly destroysPart: boolean;
};

/** The next best checks, each answered where it stands: seen, not so. */
export function NextChecks({ caseNumber, checks }: { caseNumber: string; checks: readonly Ask[] }) {
  const { send, message, busy } = useRecorder();
  if (checks.length === 0)
    return <p className="soft">Nothing cheap is left to ask that would tell the causes apart.</p>;
  const answer = (finding: string, state: "present" | "absent") =>
    void send({ kind: "finding", caseNumber, finding: finding as "cast-metal", state, note: "" });
  return (
    <div>
      {checks.map((c, i) => (
        <div key={c.finding} className={i === 0 ? "border-t-2 border-ink pt-2" : "row"}>
          <span>
            <b className={i === 0 ? "text-[15px]" : ""}>{c.how}</b>
            <br />
            <span className="soft">
              {c.label}? <span className="fig">{c.minutes} min</span>
              {c.destroysPart ? ", one part lost" : ", no part lost"}
            </span>
          </span>
          <span className="mt-1.5 flex gap-2">
            <button type="button" className="btn" disabled={busy} onClick={() => answer(c.finding, "present")}>
              Yes, so
            </button>
            <button type="button" className="btn" disabled={busy} onClick={() => answer(c.finding, "absent")}>
              No
            </button>
          </span>
        </div>
      ))}
      {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
    </div>
  );
}

export function AnyFinding({
  caseNumber,
  findings,
}: {
  caseNumber: string;
  findings: readonly { id: string; label: string; group: string }[];
}) {
  const held = useEntryForm(`finding ${caseNumber}`, {
    finding: findings[0]?.id ?? "",
    state: "present" as "present" | "absent" | "unknown",
  });
  const [finding, setFinding] = held.field("finding");
  const [state, setState] = held.field("state");
  const { send, message, busy } = useRecorder(held);
  const groups = [...new Set(findings.map((f) => f.group))];
  return (
    <form
      className="grid gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void send({ kind: "finding", caseNumber, finding: finding as "cast-metal", state, note: "" });
      }}
    >
      {held.said}
      <Choice aria-label="Finding" className="input" value={finding} onChange={setFinding}>
        {groups.map((g) => (
          <optgroup key={g} label={g}>
            {findings
              .filter((f) => f.group === g)
              .map((f) => (
                <option key={f.id} value={f.id}>
                  {f.label}
                </option>
              ))}
          </optgroup>
        ))}
      </Choice>
      <div className="flex gap-2">
        <Choice aria-label="State" className="input" value={state} onChange={(value) => setState(value as "present")}>
          <option value="present">is so</option>
          <option value="absent">is not so</option>
          <option value="unknown">cannot tell</option>
        </Choice>
        <button type="submit" className="btn flex-none" disabled={busy}>
          Record
        </button>
      </div>
      {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
    </form>
  );
}
