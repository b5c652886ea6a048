import { heldAt } from "@/core/line";
import { refuse } from "../outcome";
import { loadRack } from "../rack/load-rack";
import { openOf } from "../rack/open-of";
import { may } from "../sign-in/roles";
import type { Makes } from "./made";

export const makes: Makes<"item-closed"> = {
  /** Failures: `unknown-rack`, `not-open` (nothing of the kind is open of it). */
  "item-closed": async ({ db, person }, entry) => {
    const rack = await loadRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    // What holds the oven anyone on the line looks at; what holds the release wants an inspector.
    if (heldAt[entry.what] === "release" && !may(person.role, "inspect"))
      return refuse({ kind: "role-refused", role: person.role, needs: "inspect" });
    if (!openOf(rack).some((o) => o.what === entry.what))
      return refuse({ kind: "not-open", number: rack.number, what: entry.what });
    return {
      ok: true,
      where: { jobId: rack.job.id, rackId: rack.id },
      details: { item_closed: [{ what: entry.what, seen: entry.seen }] },
    };
  },
};
