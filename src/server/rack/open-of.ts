import { type OpenItem, type OpenKind, openItems } from "@/core/line";
import { askedSteps } from "./asked-steps";
import { filmSets } from "./film-layers";
import type { RackFile } from "./load-rack";

/** What is open of a rack in the pass being judged, from its records. */
export function openOf(rack: RackFile): OpenItem[] {
  const asked = askedSteps(rack);
  const of = (kind: string) => rack.latest.filter((r) => r.base.kind === kind);
  const flight = of("pre-flight").at(-1);
  const doubted = filmSets(rack).filter((r) => rack.doubted.has(r.base.id));
  return openItems({
    lamps: of("lamp-check").flatMap((r) => {
      const row = r.details.lamp_check?.[0];
      return row
        ? [
            {
              atMs: r.base.happened_at.getTime(),
              faces: Array.isArray(row.faces) ? row.faces.map(String) : [],
              bumped: row.bumped,
              wiped: row.wiped,
              plugsIn: row.plugs_in,
              spots: r.details.light_spot ?? [],
            },
          ]
        : [];
    }),
    plugsAsked: rack.part.data.marks.filter((m) => m.kind === "mask" || m.kind === "plug").length * rack.pieces.length,
    fitSurface: rack.part.data.features.includes("fit-surface"),
    sealsAsked: asked.includes("seals-out"),
    sealsOut: rack.evidence.some((r) => r.details.prep_step?.some((s) => s.step === "seals-out")),
    flightOffMs: flight && rack.flightsOff.has(flight.base.id) ? flight.base.happened_at.getTime() : null,
    doubtedMs: doubted.at(-1)?.base.happened_at.getTime() ?? null,
    closed: of("item-closed").flatMap((r) => {
      const row = r.details.item_closed?.[0];
      return row ? [{ what: row.what as OpenKind, atMs: r.base.happened_at.getTime() }] : [];
    }),
  });
}
