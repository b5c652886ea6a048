import { type Kysely, sql } from "kysely";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

/** Which case has each of these defects: the one it opened, or the one it was joined to last. Two index probes a defect. */
export async function caseThatHas(
  db: Kysely<Database>,
  defectIds: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  if (defectIds.length === 0) return new Map();
  const { rows } = await sql<{ id: string; number: string | null }>`
    select d.id, coalesce(own.number, joined.number) as number from unnest(${defectIds}::uuid[]) as d(id)
    left join lateral (select c.number from root_cause_case c where c.defect_record_id = d.id) own on true
    left join lateral (select c.number, x.state from case_defect x join record r on r.id = x.record_id join root_cause_case c on c.id = r.case_id
      where x.of = d.id order by r.happened_at desc, r.stored_at desc, r.id desc limit 1) joined on joined.state = 'joined'`.execute(
    db,
  );
  return new Map(rows.flatMap((r) => (r.number ? [[r.id, r.number] as const] : [])));
}

/** A defect that a case is of, with where it was seen. */
export type CaseDefect = {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  readonly defect: string;
  readonly face: string | null;
  readonly x: number | null;
  readonly y: number | null;
  readonly extentPercent: number | null;
  readonly piecesAffected: number | null;
  readonly piecesSeen: number | null;
  readonly sizeMm: number | null;
  readonly count: number | null;
  readonly note: string | null;
  readonly rack: string | null;
  readonly rackId: string | null;
  readonly partId: string | null;
  readonly structure: string | null;
  readonly structureCode: string | null;
  /** Files of its photos. */
  readonly photos: readonly string[];
};

/** Every defect that a case is of, as it stands, the newest first. O(defects of the case). */
export async function defectsOf(db: Kysely<Database>, caseId: string): Promise<readonly CaseDefect[]> {
  const { rows } = await sql<CaseDefect>`
    with mine as (
      select c.defect_record_id as id from root_cause_case c where c.id = ${caseId}::uuid
      union select x.of from (select distinct on (d.of) d.of, d.state, r.case_id from case_defect d join record r on r.id = d.record_id
        where d.of in (select e.of from case_defect e join record q on q.id = e.record_id where q.case_id = ${caseId}::uuid)
        order by d.of, r.happened_at desc, r.stored_at desc, r.id desc) x where x.state = 'joined' and x.case_id = ${caseId}::uuid)
    select r.id as "recordId", r.happened_at as at, ${personName("r.by_user")} as by, d.defect, d.face, d.x, d.y, d.extent_percent as "extentPercent",
      d.pieces_affected as "piecesAffected", d.pieces_seen as "piecesSeen", d.size_mm as "sizeMm", d.count, d.note, k.number as rack, k.id as "rackId", j.part_id::text as "partId", s.name as structure, s.code as "structureCode",
      coalesce((select array_agg(q.file_id order by q.happened_at) from photo p join record q on q.id = p.record_id where p.of_record = r.id and q.file_id is not null), '{}') as photos
    from mine join record r on r.id = mine.id join defect d on d.record_id = r.id left join rack k on k.id = r.rack_id left join job j on j.id = k.job_id left join structure s on s.id = r.structure_id
    where ${stands("r.id")} or r.id = (select c.defect_record_id from root_cause_case c where c.id = ${caseId}::uuid)
    order by r.happened_at desc, r.id`.execute(db);
  return rows;
}
