import { type Kysely, type RawBuilder, sql } from "kysely";
import { forPerson } from "@/db/queries/for-person";
import type { Database } from "@/db/schema";
import { ofTheShop, type Person } from "../sign-in/roles";

export type PlaceFound = { readonly href: string; readonly label: string; readonly what: string };
const views: readonly (PlaceFound & { word: string })[] = [
  { word: "shift", href: "/", label: "Shift", what: "what needs a hand now" },
  { word: "plan", href: "/plan", label: "Plan", what: "jobs" },
  { word: "racks line", href: "/racks", label: "Racks on the line", what: "every one, until it is decided" },
  { word: "receive intake", href: "/plan/receive", label: "Receive work", what: "parts in, a plan for each" },
  { word: "calendar schedule", href: "/plan/calendar", label: "Calendar", what: "jobs on the stages" },
  { word: "pretreat baths", href: "/pretreat", label: "Pretreat", what: "baths and rinses" },
  { word: "round", href: "/pretreat/round", label: "Round of the baths", what: "every value on one screen" },
  { word: "wash tanks set-up", href: "/pretreat/set-up", label: "The wash as it is set up", what: "tanks and windows" },
  { word: "cure ovens", href: "/cure", label: "Cure", what: "bakes" },
  { word: "test bench", href: "/test", label: "Test", what: "racks to test" },
  { word: "release", href: "/release", label: "Release", what: "racks to release" },
  { word: "field", href: "/field", label: "Field", what: "structures" },
  { word: "causes defects cases", href: "/causes", label: "Causes", what: "cases" },
  { word: "records search", href: "/records", label: "Records", what: "everything on record" },
  { word: "import file", href: "/records/import", label: "Import", what: "a gauge, oven or bath file" },
];

/**
 * What a word on the entry line can lead to: views, racks, jobs, baths, cases, structures, pieces; and for the shop's own
 * people parts, lots, customers and people, by the beginning of any word of their name. At most eight, best first.
 */
export async function places(db: Kysely<Database>, person: Person, word: string): Promise<PlaceFound[]> {
  const typed = word.replaceAll("\0", "").trim().toLowerCase();
  if (typed === "") return [];
  const like = `${typed.replace(/[\\%_]/g, "\\$&")}%`;
  const inName = (name: RawBuilder<unknown>) =>
    sql`(lower(${name}) like ${like} or lower(${name}) like ${`% ${like}`})`;
  const newest = (kind: string) =>
    sql`(select distinct on (v.entity_id) v.entity_id, e.code, v.data from setup_version v join setup_entity e on e.id = v.entity_id where e.kind = ${kind} order by v.entity_id, v.valid_from desc)`;
  const { rows } = await sql<PlaceFound>`
    select * from (
      (select '/racks/' || k.number as href, 'Rack ' || k.number as label, concat_ws(', ', v.data->>'name', case when w.gone_at is null then coalesce(nullif('next: ' || replace(w.next, '-', ' '), 'next: '), w.stage) else 'decided' end) as what from rack k join job j on j.id = k.job_id left join rack_standing w on w.rack_id = k.id
        join lateral (select data from setup_version where entity_id = j.part_id order by valid_from desc limit 1) v on true
        where k.number like ${like} and ${forPerson(person, "j.customer_id")} order by length(k.number), k.number limit 4)
      union all (select '/racks/' || k.number, 'Piece ' || p.serial, 'on rack ' || k.number from piece p join rack k on k.id = p.rack_id join job j on j.id = k.job_id where p.serial = ${typed} and ${forPerson(person, "j.customer_id")} limit 1)
      union all (select '/jobs/' || j.number, 'Job ' || j.number, '' from job j where lower(j.number) like ${like} and ${forPerson(person, "j.customer_id")} limit 3)
      union all (select '/pretreat/' || replace(lower(e.code), ' ', '-'), e.code, 'bath' from setup_entity e where e.kind = 'bath' and (lower(e.code) like ${like} or replace(lower(e.code), 'ank ', '') like ${like}) limit 3)
      union all (select '/causes/' || c.number, 'Case ' || c.number, replace(c.defect, '-', ' ') from root_cause_case c where 'case ' || c.number like ${like} and ${ofTheShop(person)} limit 3)
      union all (select '/field/' || lower(s.code), s.name, s.site from structure s where (lower(s.code) like ${like} or lower(s.name) like ${like}) and ${forPerson(person, "s.customer_id")} limit 3)
    ) found limit 8`.execute(db);
  const { rows: known } = ofTheShop(person)
    ? await sql<PlaceFound>`
    select * from (
      (select '/plan/parts#' || p.entity_id as href, p.data->>'name' as label, 'part' as what from ${newest("part")} p where ${inName(sql`p.data->>'name'`)} order by 2 limit 3)
      union all (select '/coat/powders#' || l.code, 'Lot ' || l.code, 'powder' from setup_entity l where l.kind = 'lot' and (lower(l.code) like ${like} or lower(split_part(l.code, '/', 2)) like ${like}) order by l.code desc limit 3)
      union all (select '/racks?customer=' || c.entity_id, c.data->>'name', 'customer: racks on the line' from ${newest("customer")} c where ${inName(sql`c.data->>'name'`)} order by 2 limit 3)
      union all (select '/records?by=' || u.username, u.name, 'what they recorded' from "user" u where u.username is not null and (${inName(sql`u.name`)} or lower(u.username) like ${like}) order by 2 limit 3)
    ) found limit 8`.execute(db)
    : { rows: [] };
  const named = views
    .filter((v) => v.word.split(" ").some((w) => w.startsWith(typed)))
    .map(({ word: _, ...place }) => place);
  return [...rows, ...named, ...known].slice(0, 8);
}
