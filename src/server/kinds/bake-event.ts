import { type Kysely, sql } from "kysely";
import { infraredDoubt } from "@/core/cure";
import type { Failure } from "@/core/result";
import type { NewDetail } from "@/db/detail-tables";
import { forPerson } from "@/db/queries/for-person";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { sectionsOf } from "../bake/section-readings";
import { ovenNamed } from "../cure/oven-named";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import { loadRack } from "../rack/load-rack";
import type { Person } from "../sign-in/roles";
import { DOOR_AND_RECORDER_S } from "./bake";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"bake-event"> = {
  "bake-event": ({ db, person }, entry) => bakeEvent(db, person, entry),
};

/**
 * What happened to a load: the door, the melt, a reading by infrared, touch-up, plugs out. A reading that says nothing of
 * the part is kept, and graded so. Failures: `unknown-oven-name`, `unknown-load`, `before-the-door`, `reading-needs-value`,
 * `plugs-need-count`, `over-the-oven`, `cooling-needs-method`, `faster-than-clock`, `rack-not-in-load`, `unknown-section`, `section-missing`, those of `infraredDoubt`.
 */
async function bakeEvent(db: Kysely<Database>, person: Person, entry: Of<"bake-event">): Promise<Made> {
  const oven = await ovenNamed(db, entry.oven, entry.happenedAt);
  if (!oven) return refuse({ kind: "unknown-oven-name", name: entry.oven });
  const { rows } = await sql<{
    door_closed_at: Date;
    sections: unknown;
    job_id: string | null;
    rack_id: string | null;
    n: number;
    number: string | null;
  }>`
    select b.door_closed_at, b.sections, min(j.id::text)::uuid as job_id, min(k.id::text)::uuid as rack_id, count(distinct k.id)::int as n, case when count(distinct k.id) = 1 then min(k.number) end as number
    from bake b join bake_place p on p.record_id = b.record_id join rack k on k.id = p.rack_id join job j on j.id = k.job_id
    where b.oven_id = ${oven.id} and b.load_no = ${entry.loadNo} and ${forPerson(person, "j.customer_id")}
      and ${stands("b.record_id")}
    group by b.door_closed_at, b.sections order by b.door_closed_at desc limit 1`.execute(db);
  const load = rows[0];
  if (!load) return refuse({ kind: "unknown-load", load: entry.loadNo, oven: oven.code });
  if (entry.happenedAt < load.door_closed_at)
    return refuse({
      kind: "before-the-door",
      at: entry.happenedAt.toISOString(),
      door: load.door_closed_at.toISOString(),
    });
  const sinceDoorS = (entry.happenedAt.getTime() - load.door_closed_at.getTime()) / 1000;
  if (entry.sinceDoorS !== null && entry.sinceDoorS > sinceDoorS + DOOR_AND_RECORDER_S)
    return refuse({ kind: "faster-than-clock", ranS: entry.sinceDoorS, sinceDoorS });
  const sections = sectionsOf(load.sections);
  const section = entry.section === null ? null : (sections?.find((s) => s === entry.section) ?? undefined);
  if (section === undefined)
    return refuse({ kind: "unknown-section", section: entry.section, sections: sections ?? [] });
  if (sections && entry.event === "infrared" && section === null) return refuse({ kind: "section-missing", sections });
  const named = entry.rack === null ? null : await findRack(db, person, entry.rack);
  if (named === undefined || (named && !(await ridesIn(db, oven.id, entry.loadNo, load.door_closed_at, named.id))))
    return refuse({ kind: "rack-not-in-load", number: entry.rack, load: entry.loadNo });
  let grade: "measured" | "by-procedure" | "assumed" = "by-procedure";
  if (entry.event === "infrared" || entry.event === "cool") {
    if (entry.valueC === null) return refuse({ kind: "reading-needs-value" });
    const doubt = infraredDoubt({
      atS: 0,
      metalC: entry.valueC,
      emissivity: entry.emissivity ?? 0.95,
      aim: entry.aim ?? "coated-part",
    });
    if (!doubt.ok) return refuse(doubt.error);
    grade = doubt.value === null ? "measured" : "assumed";
  }
  const touched = await placesOf(db, person, entry, named?.number ?? load.number);
  if (!touched.ok) return touched;
  if (entry.event === "set-point" && entry.valueC === null) return refuse({ kind: "reading-needs-value" });
  if (entry.event === "set-point" && entry.valueC !== null && entry.valueC > oven.data.mostSetPointC)
    return refuse({ kind: "over-the-oven", setC: entry.valueC, mostC: oven.data.mostSetPointC, oven: oven.code });
  if (entry.event === "cooling" && entry.method === null) return refuse({ kind: "cooling-needs-method" });
  if (entry.event === "plugs-out" && entry.count === null) return refuse({ kind: "plugs-need-count" });
  return {
    ok: true,
    // A load of one rack stands on that rack's thread; one of several stands with the load.
    where: named
      ? { jobId: named.job_id, rackId: named.id }
      : load.n === 1
        ? { jobId: load.job_id ?? undefined, rackId: load.rack_id ?? undefined }
        : {},
    grade,
    details: {
      bake_event: [
        {
          oven_id: oven.id,
          load_no: entry.loadNo,
          event: entry.event,
          value_c: entry.valueC,
          emissivity: entry.event === "infrared" || entry.event === "cool" ? (entry.emissivity ?? 0.95) : null,
          aim: entry.event === "infrared" ? (entry.aim ?? "coated-part") : null,
          count: entry.count,
          asked: entry.asked,
          note: entry.note || null,
          since_door_s: entry.sinceDoorS,
          section: entry.section,
          method: entry.event === "cooling" ? entry.method : null,
        },
      ],
      ...(touched.places.length > 0 ? { light_spot: touched.places } : {}),
    },
  };
}

/** Where a rack was touched up, as it is kept. Failures: `touch-up-needs-rack` (several are in the load), `unknown-spot`. */
async function placesOf(
  db: Kysely<Database>,
  person: Person,
  entry: Of<"bake-event">,
  number: string | null,
): Promise<{ ok: true; places: NewDetail<"light_spot">[] } | { ok: false; failure: Failure }> {
  if (entry.places.length === 0) return { ok: true, places: [] };
  if (entry.event !== "touched-up")
    return refuse({ kind: "bad-entry", field: "places", value: entry.event, why: "go with a touch-up alone" });
  const rack = number === null ? null : await loadRack(db, person, number);
  if (!rack) return refuse({ kind: "touch-up-needs-rack", load: entry.loadNo });
  const faces = new Set(rack.part.data.faces.map((f) => f.id));
  const stray = entry.places.find((p) => !faces.has(p.face));
  if (stray) return refuse({ kind: "unknown-spot", face: stray.face, spot: "touch-up", of: rack.part.data.name });
  return { ok: true, places: entry.places.map((p, i) => ({ ordinal: i + 1, ...p, what: "touched-up" })) };
}

async function ridesIn(db: Kysely<Database>, ovenId: string, loadNo: string, closedAt: Date, rackId: string) {
  const row = await db
    .selectFrom("bake_place")
    .innerJoin("bake", "bake.record_id", "bake_place.record_id")
    .select("bake.record_id")
    .where("bake.oven_id", "=", ovenId)
    .where("bake.load_no", "=", loadNo)
    .where("bake.door_closed_at", "=", closedAt)
    .where("bake_place.rack_id", "=", rackId)
    .executeTakeFirst();
  return row !== undefined;
}
