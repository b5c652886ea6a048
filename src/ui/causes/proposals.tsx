"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Severity } from "@/server/causes/board";
import { Fold } from "../fields/fold";
import { Tick } from "../fields/tick";
import { countOf } from "../format";
import Link from "../link";
import { Verdict } from "../marks/verdict";
import { severityName, severityResult } from "../words/board";
import { failureText } from "../words/failures";

type Item = {
  readonly id: string;
  readonly when: string;
  readonly of: string;
  readonly href: string;
  readonly part: string;
  readonly place: string | null;
  readonly note: string | null;
  readonly lot: string | null;
  readonly customer: string | null;
  readonly complaint: boolean;
};
type Proposed = {
  readonly defect: string;
  readonly label: string;
  readonly severity: Severity;
  readonly racks: number;
  readonly structures: number;
  readonly pieces: number;
  readonly shared: readonly string[];
  readonly first: string;
  readonly last: string;
  readonly age: string;
  readonly items: readonly Item[];
};
type Open = (input: {
  defectRecordId: string;
  zone: string;
  alike: string[];
  defect: string;
}) => Promise<
  | { readonly ok: true; readonly href?: string }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } }
>;

const sharedName: Readonly<Record<string, string>> = {
  part: "part",
  place: "place on it",
  lot: "powder lot",
  oven: "oven",
  customer: "customer",
  rack: "rack",
  structure: "structure",
  site: "site",
};
/** Groups drawn at once; more are drawn when asked. */
const AT_ONCE = 12;
/** Of a group so many are listed before the rest folds away. */
const LISTED = 40;

/** The same of what was read past its limit in the field: a group is a site, its records are structures. */
export function FieldProposals({
  proposals,
  mayOpen,
  start,
}: {
  /** Each item's id is the structure's code. */
  proposals: readonly Proposed[];
  mayOpen: boolean;
  start: (input: { structure: string; defect: string; zone: string; alike: string[] }) => ReturnType<Open>;
}) {
  return (
    <Proposals
      proposals={proposals}
      mayOpen={mayOpen}
      open={({ defectRecordId: structure, alike, defect }) => start({ structure, defect, zone: "", alike })}
      what="structure"
    />
  );
}

/** Defects that look alike, each group a case to be opened: found by a word, looked into, some left out. */
export function Proposals({
  proposals,
  mayOpen,
  open,
  what = "record",
}: {
  proposals: readonly Proposed[];
  mayOpen: boolean;
  open: Open;
  /** What a group is made of. */
  what?: string;
}) {
  const [find, setFind] = useState("");
  const [most, setMost] = useState(AT_ONCE);
  if (proposals.length === 0)
    return <p className="py-3">None. A defect recorded on a rack or in the field stands here until it is in a case.</p>;
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const text = (p: Proposed) =>
    `${p.label} ${p.severity} ${p.items.map((i) => `${i.of} ${i.part} ${i.place ?? ""} ${i.note ?? ""} ${i.lot ?? ""} ${i.customer ?? ""}`).join(" ")}`.toLowerCase();
  const found = proposals.filter((p) => words.every((w) => text(p).includes(w)));
  return (
    <>
      {proposals.length > 3 && (
        <label className="no-print mt-2 grid max-w-[360px] gap-1">
          <span className="soft small">
            {what === "record"
              ? "Find a defect, part, rack, lot, customer"
              : "Find a defect, structure, site, customer"}
          </span>
          <input className="input" type="search" value={find} onChange={(e) => setFind(e.target.value)} />
        </label>
      )}
      {found.slice(0, most).map((p) => (
        <One key={`${p.defect} ${p.items[0]?.id}`} proposed={p} mayOpen={mayOpen} open={open} what={what} />
      ))}
      {found.length === 0 && <p className="soft">Nothing of that is without a case.</p>}
      {found.length > most && (
        <button type="button" className="btn mt-2" onClick={() => setMost(most + 50)}>
          {found.length - most} more
        </button>
      )}
    </>
  );
}

function One({ proposed: p, mayOpen, open, what }: { proposed: Proposed; mayOpen: boolean; open: Open; what: string }) {
  const router = useRouter();
  const [out, setOut] = useState<ReadonlySet<string>>(new Set());
  const [state, setState] = useState<"idle" | "busy" | string>("idle");
  const inIt = p.items.filter((i) => !out.has(i.id));
  const where = [
    p.racks > 0 ? countOf(p.racks, "rack") : "",
    p.structures > 0 ? countOf(p.structures, "structure") : "",
    p.pieces > 0 ? countOf(p.pieces, "piece") : "",
  ].filter(Boolean);
  const parts = [...new Set(p.items.map((i) => i.part))].filter(Boolean);
  const row = (i: Item) => (
    <div
      key={i.id}
      className="row grid-cols-[44px_100px_minmax(110px,0.8fr)_minmax(0,1fr)] items-center max-[560px]:grid-cols-[44px_minmax(0,1fr)]"
    >
      {p.items.length > 1 ? (
        <label className="inline-flex min-h-11 min-w-11 items-center">
          <Tick
            aria-label={`${i.of}, ${i.when}: belongs to it`}
            checked={!out.has(i.id)}
            onChange={(on) => {
              const next = new Set(out);
              if (on) next.delete(i.id);
              else next.add(i.id);
              setOut(next);
            }}
          />
        </label>
      ) : (
        <span />
      )}
      <span className="fig faint small">{i.when}</span>
      <Link className="link" href={i.href}>
        {i.of}
      </Link>
      <span className="small">
        {i.place && <b>{i.place} </b>}
        {i.note} {i.lot && <span className="soft">lot {i.lot}</span>}
        {i.complaint && <span className="text-out"> complaint</span>}
      </span>
    </div>
  );
  return (
    <div className="border-b border-rule py-3">
      <div className="grid grid-cols-[92px_minmax(0,1fr)_auto] items-start gap-3 max-[560px]:grid-cols-1">
        <Verdict result={severityResult[p.severity]}>{severityName[p.severity]}</Verdict>
        <div>
          <b className="text-[15.5px]">{p.label}</b>, {parts.slice(0, 2).join(", ")}
          {parts.length > 2 ? ` and ${parts.length - 2} other parts` : ""}
          <div className="soft small">
            {where.join(", ")}; {p.first === p.last ? p.first : `${p.first} to ${p.last}`}, first {p.age} ago
            {p.items.length > 1 && p.shared.length > 0
              ? `; all share the ${p.shared.map((s) => sharedName[s] ?? s).join(", ")}`
              : ""}
          </div>
        </div>
        {mayOpen && (
          <button
            type="button"
            className="btn"
            disabled={state === "busy" || inIt.length === 0}
            onClick={async () => {
              const [first, ...rest] = inIt;
              if (!first) return;
              setState("busy");
              const came = await open({
                defectRecordId: first.id,
                zone: "",
                alike: rest.map((i) => i.id).slice(0, 499),
                defect: p.defect,
              }).catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
              if (came.ok && came.href) router.push(came.href);
              else setState(came.ok ? "idle" : failureText(came.failure));
            }}
          >
            {state === "busy" ? "Opening …" : inIt.length > 1 ? `Open a case of these ${inIt.length}` : "Open a case"}
          </button>
        )}
      </div>
      {state !== "idle" && state !== "busy" && (
        <p role="alert" className="text-out m-0 mt-1">
          {state}
        </p>
      )}
      {p.items.length === 1 ? (
        p.items.map(row)
      ) : (
        <Fold
          summaryClassName="min-h-11 soft"
          summary={`${countOf(p.items.length, what)}; leave out what does not belong`}
        >
          {p.items.slice(0, LISTED).map(row)}
          {p.items.length > LISTED && (
            <Fold summaryClassName="min-h-11 soft" summary={`${p.items.length - LISTED} more`}>
              {p.items.slice(LISTED).map(row)}
            </Fold>
          )}
        </Fold>
      )}
    </div>
  );
}
