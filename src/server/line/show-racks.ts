import type { Kysely } from "kysely";
import type { RailStage } from "@/core/line";
import type { Database } from "@/db/schema";
import { setupAt } from "../setup/setup-data";
import { ofTheShop, type Person } from "../sign-in/roles";
import { listRacks, RACKS_PER_PAGE, type RackOnLine, rackFilterFrom } from "./racks";

/** What a list of racks shows: those an address asks for, a page of them, and the customers there are to choose from. */
export async function showRacks(
  db: Kysely<Database>,
  person: Person,
  search: Readonly<Record<string, string | string[] | undefined>>,
  at: Date,
  stage: RailStage | null = null,
) {
  const [parts, customers] = await Promise.all([setupAt(db, "part", at), setupAt(db, "customer", at)]);
  const asked = rackFilterFrom(search);
  const filter = stage ? { ...asked.filter, stage } : asked.filter;
  const names = { parts, customers };
  const found = await listRacks(db, person, filter, { at, page: asked.page }, names);
  return {
    ...found,
    page: asked.page,
    perPage: RACKS_PER_PAGE,
    filter,
    customers: ofTheShop(person) ? [...customers.values()].map((c) => ({ id: c.id, name: c.data.name })) : [],
  };
}

/** Every rack that is coated and waits for an oven. O(racks that wait). */
export async function racksToCure(db: Kysely<Database>, person: Person, at: Date): Promise<readonly RackOnLine[]> {
  const [parts, customers] = await Promise.all([setupAt(db, "part", at), setupAt(db, "customer", at)]);
  return (await listRacks(db, person, { next: "cure" }, { at, perPage: MOST_TO_CURE }, { parts, customers })).racks;
}
/** More than any shop has hanging before its ovens. */
const MOST_TO_CURE = 2000;
