import { subKindOf } from "@/core/bench";
import { newest, type RackFile } from "../rack/load-rack";

export type TouchPlace = {
  readonly key: string;
  readonly what: string;
  readonly defect: string | null;
  readonly face: string | null;
  readonly x: number | null;
  readonly y: number | null;
};

/** What there is to touch up on a cured rack: where it hung and rested, and faults that stand; what was done already is left out. */
export function touchPlaces(rack: RackFile): TouchPlace[] {
  if (!newest(rack, "bake")) return [];
  const done = rack.latest.flatMap((r) => (r.details.touch_up ?? []).filter((t) => t.done));
  const faceName = (id: string | null) => rack.part.data.faces.find((f) => f.id === id)?.name ?? id ?? "not placed";
  const contacts = rack.part.data.marks.flatMap((m, i): TouchPlace[] => {
    if (m.kind !== "hang" && m.kind !== "rest") return [];
    const what = `${m.kind === "hang" ? "hang mark" : "rest mark"}, ${faceName(m.face)}${m.note ? `, ${m.note}` : ""}`;
    const [x, y] = m.at;
    return done.some((t) => t.what === what && t.x === x && t.y === y)
      ? []
      : [{ key: `mark-${i}`, what, defect: null, face: m.face, x, y }];
  });
  const faults = rack.latest.flatMap((r): TouchPlace[] => {
    const row = r.details.defect?.[0];
    if (!row || row.pieces_affected === 0 || done.some((t) => t.defect_id === r.base.id)) return [];
    const sub = subKindOf(row.defect, row.sub_kind);
    return [
      {
        key: r.base.id,
        what: `${row.defect.replaceAll("-", " ")}${sub ? `, ${sub.label}` : ""}, ${faceName(row.face)}`,
        defect: r.base.id,
        face: rack.part.data.faces.some((f) => f.id === row.face) ? row.face : null,
        x: row.x,
        y: row.y,
      },
    ];
  });
  return [...contacts, ...faults];
}
