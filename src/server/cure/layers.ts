import { type GelState, gelState, indexByLayer, judgeBake, type LayerBake } from "@/core/cure";
import { sectionsOf } from "../bake/section-readings";
import { channelsOfRack } from "../rack/judge-rack";
import type { RackFile } from "../rack/load-rack";
import { scheduleOfPowder } from "../setup/setup-data";

export type LayerCure = {
  readonly coatNo: number;
  readonly layer: string;
  readonly powder: string;
  readonly bakes: number;
  /** All bakes it went through added up, by its own powder's sheet; null where none has a trace. */
  readonly index: number | null;
  readonly overbakeIndex: number | null;
  /** Of a primer that is gelled before its top coat: what that first bake came to. */
  readonly gel: { readonly state: GelState; readonly index: number } | null;
};

/** What each layer of a rack has had of heat, each by the sheet of its own powder; a strip takes all layers off. O(layers · bakes · samples). */
export function layersOf(rack: RackFile): readonly LayerCure[] {
  const coats = rack.evidence.filter((r) => r.base.kind === "coat" && r.details.coat?.[0]);
  const bakes = rack.evidence.flatMap((r) => {
    const row = r.details.bake?.[0];
    return r.base.kind === "bake" && row ? [{ record: r, row }] : [];
  });
  return coats.flatMap((coat): LayerCure[] => {
    const own = coat.details.coat?.[0];
    if (!own) return [];
    const powder = rack.coatPowders.get(coat.base.id) ?? rack.powder;
    const after = bakes.filter((b) => b.row.door_closed_at >= coat.base.happened_at);
    const judged = after.flatMap(({ record, row }): LayerBake[] => {
      const pullS = row.pulled_at ? (row.pulled_at.getTime() - row.door_closed_at.getTime()) / 1000 : null;
      const verdict = judgeBake(channelsOfRack(rack, record), scheduleOfPowder(powder.data), {
        pullS,
        sections: sectionsOf(row.sections),
      });
      if (!verdict.ok) return [];
      // Air is hotter than any piece in it, and a dead probe says nothing.
      const over = verdict.value.channels
        .filter((c) => c.medium === "metal" && c.deadFromS === null)
        .map((c) => c.overbakeIndex);
      return [
        {
          coatNo: own.coat_no,
          index: verdict.value.decidingIndex,
          overbakeIndex: over.includes(null) ? null : Math.max(...over.map((o) => o ?? 0)),
        },
      ];
    });
    const [sum] = indexByLayer(judged);
    return [
      {
        coatNo: own.coat_no,
        layer: own.layer,
        powder: `${powder.code} ${powder.data.name}`,
        bakes: after.length,
        index: sum?.index ?? null,
        overbakeIndex: sum?.overbakeIndex ?? null,
        gel: gelOf(rack, after[0]?.record),
      },
    ];
  });
}

function gelOf(rack: RackFile, bake: RackFile["evidence"][number] | undefined): LayerCure["gel"] {
  const sheet = bake && rack.bakeSheets.get(bake.base.id);
  if (!bake || !sheet?.gel) return null;
  const verdict = judgeBake(channelsOfRack(rack, bake), sheet.schedule);
  return verdict.ok ? { state: gelState(verdict.value), index: verdict.value.decidingIndex } : null;
}
