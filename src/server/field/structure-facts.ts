import { type Kysely, sql } from "kysely";
import { type VisitDue, visitDue } from "@/core/field";
import type { DetailRow } from "@/db/detail-tables";
import { forPerson } from "@/db/queries/for-person";
import { stands } from "@/db/queries/stands";
import { zoneReadings } from "@/db/queries/zone-readings";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";

export type StructureFact = Omit<DetailRow<"structure_fact">, "record_id">;

/** What was told of a structure last; null where nothing was. One index probe. */
export async function factOf(db: Kysely<Database>, structureId: string): Promise<StructureFact | null> {
  const told = await factWithRecord(db, structureId);
  if (!told) return null;
  const { recordId: _, ...fact } = told;
  return fact;
}

/** The same, with the record that says it. */
export async function factWithRecord(
  db: Kysely<Database>,
  structureId: string,
): Promise<(StructureFact & { readonly recordId: string }) | null> {
  const row = await db
    .selectFrom("record")
    .innerJoin("structure_fact", "structure_fact.record_id", "record.id")
    .selectAll("structure_fact")
    .where("record.structure_id", "=", structureId)
    .where("record.kind", "=", "structure-fact")
    .where(stands("record.id"))
    .orderBy("record.happened_at", "desc")
    .orderBy("record.id", "desc")
    .limit(1)
    .executeTakeFirst();
  if (!row) return null;
  const { record_id: recordId, ...fact } = row;
  return { ...fact, recordId };
}

export type StructureLine = {
  readonly code: string;
  readonly name: string;
  readonly site: string;
  readonly customer: string;
  readonly lastVisit: Date | null;
  /** Put up, else coated, else the middle of the year that was told; null where nobody knows. */
  readonly since: Date | null;
  readonly worstRating: number | null;
  /** Something is past its limit and was not read again since. */
  readonly trouble: boolean;
  /** Whether it keeps the metal was looked at anywhere; a visit that read gloss or colour alone says nothing of it. */
  readonly looked: boolean;
  readonly due: VisitDue;
};

const risky: ReadonlySet<string> = new Set(["salt", "standing-water", "knocks"]);

/** Every structure a person may see with when it is looked at next, the most overdue first; trouble is what any reading of any zone says that was not read again since. O(structures and their captures). */
export async function structuresByDue(
  db: Kysely<Database>,
  person: Person,
  /** Of one site of a customer alone. */
  at: { readonly customerId: string; readonly site: string } | null = null,
): Promise<readonly StructureLine[]> {
  const { rows } = await sql<{
    code: string;
    name: string;
    site: string;
    customer: string;
    exposure: unknown;
    put_up_on: string | null;
    coated: Date | null;
    told_year: number | null;
    promised: number | null;
    last: Date | null;
    rating: number | null;
    trouble: boolean;
    looked: boolean;
  }>`
    select s.code, s.name, s.site, coalesce(c.data->>'name', '') as customer, s.exposure, s.put_up_on::text, k.coated, f.told_year, f.promised_years as promised, l.last, w.rating, coalesce(w.trouble, false) as trouble, w.trouble is not null as looked
    from structure s
    left join lateral (select data from setup_version where entity_id = s.customer_id order by valid_from desc, recorded_at desc limit 1) c on true
    left join lateral (select min(r.hung_at) as coated from structure_piece sp join piece p on p.id = sp.piece_id join rack r on r.id = p.rack_id where sp.structure_id = s.id) k on true
    left join lateral (select q.told_year, q.promised_years from record r join structure_fact q on q.record_id = r.id where r.structure_id = s.id and r.kind = 'structure-fact' and ${stands("r.id")} order by r.happened_at desc, r.id desc limit 1) f on true
    left join lateral (select max(r.happened_at) as last from record r where r.structure_id = s.id and r.kind in ('visit', 'zone-visit') and ${stands("r.id")}) l on true
    left join lateral (select min(q.rating) filter (where q.of = 'creep') as rating, bool_or(q.out) as trouble from (
      select x.*, max(x.happened_at) over (partition by x.zone, x.of) as last from (${zoneReadings(sql`r.structure_id = s.id`)}) x) q
      where q.happened_at >= q.last - interval '36 hours') w on true
    where ${forPerson(person, "s.customer_id")} and ${at ? sql`s.customer_id = ${at.customerId} and lower(s.site) = ${at.site.toLowerCase()}` : sql`true`}`.execute(
    db,
  );
  return rows
    .map((r): StructureLine => {
      const since = r.put_up_on
        ? new Date(`${r.put_up_on}T12:00:00Z`)
        : (r.coated ?? (r.told_year === null ? null : new Date(Date.UTC(r.told_year, 6, 1))));
      const exposure = Array.isArray(r.exposure) ? (r.exposure as unknown[]).map(String) : [];
      return {
        code: r.code,
        name: r.name,
        site: r.site,
        customer: r.customer,
        lastVisit: r.last,
        since,
        worstRating: r.rating,
        trouble: r.trouble,
        looked: r.looked,
        due: visitDue({
          since,
          lastVisit: r.last,
          trouble: r.trouble,
          risky: exposure.some((e) => risky.has(e)),
          promisedYears: r.promised,
        }),
      };
    })
    .sort((a, b) => a.due.at.getTime() - b.due.at.getTime() || a.code.localeCompare(b.code));
}
