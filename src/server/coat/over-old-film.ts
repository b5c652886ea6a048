import { earthLinkOf, recoatOpen } from "@/core/coating";
import type { Failure } from "@/core/result";
import type { RackFile } from "../rack/load-rack";
import { passUnder, sentBackFor, wipedOff } from "../rack/passes";
import { preFlightEntries } from "../rack/pre-flight-on-record";

/** Where metal came with somebody else's coating and it was not taken off, powder goes over a film nobody here knows. */
const strangersFilm = (rack: RackFile): boolean =>
  (rack.job.plan.condition?.oldCoating ?? "none") !== "none" &&
  !rack.evidence.some((r) => r.details.prep_step?.some((s) => s.step === "strip" && s.done));

/** Whether the next coat of a layer goes over a cured film: sent back to be recoated, its own top coat baked, or not stripped. */
function overFilm(rack: RackFile, layer: string, at: Date): boolean {
  if (strangersFilm(rack)) return true;
  const before = rack.latest.filter((r) => r.base.happened_at <= at);
  const lastCoat = before.findLast((r) => r.base.kind === "coat");
  const lastBake = before.findLast((r) => r.base.kind === "bake");
  // Until this pass has had its bake what is under the powder is the film that was sent back.
  if (!lastBake && sentBackFor(rack) === "scuff-and-recoat") return true;
  if (!lastCoat) return false;
  const baked = lastBake !== undefined && lastBake.base.happened_at > lastCoat.base.happened_at;
  // A primer that was gelled or cured under its top coat is a layer of the system, no old film.
  return baked && !(lastCoat.details.coat?.[0]?.layer === "primer" && layer === "top");
}

/** What a coat over an old film still asks for (`recoat-not-ready`); null where nothing, or where it is over bare or primed metal. */
export function recoatHold(
  rack: RackFile,
  coat: {
    readonly layer: string;
    readonly at: Date;
    readonly kv: number | null;
    readonly earthMohm: number | null;
    readonly sheetKv: readonly [number, number] | null;
  },
): Failure | null {
  if (!overFilm(rack, coat.layer, coat.at)) return null;
  // Powder that was wiped off took no scuffing with it.
  const gone = wipedOff(rack.passes);
  const own = rack.passes
    .slice(passUnder(rack.passes, rack.pass), rack.pass + 1)
    .flatMap((p) => p.records)
    .filter((r) => !gone.has(r.base.id) && r.base.happened_at <= coat.at);
  const lastBake = own.findLast((r) => r.base.kind === "bake")?.base.happened_at ?? new Date(0);
  const since = own.filter((r) => r.base.happened_at > lastBake);
  const flights = since.filter((r) => r.base.kind === "pre-flight").flatMap(preFlightEntries);
  const lastKv = rack.current.findLast((r) => r.details.coat?.[0]?.kv != null)?.details.coat?.[0]?.kv ?? null;
  const mostKv = coat.sheetKv?.[1] ?? lastKv;
  const asks = recoatOpen({
    scuffed:
      since.some((r) => r.details.prep_step?.some((s) => s.step === "scuff" && s.done)) ||
      flights.some((e) => e.item === "scuffed" && e.good === true),
    earthRead: coat.earthMohm !== null || flights.some((e) => earthLinkOf[e.item] && e.value !== null),
    kv: coat.kv,
    mostKv,
    strangers: strangersFilm(rack)
      ? {
          // On the film itself: a panel says nothing of it.
          taped: rack.evidence.some((r) => r.details.cross_cut?.some((c) => !c.on_panel)),
          photographed: rack.evidence.some((r) => r.base.kind === "photo"),
        }
      : null,
  });
  if (asks.length === 0) return null;
  return {
    kind: "recoat-not-ready",
    number: rack.number,
    asks,
    kv: coat.kv,
    mostKv,
    by: coat.sheetKv ? "set-up sheet" : "coat before",
  };
}
