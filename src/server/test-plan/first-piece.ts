import { type Kysely, sql } from "kysely";
import type { Failure } from "@/core/result";
import { planFor } from "@/core/test-plan";
import type { Database } from "@/db/schema";
import type { RackFile } from "../rack/load-rack";
import { setupAt } from "../setup/setup-data";
import { shiftKey } from "./call-tests";

/**
 * Whether the rest of a lot, shift or job still waits for its first piece before it is coated: a plan asks for that, the
 * first is another rack, and its test is open or out (`first-piece-first`). Null where nothing waits. Two index probes a line.
 */
export async function firstPieceHold(
  db: Kysely<Database>,
  rack: RackFile,
  coat: { readonly lotId: string; readonly at: Date },
): Promise<Failure | null> {
  const plans = [...(await setupAt(db, "test-plan", coat.at)).values()].filter((p) => !p.data.retired);
  if (!plans.some((p) => p.data.lines.some((l) => l.first))) return null;
  const plan = planFor(plans, {
    customer: rack.customerCode,
    part: rack.part.code,
    job: rack.job.number,
    exposure: rack.job.plan.exposure,
  });
  for (const line of plan?.data.lines.filter((l) => l.first) ?? []) {
    if (!plan || rack.calls.has(line.test)) continue;
    const key =
      line.every === "lot" ? coat.lotId : line.every === "job" ? rack.job.number : await shiftKey(db, coat.at);
    const { rows } = await sql<{ number: string; good: boolean | null }>`
      select k.number, e.good from test_call c join record r on r.id = c.record_id join rack k on k.id = r.rack_id
      left join test_outcome e on e.record_id = c.record_id and e.test = c.test
      where c.plan_id = ${plan.id} and c.test = ${line.test} and c.key = ${key} and c.asked and k.id <> ${rack.id}
        and not exists (select 1 from record y join test_skip z on z.record_id = y.id where y.rack_id = k.id and y.kind = 'test-skip' and z.test = c.test and y.happened_at >= r.happened_at)
      order by c.record_id desc limit 1`.execute(db);
    const [first] = rows;
    if (first && first.good !== true)
      return {
        kind: "first-piece-first",
        number: rack.number,
        first: first.number,
        test: line.test,
        every: line.every,
        out: first.good === false,
      };
  }
  return null;
}
