import { subKindOf, subKinds } from "@/core/bench";
import type { Failure } from "@/core/result";
import type { NewDetail } from "@/db/detail-tables";
import { findStructure } from "../field/find-structure";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import type { Makes, Of } from "./made";

type Fault = Of<"look">["faults"][number];
type Piece = { readonly serial: string; readonly position: number };

/** What is wrong with a fault as it was said; null where nothing is. `more-affected-than-seen`, `unknown-sub-kind`, `no-such-piece`. */
export function wrongFault(fault: Fault, pieces: readonly Piece[]): Failure | null {
  const { piecesAffected, piecesSeen, defect, subKind } = fault;
  if (piecesAffected !== null && piecesSeen !== null && piecesAffected > piecesSeen)
    return { kind: "more-affected-than-seen", affected: piecesAffected, seen: piecesSeen };
  if (subKind !== null && !subKindOf(defect, subKind))
    return { kind: "unknown-sub-kind", name: subKind, defect, of: (subKinds[defect] ?? []).map((s) => s.id) };
  const stray = fault.pieces?.find((n) => !pieces.some((p) => p.position === n));
  if (stray !== undefined) return { kind: "no-such-piece", piece: stray, of: pieces.length };
  return null;
}
/** A fault as its row is kept. */
export const faultRow = (fault: Fault, pieces: readonly Piece[] = []): NewDetail<"defect"> => ({
  defect: fault.defect,
  face: fault.face,
  x: fault.x,
  y: fault.y,
  extent_percent: fault.extentPercent,
  pieces_affected: fault.piecesAffected,
  pieces_seen: fault.piecesSeen,
  sub_kind: fault.subKind,
  size_mm: fault.sizeMm,
  count: fault.count,
  pieces: fault.pieces === null ? null : pieces.filter((p) => fault.pieces?.includes(p.position)).map((p) => p.serial),
  note: fault.note || null,
});

export const makes: Makes<"defect"> = {
  /** Failures: those of `wrongFault`, `unknown-rack`, `unknown-structure`. */
  defect: async ({ db, person }, entry) => {
    if (entry.rack) {
      const rack = await findRack(db, person, entry.rack);
      if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
      const pieces = await db
        .selectFrom("piece")
        .select(["serial", "position"])
        .where("rack_id", "=", rack.id)
        .orderBy("position")
        .execute();
      const wrong = wrongFault(entry, pieces);
      if (wrong) return refuse(wrong);
      return {
        ok: true,
        where: { jobId: rack.job_id, rackId: rack.id },
        details: { defect: [faultRow(entry, pieces)] },
      };
    }
    const wrong = wrongFault(entry, []);
    if (wrong) return refuse(wrong);
    const details = { defect: [faultRow(entry)] };
    const structure = await findStructure(db, person, entry.structure ?? "");
    return structure
      ? { ok: true, where: { structureId: structure.id }, details }
      : refuse({ kind: "unknown-structure", name: entry.structure ?? "" });
  },
};
