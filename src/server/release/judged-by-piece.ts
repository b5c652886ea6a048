import { judgeRack, type RackVerdict } from "../rack/judge-rack";
import { ofPieces, piecesLeft, type RackFile } from "../rack/load-rack";
import type { Conditions } from "../trace/conditions";

export type JudgedByPiece = {
  /** Verdicts as they differ: pieces with the same faults have one between them. */
  readonly verdicts: readonly RackVerdict[];
  /** Which of them is each piece's, by its place on the rack. */
  readonly of: Readonly<Record<number, number>>;
};

/** The verdict of each piece that hangs on a rack, were it alone. One judgement for each set of faults; O(pieces × faults). */
export function judgedByPiece(rack: RackFile, conditions: Conditions): JudgedByPiece {
  const named = rack.latest.flatMap((r) => {
    const pieces = r.details.defect?.[0]?.pieces;
    return Array.isArray(pieces) ? [new Set(pieces.map(String))] : [];
  });
  const verdicts: RackVerdict[] = [];
  const known = new Map<string, number>();
  const of: Record<number, number> = {};
  for (const piece of piecesLeft(rack.pieces, rack.current)) {
    const faults = named.map((set) => (set.has(piece.serial) ? "1" : "0")).join("");
    let at = known.get(faults);
    if (at === undefined) {
      at = verdicts.push(judgeRack(ofPieces(rack, [piece]), conditions)) - 1;
      known.set(faults, at);
    }
    of[piece.position] = at;
  }
  return { verdicts, of };
}
