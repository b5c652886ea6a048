import type { Kysely } from "kysely";
import { judgeOutgas, stepMissedBefore } from "@/core/preparation";
import type { Database } from "@/db/schema";
import { metalKept } from "../line/metal-ready";
import { refuse } from "../outcome";
import { askedSteps, hottestCureC, stepsOnRecord } from "../rack/asked-steps";
import { loadRack } from "../rack/load-rack";
import { missedFirst } from "../rack/order-of-work";
import { siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"outgas"> = {
  outgas: ({ db, person }, entry) => outgas(db, person, entry),
};

/**
 * An outgassing bake by its own trace: the trace stays on record, and the step says what the coolest metal was held at.
 * Failures: `unknown-rack`, `step-out-of-order`, those of `judgeOutgas`.
 */
async function outgas(db: Kysely<Database>, person: Person, entry: Of<"outgas">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const missed = missedFirst(stepMissedBefore("prebake", askedSteps(rack), stepsOnRecord(rack)), "prebake");
  if (missed) return refuse(missed);
  // Solvent that is still on it burns in any oven.
  const site = await siteAt(db, entry.happenedAt);
  const wet = await metalKept(db, rack, person, site, { stage: "oven", at: entry.happenedAt, leftOut: null });
  if (wet) return refuse(wet);
  const channels = entry.channels.map((c) => ({
    name: c.name,
    medium: c.medium,
    trace: { timeS: c.timeS, tempC: c.tempC },
  }));
  const verdict = judgeOutgas(channels, hottestCureC(rack));
  if (!verdict.ok) return refuse(verdict.error);
  const { heldC, longestS, channel, result, cureMetalC } = verdict.value;
  const peak = Math.max(...channels.flatMap((c) => c.trace.tempC.filter((t): t is number => t !== null)));
  const where = { jobId: rack.job.id, rackId: rack.id, grade: "measured" as const };
  const doneAt = new Date(entry.happenedAt.getTime() + (entry.channels[0]?.timeS.at(-1) ?? 0) * 1000);
  return {
    ok: true,
    several: [
      {
        ...where,
        name: "trace",
        kind: "outgas",
        happenedAt: entry.happenedAt,
        details: {
          outgas: [{ cure_metal_c: cureMetalC, channel, held_c: heldC, longest_s: longestS, result }],
          bake_channel: entry.channels.map((c, i) => ({
            ordinal: i + 1,
            name: c.name,
            medium: c.medium,
            time_s: [...c.timeS],
            temp_c: [...c.tempC],
          })),
        },
      },
      {
        ...where,
        name: "step",
        kind: "prep-step",
        happenedAt: doneAt,
        details: {
          prep_step: [
            {
              step: "prebake",
              // What it reached for a moment is not what the metal was held at: a bake that was never held was not made.
              done: heldC !== null,
              value: heldC,
              unit: heldC === null ? null : "°C",
              note:
                heldC === null
                  ? `${channel} was not held 30 min at any heat; its load peaked at ${peak.toFixed(0)} °C`
                  : `${channel}, by its trace`,
            },
          ],
        },
      },
    ],
  };
}
