import type { Kysely } from "kysely";
import * as v from "valibot";
import type { Database } from "@/db/schema";
import { badEntry, said } from "../input";
import { refuse } from "../outcome";
import { type SetupSaved, saveSetup } from "../setup/save-setup";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";

const number = (least: number, most: number) =>
  v.pipe(
    v.number("is not a number"),
    v.finite("is not a number"),
    v.minValue(least, `is under ${least}`),
    v.maxValue(most, `is over ${most}`),
  );
const schema = v.object({
  /** The version of the site that was on screen. */
  seen: v.pipe(v.string(), v.uuid("is not a version")),
  reason: said(300, "is too short: name why it changes"),
  plannedIndex: number(100, 200),
  planHoldToo: v.boolean(),
  proofEveryLoads: v.pipe(number(1, 200), v.integer("is not a whole number")),
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
