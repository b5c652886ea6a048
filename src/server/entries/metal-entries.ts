import { type Kysely, sql } from "kysely";
import { crossCutFromSquares } from "@/core/bench";
import {
  beforeCoat,
  beforeOven,
  checkHow,
  judgeOutgas,
  type PrepHow,
  type PrepStep,
  prepHow,
  prepMeasures,
  stepMissed,
  stepMissedBefore,
} from "@/core/preparation";
import type { Failure } from "@/core/result";
import type { Database } from "@/db/schema";
import { askedSteps, hottestCureC, stepsOnRecord } from "../rack/asked-steps";
import { loadRack, type RackFile } from "../rack/load-rack";
import type { Person } from "../sign-in/roles";
import { findBath } from "./bath-entries";
import type { Entry } from "./entry";
import { type Made, refuse } from "./made";

type Of<K extends Entry["kind"]> = Extract<Entry, { kind: K }>;

/** What must come first and is not on record, as a refusal; null where the order holds. */
const missedFirst = (first: PrepStep | null, then: string): Failure | null =>
  first ? { kind: "step-out-of-order", first, then } : null;

/** Whether powder may go on this rack by its order of work. */
export const coatTooSoon = (rack: RackFile): Failure | null =>
  missedFirst(stepMissed(beforeCoat, askedSteps(rack), stepsOnRecord(rack)), "coat");

/** Whether an oven's door may close on this rack: rubber and seals burn. */
export const ovenTooSoon = (rack: RackFile): Failure | null =>
  missedFirst(stepMissed(beforeOven, askedSteps(rack), stepsOnRecord(rack)), "oven");

/** A step of preparation, done with its measure or left out with its reason; refused before what must come first (`step-out-of-order`). */
export async function prepStep(db: Kysely<Database>, person: Person, entry: Of<"prep-step">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const missed =
    entry.done && !entry.supersedes
      ? missedFirst(stepMissedBefore(entry.step, askedSteps(rack), stepsOnRecord(rack)), entry.step)
      : null;
  if (missed) return refuse(missed);
  const how = entry.how && Object.keys(entry.how).length > 0 ? checkHow(entry.step, entry.how) : null;
  if (how && !how.ok) return refuse(how.error);
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    grade: entry.value === null ? "by-procedure" : "measured",
    details: {
      prep_step: [
        {
          step: entry.step,
          done: entry.done,
          value: entry.value,
          unit: entry.value === null ? null : (prepMeasures[entry.step]?.unit ?? null),
          note: entry.note || null,
          how: how?.value ?? null,
        },
      ],
    },
  };
}

/** How each step was last done in this shop: offered again, since a shop seldom changes its grit. Ids grow with time, so that it is one probe of the index for each step. */
export async function lastHow(db: Kysely<Database>, at: Date): Promise<Readonly<Partial<Record<string, PrepHow>>>> {
  const since = new Date(at.getTime() - HOW_DAYS * 86_400_000);
  const { rows } = await sql<{ step: string; how: PrepHow }>`
    select s.step, p.how from unnest(${Object.keys(prepHow)}::text[]) as s(step)
    cross join lateral (select x.how, x.record_id from prep_step x where x.step = s.step and x.how is not null order by x.record_id desc limit 1) p
    join record r on r.id = p.record_id where r.happened_at > ${since} and r.happened_at <= ${at}`.execute(db);
  return Object.fromEntries(rows.map((row) => [row.step, row.how]));
}
/** Longer ago than this, days, it is not offered again. */
const HOW_DAYS = 60;

/**
 * An outgassing bake by its own trace: the trace stays on record, and the step says what the coolest metal was held at.
 * Failures: `unknown-rack`, `step-out-of-order`, those of `judgeOutgas`.
 */
export async function outgas(db: Kysely<Database>, person: Person, entry: Of<"outgas">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const missed = missedFirst(stepMissedBefore("prebake", askedSteps(rack), stepsOnRecord(rack)), "prebake");
  if (missed) return refuse(missed);
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

/** How a rack came out of the dry-off. */
export async function dryOff(db: Kysely<Database>, person: Person, entry: Of<"dry-off">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    grade: entry.metalC !== null || entry.airC !== null ? "measured" : "by-procedure",
    details: {
      dry_off: [
        {
          air_c: entry.airC,
          metal_c: entry.metalC,
          parts_dry: entry.partsDry,
          hollow_blown: entry.hollowBlown,
          note: entry.note || null,
        },
      ],
    },
  };
}

/** A bad place on the bare metal, with what is decided about it and why. Failures: `unknown-rack`, `unknown-spot` (no such face). */
export async function metalMark(db: Kysely<Database>, person: Person, entry: Of<"metal-mark">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  if (!rack.part.data.faces.some((f) => f.id === entry.face))
    return refuse({ kind: "unknown-spot", face: entry.face, spot: entry.what, of: rack.part.data.name });
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    grade: "measured",
    details: {
      metal_mark: [
        { what: entry.what, face: entry.face, x: entry.x, y: entry.y, decision: entry.decision, reason: entry.reason },
      ],
    },
  };
}

/** A panel that was washed at an hour, coated and tested: cross-cut, or salt spray with creep from the scribe. */
export async function panelTest(db: Kysely<Database>, entry: Of<"panel-test">): Promise<Made> {
  const bath = await findBath(db, entry.bath, entry.happenedAt);
  if (!bath) return refuse({ kind: "unknown-bath", name: entry.bath });
  if (entry.washedAt > entry.happenedAt)
    return refuse({
      kind: "bad-entry",
      field: "washed at",
      value: entry.washedAt.toISOString(),
      why: "is after the test itself",
    });
  const cut = entry.test === "adhesion" ? crossCutFromSquares(entry.squaresLost ?? 0, entry.squares ?? 25) : null;
  if (cut && !cut.ok) return refuse(cut.error);
  return {
    ok: true,
    where: { bathId: bath.id },
    grade: "measured",
    details: {
      panel_test: [
        {
          test: entry.test,
          washed_at: entry.washedAt,
          removed_percent: cut?.value.removedPercent ?? null,
          iso: cut?.value.iso ?? null,
          hours: entry.test === "salt-spray" ? entry.hours : null,
          creep_mm: entry.test === "salt-spray" ? entry.creepMm : null,
          coating: entry.coating,
          note: entry.note || null,
        },
      ],
    },
  };
}
