import { type Kysely, sql } from "kysely";
import { judgeBake, ownChannels, type Trace, thinTrace } from "@/core/cure";
import { forPerson } from "@/db/queries/for-person";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { sectionsOf } from "../bake/section-readings";
import { layerOnTop } from "../bake/sheet-of";
import { channelsOf, scheduleOf } from "../rack/judge-rack";
import type { RackFile } from "../rack/load-rack";
import type { Person } from "../sign-in/roles";

export type LikeBake = {
  readonly recordId: string;
  readonly rack: string;
  readonly load: string;
  readonly at: Date;
  readonly place: string;
  readonly index: number;
  readonly minutes: number | null;
  /** Metal of the channel that decided, thinned for a picture. */
  readonly trace: Trace;
};
/** Columns of a trace that go to the picture of several over each other. */
const PICTURE_COLUMNS = 160;

/** The newest bakes of the same part in the same powder, this rack's own left out, each judged by the same sheet. Two queries; O(bakes shown). */
export async function likeBakes(
  db: Kysely<Database>,
  person: Person,
  rack: RackFile,
  at: Date,
  most = 5,
): Promise<LikeBake[]> {
  const { rows } = await sql<{
    record_id: string;
    number: string;
    load_no: string;
    at: Date;
    pulled_at: Date | null;
    place: string;
    channel: string | null;
    sections: unknown;
    racks: number;
  }>`
    select b.record_id, b.sections, k.number, b.load_no, b.door_closed_at as at, b.pulled_at, p.place, p.channel, (select count(*)::int from bake_place x where x.record_id = b.record_id) as racks
    from job j join rack k on k.job_id = j.id join bake_place p on p.rack_id = k.id join bake b on b.record_id = p.record_id
    where j.part_id = ${rack.part.id} and j.powder_id = ${rack.powder.id} and k.id <> ${rack.id} and b.door_closed_at <= ${at} and b.pulled_at is not null
      and ${forPerson(person, "j.customer_id")}
      and exists (select 1 from bake_channel c where c.record_id = b.record_id) and ${stands("b.record_id")}
      and ${layerOnTop} <> 'primer'
    order by b.door_closed_at desc limit ${most}`.execute(db);
  if (rows.length === 0) return [];
  const channels = await db
    .selectFrom("bake_channel")
    .selectAll()
    .where(
      "record_id",
      "in",
      rows.map((r) => r.record_id),
    )
    .orderBy("ordinal")
    .execute();
  return rows.flatMap((r): LikeBake[] => {
    const minutes = r.pulled_at ? (r.pulled_at.getTime() - r.at.getTime()) / 60_000 : null;
    const own = ownChannels(
      channelsOf(channels.filter((c) => c.record_id === r.record_id)),
      r.number,
      r.channel,
      r.racks,
    );
    const verdict = judgeBake(own, scheduleOf(rack), {
      pullS: minutes === null ? null : minutes * 60,
      sections: sectionsOf(r.sections),
    });
    const trace = verdict.ok ? own.find((c) => c.name === verdict.value.decidingChannel)?.trace : undefined;
    return verdict.ok && trace
      ? [
          {
            recordId: r.record_id,
            rack: r.number,
            load: r.load_no,
            at: r.at,
            place: r.place,
            index: verdict.value.decidingIndex,
            minutes,
            trace: thinTrace(trace, PICTURE_COLUMNS),
          },
        ]
      : [];
  });
}
