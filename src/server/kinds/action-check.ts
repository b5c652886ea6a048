import { caseOf } from "../causes/case-of";
import { dayIn } from "../day";
import { refuse } from "../outcome";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Makes } from "./made";

export const makes: Makes<"action-check"> = {
  /** Failures: `unknown-case`, `unknown-set-up`, `bad-entry` where the case has no cause confirmed or the day does not go with the state. */
  "action-check": async ({ db }, entry) => {
    const found = await caseOf(db, entry.caseNumber);
    if (!found) return refuse({ kind: "unknown-case", number: entry.caseNumber });
    const confirmation = await db
      .selectFrom("record")
      .select("id")
      .where("case_id", "=", found.id)
      .where("kind", "=", "confirmation")
      .orderBy("happened_at", "desc")
      .orderBy("stored_at", "desc")
      .orderBy("id", "desc")
      .executeTakeFirst();
    if (!confirmation)
      return refuse({
        kind: "bad-entry",
        field: "caseNumber",
        why: "has no cause confirmed, and so no action to look after",
        value: entry.caseNumber,
      });
    const open = entry.state === "not-yet" || entry.state === "done";
    const today = dayIn(entry.happenedAt, (await siteAt(db, entry.happenedAt)).timeZone);
    if (open && (entry.againOn === null || entry.againOn < today))
      return refuse({
        kind: "bad-entry",
        field: "againOn",
        why: "is no day to come: say when it is looked at again",
        value: entry.againOn,
      });
    const sheets = entry.sheet ? await setupAt(db, "setup-sheet", entry.happenedAt) : null;
    const sheet = [...(sheets?.values() ?? [])].find((s) => s.code.toLowerCase() === entry.sheet?.toLowerCase());
    if (entry.sheet && !sheet) return refuse({ kind: "unknown-set-up", what: "set-up sheet", name: entry.sheet });
    return {
      ok: true,
      where: found.where,
      // What a person says of it, not a reading.
      grade: "by-procedure",
      details: {
        action_check: [
          {
            confirmation_id: confirmation.id,
            state: entry.state,
            seen: entry.seen,
            sheet: sheet?.code ?? null,
            again_on: open ? entry.againOn : null,
          },
        ],
      },
    };
  },
};
