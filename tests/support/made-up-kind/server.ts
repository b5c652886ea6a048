import type { Make } from "@/server/kinds/made";
import { refuse } from "@/server/outcome";
import { findRack } from "@/server/rack/find-rack";

type Noise = { rack: string; levelDb: number; where: string; note: string };
export const makes = {
  noise: (async ({ db, person }, entry: Noise) => {
    const rack = await findRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    const row = { ordinal: 1, level_db: entry.levelDb, where_heard: entry.where, note: entry.note || null };
    return { ok: true, where: { jobId: rack.job_id, rackId: rack.id }, details: { noise_level: [row] } as object };
  }) as Make<never>,
};
