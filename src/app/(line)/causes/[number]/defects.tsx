import { likeness, type Sighting } from "@/core/diagnosis";
import { proposals } from "@/server/causes/board";
import type { CaseFile } from "@/server/causes/load-case";
import { database } from "@/server/database";
import { may, type Person } from "@/server/sign-in/roles";
import { CaseDefects, type Row } from "@/ui/causes/case-defects";
import { countOf, when } from "@/ui/format";

/** Alike enough to be offered. */
const ALIKE = 3;

/** The records of a case, and those without one that look alike. */
export async function Defects({
  person,
  file,
  at,
  timeZone,
}: {
  person: Person;
  file: CaseFile;
  at: Date;
  timeZone: string;
}) {
  const loose = (await proposals(database(), person)).filter((p) => p.defect === file.defect).flatMap((p) => p.items);
  const mine: Sighting[] = file.defects.map((d) => ({
    id: d.recordId,
    atMs: d.at.getTime(),
    defect: d.defect,
    part: d.partId ?? d.structureCode ?? "",
    place: d.face,
    lot: null,
    oven: null,
    customer: null,
    rack: d.rack,
    structure: d.structureCode,
  }));
  const alike = loose.filter((l) => mine.some((m) => likeness(m, l) >= ALIKE));
  const rows: Row[] = file.defects.map((d) => ({
    id: d.recordId,
    when: when(d.at, at, timeZone),
    of: d.rack ? `rack ${d.rack}` : (d.structure ?? ""),
    href: d.rack ? `/racks/${d.rack}/release` : `/field/${d.structureCode?.toLowerCase()}`,
    said: [
      d.face,
      d.piecesAffected !== null
        ? `${d.piecesAffected}${d.piecesSeen !== null ? ` of ${countOf(d.piecesSeen, "piece")}` : ""}`
        : null,
      d.sizeMm !== null ? `${d.sizeMm} mm` : null,
      d.note,
    ]
      .filter(Boolean)
      .join(", "),
    first: d.recordId === file.defects.find((x) => x.recordId === file.firstDefect)?.recordId,
  }));
  return (
    <section className="ruled mt-6" id="records" aria-label="Records of it">
      <h2>{countOf(rows.length, "record")} of it</h2>
      <CaseDefects
        caseNumber={file.number}
        mine={rows}
        alike={alike.map((l) => ({
          id: l.id,
          when: when(new Date(l.atMs), at, timeZone),
          of: l.rack ? `rack ${l.rack}` : (l.structureName ?? ""),
          href: l.rack ? `/racks/${l.rack}/release` : `/field/${l.structure?.toLowerCase()}`,
          said: [l.partName, l.place, l.note].filter(Boolean).join(", "),
          first: false,
        }))}
        may={may(person.role, "inspect")}
      />
    </section>
  );
}
