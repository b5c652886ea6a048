import { type BakeChannel, type BakeVerdict, gelState, judgeBake, ownChannels, sectionChannels } from "@/core/cure";
import type { OpenItem } from "@/core/line";
import type { Failure } from "@/core/result";
import {
  type BaseCorrection,
  type FilmVerdict,
  judgeFilm,
  type OverSheet,
  overSheet,
  type Spot,
} from "@/core/thickness";
import { type EvidenceGrade, type VerdictResult, weakestGrade, worstResult } from "@/core/verdict";
import { sectionsOf } from "../bake/section-readings";
import { now } from "../now";
import type { Conditions } from "../trace/conditions";
import { offBase } from "./base-of";
import { filmSets } from "./film-layers";
import { BY_INFRARED } from "./infrared-of";
import { newest, type RackFile } from "./load-rack";
import { openOf } from "./open-of";
import { sentBackFor } from "./passes";
import { type BenchItem, benchItems, type NotAsked } from "./verdict/bench";
import type { Judged } from "./verdict/common";
import { type MetalItem, metalItems } from "./verdict/metal";

type CureItem = Judged & {
  readonly item: "cure";
  readonly bake: BakeVerdict | null;
  readonly failure: Failure | null;
};
export type VerdictItem =
  | (Judged & {
      readonly item: "film";
      readonly film: FilmVerdict | null;
      /** What was taken off the readings for the metal under them. */
      readonly base: BaseCorrection;
      /** More than the powder's sheet bears at a spot, whatever the job asks. */
      readonly over: OverSheet | null;
      /** Its gauge failed its shims since: not known, until it is read again. */
      readonly doubted: boolean;
      readonly failure: Failure | null;
    })
  | CureItem
  | BenchItem
  | MetalItem
  | (Judged & { readonly item: "open"; readonly open: readonly OpenItem[] });

export type { NotAsked } from "./verdict/bench";
export type RackVerdict = {
  readonly kind: "rack-verdict";
  readonly result: VerdictResult;
  readonly grade: EvidenceGrade;
  /** Everything asked of it, and what was tested beside it. */
  readonly items: readonly VerdictItem[];
  /** The first item that keeps it from being accepted. */
  readonly limiting: VerdictItem | null;
  /** What is asked and not known: not read, too few, not looked at. */
  readonly missing: readonly VerdictItem[];
  /** What is asked and out. */
  readonly out: readonly VerdictItem[];
  /** Tests and looks that nobody asked for. */
  readonly notAsked: readonly NotAsked[];
};

/**
 * The whole of a rack judged from its records: every requirement of the job and every stage of its route is in, out, watch
 * or unknown, and what nobody asked for is named. In only when everything asked is in. O(records of the rack).
 */
export function judgeRack(rack: RackFile, conditions: Conditions, at: Date = now()): RackVerdict {
  const met = happened(conditions, bareSince(rack) ?? new Date(0), at);
  const open = openOf(rack);
  const bench = benchItems(rack);
  const items: VerdictItem[] = [
    filmItem(rack),
    cureItem(rack),
    ...bench.items,
    ...metalItems(rack, met),
    ...(open.length > 0
      ? [{ item: "open" as const, result: "unknown" as const, grade: "measured" as const, sources: [], open }]
      : []),
  ];
  const missing = items.filter((i) => i.result === "unknown");
  const out = items.filter((i) => i.result === "out");
  const worst = worstResult(items.map((i) => i.result));
  // What is not known outweighs a watch: nothing can be said of the whole before it is.
  const result = out.length > 0 ? "out" : missing.length > 0 ? "unknown" : worst;
  return {
    kind: "rack-verdict",
    result,
    grade: weakestGrade(items.map((i) => i.grade)),
    items,
    limiting: out[0] ?? missing[0] ?? (result === "in" ? null : (items.find((i) => i.result === result) ?? null)),
    missing,
    out,
    notAsked: bench.notAsked,
  };
}

/** What the metal met after a moment and up to another: a passage foretold by the line's speed has not happened yet. */
export const happened = (conditions: Conditions, after: Date, at: Date): Conditions => ({
  baths: conditions.baths.filter((b) => b.at > after && b.at <= at),
  passages: conditions.passages
    .filter((p) => p.enteredAt > after && p.enteredAt <= at)
    .map((p) => (p.leftAt && p.leftAt > at ? { ...p, leftAt: null, seconds: null } : p)),
});

/** When the metal under this pass was last bare again: after a strip only what came since counts. */
const bareSince = (rack: RackFile): Date | undefined =>
  rack.passes.slice(0, rack.pass + 1).findLast((p) => p.after?.decision === "strip")?.after?.record.base.happened_at;

/** Spots of the part with the readings taken on them since its newest coat; a planned spot without one is there, empty. */
export function spotsOf(rack: RackFile): { face: string; spot: Spot }[] {
  const all = filmSets(rack).flatMap((r) => r.details.thickness_reading ?? []);
  return rack.part.data.faces.flatMap((face) =>
    face.spots.map((spot) => ({
      face: face.id,
      spot: {
        id: spot.id,
        readings: all
          .filter((r) => r.face === face.id && r.spot === spot.id)
          .map((r) => ({ valueUm: offBase(r.value_um, rack.base), rejectedReason: r.rejected_reason })),
      },
    })),
  );
}

/** Readings that a plan on record asks for by the nominal rule; the others go by the spots of the sketch. */
export function filmReadingsAsked(rack: RackFile): number {
  const plan = newest(rack, "film-plan")?.details.film_plan?.[0];
  return rack.job.requirement.film.rule === "nominal" ? (plan?.spots ?? 0) : 0;
}

function filmItem(rack: RackFile): VerdictItem {
  const spots = spotsOf(rack).map((s) => s.spot);
  const sources = filmSets(rack).map((r) => r.base.id);
  const { base } = rack;
  const doubted = sources.some((id) => rack.doubted.has(id));
  if (sources.length === 0)
    return {
      item: "film",
      result: "unknown",
      grade: "unknown",
      sources,
      film: null,
      failure: null,
      base,
      over: null,
      doubted,
    };
  const judged = judgeFilm(spots, rack.job.requirement.film, filmReadingsAsked(rack));
  if (!judged.ok)
    return {
      item: "film",
      result: "unknown",
      grade: "unknown",
      sources,
      film: null,
      failure: judged.error,
      base,
      over: null,
      doubted,
    };
  const over = overSheet(
    spots.flatMap(({ id, readings }) => {
      const kept = readings.filter((r) => r.rejectedReason === null);
      return kept.length === 0 ? [] : [{ id, um: kept.reduce((sum, r) => sum + r.valueUm, 0) / kept.length }];
    }),
    coatsOverEachOther(rack),
    rack.powder.data,
  );
  // What the job lets pass and the sheet does not is looked at, never simply in.
  const byJob = judged.value.result === "in" && over ? "watch" : judged.value.result;
  return {
    item: "film",
    result: doubted && byJob !== "out" ? "unknown" : byJob,
    grade: base.kind === "by-profile" ? "by-procedure" : "measured",
    sources,
    film: judged.value,
    failure: null,
    base,
    over,
    doubted,
  };
}
/** Coats of this pass, and the film that a recoat was laid over as one. */
function coatsOverEachOther(rack: RackFile): number {
  const own = rack.latest.filter((r) => r.base.kind === "coat").length;
  return own + (sentBackFor(rack) === "scuff-and-recoat" ? 1 : 0);
}

/** How a rack was cured by its newest bake. */
export function cureItem(rack: RackFile): CureItem {
  const bake = newest(rack, "bake");
  if (!bake) return { item: "cure", result: "unknown", grade: "unknown", sources: [], bake: null, failure: null };
  const row = bake.details.bake?.[0];
  const pullS = row?.pulled_at ? (row.pulled_at.getTime() - row.door_closed_at.getTime()) / 1000 : null;
  const channels = channelsOfRack(rack, bake);
  const sheet = rack.bakeSheets?.get(bake.base.id);
  const verdict = judgeBake(channels, sheet?.schedule ?? scheduleOf(rack), {
    decidedBy: rack.job.requirement.cureDecidedBy,
    pullS,
    sections: sectionsOf(row?.sections),
  });
  if (!verdict.ok)
    return {
      item: "cure",
      result: "unknown",
      grade: row?.timing === "metal-at-temperature" ? "unknown" : "by-procedure",
      sources: [bake.base.id],
      bake: null,
      failure: verdict.error,
    };
  // A primer that was gelled is no cure of the rack: that of the top coat is still to come.
  if (sheet?.gel)
    return {
      item: "cure",
      result: "unknown",
      grade: "unknown",
      sources: [bake.base.id],
      bake: null,
      failure: { kind: "only-gelled", index: verdict.value.decidingIndex, gelled: gelState(verdict.value) },
    };
  const open = !row?.pulled_at && verdict.value.pullS === null;
  return {
    item: "cure",
    result: open && verdict.value.result !== "in" ? "unknown" : verdict.value.result,
    // Measured at their moments, straight between them.
    grade: rack.infrared.has(bake.base.id) ? "by-procedure" : "measured",
    sources: [bake.base.id],
    bake: verdict.value,
    failure: null,
  };
}

/** The channels of a bake that say how this rack was cured; where no probe was in it, its spot readings as one that is sparse. */
export function channelsOfRack(
  rack: Pick<RackFile, "id" | "number" | "infrared">,
  bake: RackFile["thread"][number],
): readonly BakeChannel[] {
  const readings = rack.infrared.get(bake.base.id);
  if (readings) {
    const sparse = sectionChannels([BY_INFRARED], readings);
    const air = channelsOf(bake.details.bake_channel ?? []);
    return sparse.ok ? [...air, ...sparse.value] : air;
  }
  const places = bake.details.bake_place ?? [];
  const named = places.find((p) => p.rack_id === rack.id)?.channel ?? null;
  return ownChannels(channelsOf(bake.details.bake_channel ?? []), rack.number, named, places.length);
}

export const channelsOf = (
  rows: readonly { name: string; medium: string; time_s: (number | null)[]; temp_c: (number | null)[] }[],
): BakeChannel[] =>
  rows.map((row) => ({
    name: row.name,
    medium: row.medium === "air" ? "air" : "metal",
    trace: { timeS: row.time_s as number[], tempC: row.temp_c },
  }));
export const scheduleOf = (rack: Pick<RackFile, "powder">) => ({
  points: rack.powder.data.schedule,
  overbake: rack.powder.data.overbake,
  onsetC: rack.powder.data.onsetC,
});
