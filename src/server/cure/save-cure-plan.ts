import type { Kysely } from "kysely";
import * as v from "valibot";
import type { Database } from "@/db/schema";
import { badEntry, number, said, whole } from "../input";
import { refuse } from "../outcome";
import { type SetupSaved, saveSetup } from "../setup/save-setup";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";

const schema = v.object({
  /** The version of the site that was on screen. */
  seen: v.pipe(v.string(), v.uuid("is not a version")),
  reason: said(300, "is too short: name why it changes"),
  plannedIndex: number(100, 200),
  planHoldToo: v.boolean(),
  proofEveryLoads: whole(1, 200),
  handleBelowC: number(25, 60),
});
/**
 * What the shop plans its loads to, how often cure is proven and under what heat metal is packed, from now on. Under the
 * lock: of two people at once one is kept, the other told whose. Failures: `bad-entry`, `set-up-changed`, `unknown-set-up`.
 */
export async function saveCurePlan(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(schema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { seen, reason, ...change } = parsed.output;
  return saveSetup(db, person, "site", { code: "site", seen, reason, data: (site) => ({ ...site, ...change }) }, clock);
}
