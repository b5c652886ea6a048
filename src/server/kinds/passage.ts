import type { Kysely } from "kysely";
import { passagesFromSpeed } from "@/core/line";
import type { Database } from "@/db/schema";
import { stopsBetween, throughStops } from "../line/line-stops";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import { loadRack } from "../rack/load-rack";
import { orderKept } from "../rack/order-kept";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of, Part } from "./made";

export const makes: Makes<"passage" | "line-run"> = {
  passage: ({ db, person }, entry) => passed(db, person, entry),
  "line-run": ({ db, person }, entry) => lineRun(db, person, entry),
};

/** A rack through a conveyor line at a speed: one passage a stage, by procedure, since nobody saw it there. */
async function lineRun(db: Kysely<Database>, person: Person, entry: Of<"line-run">): Promise<Made> {
  const rack = await findRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const file = entry.supersedes ? null : await loadRack(db, person, entry.rack);
  const disorder = file && orderKept(file, person, { stage: "clean", at: entry.happenedAt, leftOut: entry.leftOut });
  if (disorder) return refuse(disorder);
  const lines = await setupAt(db, "line", entry.happenedAt);
  const line = [...lines.values()].find((l) => l.code.toLowerCase() === entry.line.toLowerCase());
  if (!line) return refuse({ kind: "unknown-set-up", what: "line", name: entry.line });
  const planned = passagesFromSpeed(entry.happenedAt.getTime(), entry.speedMPerMin, line.data.stages);
  if (!planned.ok) return refuse(planned.error);
  // A run noted late may have met a stop that is on record already.
  const lastMs = Math.max(...planned.value.map((p) => p.leftMs));
  const stops = await stopsBetween(db, line.id, entry.happenedAt, new Date(lastMs + 24 * 3_600_000));
  const passages = throughStops(planned.value, stops);
  return {
    ok: true,
    several: passages.map((p) => ({
      name: p.stage,
      kind: "passage",
      happenedAt: new Date(p.enteredMs),
      grade: "by-procedure",
      jobId: rack.job_id,
      rackId: rack.id,
      details: {
        passage: [
          {
            stage: p.stage,
            entered_at: new Date(p.enteredMs),
            left_at: new Date(p.leftMs),
            source: "line-speed",
            line_id: line.id,
            left_out: entry.leftOut,
          },
        ],
      },
    })),
  };
}

/** A passage that follows from something else on record: a load closed, a load pulled. */
export const passageOf = (rack: { id: string; job_id: string }, stage: string, at: Date): Part => ({
  name: `${stage}:${rack.id}`,
  kind: "passage",
  happenedAt: at,
  grade: "measured",
  jobId: rack.job_id,
  rackId: rack.id,
  details: { passage: [{ stage, entered_at: at, left_at: null, source: "load" }] },
});

/** A rack at a stage, by a key. */
async function passed(db: Kysely<Database>, person: Person, entry: Of<"passage">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const disorder = entry.supersedes
    ? null
    : orderKept(rack, person, { stage: entry.stage, at: entry.happenedAt, leftOut: entry.leftOut });
  if (disorder) return refuse(disorder);
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    details: {
      passage: [
        {
          stage: entry.stage,
          entered_at: entry.happenedAt,
          left_at: null,
          source: "key",
          left_out: entry.leftOut,
        },
      ],
    },
  };
}
