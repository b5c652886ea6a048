import { type Kysely, sql } from "kysely";
import { creepFromScribe } from "@/core/field";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { findPanel } from "../bench/find-panel";
import { refuse } from "../outcome";
import type { Makes } from "./made";

/** Hours the panel has had in this cabinet by its newest reading but the one in hand; null before the first. */
async function hoursHad(db: Kysely<Database>, panelNo: string, cabinet: string, notId: string) {
  const { rows } = await sql<{ hours: number | null; done: boolean | null }>`
    select q.hours, q.next_hours is null as done from panel_reading q join record r on r.id = q.record_id
    where lower(q.panel_no) = lower(${panelNo}) and q.cabinet = ${cabinet} and ${stands("q.record_id")} and q.record_id <> ${notId}
    order by q.hours desc limit 1`.execute(db);
  return rows[0] ?? null;
}

export const makes: Makes<"panel-reading"> = {
  /** Failures: `unknown-panel`, `hours-run-back`, `series-ended`, `bad-entry` (rated bare), those of `creepFromScribe`. */
  "panel-reading": async ({ db, person }, entry) => {
    const panel = await findPanel(db, person, entry.panel);
    const [first] = panel?.racks ?? [];
    if (!panel || !first) return refuse({ kind: "unknown-panel", number: entry.panel });
    if (!entry.supersedes) {
      const before = await hoursHad(db, panel.number, entry.cabinet, entry.id);
      if (before?.done) return refuse({ kind: "series-ended", number: panel.number, hours: before.hours });
      if (before && before.hours !== null && entry.hours <= before.hours)
        return refuse({ kind: "hours-run-back", number: panel.number, hours: entry.hours, had: before.hours });
    }
    const creep = entry.widthsMm.length > 0 ? creepFromScribe(entry.widthsMm, entry.scribeMm ?? 0) : null;
    if (creep && !creep.ok) return refuse(creep.error);
    return {
      ok: true,
      where: { jobId: first.jobId, rackId: first.id },
      details: {
        panel_reading: [
          {
            panel_no: panel.number,
            cabinet: entry.cabinet,
            hours: entry.hours,
            creep_mm: creep?.value.creepMm ?? null,
            widths_mm: entry.widthsMm.length > 0 ? [...entry.widthsMm] : null,
            scribe_mm: entry.widthsMm.length > 0 ? entry.scribeMm : null,
            blisters: entry.blisters || null,
            rust_ri: entry.rustRi,
            next_hours: entry.nextHours,
            note: entry.note || null,
          },
        ],
        stands_for: panel.racks.map((r) => ({ rack_id: r.id })),
      },
    };
  },
};
