import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { setupAt } from "../setup/setup-data";

/** A bath by its code as people write it; undefined when there is none at that moment. */
export async function findBath(db: Kysely<Database>, name: string, at: Date) {
  const baths = await setupAt(db, "bath", at);
  return [...baths.values()].find((bath) => bath.code.toLowerCase() === name.trim().toLowerCase());
}
