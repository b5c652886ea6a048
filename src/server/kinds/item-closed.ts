import { heldAt, type OpenKind } from "@/core/line";
import { refuse } from "../outcome";
import { loadRack } from "../rack/load-rack";
import { openOf } from "../rack/open-of";
import { lookAgainOpen } from "../release/look-again";
import { may } from "../sign-in/roles";
import type { Makes } from "./made";

export const makes: Makes<"item-closed"> = {
  /** Failures: `unknown-rack`, `not-open` (nothing of the kind is open of it), `role-refused`. */
  "item-closed": async ({ db, person }, entry) => {
    const rack = await loadRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    const needs = neededFor(entry.what);
    if (!may(person.role, needs)) return refuse({ kind: "role-refused", role: person.role, needs });
    const open =
      entry.what === "look-again" ? await lookAgainOpen(db, rack.id) : openOf(rack).some((o) => o.what === entry.what);
    if (!open) return refuse({ kind: "not-open", number: rack.number, what: entry.what });
    return {
      ok: true,
      where: { jobId: rack.job.id, rackId: rack.id },
      details: { item_closed: [{ what: entry.what, seen: entry.seen }] },
    };
  },
};

/** What holds the oven anyone on the line looks at; what holds the release wants an inspector, what was signed a lead. */
const neededFor = (what: OpenKind | "look-again") =>
  what === "look-again" ? "release" : heldAt[what] === "release" ? "inspect" : "log-line";
