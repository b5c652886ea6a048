import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import type { Failure } from "@/core/result";
import type { Database } from "@/db/schema";
import { badEntry, said } from "../input";
import { canonicalText } from "../record/canonical";
import { addVersion, madeBy } from "../setup/add-version";
import { SETUP_LOCK } from "../setup/save-bath";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";

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
export type CurePlanSaved =
  | { readonly ok: true; readonly already: boolean }
  | { readonly ok: false; readonly failure: Failure };

/**
 * What the shop plans its loads to, how often cure is proven and under what heat metal is packed, from now on. Under the
 * lock: of two people at once one is kept, the other told whose. Failures: `bad-entry`, `set-up-changed`, `unknown-set-up`.
 */
export async function saveCurePlan(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  at: Date,
): Promise<CurePlanSaved> {
  const parsed = v.safeParse(schema, input);
  if (!parsed.success) return { ok: false, failure: badEntry(parsed.issues) };
  const { seen, reason, ...change } = parsed.output;
  return db.transaction().execute(async (trx): Promise<CurePlanSaved> => {
    await sql`select pg_advisory_xact_lock(${SETUP_LOCK})`.execute(trx);
    const [site] = (await setupAt(trx, "site", at)).values();
    if (!site) return { ok: false, failure: { kind: "unknown-set-up", what: "site", name: "" } };
    const data = { ...site.data, ...change };
    if (canonicalText(data) === canonicalText(site.data)) return { ok: true, already: true };
    if (site.versionId !== seen)
      return {
        ok: false,
        failure: { kind: "set-up-changed", by: await madeBy(trx, site.versionId), what: "the site" },
      };
    await addVersion<"site">(trx, person, { entityId: site.id, at, reason, data });
    return { ok: true, already: false };
  });
}
