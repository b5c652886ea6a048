import { mean } from "@/core/statistics";
import { findPanel } from "../bench/find-panel";
import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"panel-film"> = {
  /** Failures: `unknown-panel`. */
  "panel-film": async ({ db, person }, entry) => {
    const panel = await findPanel(db, person, entry.panel);
    const [first] = panel?.racks ?? [];
    if (!panel || !first) return refuse({ kind: "unknown-panel", number: entry.panel });
    return {
      ok: true,
      where: { jobId: first.jobId, rackId: first.id },
      details: {
        panel_film: [
          {
            panel_no: panel.number,
            layer: entry.layer,
            values_um: [...entry.valuesUm],
            mean_um: mean(entry.valuesUm),
            note: entry.note || null,
          },
        ],
        stands_for: panel.racks.map((r) => ({ rack_id: r.id })),
      },
    };
  },
};
