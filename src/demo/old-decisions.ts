import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { refreshStanding } from "@/server/line/standing";
import { DAY, insertRecords, record } from "./demo-record";

/** A shop that works does not leave racks undecided for longer than this. */
const DECIDED_WITHIN_DAYS = 4;
const STILL_HELD = 3;
const BAD_DAYS_ENDED_DAYS = 7.5;

/** The lead's decisions on what was held, and on trial panels that were kept back, a day after each was due. Returns how many. */
export async function decideOldRacks(db: Kysely<Database>, anchor: Date): Promise<number> {
  const old = await db
    .selectFrom("rack_standing")
    .select(["rack_id", "job_id", "number", "state", "next_since"])
    .where("gone_at", "is", null)
    .where("next_since", "<", new Date(anchor.getTime() - DECIDED_WITHIN_DAYS * DAY))
    .orderBy("next_since", "desc")
    .execute();
  // The newest few are still argued about, and some of what passed in the nine bad days of the conversion bath.
  const held = old.filter((r) => r.state === "held");
  const badDays = held.filter((r) => r.next_since.getTime() < anchor.getTime() - BAD_DAYS_ENDED_DAYS * DAY);
  const argued = new Set([...held.slice(0, STILL_HELD), ...badDays.slice(0, STILL_HELD)]);
  const waiting = old.filter((r) => !argued.has(r));
  const records = waiting.map((rack, i) => {
    // Every third of what was held could not be used; what was never read is a trial's panel.
    const [decision, note] =
      rack.state !== "held"
        ? ["scrap", "Trial panel, cut up and kept as evidence"]
        : i % 3 === 0
          ? ["scrap", "Not to be used; made again from new metal"]
          : ["concession", "Taken by the customer as it is, in writing, for use indoors"];
    return record("disposition", rack.next_since.getTime() + DAY, `old:${rack.number}`, {
      by: "ines",
      grade: "measured",
      jobId: rack.job_id,
      rackId: rack.rack_id,
      details: {
        disposition: [
          {
            decision: decision as string,
            note: note as string,
            verdict: { decidedOn: "demo" },
            signed_name: "Ines Calder",
          },
        ],
      },
    });
  });
  await insertRecords(db, records);
  await refreshStanding(
    db,
    waiting.map((rack) => rack.rack_id),
  );
  return records.length;
}
