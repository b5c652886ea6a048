import type { Kysely } from "kysely";
import { levelAfter, resultsThatSettle, type Standing } from "@/core/test-plan";
import type { Database } from "@/db/schema";
import type { SetupItem } from "../setup/setup-data";

/** The level each test of some plans is asked at now, by plan and test. A probe of an index a line. */
export async function planStates(
  db: Kysely<Database>,
  plans: Iterable<SetupItem<"test-plan">>,
): Promise<ReadonlyMap<string, Standing>> {
  const states = new Map<string, Standing>();
  for (const plan of plans)
    for (const { test } of plan.data.lines)
      states.set(`${plan.id} ${test}`, levelAfter(await newestResults(db, plan, test), plan.data.switching));
  return states;
}

/** The results that settle the level, in order of time; true for good. */
export async function newestResults(
  db: Kysely<Database>,
  plan: SetupItem<"test-plan">,
  test: string,
): Promise<readonly boolean[]> {
  const rows = await db
    .selectFrom("test_outcome")
    .select("good")
    .where("plan_id", "=", plan.id)
    .where("test", "=", test)
    .where("good", "is not", null)
    .orderBy("at", "desc")
    .limit(resultsThatSettle(plan.data.switching))
    .execute();
  return rows.map((r) => r.good === true).reverse();
}
