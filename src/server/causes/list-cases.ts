import { type Kysely, sql } from "kysely";
import { forPerson } from "@/db/queries/for-person";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";

type CaseLine = {
  number: string;
  defect: string;
  zone: string;
  rack: string | null;
  structure: string | null;
  cause: string | null;
};
type DefectLine = {
  id: string;
  at: Date;
  defect: string;
  note: string | null;
  rack: string | null;
  structure: string | null;
};

/** Cases with what was confirmed, and defects that have none; the newest sixty of each. */
export async function listCases(
  db: Kysely<Database>,
  person: Person,
): Promise<{ cases: CaseLine[]; defects: DefectLine[] }> {
  const cases = await sql<CaseLine>`
    select c.number, c.defect, c.zone, k.number as rack, s.name as structure, f.cause from root_cause_case c left join rack k on k.id = c.rack_id left join job j on j.id = k.job_id left join structure s on s.id = c.structure_id
    left join lateral (select f.cause from record r join confirmation f on f.record_id = r.id where r.case_id = c.id order by r.happened_at desc limit 1) f on true
    where ${forPerson(person, "s.customer_id", "j.customer_id")} order by c.opened_at desc limit 60`.execute(db);
  const defects = await sql<DefectLine>`
    select r.id, r.happened_at as at, d.defect, d.note, k.number as rack, s.code as structure from record r join defect d on d.record_id = r.id left join rack k on k.id = r.rack_id left join job j on j.id = r.job_id left join structure s on s.id = r.structure_id
    where r.kind = 'defect' and not exists (select 1 from root_cause_case c where c.defect_record_id = r.id) and ${stands("r.id")}
      and ${forPerson(person, "s.customer_id", "j.customer_id")} order by r.happened_at desc limit 60`.execute(db);
  return { cases: cases.rows, defects: defects.rows };
}
