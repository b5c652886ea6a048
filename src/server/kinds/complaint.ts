import { dayIn } from "../day";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import { siteAt } from "../setup/setup-data";
import type { Makes } from "./made";

export const makes: Makes<"complaint"> = {
  complaint: async ({ db, person, at }, entry) => {
    const rack = await findRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    const { timeZone } = await siteAt(db, at);
    if (entry.saidOn > dayIn(at, timeZone))
      return refuse({ kind: "in-the-future", happenedAt: `${entry.saidOn}T00:00` });
    const { piecesReturned, piecesAffected } = entry;
    const { n } = await db
      .selectFrom("piece")
      .select(({ fn }) => fn.countAll<string>().as("n"))
      .where("rack_id", "=", rack.id)
      .executeTakeFirstOrThrow();
    const hung = Number(n);
    if (piecesReturned !== null && piecesReturned > hung)
      return refuse({ kind: "more-returned-than-hung", returned: piecesReturned, hung, rack: rack.number });
    const where = { jobId: rack.job_id, rackId: rack.id };
    return {
      ok: true,
      several: [
        {
          ...where,
          name: "complaint",
          kind: "complaint",
          happenedAt: entry.happenedAt,
          grade: "by-procedure",
          details: {
            complaint: [
              {
                said_by: entry.saidBy,
                said_on: entry.saidOn,
                their_number: entry.theirNumber || null,
                what: entry.what,
                pieces_returned: piecesReturned,
                pieces_affected: piecesAffected,
                wants: entry.wants,
              },
            ],
          },
        },
        // What they saw is a defect like any: it can be traced, counted and contained.
        {
          ...where,
          name: "defect",
          kind: "defect",
          happenedAt: entry.happenedAt,
          grade: "by-procedure",
          details: {
            defect: [
              {
                defect: entry.defect,
                face: null,
                x: null,
                y: null,
                extent_percent: null,
                pieces_affected: piecesAffected,
                pieces_seen: piecesReturned !== null && piecesReturned >= (piecesAffected ?? 0) ? piecesReturned : null,
                note: `Said by ${entry.saidBy}: ${entry.what}`.slice(0, 400),
              },
            ],
          },
        },
      ],
    };
  },
};
