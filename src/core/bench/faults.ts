import { atMost } from "../limits";
import { type Face, type Zone, zones } from "../plan/sketch";
import type { Acceptance } from "../site/acceptance";

/** A fault as it was found at the look. */
export type Fault = {
  /** Null where nobody placed it. */
  readonly face: string | null;
  readonly x: number | null;
  readonly y: number | null;
  /** The largest of them, mm; null where it was not measured. */
  readonly sizeMm: number | null;
  readonly count: number;
};
export type FaultsOfFace = {
  readonly face: string | null;
  readonly zone: Zone;
  readonly count: number;
  /** Null where one of them was not measured. */
  readonly largestMm: number | null;
  readonly most: number;
  readonly largestAllowedMm: number;
  /** What the class lets pass is to be watched, never simply in; what it does not, or nobody measured, is out. */
  readonly result: "watch" | "out";
};

/** The zone of a place on a face: of the area it lies in, else of the face. The middle stands for a place that was not given. */
export function zoneAt(face: Pick<Face, "zone" | "areas">, x: number | null, y: number | null): Zone {
  if (x === null || y === null) return face.zone;
  const area = face.areas.findLast(
    (a) =>
      a.kind !== "bare" &&
      x >= Math.min(a.from[0], a.to[0]) &&
      x <= Math.max(a.from[0], a.to[0]) &&
      y >= Math.min(a.from[1], a.to[1]) &&
      y <= Math.max(a.from[1], a.to[1]),
  );
  return area && area.kind !== "bare" ? area.kind : face.zone;
}

/**
 * Faults held against the classes of acceptance, by face and zone: so many on a face, none larger than so much. A fault that
 * nobody placed is held against the strictest zone of the part. O(faults × faces).
 */
export function judgeFaults(
  faults: readonly Fault[],
  faces: readonly Pick<Face, "id" | "zone" | "areas">[],
  acceptance: Acceptance,
): FaultsOfFace[] {
  const strictest = zones.find((z) => faces.some((f) => f.zone === z)) ?? "A";
  const groups = new Map<string, { face: string | null; zone: Zone; count: number; largest: number | null }>();
  for (const fault of faults) {
    const face = faces.find((f) => f.id === fault.face);
    const zone = face ? zoneAt(face, fault.x, fault.y) : strictest;
    const key = `${face?.id ?? ""} ${zone}`;
    const before = groups.get(key);
    groups.set(key, {
      face: face?.id ?? null,
      zone,
      count: (before?.count ?? 0) + fault.count,
      largest: fault.sizeMm === null || before?.largest === null ? null : Math.max(before?.largest ?? 0, fault.sizeMm),
    });
  }
  return [...groups.values()].map(({ face, zone, count, largest }) => {
    const { mostFaults, largestMm } = acceptance[zone];
    const passes = largest !== null && count <= mostFaults && atMost(largest, largestMm);
    return {
      face,
      zone,
      count,
      largestMm: largest,
      most: mostFaults,
      largestAllowedMm: largestMm,
      result: passes ? "watch" : "out",
    };
  });
}
