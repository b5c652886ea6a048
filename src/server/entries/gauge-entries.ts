import type { Kysely } from "kysely";
import { filmPlan } from "@/core/sampling";
import { baseCorrection, checkGauge } from "@/core/thickness";
import type { Database } from "@/db/schema";
import { findRack } from "../rack/find-rack";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Entry } from "./entry";
import { type Made, refuse } from "./made";

type Of<K extends Entry["kind"]> = Extract<Entry, { kind: K }>;

/** A film gauge against its shims, by the site's tolerance. Failures: `unknown-set-up`, those of `checkGauge`. */
export async function gaugeCheck(db: Kysely<Database>, entry: Of<"gauge-check">): Promise<Made> {
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

/** What is to be read on a rack, worked out anew from its seed. Failures: `unknown-rack`, those of `filmPlan`. */
export async function planFilm(db: Kysely<Database>, person: Person, entry: Of<"film-plan">): Promise<Made> {
  const rack = await findRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const { rule, areaM2, seed, inFt2, risks } = entry;
  const plan = filmPlan(rule, areaM2, seed, { inFt2, risks });
  if (!plan.ok) return refuse(plan.error);
  const { spots, places, measured, pieces } = plan.value;
  return {
    ok: true,
    where: { jobId: rack.job_id, rackId: rack.id },
    grade: "by-procedure",
    details: {
      film_plan: [
        {
          rule,
          area_m2: areaM2,
          seed,
          spots,
          places,
          measured,
          lot: pieces?.lot ?? null,
          sample: pieces?.n ?? null,
          accept_most: pieces?.c ?? null,
          aql: risks?.aql ?? null,
          rql: risks?.rql ?? null,
          producer_risk: risks?.producerRisk ?? null,
          consumer_risk: risks?.consumerRisk ?? null,
          pull: pieces?.pull ?? null,
        },
      ],
    },
  };
}

/** The gauge on bare metal of a rack: ten readings or more, taken off its film from then on. Failures: `unknown-rack`, those of `baseCorrection`. */
export async function baseMetal(db: Kysely<Database>, person: Person, entry: Of<"base-metal">): Promise<Made> {
  const rack = await findRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const base = baseCorrection({ bareUm: entry.readingsUm, blasted: true, setOnSmooth: false, profile: "unknown" });
  if (!base.ok) return refuse(base.error);
  return {
    ok: true,
    where: { jobId: rack.job_id, rackId: rack.id },
    details: {
      base_metal: [{ readings_um: [...entry.readingsUm], mean_um: base.value.um, note: entry.note || null }],
    },
  };
}
