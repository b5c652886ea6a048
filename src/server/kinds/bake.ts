import type { Kysely } from "kysely";
import { sql } from "kysely";
import { tablesOf } from "@/core/kinds";
import type { Failure } from "@/core/result";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { metalKept } from "../line/metal-ready";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import { loadRack } from "../rack/load-rack";
import { orderKept } from "../rack/order-kept";
import { ovenTooSoon } from "../rack/order-of-work";
import { readDetails } from "../record/read-details";
import { byCode } from "../setup/by-code";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of, Part } from "./made";
import { passageOf } from "./passage";

export const makes: Makes<"load" | "trace"> = {
  trace: ({ db, person, at }, entry) => trace(db, person, entry, at),
  load: ({ db, person }, entry) => load(db, person, entry),
};

/** A load into an oven. Its trace comes later, by import or from the recorder; until then its cure is by procedure. */
async function load(db: Kysely<Database>, person: Person, entry: Of<"load">): Promise<Made> {
  const ovens = await setupAt(db, "oven", entry.happenedAt);
  const oven = [...ovens.values()].find((o) => o.code.toLowerCase() === entry.oven.toLowerCase());
  if (!oven) return refuse({ kind: "unknown-oven-name", name: entry.oven });
  const lamps = oven.data.type === "lamps";
  if (lamps && !entry.sections) return refuse({ kind: "sections-missing", oven: oven.code });
  if (lamps && entry.places.length > 1) return refuse({ kind: "lamps-one-rack", count: entry.places.length });
  if (entry.setPointC !== null && entry.setPointC > oven.data.mostSetPointC)
    return refuse({ kind: "over-the-oven", setC: entry.setPointC, mostC: oven.data.mostSetPointC, oven: oven.code });
  const numbers = entry.places.map((p) => p.rack);
  const twice = numbers.find((n, i) => numbers.indexOf(n) !== i);
  if (twice) return refuse({ kind: "value-given-twice", parameter: `rack ${twice}` });
  const racks = await Promise.all(numbers.map((number) => findRack(db, person, number)));
  const stray = racks.findIndex((rack) => !rack);
  if (stray >= 0) return refuse({ kind: "unknown-rack", number: numbers[stray] });
  const found = racks.flatMap((rack) => rack ?? []);
  const [first] = found;
  if (!first) return refuse({ kind: "unknown-rack", number: "" });
  const inOven = await db
    .selectFrom("bake_place")
    .innerJoin("bake", "bake.record_id", "bake_place.record_id")
    .innerJoin("record", "record.id", "bake.record_id")
    .innerJoin("rack", "rack.id", "bake_place.rack_id")
    .select(["rack.number", "bake.load_no", "record.idempotency_key"])
    .where(
      "bake_place.rack_id",
      "in",
      found.map((rack) => rack.id),
    )
    .where("bake.pulled_at", "is", null)
    .where("record.happened_at", ">", new Date(entry.happenedAt.getTime() - 24 * 3_600_000))
    .where(stands("record.id"))
    .executeTakeFirst();
  if (inOven && inOven.idempotency_key !== `${entry.idempotencyKey}:bake`)
    return refuse({ kind: "rack-in-oven", number: inOven.number, load: inOven.load_no });
  const site = await siteAt(db, entry.happenedAt);
  for (const rack of found) {
    const file = await loadRack(db, person, rack.number);
    if (!file) return refuse({ kind: "unknown-rack", number: rack.number });
    const tooSoon = ovenTooSoon(file);
    if (tooSoon) return refuse(tooSoon);
    const disorder = entry.supersedes
      ? null
      : orderKept(file, person, { stage: "oven", at: entry.happenedAt, leftOut: entry.leftOut });
    if (disorder) return refuse(disorder);
    const wet = entry.supersedes
      ? null
      : await metalKept(db, file, person, site, { stage: "oven", at: entry.happenedAt, leftOut: entry.leftOut });
    if (wet) return refuse(wet);
  }
  const bake: Part = {
    name: "bake",
    kind: "bake",
    happenedAt: entry.happenedAt,
    grade: "by-procedure",
    details: {
      bake: [
        {
          oven_id: oven.id,
          load_no: entry.loadNo,
          powder_id: first.powder_id,
          door_closed_at: entry.happenedAt,
          pulled_at: null,
          timing: lamps ? "section-by-section" : entry.timing,
          set_point_c: lamps ? null : entry.setPointC,
          sections: lamps ? entry.sections : null,
          air_c: lamps ? null : entry.airC,
          left_out: entry.leftOut,
        },
      ],
      bake_place: entry.places.map((place, i) => ({
        rack_id: (found[i] as (typeof found)[number]).id,
        place: place.place || "–",
        channel: place.channel || null,
      })),
    },
  };
  return { ok: true, several: [bake, ...found.map((rack) => passageOf(rack, "oven", entry.happenedAt))] };
}

/** Door and recorder may be so far apart by their clocks, s: no two hands start both at once. */
export const DOOR_AND_RECORDER_S = 10 * 60;
/** A load without a trace this near to one is asked about: it is the trace's, or one of the two times is wrong. */
const NEAR_MS = 60 * 60_000;

/**
 * A recorder's trace: the load this rack was put into by hand about then is completed by it where it has none; else it
 * is a bake of its own, in the order of work like any. Failures: `unknown-rack`, `in-the-future`, `trace-not-over`,
 * `trace-of-another-moment` with both times, `out-of-order`, `open-before-oven`, `unknown-oven`, `unknown-oven-name`.
 */
async function trace(db: Kysely<Database>, person: Person, entry: Of<"trace">, at: Date): Promise<Made> {
  const rack = await findRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  if (entry.happenedAt > at) return refuse({ kind: "in-the-future", happenedAt: entry.happenedAt.toISOString() });
  const ovens = [...(await setupAt(db, "oven", at)).values()];
  const oven = entry.oven ? byCode(ovens, entry.oven) : (ovens.find((o) => o.data.type !== "lamps") ?? ovens[0]);
  if (!oven)
    return entry.oven ? refuse({ kind: "unknown-oven-name", name: entry.oven }) : refuse({ kind: "unknown-oven" });
  const bake_channel = entry.channels.map((c, i) => ({
    ordinal: i + 1,
    name: c.name,
    medium: c.medium,
    time_s: c.timeS,
    temp_c: c.tempC,
  }));
  const endsAt = new Date(
    entry.happenedAt.getTime() + 1000 * Math.max(0, ...entry.channels.map((c) => c.timeS.at(-1) ?? 0)),
  );
  if (endsAt.getTime() > at.getTime() + 1000 * DOOR_AND_RECORDER_S)
    return refuse({
      kind: "trace-not-over",
      startedAt: entry.happenedAt.toISOString(),
      endsAt: endsAt.toISOString(),
    });
  const open = await loadWithoutTrace(db, rack.id, entry.happenedAt);
  if (open && Math.abs(open.doorAt.getTime() - entry.happenedAt.getTime()) > 1000 * DOOR_AND_RECORDER_S)
    return refuse({
      kind: "trace-of-another-moment",
      load: open.loadNo,
      doorAt: open.doorAt.toISOString(),
      startedAt: entry.happenedAt.toISOString(),
    });
  const inLoad = (open?.details.bake_place as { rack_id: string }[] | undefined) ?? [{ rack_id: rack.id }];
  const ids = inLoad.map((p) => p.rack_id);
  const probes = await probesOf(db, entry.channels, ids, open?.loadNo ?? entry.loadNo);
  if (!probes.ok) return probes;
  const file = await loadRack(db, person, rack.number);
  if (!file) return refuse({ kind: "unknown-rack", number: entry.rack });
  // Where the load was let into the oven in spite of it, its trace is no other matter.
  const letIn = open?.details.bake?.some((row) => row.left_out) ?? false;
  const disorder =
    entry.supersedes || letIn
      ? null
      : orderKept(file, person, { stage: "oven", at: entry.happenedAt, leftOut: entry.leftOut });
  if (disorder) return refuse(disorder);
  const bake = { name: "bake", kind: "bake" as const, happenedAt: entry.happenedAt, grade: "measured" as const };
  if (open)
    return {
      ok: true,
      several: [
        {
          ...bake,
          supersedes: { recordId: open.id, reason: "Trace added", inCourse: true },
          details: {
            ...open.details,
            bake: (open.details.bake ?? []).map((row) => ({
              ...row,
              door_closed_at: entry.happenedAt,
              left_out: row.left_out ?? entry.leftOut,
            })),
            bake_place: (open.details.bake_place ?? []).map((row) => ({
              ...row,
              channel: probes.channels.get(String(row.rack_id)) ?? row.channel,
            })),
            bake_channel,
          },
        },
      ],
    };
  return {
    ok: true,
    several: [
      {
        ...bake,
        details: {
          bake: [
            {
              oven_id: oven.id,
              load_no: entry.loadNo,
              powder_id: rack.powder_id,
              door_closed_at: entry.happenedAt,
              pulled_at: null,
              timing: "metal-at-temperature",
              set_point_c: null,
              left_out: entry.leftOut,
            },
          ],
          bake_place: [{ rack_id: rack.id, place: entry.place || "–", channel: probes.channels.get(rack.id) ?? null }],
          bake_channel,
        },
      },
    ],
  };
}

/** Which channel hangs on which of a load's racks, as it was said. Failures: `rack-not-in-load`. */
async function probesOf(
  db: Kysely<Database>,
  channels: Of<"trace">["channels"],
  rackIds: readonly string[],
  load: string,
): Promise<
  | { readonly ok: true; readonly channels: ReadonlyMap<string, string> }
  | { readonly ok: false; readonly failure: Failure }
> {
  const said = channels.flatMap((c) => (c.rack ? [{ rack: c.rack, name: c.name }] : []));
  if (said.length === 0) return { ok: true, channels: new Map() };
  const racks = await db
    .selectFrom("rack")
    .select(["id", "number"])
    .where("id", "in", [...rackIds])
    .execute();
  const found = new Map<string, string>();
  for (const { rack, name } of said) {
    const id = racks.find((r) => r.number.toLowerCase() === rack.toLowerCase())?.id;
    if (!id) return refuse({ kind: "rack-not-in-load", number: rack, load });
    // Of several probes on one rack the first named is the one it goes by; all are on record.
    if (!found.has(id)) found.set(id, name);
  }
  return { ok: true, channels: found };
}

/** The load this rack was put into by hand about then, if it has no trace yet. */
async function loadWithoutTrace(db: Kysely<Database>, rackId: string, started: Date) {
  const open = await db
    .selectFrom("bake_place")
    .innerJoin("bake", "bake.record_id", "bake_place.record_id")
    .select(["bake.record_id as id", "bake.load_no", "bake.door_closed_at"])
    .where("bake_place.rack_id", "=", rackId)
    // Under lamps the readings of its sections are its trace.
    .where("bake.sections", "is", null)
    .where("bake.door_closed_at", ">=", new Date(started.getTime() - NEAR_MS))
    .where("bake.door_closed_at", "<=", new Date(started.getTime() + NEAR_MS))
    .where(sql<boolean>`${stands("bake.record_id")}`)
    .where(sql<boolean>`not exists (select 1 from bake_channel c where c.record_id = bake.record_id)`)
    .orderBy(sql`abs(extract(epoch from bake.door_closed_at - ${started}))`)
    .limit(1)
    .executeTakeFirst();
  if (!open) return null;
  return {
    id: open.id,
    loadNo: open.load_no,
    doorAt: open.door_closed_at,
    details: (await readDetails(db, [open.id], tablesOf("bake"))).get(open.id) ?? {},
  };
}
