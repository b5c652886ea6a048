"use client";
import { useRouter } from "next/navigation";
import { type ReactNode, useState } from "react";
import type { ReRanked } from "@/server/causes/change-knowledge";
import { Fold } from "../fields/fold";
import { Tick } from "../fields/tick";
import { countOf } from "../format";
import { useEntryForm } from "../forms/use-entry-form";
import Link from "../link";
import { parseTyped } from "../parse-typed";
import { causeShort, strengthSaid } from "../words/causes";
import { failureText } from "../words/failures";

type Failed = { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };
export type Try = (input: {
  change: object;
}) => Promise<
  | { readonly ok: true; readonly looked: number; readonly cases: number; readonly reRanked: readonly ReRanked[] }
  | Failed
>;
export type Keep = (input: {
  change: object;
  seen: string | null;
  reason: string;
}) => Promise<{ readonly ok: true } | Failed>;

type Row = {
  readonly finding: string;
  readonly label: string;
  readonly whenPresent: number;
  readonly whenAbsent: number;
  readonly because: string;
};

/** One weight in its line; what changes it is there once the line is opened. */
export function WeightRow({ summary, ...form }: Parameters<typeof WeightForm>[0] & { summary: ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    <Fold
      className="border-b border-rule"
      summaryClassName="min-h-11 w-full"
      summary={summary}
      onToggle={(is) => is && setOpen(true)}
    >
      {open && <WeightForm {...form} />}
    </Fold>
  );
}

/** A weight questioned: set otherwise for this site with why, and seen what it would do to past cases before it is kept. */
function WeightForm({
  defect,
  cause,
  row,
  own,
  seen,
  names,
  tryIt,
  keep,
}: {
  defect: string;
  cause: string;
  row: Row;
  /** The site has set it otherwise already. */
  own: boolean;
  seen: string | null;
  names: Readonly<Record<string, string>>;
  tryIt: Try;
  keep: Keep;
}) {
  const router = useRouter();
  const held = useEntryForm(`weight ${defect} ${cause} ${row.finding}`, {
    present: String(row.whenPresent),
    absent: String(row.whenAbsent),
    because: row.because,
    everywhere: false,
    reason: "",
  });
  const [present, setPresent] = held.field("present");
  const [absent, setAbsent] = held.field("absent");
  const [because, setBecause] = held.field("because");
  const [everywhere, setEverywhere] = held.field("everywhere");
  const [reason, setReason] = held.field("reason");
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const [found, setFound] = useState<{ looked: number; cases: number; reRanked: readonly ReRanked[] } | null>(null);
  const change = () => {
    const [a, b] = [parseTyped(present), parseTyped(absent)];
    if (!a.ok || !b.ok) return null;
    return {
      kind: "weight",
      defect: everywhere ? null : defect,
      cause,
      finding: row.finding,
      whenPresent: a.value,
      whenAbsent: b.value,
      because,
    };
  };
  const run = async (what: "try" | "keep" | "back") => {
    const asked = what === "back" ? { kind: "weight-back", defect, cause, finding: row.finding } : change();
    if (!asked) return setSaid("Type both weights as numbers, such as 1.5.");
    setBusy(true);
    setSaid(null);
    const nothing = { ok: false as const, failure: { kind: "not-saved" } };
    if (what === "try") {
      const came = await tryIt({ change: asked }).catch(() => nothing);
      setBusy(false);
      if (came.ok) setFound(came);
      else setSaid(failureText(came.failure));
      return;
    }
    const came = await keep({ change: asked, seen, reason }).catch(() => nothing);
    setBusy(false);
    if (!came.ok) return setSaid(failureText(came.failure));
    setSaid("Kept as a new version, from now on.");
    held.done();
    setFound(null);
    router.refresh();
  };
  return (
    <div className="mt-1 grid max-w-[620px] gap-3 border-l-4 border-rule-strong pl-3">
      {held.said}
      <div className="grid grid-cols-2 gap-3">
        <label className="grid gap-1">
          <span className="soft small">Weight when so</span>
          <input
            className="input num"
            inputMode="decimal"
            value={present}
            onChange={(e) => setPresent(e.target.value)}
          />
        </label>
        <label className="grid gap-1">
          <span className="soft small">Weight when not so</span>
          <input className="input num" inputMode="decimal" value={absent} onChange={(e) => setAbsent(e.target.value)} />
        </label>
      </div>
      <label className="grid gap-1">
        <span className="soft small">The sentence that goes with it</span>
        <input className="input" value={because} maxLength={300} onChange={(e) => setBecause(e.target.value)} />
      </label>
      <label className="flex min-h-11 items-center gap-2">
        <Tick checked={everywhere} onChange={setEverywhere} />
        <span>for this cause whatever the defect, not for this defect alone</span>
      </label>
      <div>
        <button type="button" className="btn" disabled={busy} onClick={() => void run("try")}>
          {busy ? "Going through past cases …" : "See which past cases it would re-rank"}
        </button>
      </div>
      {found && (
        <div role="status">
          <b>
            {found.reRanked.length === 0
              ? `None of ${countOf(found.looked, "case")} would be ranked otherwise.`
              : `${found.reRanked.length} of ${countOf(found.looked, "case")} would be ranked otherwise:`}
          </b>
          {found.cases > found.looked ? ` The newest ${found.looked} of ${found.cases} were gone through.` : ""}
          {found.reRanked.map((r) => (
            <div key={r.number} className="row grid-cols-[70px_minmax(0,1fr)]">
              <Link className="link fig" href={`/causes/${r.number}`}>
                {r.number}
              </Link>
              <span>
                {causeShort(names[r.before.cause] ?? r.before.cause)}, {strengthSaid(r.before.strength)} →{" "}
                <b>{causeShort(names[r.after.cause] ?? r.after.cause)}</b>, {strengthSaid(r.after.strength)}
                {r.confirmed && (
                  <span className="soft">
                    ; confirmed {causeShort(names[r.confirmed.cause] ?? r.confirmed.cause)}: place {r.confirmed.before}{" "}
                    → {r.confirmed.after}
                  </span>
                )}
              </span>
            </div>
          ))}
        </div>
      )}
      <label className="grid gap-1">
        <span className="soft small">Why it is changed</span>
        <input className="input" value={reason} maxLength={400} onChange={(e) => setReason(e.target.value)} />
      </label>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn pri"
          disabled={busy || !found || reason.trim().length < 3}
          onClick={() => void run("keep")}
        >
          Keep it for this site
        </button>
        {own && (
          <button
            type="button"
            className="btn"
            disabled={busy || reason.trim().length < 3}
            onClick={() => void run("back")}
          >
            Back to what ships
          </button>
        )}
      </div>
      {!found && <p className="soft small m-0">It can be kept once its effect on past cases was seen.</p>}
      {said && (
        <p role="status" className="m-0">
          {said}
        </p>
      )}
    </div>
  );
}

/** One change with a reason and a button: learn anew, watch, stop watching. */
export function ChangeButton({
  change,
  seen,
  button,
  ask,
  reason: given = "",
  keep,
}: {
  change: object;
  seen: string | null;
  button: string;
  /** What is asked before it is done. */
  ask: string;
  reason?: string;
  keep: Keep;
}) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState(given);
  const [said, setSaid] = useState<{ good: boolean; text: string } | null>(null);
  const [busy, setBusy] = useState(false);
  if (!open)
    return (
      <span className="no-print">
        <button type="button" className="btn" onClick={() => setOpen(true)}>
          {button}
        </button>
        {said && (
          <span role="status" className={said.good ? "text-in" : "text-out"}>
            {" "}
            {said.text}
          </span>
        )}
      </span>
    );
  return (
    <div className="no-print mt-1 grid max-w-[520px] gap-2">
      <p className="m-0">{ask}</p>
      <label className="grid gap-1">
        <span className="soft small">Why</span>
        <input className="input" value={reason} maxLength={400} onChange={(e) => setReason(e.target.value)} />
      </label>
      <div className="flex gap-2">
        <button
          type="button"
          className="btn pri"
          disabled={busy || reason.trim().length < 3}
          onClick={async () => {
            setBusy(true);
            const came = await keep({ change, seen, reason }).catch(() => ({
              ok: false as const,
              failure: { kind: "not-saved" },
            }));
            setBusy(false);
            setSaid(came.ok ? { good: true, text: "Kept." } : { good: false, text: failureText(came.failure) });
            setOpen(false);
            if (came.ok) router.refresh();
          }}
        >
          {button}
        </button>
        <button type="button" className="btn" onClick={() => setOpen(false)}>
          Leave it
        </button>
      </div>
    </div>
  );
}
