import { perPass, type TopCoat, topCoat } from "@/core/powder";
import type { Failure } from "@/core/result";
import { mean } from "@/core/statistics";
import { offBase } from "./base-of";
import { newest, type RackFile, type ThreadRecord } from "./load-rack";
import { passUnder, sentBackFor } from "./passes";

type WithLayers = Pick<RackFile, "latest" | "passes" | "pass" | "base">;
const isFilm = (r: ThreadRecord) => r.base.kind === "thickness";

/** Sets of readings of the film in all: those read since the newest coat of this pass. What was read before it is of a layer under it. */
export function filmSets(rack: Pick<RackFile, "latest">): readonly ThreadRecord[] {
  const coatedAt = newest(rack, "coat")?.base.happened_at;
  return rack.latest.filter((r) => isFilm(r) && (!coatedAt || r.base.happened_at >= coatedAt));
}

/** Sets of the film under the newest coat: between the coats of this pass, else the film that a recoat was laid over. */
function setsUnder(rack: WithLayers): readonly ThreadRecord[] {
  const coats = rack.latest.filter((r) => r.base.kind === "coat");
  const top = coats.at(-1)?.base.happened_at;
  const before = coats.at(-2)?.base.happened_at;
  if (before && top)
    return rack.latest.filter((r) => isFilm(r) && r.base.happened_at >= before && r.base.happened_at < top);
  const last = rack.passes[passUnder(rack.passes, rack.pass) - 1];
  return sentBackFor(rack) === "scuff-and-recoat" && last ? filmSets({ latest: last.records }) : [];
}

/** Spot by spot what was read, less what the metal adds, µm. */
function meansBySpot(sets: readonly ThreadRecord[], rack: WithLayers): Map<string, number> {
  const values = new Map<string, number[]>();
  for (const r of sets.flatMap((s) => s.details.thickness_reading ?? []))
    if (!r.rejected_reason) {
      const key = `${r.face} ${r.spot}`;
      values.set(key, [...(values.get(key) ?? []), offBase(r.value_um, rack.base)]);
    }
  return new Map([...values].map(([spot, um]) => [spot, mean(um)]));
}

export type FilmLayers = {
  readonly underUm: number;
  /** Spots read on the part, or readings on the panel. */
  readonly underSpots: number;
  /** The panel that the primer was read on, where it could not be read on the part; by procedure, since it is another piece. */
  readonly panel: string | null;
  /** The newest coat alone; null while the film in all is not read. */
  readonly top: { readonly ok: true; readonly value: TopCoat } | { readonly ok: false; readonly error: Failure } | null;
};

/**
 * The newest coat apart from what is under it: by pairs where both were read at the same spots, else by means. Null where
 * nothing under it was read; a primer that only a panel shows is taken from that. O(readings).
 */
export function filmLayers(rack: WithLayers): FilmLayers | null {
  const under = meansBySpot(setsUnder(rack), rack);
  const total = meansBySpot(filmSets(rack), rack);
  if (under.size === 0) return byPanel(rack, total);
  const both = [...total.keys()].filter((spot) => under.has(spot));
  const paired = both.length >= 2;
  const um = (of: Map<string, number>) => (paired ? both.map((spot) => of.get(spot) as number) : [...of.values()]);
  return {
    panel: null,
    underUm: mean([...under.values()]),
    underSpots: under.size,
    top: total.size === 0 ? null : topCoat(um(total), um(under), paired),
  };
}

/** The top coat by a panel that has the primer alone: two or more layers are on the part, and it was not read between them. */
function byPanel(rack: WithLayers, total: ReadonlyMap<string, number>): FilmLayers | null {
  if (!rack.latest.some((r) => r.details.coat?.[0]?.layer === "primer")) return null;
  const row = rack.latest.findLast((r) => r.details.panel_film?.[0]?.layer === "primer")?.details.panel_film?.[0];
  if (!row) return null;
  return {
    panel: row.panel_no,
    underUm: row.mean_um,
    underSpots: row.values_um.length,
    top: total.size === 0 ? null : topCoat([...total.values()], row.values_um as number[], false),
  };
}

/** What is left to build over what was read, µm a pass, in one to three passes. Null where nothing was read under it; empty where it is built already. */
export function leftToBuild(rack: WithLayers, targetUm: number): readonly number[] | null {
  // Before the next coat the film in all is what lies under it.
  const now = meansBySpot(filmSets(rack), rack);
  const built = now.size > 0 ? now : meansBySpot(setsUnder(rack), rack);
  if (built.size === 0) return null;
  return [1, 2, 3].flatMap((passes) => {
    const each = perPass(targetUm, mean([...built.values()]), passes);
    return each.ok ? [each.value] : [];
  });
}
