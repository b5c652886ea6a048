import type { Kysely } from "kysely";
import { checkGauge } from "@/core/thickness";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"gauge-check"> = {
  "gauge-check": ({ db }, entry) => gaugeCheck(db, entry),
};

/** A film gauge against its shims, by the site's tolerance. Failures: `unknown-set-up`, those of `checkGauge`. */
async function gaugeCheck(db: Kysely<Database>, entry: Of<"gauge-check">): Promise<Made> {
  const [instruments, site] = await Promise.all([
    setupAt(db, "instrument", entry.happenedAt),
    siteAt(db, entry.happenedAt),
  ]);
  const gauge = [...instruments.values()].find((i) => i.code === entry.instrument && i.data.kind === "film-gauge");
  if (!gauge) return refuse({ kind: "unknown-set-up", what: "film gauge", name: entry.instrument });
  const judged = checkGauge(entry.shims, site.gaugeTolerance);
  if (!judged.ok) return refuse(judged.error);
  return {
    ok: true,
    where: { instrumentId: gauge.id },
    grade: "measured",
    details: {
      gauge_check: [
        {
          tolerance_um: site.gaugeTolerance.um,
          tolerance_percent: site.gaugeTolerance.percent,
          holds: judged.value.holds,
          note: entry.note || null,
        },
      ],
      gauge_shim: judged.value.shims.map((s, n) => ({
        ordinal: n + 1,
        certified_um: s.certifiedUm,
        tolerance_um: entry.shims[n]?.toleranceUm ?? 0,
        readings_um: [...(entry.shims[n]?.readingsUm ?? [])],
        mean_um: s.meanUm,
        holds: s.holds,
      })),
    },
  };
}
