import { type Kysely, sql } from "kysely";
import { type MapCell, placeMap } from "@/core/yield";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

/** What is added up: thin and heavy places under the lamp, bumps, faults of the finished film. */
export const mapped = ["light", "heavy", "bump", "fault"] as const;
export type Mapped = (typeof mapped)[number];
export type FaceCount = {
  readonly face: string;
  /** Racks on which it was looked at, and of these with a place on it; and the same in as long a span before. */
  readonly looked: number;
  readonly racks: number;
  readonly lookedBefore: number;
  readonly racksBefore: number;
};
export type PartMap = {
  readonly cells: readonly MapCell[];
  readonly faces: readonly FaceCount[];
  readonly notPlaced: number;
};

const spotsOf = (what: Mapped): readonly string[] =>
  what === "light" ? ["light-resprayed", "light-left"] : what === "heavy" ? ["heavy-left"] : ["bumped"];
type Row = { rack: string; face: string | null; x: number | null; y: number | null; now: boolean };

/**
 * Where on a part something was noted, over the racks of a span, beside the same span before. Two queries by kind and time;
 * O(looks and places of the part in both spans).
 */
export async function partMap(
  db: Kysely<Database>,
  ask: { readonly partId: string; readonly what: Mapped; readonly days: number; readonly at: Date },
): Promise<PartMap> {
  const from = new Date(ask.at.getTime() - ask.days * 86_400_000);
  const before = new Date(from.getTime() - ask.days * 86_400_000);
  const ofPart = sql`r.happened_at > ${before} and r.happened_at <= ${ask.at} and j.part_id = ${ask.partId} and ${stands("r.id")}`;
  const [places, looked] = await Promise.all([
    ask.what === "fault"
      ? sql<Row>`select k.number as rack, f.face, f.x, f.y, r.happened_at > ${from} as now from record r join defect f on f.record_id = r.id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
          where r.kind = 'defect' and f.pieces_affected is distinct from 0 and ${ofPart}`.execute(db)
      : sql<Row>`select k.number as rack, s.face, s.x, s.y, r.happened_at > ${from} as now from record r join light_spot s on s.record_id = r.id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
          where r.kind = 'lamp-check' and s.what = any(${spotsOf(ask.what)}::text[]) and ${ofPart}
          ${
            ask.what === "bump"
              ? sql`union all select k.number, null, null, null, r.happened_at > ${from} from record r join lamp_check l on l.record_id = r.id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
                where r.kind = 'lamp-check' and l.bumped and not exists (select 1 from light_spot s where s.record_id = r.id and s.what = 'bumped') and ${ofPart}`
              : sql``
          }`.execute(db),
    sql<{ face: string; now: boolean; n: number }>`
      select e.value as face, r.happened_at > ${from} as now, count(distinct k.id)::int as n
      from record r join ${ask.what === "fault" ? sql`look` : sql`lamp_check`} l on l.record_id = r.id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
        cross join lateral jsonb_array_elements_text(l.faces) e
      where r.kind = ${ask.what === "fault" ? "look" : "lamp-check"} and ${ofPart} group by 1, 2`.execute(db),
  ]);
  const count = (now: boolean) => new Map(looked.rows.filter((r) => r.now === now).map((r) => [r.face, r.n]));
  const [lookedNow, lookedBefore] = [count(true), count(false)];
  const placed = places.rows.flatMap((r) =>
    r.face !== null && r.x !== null && r.y !== null ? [{ rack: r.rack, face: r.face, x: r.x, y: r.y, now: r.now }] : [],
  );
  const racksOn = (face: string, now: boolean) =>
    new Set(places.rows.filter((r) => r.face === face && r.now === now).map((r) => r.rack)).size;
  const faces = [...new Set([...lookedNow.keys(), ...places.rows.flatMap((r) => r.face ?? [])])].sort();
  return {
    cells: placeMap(
      placed.filter((p) => p.now),
      lookedNow,
    ),
    faces: faces.map((face) => ({
      face,
      looked: Math.max(lookedNow.get(face) ?? 0, racksOn(face, true)),
      racks: racksOn(face, true),
      lookedBefore: Math.max(lookedBefore.get(face) ?? 0, racksOn(face, false)),
      racksBefore: racksOn(face, false),
    })),
    notPlaced: new Set(places.rows.filter((r) => r.now && (r.face === null || r.x === null)).map((r) => r.rack)).size,
  };
}

/** The part on which the most racks of a span had something of the kind; null where none had. */
export async function mostNoted(
  db: Kysely<Database>,
  ask: { readonly what: Mapped; readonly days: number; readonly at: Date },
): Promise<string | null> {
  const from = new Date(ask.at.getTime() - ask.days * 86_400_000);
  const has =
    ask.what === "fault"
      ? sql`r.kind = 'defect' and exists (select 1 from defect f where f.record_id = r.id and f.face is not null and f.pieces_affected is distinct from 0)`
      : sql`r.kind = 'lamp-check' and exists (select 1 from light_spot s where s.record_id = r.id and s.what = any(${spotsOf(ask.what)}::text[]))`;
  const { rows } = await sql<{ part_id: string }>`
    select j.part_id from record r join rack k on k.id = r.rack_id join job j on j.id = k.job_id
    where ${has} and r.happened_at > ${from} and r.happened_at <= ${ask.at} and ${stands("r.id")}
    group by 1 order by count(distinct k.id) desc, 1 limit 1`.execute(db);
  return rows[0]?.part_id ?? null;
}
