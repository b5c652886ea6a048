"use client";
import { useRecorder } from "../forms/use-recorder";
import Link from "../link";

export type Row = {
  readonly id: string;
  readonly when: string;
  readonly of: string;
  readonly href: string;
  readonly said: string;
  /** It opened the case, and stays in it. */
  readonly first: boolean;
};

/** Records of a case: each may be split from it again; those that look alike and have no case may be joined. */
export function CaseDefects({
  caseNumber,
  mine,
  alike,
  may,
}: {
  caseNumber: string;
  mine: readonly Row[];
  alike: readonly Row[];
  may: boolean;
}) {
  const { send, message, busy } = useRecorder();
  const set = (ids: readonly string[], state: "joined" | "split") =>
    void send({ kind: "case-defect", caseNumber, defects: [...ids], state, why: "" });
  const row = (r: Row, state: "joined" | "split") => (
    <div
      key={r.id}
      className="row grid-cols-[110px_130px_minmax(0,1fr)_auto] items-center max-[560px]:grid-cols-[minmax(0,1fr)_auto]"
    >
      <span className="fig faint small">{r.when}</span>
      <Link className="link" href={r.href}>
        {r.of}
      </Link>
      <span className="small">{r.said}</span>
      {r.first ? (
        <span className="faint small">opened it</span>
      ) : may ? (
        <button type="button" className="btn no-print" disabled={busy} onClick={() => set([r.id], state)}>
          {state === "split" ? "Split off" : "Join"}
        </button>
      ) : null}
    </div>
  );
  return (
    <>
      {mine.map((r) => row(r, "split"))}
      {alike.length > 0 && (
        <div className="no-print mt-3">
          <div className="flex flex-wrap items-baseline justify-between gap-2">
            <b>Looks alike, in no case</b>
            {may && alike.length > 1 && (
              <button
                type="button"
                className="btn"
                disabled={busy}
                onClick={() =>
                  set(
                    alike.map((a) => a.id),
                    "joined",
                  )
                }
              >
                Join all {alike.length}
              </button>
            )}
          </div>
          {alike.slice(0, 30).map((r) => row(r, "joined"))}
          {alike.length > 30 && <p className="soft small m-0">and {alike.length - 30} more</p>}
        </div>
      )}
      {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
    </>
  );
}
