import { type Kysely, sql } from "kysely";
import type { Database } from "@/db/schema";

type Reading = { readonly record_id: string; readonly values: object };
type Spot = { sum: number; n: number };

/** Sums of spot means by record and face. O(readings). */
export function faceSums(rows: readonly Reading[]) {
  const faces = new Map<string, { recordId: string; face: string; spots: Map<string, Spot> }>();
  for (const { record_id: recordId, values } of rows) {
    const r = values as { face: string; spot: string; value_um: number; rejected_reason?: string | null };
    if (r.rejected_reason) continue;
    const key = `${recordId}/${r.face}`;
    let mine = faces.get(key);
    if (!mine) {
      mine = { recordId, face: r.face, spots: new Map() };
      faces.set(key, mine);
    }
    const spot = mine.spots.get(r.spot);
    if (spot) {
      spot.sum += r.value_um;
      spot.n++;
    } else mine.spots.set(r.spot, { sum: r.value_um, n: 1 });
  }
  return [...faces.values()].map(({ recordId, face, spots }) => {
    const out = {
      recordId,
      face,
      spots: spots.size,
      readings: 0,
      sumUm: 0,
      sumSqUm: 0,
      lowestUm: Number.POSITIVE_INFINITY,
      highestUm: Number.NEGATIVE_INFINITY,
    };
    for (const { sum, n } of spots.values()) {
      const um = sum / n;
      out.readings += n;
      out.sumUm += um;
      out.sumSqUm += um * um;
      out.lowestUm = Math.min(out.lowestUm, um);
      out.highestUm = Math.max(out.highestUm, um);
    }
    return out;
  });
}

/** Keeps what sets of readings come to on each face, beside them. O(readings). */
export async function insertFilmFaces(db: Kysely<Database>, rows: readonly Reading[]): Promise<void> {
  const sums = faceSums(rows);
  for (let i = 0; i < sums.length; i += 5000) {
    const part = sums.slice(i, i + 5000);
    await sql`insert into film_face (record_id, face, spots, readings, sum_um, sum_sq_um, lowest_um, highest_um)
      select * from unnest(${part.map((s) => s.recordId)}::uuid[], ${part.map((s) => s.face)}::text[], ${part.map((s) => s.spots)}::int[], ${part.map((s) => s.readings)}::int[],
        ${part.map((s) => s.sumUm)}::float8[], ${part.map((s) => s.sumSqUm)}::float8[], ${part.map((s) => s.lowestUm)}::float8[], ${part.map((s) => s.highestUm)}::float8[])`.execute(
      db,
    );
  }
}
