import "server-only";
import { type Kysely, sql } from "kysely";
import type { Database } from "@/db/schema";

/** What a shop sets up before its first day, in the order it is best done. */
export const beginnings = [
  "people",
  "customers",
  "baths",
  "places",
  "oven",
  "powder",
  "gauge",
  "limits",
  "work",
] as const;
export type Beginning = (typeof beginnings)[number];

/** What of it is there, and whether a rack was ever hung. One query of ten index probes, whatever the record's size. */
export async function shopBegun(
  db: Kysely<Database>,
): Promise<{ readonly has: Readonly<Record<Beginning, boolean>>; readonly hung: boolean }> {
  const some = (kind: string) => sql<boolean>`exists (select 1 from setup_entity where kind = ${kind})`;
  const { rows } = await sql<Record<Beginning | "hung", boolean>>`
    select
      (select count(*) > 1 from (select 1 from "user" limit 2) u) as people,
      ${some("customer")} as customers,
      ${some("bath")} as baths,
      ${some("equipment")} as places,
      ${some("oven")} as oven,
      ${some("powder")} as powder,
      exists (
        select 1 from setup_entity e join setup_version v on v.entity_id = e.id
        where e.kind = 'instrument' and v.data->>'kind' = 'film-gauge'
      ) as gauge,
      (select count(*) > 1 from (
        select 1 from setup_entity e join setup_version v on v.entity_id = e.id where e.kind = 'site' limit 2) s) as limits,
      exists (select 1 from job) as work,
      exists (select 1 from rack) as hung`.execute(db);
  const row = rows[0];
  if (!row) throw new Error("a select without a table gives one row");
  const { hung, ...has } = row;
  return { has, hung };
}
