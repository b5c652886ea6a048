import { type Kysely, sql } from "kysely";
import { isReleased } from "@/core/line";
import { forPerson } from "@/db/queries/for-person";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";

/** How far a rack has got that met a bath out of its window. */
export type HowFar = "still-here" | "released" | "in-the-field" | "scrapped";
export type ExposedRack = {
  readonly number: string;
  readonly part: string;
  readonly job: string;
  readonly enteredAt: Date;
  readonly howFar: HowFar;
  /** Some of its pieces were let go before the rest. */
  readonly parted: boolean;
  /** The last stage it passed, for one that is still here. */
  readonly stage: string;
};
export type Exposure = {
  readonly racks: readonly ExposedRack[];
  readonly total: number;
  readonly byHowFar: Readonly<Record<HowFar, number>>;
};
/** Racks listed; the counts are of all. */
export const MOST_LISTED = 200;

/**
 * The racks that passed a stage in a span, newest first, and how far they have got. One query on (stage, time); each
 * rack's decision, place in the field and last stage are index probes, so that the cost grows with the racks exposed
 * and not with the history.
 */
export async function exposedRacks(
  db: Kysely<Database>,
  person: Person,
  stage: string,
  from: Date,
  to: Date,
): Promise<Exposure> {
  const { rows } = await sql<{
    number: string;
    part: string;
    job: string;
    entered_at: Date;
    decision: string | null;
    fielded: boolean;
    parted: boolean | null;
    stage: string | null;
    total: string;
    released: string;
    in_field: string;
    scrapped: string;
  }>`
    with exposed as (
      select distinct on (k.id) k.id, k.number, j.number as job, j.part_id, p.entered_at
      from passage p join record r on r.id = p.record_id join rack k on k.id = r.rack_id join job j on j.id = k.job_id
      where p.stage = ${stage} and p.entered_at >= ${from} and p.entered_at <= ${to}
        and ${forPerson(person, "j.customer_id")}
        and ${stands("r.id")}
      order by k.id, p.entered_at),
    judged as (
      select e.*, d.decision,
        exists (select 1 from disposition_piece g join piece x on x.id = g.piece_id join disposition i on i.record_id = g.record_id where x.rack_id = e.id and i.decision <> 'scrap') as parted,
        exists (select 1 from structure_piece sp join piece x on x.id = sp.piece_id where x.rack_id = e.id) as fielded
      from exposed e
      left join lateral (select d.decision from record r join disposition d on d.record_id = r.id where r.rack_id = e.id and r.kind = 'disposition' and d.pieces is null order by r.happened_at desc limit 1) d on true),
    counts as (
      select count(*) as total, count(*) filter (where fielded) as in_field,
        count(*) filter (where not fielded and decision in ('accept', 'concession', 'downgrade')) as released,
        count(*) filter (where not fielded and decision = 'scrap') as scrapped from judged),
    shown as (select * from judged order by entered_at desc limit ${MOST_LISTED})
    select s.number, s.job, s.entered_at, s.decision, s.fielded, s.parted, v.data->>'name' as part, q.stage, c.*
    from counts c left join shown s on true
    left join lateral (select data from setup_version where entity_id = s.part_id order by valid_from desc, recorded_at desc limit 1) v on true
    left join lateral (select p.stage from record r join passage p on p.record_id = r.id where r.rack_id = s.id and r.kind = 'passage' order by r.happened_at desc limit 1) q on true
    order by s.entered_at desc`.execute(db);
  const [first] = rows;
  const count = (key: "total" | "released" | "in_field" | "scrapped") => Number(first?.[key] ?? 0);
  const [total, released, inField, scrapped] = [
    count("total"),
    count("released"),
    count("in_field"),
    count("scrapped"),
  ];
  return {
    total,
    byHowFar: {
      "still-here": total - released - inField - scrapped,
      released,
      "in-the-field": inField,
      scrapped,
    },
    racks: rows.flatMap((row) =>
      row.number
        ? [
            {
              number: row.number,
              part: row.part ?? "",
              job: row.job,
              enteredAt: row.entered_at,
              howFar: row.fielded
                ? "in-the-field"
                : isReleased(row.decision)
                  ? "released"
                  : row.decision === "scrap"
                    ? "scrapped"
                    : ("still-here" as const),
              stage: row.stage ?? "",
              parted: row.parted === true,
            },
          ]
        : [],
    ),
  };
}
