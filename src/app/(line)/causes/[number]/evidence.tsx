import type { EstablishedFinding } from "@/server/causes/findings-from-record";
import type { CaseFile } from "@/server/causes/load-case";
import { Fold } from "@/ui/fields/fold";
import Link from "@/ui/link";
import { Grade } from "@/ui/marks/verdict";
import { gapSaid } from "@/ui/words/gaps";
import { foundText } from "@/ui/words/reasons";

const SHOWN = 8;

/** Established findings that bear on the defect, those that move the ranking most first. */
export function bearing(file: CaseFile): readonly EstablishedFinding[] {
  const moved = (finding: string): number =>
    Math.max(
      0,
      ...file.diagnosis.causes.flatMap((c) =>
        c.effects.filter((e) => e.finding === finding).map((e) => Math.abs(e.effect) * c.strength),
      ),
    );
  const spoken = new Set(file.diagnosis.causes.flatMap((c) => [...c.raised, ...c.lowered].map((x) => x.finding)));
  return file.established
    .filter((f) => spoken.has(f.finding))
    .sort(
      (a, b) => Number(b.state === "present") - Number(a.state === "present") || moved(b.finding) - moved(a.finding),
    );
}

/** What was never recorded though it would bear on this defect: the gaps to close. */
export function gapsOf(file: CaseFile): readonly EstablishedFinding[] {
  const defect = file.known.knowledge.defects.get(file.defect);
  const answered = new Set(file.asked.map((a) => a.finding));
  const weight = (finding: string): number =>
    Math.max(
      0,
      ...[...(defect?.evidence.values() ?? [])].flatMap((rows) =>
        rows.filter((r) => r.finding === finding).map((r) => Math.max(r.whenPresent, -r.whenAbsent)),
      ),
    );
  return file.established
    .filter((f) => f.state === "unknown" && !f.among && !answered.has(f.finding) && weight(f.finding) >= 0.8)
    .sort((a, b) => weight(b.finding) - weight(a.finding));
}

export function RecordSays({ file, labels }: { file: CaseFile; labels: ReadonlyMap<string, string> }) {
  const relevant = bearing(file);
  const row = (f: EstablishedFinding) => (
    <div key={f.finding} className="row grid-cols-[minmax(0,1fr)_24px]">
      <span>
        <span className="soft">{labels.get(f.finding)}:</span> <b>{f.state === "present" ? "yes" : "no"}</b>
        <br />
        <span className="small">
          {foundText(f.what)}
          {f.among && f.among.of > 1
            ? `; so on ${f.among.withIt} of ${f.among.of} ${file.rack ? "racks" : "structures"} looked into`
            : ""}
        </span>
        {f.sources.length > 0 && (file.rack || file.structure) && (
          <>
            {" "}
            <Link
              className="link small"
              href={
                file.rack ? `/records?rack=${file.rack.number}` : `/field/${file.structure?.code.toLowerCase() ?? ""}`
              }
            >
              {f.sources.length === 1 ? "source" : `${f.sources.length} sources`}
            </Link>
          </>
        )}
      </span>
      <Grade grade={f.grade} />
    </div>
  );
  return (
    <>
      {relevant.length === 0 && <p className="soft">The record has nothing that bears on this defect.</p>}
      {relevant.slice(0, SHOWN).map(row)}
      {relevant.length > SHOWN && (
        <Fold summaryClassName="min-h-11 soft" summary={`${relevant.length - SHOWN} more that move little`}>
          {relevant.slice(SHOWN).map(row)}
        </Fold>
      )}
    </>
  );
}

/** What holds for some racks of the case and not for others: a false lead, or two causes under one name. */
export function Mixed({ file, labels }: { file: CaseFile; labels: ReadonlyMap<string, string> }) {
  const mixed = file.established.filter(
    (f) => f.state === "unknown" && f.among && f.among.withIt > 0 && f.among.withIt < f.among.of,
  );
  if (mixed.length === 0) return null;
  return (
    <p className="small soft m-0 mt-2">
      On some racks of it only, and so no evidence:{" "}
      {mixed
        .map((f) => `${(labels.get(f.finding) ?? f.finding).toLowerCase()} (${f.among?.withIt} of ${f.among?.of})`)
        .join("; ")}
      .
    </p>
  );
}

export function Gaps({ file, labels }: { file: CaseFile; labels: ReadonlyMap<string, string> }) {
  const gaps = gapsOf(file);
  if (gaps.length === 0) return <p className="soft">Everything that bears on this defect was recorded.</p>;
  const row = (g: EstablishedFinding) => (
    <div key={g.finding} className="row">
      <span>
        {labels.get(g.finding)}
        <br />
        <span className="soft small">
          {gapSaid(g.finding, file.known.knowledge.findings.get(g.finding)?.from ?? null)}
        </span>
      </span>
    </div>
  );
  return (
    <>
      {gaps.slice(0, 4).map(row)}
      {gaps.length > 4 && (
        <Fold summaryClassName="min-h-11 soft" summary={`${gaps.length - 4} more`}>
          {gaps.slice(4).map(row)}
        </Fold>
      )}
    </>
  );
}
