import { refuse } from "../outcome";
import { loadRack, newest } from "../rack/load-rack";
import { reworkPrice } from "../release/rework-price";
import { siteAt } from "../setup/setup-data";
import type { Makes } from "./made";

export const makes: Makes<"wipe-off"> = {
  /**
   * Loose powder blown or rinsed off, to be sprayed again, with what that costs. Failures: `unknown-rack`,
   * `nothing-to-wipe` (no coat of this pass), `baked-already`.
   */
  "wipe-off": async ({ db, person, at }, entry) => {
    const rack = await loadRack(db, person, entry.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
    const again = rack.current.some((r) => r.base.id === entry.id);
    const coat = newest(rack, "coat");
    if (!coat && !again) return refuse({ kind: "nothing-to-wipe", number: rack.number });
    const bake = newest(rack, "bake");
    if (!again && bake && coat && bake.base.happened_at >= coat.base.happened_at)
      return refuse({ kind: "baked-already", number: rack.number });
    const cost = reworkPrice(rack, await siteAt(db, at), "wipe-off", entry.minutes);
    return {
      ok: true,
      kind: "disposition",
      where: { jobId: rack.job.id, rackId: rack.id },
      details: {
        disposition: [
          {
            decision: "wipe-off",
            note: entry.note,
            verdict: {},
            signed_name: person.name,
            found_at: "coat",
            made_at: "coat",
            minutes: entry.minutes,
            powder_kg: cost?.powderKg ?? null,
            cost: cost?.cost ?? null,
            currency: cost?.currency ?? null,
            rinsed: entry.rinsed,
          },
        ],
      },
    };
  },
};
