import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { setupAt } from "../setup/setup-data";

/** An oven by its code as people write it; undefined when there is none at that moment. */
export async function ovenNamed(db: Kysely<Database>, name: string, at: Date) {
  return [...(await setupAt(db, "oven", at)).values()].find((o) => o.code.toLowerCase() === name.toLowerCase());
}
