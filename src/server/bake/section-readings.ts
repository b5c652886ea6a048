import { type Kysely, sql } from "kysely";
import { type BakeChannel, infraredReading, type SectionReading, sectionChannels } from "@/core/cure";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

/** The names kept with a bake; null for every bake in an oven. */
export const sectionsOf = (kept: unknown): readonly string[] | null =>
  Array.isArray(kept) && kept.every((s): s is string => typeof s === "string") && kept.length > 0 ? kept : null;

type Noted = {
  readonly event: string;
  readonly atS: number;
  readonly valueC: number | null;
  readonly emissivity: number | null;
  readonly aim: string | null;
  readonly section: string | null;
};
export const sectionReadingsOf = (events: readonly Noted[], sections: readonly string[]): SectionReading[] =>
  events.flatMap((e) =>
    e.event === "infrared" && e.valueC !== null && e.section !== null && sections.includes(e.section)
      ? [{ ...infraredReading(e), section: e.section }]
      : [],
  );

/** The sections of a piece under lamps as channels, from the readings noted since it was begun. One query; O(readings). */
export async function readSections(
  db: Kysely<Database>,
  bake: {
    readonly oven_id: string;
    readonly load_no: string;
    readonly door_closed_at: Date;
    readonly sections: readonly string[];
  },
  at: Date,
): Promise<readonly BakeChannel[]> {
  const { rows } = await sql<Noted>`
    select e.event, coalesce(e.since_door_s, extract(epoch from r.happened_at - ${bake.door_closed_at}::timestamptz)::float8) as "atS", e.value_c as "valueC", e.emissivity, e.aim, e.section
    from bake_event e join record r on r.id = e.record_id
    where e.oven_id = ${bake.oven_id} and e.load_no = ${bake.load_no} and e.section is not null and r.happened_at >= ${bake.door_closed_at} and r.happened_at <= ${at}
      and ${stands("r.id")}`.execute(db);
  const channels = sectionChannels(bake.sections, sectionReadingsOf(rows, bake.sections));
  return channels.ok ? channels.value : [];
}
