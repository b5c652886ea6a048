import type { Kysely } from "kysely";
import type { PreFlightItem } from "@/core/coating";
import { usedFromHopper } from "@/core/powder";
import type { Database } from "@/db/schema";
import { recoatHold } from "../coat/over-old-film";
import { metalKept } from "../line/metal-ready";
import { refuse } from "../outcome";
import { loadRack, type RackFile } from "../rack/load-rack";
import { orderKept } from "../rack/order-kept";
import { coatTooSoon } from "../rack/order-of-work";
import { preFlightOnRecord } from "../rack/pre-flight-on-record";
import { unlessSetAside } from "../rack/set-aside";
import { preFlightLimits } from "../setup/pre-flight-limits";
import { type SetupData, setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { firstPieceHold } from "../test-plan/first-piece";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"coat"> = {
  coat: ({ db, person }, entry) => coat(db, person, entry),
};

/** What the pre-flight for this coat found that nobody sprays with: earth out, no draught. A coat since has used it up. */
function stopsBefore(
  rack: RackFile,
  at: Date,
  sheet: SetupData<"setup-sheet"> | null,
  site: SetupData<"site">,
): readonly PreFlightItem[] {
  const flight = rack.latest.findLast((r) => r.base.kind === "pre-flight" && r.base.happened_at <= at);
  const used = rack.latest.some(
    (r) => r.base.kind === "coat" && flight !== undefined && r.base.happened_at > flight.base.happened_at,
  );
  return flight && !used ? preFlightOnRecord(flight, preFlightLimits(sheet, site)).stops : [];
}

/** A coat of powder on a rack, with what was set and what left the hopper. Graded as measured where earth or voltage was read, by procedure where neither was. */
async function coat(db: Kysely<Database>, person: Person, entry: Of<"coat">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const tooSoon = entry.supersedes ? null : coatTooSoon(rack);
  if (tooSoon) return refuse(tooSoon);
  const disorder = entry.supersedes
    ? null
    : orderKept(rack, person, { stage: "booth", at: entry.happenedAt, leftOut: entry.leftOut });
  if (disorder) return refuse(disorder);
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
  const metal = entry.supersedes
    ? null
    : await metalKept(db, rack, person, site, { stage: "booth", at: entry.happenedAt, leftOut: entry.leftOut });
  if (metal) return refuse(metal);
  const recoat = entry.supersedes
    ? null
    : recoatHold(rack, {
        layer: entry.layer,
        at: entry.happenedAt,
        kv: entry.kv,
        earthMohm: entry.earthMohm,
        sheetKv: sheet?.data.recoatKv ?? null,
      });
  const film = recoat && unlessSetAside(recoat, person, entry.leftOut);
  if (film) return refuse(film);
  const first = entry.supersedes ? null : await firstPieceHold(db, rack, { lotId: lot.id, at: entry.happenedAt });
  const waits = first && unlessSetAside(first, person, entry.leftOut);
  if (waits) return refuse(waits);
  const stops = entry.supersedes ? [] : stopsBefore(rack, entry.happenedAt, sheet?.data ?? null, site);
  if (stops.length > 0) return refuse({ kind: "stop-first", number: rack.number, items: stops });
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
          left_out: entry.leftOut,
          hopper_before_kg: entry.hopperBeforeKg,
          hopper_after_kg: entry.hopperAfterKg,
          hopper_added_kg: entry.hopperAddedKg,
        },
      ],
    },
  };
}
