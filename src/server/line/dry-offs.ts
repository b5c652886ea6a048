import { type Kysely, sql } from "kysely";
import { type DryOffReason, holdsWater, judgeDryOff } from "@/core/preparation";
import type { VerdictResult } from "@/core/verdict";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";

export type DryOffSeen = {
  readonly rack: string;
  readonly part: string;
  readonly at: Date;
  readonly by: string;
  readonly result: VerdictResult;
  readonly reasons: readonly DryOffReason[];
  /** Humidity of the hall as last read before, %; null where nobody read it that half day. */
  readonly humidityPercent: number | null;
};
export type DryOffs = {
  readonly from: Date;
  readonly seen: readonly DryOffSeen[];
  readonly humidity: readonly { readonly at: Date; readonly percent: number }[];
};
/** Racks looked at most, newest kept. */
const MOST = 400;

/** How racks came out of the dry-off in the last weeks, oldest first, with the humidity of the hall. Two queries on (kind, time); O(racks + readings). */
export async function recentDryOffs(db: Kysely<Database>, person: Person, at: Date, days = 21): Promise<DryOffs> {
  const from = new Date(at.getTime() - days * 86_400_000);
  const [racks, air, parts, site] = await Promise.all([
    sql<{
      number: string;
      part_id: string;
      at: Date;
      by: string;
      metal_c: number | null;
      parts_dry: boolean;
      hollow_blown: boolean | null;
      minutes: number | null;
    }>`
      select k.number, j.part_id, r.happened_at as at, ${personName("r.by_user")} as by, d.metal_c, d.parts_dry, d.hollow_blown,
        (select extract(epoch from p.left_at - p.entered_at) / 60 from passage p join record q on q.id = p.record_id where q.rack_id = k.id and p.stage = 'dry-off' and p.left_at is not null and q.happened_at <= r.happened_at
          and ${stands("q.id")} order by p.entered_at desc limit 1)::float8 as minutes
      from record r join dry_off d on d.record_id = r.id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
      where r.kind = 'dry-off' and r.happened_at > ${from} and r.happened_at <= ${at} and ${stands("r.id")}
        and ${forPerson(person, "j.customer_id")} order by r.happened_at desc limit ${MOST}`.execute(db),
    sql<{ at: Date; percent: number }>`
      select r.happened_at as at, c.value as percent from record r join condition c on c.record_id = r.id
      where r.kind = 'condition' and c.quantity = 'humidity' and r.happened_at > ${from} and r.happened_at <= ${at} and ${stands("r.id")} order by r.happened_at`.execute(
      db,
    ),
    setupAt(db, "part", at),
    siteAt(db, at),
  ]);
  const halfDay = 12 * 3_600_000;
  const seen = racks.rows.reverse().map((row): DryOffSeen => {
    const part = parts.get(row.part_id)?.data;
    const wet = holdsWater(part?.features ?? []);
    const judged = judgeDryOff(
      { minutes: row.minutes, metalC: row.metal_c, partsDry: row.parts_dry, hollowBlown: row.hollow_blown },
      {
        leastMinutes: wet ? site.dryOffHollowMinutes : site.dryOffMinutes,
        boothMetalC: site.boothMetalC,
        holdsWater: wet,
      },
    );
    const air0 = air.rows.findLast((a) => a.at <= row.at && row.at.getTime() - a.at.getTime() < halfDay);
    return {
      rack: row.number,
      part: part?.name ?? "",
      at: row.at,
      by: row.by,
      ...judged,
      humidityPercent: air0?.percent ?? null,
    };
  });
  return { from, seen, humidity: air.rows };
}
