import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { checkTrace } from "@/core/cure";
import { tablesOf } from "@/core/kinds";
import { lock } from "@/db/queries/locks";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { readSections, sectionsOf } from "../bake/section-readings";
import { openLoadOf } from "../cure/which-load";
import { DOOR_AND_RECORDER_S } from "../kinds/bake";
import { passageOf } from "../kinds/passage";
import { type EntryOutcome, refuse } from "../outcome";
import { derivedId } from "../record/derived-id";
import { readDetails } from "../record/read-details";
import type { NewRecord } from "../record/store-record";
import { storeTogether } from "../record/store-together";
import { setupAt } from "../setup/setup-data";
import { may, type Person } from "../sign-in/roles";
import { type Clock, write } from "../write";

/** Which load is pulled: the one on the button, or the one meant of an oven named on the entry line. */
export type WhichLoad = { readonly recordId: string } | { readonly oven: string; readonly loadNo?: string };

/** A recorder's channels as they came while the load was in: its own clock, s from the door. */
export const liveTraceSchema = v.pipe(
  v.array(
    v.object({
      name: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(40)),
      medium: v.picklist(["air", "metal"]),
      timeS: v.pipe(v.array(v.pipe(v.number(), v.finite(), v.minValue(0))), v.minLength(2), v.maxLength(40_000)),
      tempC: v.array(v.nullable(v.pipe(v.number(), v.finite()))),
    }),
  ),
  v.minLength(1),
  v.maxLength(12),
);
export type LiveTrace = v.InferOutput<typeof liveTraceSchema>;

/**
 * Closes an open load: the bake is superseded by itself with its pull time, so that the open one stays on record. With the recorder's
 * channels it is then measured; under lamps with the readings of its sections. Failures: those of `checkTrace` with the
 * channel, `faster-than-clock` for a recorder that ran longer than the load has been in (a practice run), `role-refused`, `unknown-oven-name`, `nothing-in-oven`, `already-pulled`, and the store's own.
 */
export async function pullLoad(
  db: Kysely<Database>,
  person: Person,
  which: WhichLoad,
  id: string,
  clock: Clock,
  traced: LiveTrace | null = null,
): Promise<EntryOutcome> {
  for (const { name, timeS, tempC } of traced ?? []) {
    const checked = checkTrace({ timeS, tempC });
    if (!checked.ok) return refuse({ ...checked.error, channel: name });
  }
  if (!may(person.role, "log-line")) return refuse({ kind: "role-refused", role: person.role, needs: "log-line" });
  const nouns = "oven" in which ? lock.oven(`oven ${which.oven}`) : lock.record(which.recordId);
  return write(db, [lock.key(`pull:${id}`), nouns], clock, (trx, at) => pullAt(trx, person, which, id, at, traced));
}

async function pullAt(
  db: Kysely<Database>,
  person: Person,
  which: WhichLoad,
  id: string,
  at: Date,
  traced: LiveTrace | null,
): Promise<EntryOutcome> {
  const again = await db
    .selectFrom("record")
    .select("id")
    .where("idempotency_key", "=", `pull:${id}`)
    .executeTakeFirst();
  if (again) return { ok: true, recordId: again.id, already: true };
  let recordId = "recordId" in which ? which.recordId : "";
  if ("oven" in which) {
    const oven = [...(await setupAt(db, "oven", at)).values()].find(
      (o) => o.code.toLowerCase() === `oven ${which.oven.toLowerCase()}`,
    );
    if (!oven) return refuse({ kind: "unknown-oven-name", name: `oven ${which.oven}` });
    const meant = await openLoadOf(db, oven, which.loadNo ?? null, at);
    if (!meant.ok) return refuse(meant.error);
    recordId = meant.value.recordId;
  }
  const open = await db
    .selectFrom("record")
    .innerJoin("bake", "bake.record_id", "record.id")
    .selectAll("record")
    .where("record.kind", "=", "bake")
    .where("bake.pulled_at", "is", null)
    .where("record.happened_at", "<=", at)
    .where("record.id", "=", recordId)
    .where(sql<boolean>`${stands("record.id")}`)
    .executeTakeFirst();
  if (!open) return refuse({ kind: "already-pulled" });
  const details = (await readDetails(db, [open.id], tablesOf("bake"))).get(open.id) ?? {};
  const racks = await db
    .selectFrom("rack")
    .select(["id", "job_id"])
    .where("id", "in", [...(details.bake_place ?? []).map((p) => p.rack_id), NO_RACK])
    .execute();
  const key = `pull:${id}`;
  const row = details.bake?.[0];
  const sections = sectionsOf(row?.sections);
  // Under lamps the readings of each section are its trace, whatever a recorder may say beside them.
  const read = row && sections ? await readSections(db, { ...row, sections }, at) : [];
  const doorAt = row?.door_closed_at ?? open.happened_at;
  const sinceDoorS = (at.getTime() - doorAt.getTime()) / 1000;
  const ranS = traced ? Math.max(...traced.map((c) => c.timeS.at(-1) ?? 0)) : 0;
  if (ranS > sinceDoorS + DOOR_AND_RECORDER_S) return refuse({ kind: "faster-than-clock", ranS, sinceDoorS });
  // The recorder ran until now: one begun after the door closed begins so much later, one begun before it shows the door.
  const laterS = Math.max(0, sinceDoorS - ranS);
  const kept = sections
    ? read.map(({ name, medium, trace }) => ({ name, medium, timeS: [...trace.timeS], tempC: [...trace.tempC] }))
    : (traced ?? []).map((c) => ({ ...c, timeS: c.timeS.map((s) => s + laterS) }));
  const closed = traced && !sections && ranS > sinceDoorS ? new Date(at.getTime() - ranS * 1000) : doorAt;
  const channels =
    kept.length > 0
      ? {
          bake_channel: kept.map((c, i) => ({
            ordinal: i + 1,
            name: c.name,
            medium: c.medium,
            time_s: c.timeS,
            temp_c: c.tempC,
          })),
        }
      : {};
  const bake: NewRecord = {
    id,
    kind: "bake",
    happenedAt: open.happened_at,
    by: person.username,
    grade: kept.length > 0 ? "measured" : open.grade,
    idempotencyKey: key,
    instrumentId: open.instrument_id,
    fileId: open.file_id,
    supersedes: { recordId: open.id, reason: pulledBy(sections !== null, traced !== null), inCourse: true },
    details: {
      ...details,
      ...channels,
      bake: (details.bake ?? []).map((row) => ({ ...row, door_closed_at: closed, pulled_at: at })),
    },
  };
  const out = racks.map((rack): NewRecord => {
    const { name, ...part } = passageOf(rack, "cool", at);
    return { ...part, id: derivedId(id, name), by: person.username, idempotencyKey: `${key}:${name}` };
  });
  return storeTogether(db, [bake, ...out], at);
}
const pulledBy = (underLamps: boolean, traced: boolean): string =>
  underLamps
    ? "Pulled, lamps off, with the readings of its sections"
    : traced
      ? "Pulled, with the recorder's trace"
      : "Pulled";
const NO_RACK = "00000000-0000-7000-8000-000000000000";
