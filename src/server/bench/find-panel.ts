import { type Kysely, sql } from "kysely";
import type { Failure } from "@/core/result";
import { forPerson } from "@/db/queries/for-person";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { findRack } from "../rack/find-rack";
import type { Person } from "../sign-in/roles";

export type Panel = {
  readonly recordId: string;
  readonly number: string;
  readonly metal: string;
  readonly racks: readonly { readonly id: string; readonly number: string; readonly jobId: string }[];
};

/** The panel of a number, as it stands on record; null where there is none that this person may see. An index probe. */
export async function findPanel(db: Kysely<Database>, person: Person, number: string): Promise<Panel | null> {
  const { rows } = await sql<{
    record_id: string;
    number: string;
    metal: string;
    id: string;
    rack: string;
    job_id: string;
  }>`
    select p.record_id, p.number, p.metal, k.id, k.number as rack, k.job_id
    from panel p join stands_for s on s.record_id = p.record_id join rack k on k.id = s.rack_id join job j on j.id = k.job_id
    where lower(p.number) = lower(${number}) and ${stands("p.record_id")} and ${forPerson(person, "j.customer_id")}
    order by k.number`.execute(db);
  const [first] = rows;
  if (!first) return null;
  return {
    recordId: first.record_id,
    number: first.number,
    metal: first.metal,
    racks: rows.map((r) => ({ id: r.id, number: r.rack, jobId: r.job_id })),
  };
}

/** Where a test is kept: the rack it was entered for, and the panel it was done on with every rack that stands for. */
export type Tested = {
  readonly where: { readonly jobId: string; readonly rackId: string };
  readonly powderId: string;
  readonly panel: { readonly on_panel: boolean; readonly panel_no: string | null };
  readonly standsFor: { readonly stands_for?: readonly { readonly rack_id: string }[] };
};

/** Failures: `unknown-rack`, `unknown-panel`, `panel-of-another-load` (with the racks that it stands for). */
export async function tested(
  db: Kysely<Database>,
  person: Person,
  entry: { readonly rack: string; readonly panel: string | null; readonly onPanel: boolean },
): Promise<{ ok: true; value: Tested } | { ok: false; failure: Failure }> {
  const rack = await findRack(db, person, entry.rack);
  if (!rack) return { ok: false, failure: { kind: "unknown-rack", number: entry.rack } };
  const on = { where: { jobId: rack.job_id, rackId: rack.id }, powderId: rack.powder_id };
  if (entry.panel === null)
    return { ok: true, value: { ...on, panel: { on_panel: entry.onPanel, panel_no: null }, standsFor: {} } };
  const panel = await findPanel(db, person, entry.panel);
  if (!panel) return { ok: false, failure: { kind: "unknown-panel", number: entry.panel } };
  if (!panel.racks.some((r) => r.id === rack.id)) {
    const racks = panel.racks.map((r) => r.number);
    return { ok: false, failure: { kind: "panel-of-another-load", number: panel.number, rack: rack.number, racks } };
  }
  return {
    ok: true,
    value: {
      ...on,
      panel: { on_panel: true, panel_no: panel.number },
      standsFor: { stands_for: panel.racks.map((r) => ({ rack_id: r.id })) },
    },
  };
}
