import type { Kysely } from "kysely";
import { type CoatSituation, coach, type PreFlightItem } from "@/core/coating";
import { filmAsked } from "@/core/thickness";
import type { Database } from "@/db/schema";
import { heightPairs, lastPreFlight } from "../coat/booth";
import { coachFacts } from "../coat/coach-facts";
import { coatHistory } from "../coat/coat-history";
import { learntTransfer } from "../coat/compare-coat";
import { type PowderLot, powderLots } from "../coat/powder-lots";
import { sheetFor, sheetOfRack, sheetsFor } from "../coat/sheet-for";
import { leftToBuild } from "../rack/film-layers";
import { newest, type RackFile } from "../rack/load-rack";
import { wipedOff } from "../rack/passes";
import { preFlightEntries, preFlightOnRecord } from "../rack/pre-flight-on-record";
import { preFlightLimits } from "../setup/pre-flight-limits";
import { setupAt, siteAt } from "../setup/setup-data";
import { ofTheShop, type Person } from "../sign-in/roles";
import { airBefore } from "./air";
import { lastGoodCoat } from "./last-good-coat";

export type ShownCoat = Awaited<ReturnType<typeof showCoat>>;

/** What a rack's coat page shows: the set-up it is held against, the pre-flight and coats on record, what the coach says, powder needed and left to build. Nine queries; O(records of the rack). */
export async function showCoat(
  db: Kysely<Database>,
  person: Person,
  rack: RackFile,
  at: Date,
  leastMarginC: number | null,
  /** The sheet chosen on the page; else the one of the gun this rack, or the last one like it, was coated with. */
  chosen: string | null = null,
) {
  const [site, sheets, lots, air, last, flightBefore, pairs, past] = await Promise.all([
    siteAt(db, at),
    setupAt(db, "setup-sheet", at),
    powderLots(db, at),
    airBefore(db, at, leastMarginC),
    lastGoodCoat(db, rack, at),
    lastPreFlight(db, at),
    heightPairs(db, rack.powder.id, at),
    // Other customers' racks are none of this person's business.
    ofTheShop(person) ? coatHistory(db, { partId: rack.part.id, powderId: rack.powder.id }, at) : [],
  ]);
  const fitting = sheetsFor(sheets.values(), {
    powder: rack.powder.code,
    part: rack.part.code,
  });
  const usual = newest(rack, "coat") ? sheetOfRack(sheets, rack) : null;
  const sheet =
    fitting.find((s) => s.code === chosen) ??
    usual ??
    sheetFor(fitting, { powder: rack.powder.code, part: rack.part.code, gun: last?.gun ?? null }) ??
    fitting[0] ??
    null;
  // Powder that was wiped off is no coat under the next.
  const gone = wipedOff(rack.passes);
  const coats = rack.current.flatMap((r) => {
    const row = r.details.coat?.[0];
    return r.base.kind === "coat" && row && !gone.has(r.base.id) ? [{ base: r.base, by: r.by, row }] : [];
  });
  const mine = rack.latest.filter((r) => r.base.kind === "coat");
  const coatNo = Math.min(9, Math.max(0, ...coats.map((c) => c.row.coat_no)) + 1);
  // Over an old film only where the last coat was baked since; loose powder under another light coat is none.
  const lastCoat = coats.at(-1);
  const loose =
    lastCoat !== undefined &&
    !rack.current.some((r) => r.base.kind === "bake" && r.base.happened_at > lastCoat.base.happened_at);
  const recoat = coatNo > 1 && !loose;
  const isPrimer = (lot: PowderLot) => lot.powder?.data.traits.includes("primer") ?? false;
  const usable = lots
    .filter((l) => l.powder?.code === rack.powder.code || isPrimer(l))
    .sort((a, b) => Number(isPrimer(a)) - Number(isPrimer(b)));
  const [firstLot] = usable;
  const lotName = new Map(lots.map((l) => [l.id, l.code]));
  const limits = preFlightLimits(sheet?.data ?? null, site);
  const flight = newest(rack, "pre-flight");
  const coatedSince = flight !== undefined && mine.some((r) => r.base.happened_at > flight.base.happened_at);
  const open = flight && !coatedSince ? flight : undefined;
  const situation = ((open?.details.pre_flight?.[0]?.situation as CoatSituation | undefined) ??
    (recoat ? "recoat" : "first-coat")) satisfies CoatSituation;
  const entries = flight ? preFlightEntries(flight) : [];
  const judged = flight ? preFlightOnRecord(flight, limits) : null;
  const read = (item: PreFlightItem) => (open ? (entries.find((e) => e.item === item)?.value ?? null) : null);
  const newestCoat = coats.at(-1)?.row;
  const risks = coach(
    coachFacts({
      rack,
      sheet: sheet?.data ?? null,
      site,
      coatNo: recoat ? coatNo : 1,
      situation,
      off: judged ? judged.off : [],
      // What was set for the coat on record, until a pre-flight looks forward to the next.
      values: {
        kv: open ? null : (newestCoat?.kv ?? null),
        distanceMm: open ? null : (newestCoat?.distance_mm ?? null),
        reclaimPercent: open ? null : (newestCoat?.reclaim_percent ?? null),
        metalC: open ? null : (newestCoat?.metal_c ?? null),
        gunAirKPa: read("air-flowing") ?? (open ? null : (newestCoat?.gun_air_kpa ?? null)),
        boothAirMPerS:
          read("booth-air") ??
          (open ? null : newestCoat?.booth_air_m_per_s) ??
          air.readings.find((r) => r.quantity === "booth-air-speed")?.value ??
          null,
      },
      outgassed: rack.evidence.some((r) => r.details.prep_step?.some((s) => s.step === "prebake" && s.done)),
      lastKv: coats.at(-2)?.row.kv ?? last?.kv ?? null,
      lotDaysLeft: firstLot && Number.isFinite(firstLot.daysLeft) ? firstLot.daysLeft : null,
    }),
  );
  const areaM2 = rack.part.data.measures?.areaM2 ?? null;
  const transfer = learntTransfer(past, { areaM2, specificGravity: rack.powder.data.specificGravity });
  const myPast = past.find((p) => p.rackId === rack.id);
  const film = filmAsked(rack.job.requirement.film);
  const targetUm = film.maxUm === null ? film.minUm : (film.minUm + film.maxUm) / 2;
  const left = leftToBuild(rack, targetUm);
  const neededKg =
    areaM2 === null
      ? null
      : (areaM2 * rack.pieces.length * targetUm * rack.powder.data.specificGravity * 1e-3) / (transfer?.mean ?? 0.6);
  const faces = rack.part.data.faces.map((f) => ({ ...f, spots: [] }));
  const lamps = rack.latest.filter((r) => r.base.kind === "lamp-check");
  const masks = rack.part.data.marks.filter((m) => m.kind === "mask" || m.kind === "plug").length;
  return {
    site,
    sheet,
    /** Every sheet that fits the powder and the part: for each gun and tip its own. */
    fitting,
    air,
    last,
    flightBefore,
    pairs,
    coats,
    coatNo,
    loose,
    recoat,
    isPrimer,
    usable,
    firstLot,
    lotName,
    limits,
    flight,
    coatedSince,
    open,
    judged,
    read,
    risks,
    transfer,
    myPast,
    mine,
    film,
    past,
    targetUm,
    left,
    neededKg,
    faces,
    lamps,
    masks,
  };
}
