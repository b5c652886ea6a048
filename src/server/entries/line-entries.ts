import type { Kysely } from "kysely";
import { passagesFromSpeed } from "@/core/line";
import { usedFromHopper } from "@/core/powder";
import { conditionQuantities } from "@/core/preparation";
import type { Database } from "@/db/schema";
import { stopsBetween, throughStops } from "../line/line-stops";
import { findRack } from "../rack/find-rack";
import { loadRack } from "../rack/load-rack";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Entry } from "./entry";
import { type Made, type Part, refuse } from "./made";
import { coatTooSoon, ovenTooSoon } from "./metal-entries";

type Of<K extends Entry["kind"]> = Extract<Entry, { kind: K }>;

/** A rack through a conveyor line at a speed: one passage a stage, by procedure, since nobody saw it there. */
export async function lineRun(db: Kysely<Database>, person: Person, entry: Of<"line-run">): Promise<Made> {
  const rack = await findRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
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
          },
        ],
      },
    })),
  };
}

/** Readings of air and metal: each stands as a record of its own, so that each can be corrected by itself. */
export function conditions(entry: Of<"conditions">): Made {
  const names = entry.values.map((x) => x.quantity);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice) return refuse({ kind: "value-given-twice", parameter: twice });
  return {
    ok: true,
    several: entry.values.map(({ quantity, value }) => ({
      name: quantity,
      kind: "condition",
      happenedAt: entry.happenedAt,
      grade: "measured",
      details: { condition: [{ quantity, value, unit: conditionQuantities[quantity].unit, place: entry.place }] },
    })),
  };
}

/** A coat of powder on a rack, with what was set and what left the hopper. Graded as measured where earth or voltage was read, by procedure where neither was. */
export async function coat(db: Kysely<Database>, person: Person, entry: Of<"coat">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const tooSoon = entry.supersedes ? null : coatTooSoon(rack);
  if (tooSoon) return refuse(tooSoon);
  const [sheets, site, lots, powders] = await Promise.all([
    entry.sheet ? setupAt(db, "setup-sheet", entry.happenedAt) : null,
    siteAt(db, entry.happenedAt),
    setupAt(db, "lot", entry.happenedAt),
    setupAt(db, "powder", entry.happenedAt),
  ]);
  const lot = [...lots.values()].find((l) => l.code.toLowerCase() === entry.lot.toLowerCase());
  if (!lot) return refuse({ kind: "unknown-set-up", what: "lot", name: entry.lot });
  const sheet = [...(sheets?.values() ?? [])].find((s) => s.code.toLowerCase() === entry.sheet?.toLowerCase());
  if (entry.sheet && !sheet) return refuse({ kind: "unknown-set-up", what: "set-up sheet", name: entry.sheet });
  if (entry.hopperBeforeKg !== null && entry.hopperAfterKg !== null) {
    const used = usedFromHopper(entry.hopperBeforeKg, entry.hopperAfterKg, entry.hopperAddedKg ?? 0);
    if (!used.ok) return refuse(used.error);
  }
  const asked = powders.get(rack.powder.id);
  const primer = [...powders.values()].find((p) => p.code === lot.data.powderCode)?.data.traits.includes("primer");
  if (entry.layer === "top" && asked && lot.data.powderCode !== asked.code)
    return refuse({ kind: "wrong-powder", lot: lot.code, asked: asked.code });
  if (entry.layer === "primer" && !primer) return refuse({ kind: "not-a-primer", lot: lot.code });
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    grade: entry.earthMohm !== null || entry.kv !== null ? "measured" : "by-procedure",
    details: {
      coat: [
        {
          coat_no: entry.coatNo,
          layer: entry.layer,
          lot_id: lot.id,
          booth: entry.booth,
          kv: entry.kv,
          current_ua: entry.currentUa,
          gun_air_kpa: entry.gunAirKPa,
          distance_mm: entry.distanceMm,
          earth_mohm: entry.earthMohm,
          hook_cycles: entry.hookCycles,
          // What is hot by its reading is hot, whatever was ticked.
          sprayed_hot: entry.metalC !== null && entry.metalC > site.boothMetalC ? true : entry.sprayedHot,
          metal_c: entry.metalC,
          colour_change_before: entry.colourChangeBefore,
          reclaim_percent: entry.reclaimPercent,
          gun: entry.gun || null,
          sheet_id: sheet?.id ?? null,
          situation: entry.situation,
          system: entry.system,
          gun_air_rest_kpa: entry.gunAirRestKPa,
          booth_air_m_per_s: entry.boothAirMPerS,
          passes: entry.passes,
          hopper_before_kg: entry.hopperBeforeKg,
          hopper_after_kg: entry.hopperAfterKg,
          hopper_added_kg: entry.hopperAddedKg,
        },
      ],
    },
  };
}

/** A load into an oven. Its trace comes later, by import or from the recorder; until then its cure is by procedure. */
export async function load(db: Kysely<Database>, person: Person, entry: Of<"load">): Promise<Made> {
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
    .where(({ not, exists, selectFrom }) =>
      not(exists(selectFrom("record as s").select("s.id").whereRef("s.supersedes", "=", "record.id"))),
    )
    .executeTakeFirst();
  if (inOven && inOven.idempotency_key !== `${entry.idempotencyKey}:bake`)
    return refuse({ kind: "rack-in-oven", number: inOven.number, load: inOven.load_no });
  const parts = await setupAt(db, "part", entry.happenedAt);
  for (const rack of found) {
    // Only metal with rubber in it is looked into: a load may hold forty racks.
    if (!parts.get(rack.part_id)?.data.features.includes("rubber-or-seals")) continue;
    const file = await loadRack(db, person, rack.number);
    const tooSoon = file && ovenTooSoon(file);
    if (tooSoon) return refuse(tooSoon);
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
