import { type Kysely, sql } from "kysely";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import type { Database } from "@/db/schema";
import { setupAt } from "../setup/setup-data";
import { ofTheShop, type Person } from "../sign-in/roles";

/** Every part as it stands, with its versions and how many jobs were made of it; a customer's person sees the parts of their own jobs. Two queries. */
export async function partLibrary(db: Kysely<Database>, person: Person, at: Date) {
  const parts = await setupAt(db, "part", at);
  const { rows } = await sql<{
    id: string;
    jobs: string;
    versions: { id: string; reason: string; by: string; from: string }[];
  }>`
    select e.id, (select count(*) from job j where j.part_id = e.id and ${forPerson(person, "j.customer_id")}) as jobs,
      (select json_agg(json_build_object('id', v.id, 'reason', v.reason, 'by', ${personName("v.by_user")}, 'from', v.recorded_at) order by v.valid_from desc, v.recorded_at desc)
        from setup_version v where v.entity_id = e.id and v.valid_from <= ${at}) as versions
    from setup_entity e where e.kind = 'part'`.execute(db);
  return rows
    .flatMap((row) => {
      const part = parts.get(row.id);
      if (!part || (!ofTheShop(person) && Number(row.jobs) === 0)) return [];
      const { data } = part;
      return [
        {
          id: row.id,
          code: part.code,
          name: data.name,
          substrate: data.substrate,
          features: data.features,
          measures: data.measures,
          faces: data.faces.length,
          spots: data.faces.reduce((n, f) => n + f.spots.length, 0),
          marks: data.marks.length,
          jobs: Number(row.jobs),
          versions: row.versions.map((v) => ({ ...v, from: new Date(v.from) })),
        },
      ];
    })
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** A part's versions, the newest first. One query. */
export async function partVersions(
  db: Kysely<Database>,
  partId: string,
  at: Date,
): Promise<readonly { readonly id: string; readonly reason: string; readonly by: string; readonly from: Date }[]> {
  const rows = await db
    .selectFrom("setup_version")
    .select(["id", "reason", "recorded_at", personName("by_user").as("by")])
    .where("entity_id", "=", partId)
    .where("valid_from", "<=", at)
    .orderBy("valid_from", "desc")
    .orderBy("recorded_at", "desc")
    .limit(100)
    .execute();
  return rows.map((r) => ({ id: r.id, reason: r.reason, by: r.by ?? "", from: r.recorded_at }));
}
