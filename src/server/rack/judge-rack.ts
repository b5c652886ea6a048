import { judgeSolventRub } from "@/core/bench";
import { type BakeChannel, type BakeVerdict, gelState, judgeBake, ownChannels } from "@/core/cure";
import type { Failure } from "@/core/result";
import { type BaseCorrection, type FilmVerdict, judgeFilm, type Spot } from "@/core/thickness";
import { type EvidenceGrade, type VerdictResult, weakestGrade, worstResult } from "@/core/verdict";
import { sectionsOf } from "../bake/section-readings";
import type { Conditions } from "../trace/conditions";
import { offBase } from "./base-of";
import { filmSets } from "./film-layers";
import { newest, type RackFile } from "./load-rack";

export type VerdictItem =
  | {
      readonly item: "film";
      readonly result: VerdictResult;
      readonly grade: EvidenceGrade;
      readonly sources: readonly string[];
      readonly film: FilmVerdict | null;
      /** What was taken off the readings for the metal under them. */
      readonly base: BaseCorrection;
      /** Its gauge failed its shims since: watch, until it is read again. */
      readonly doubted: boolean;
      readonly failure: Failure | null;
    }
  | {
      readonly item: "cure";
      readonly result: VerdictResult;
      readonly grade: EvidenceGrade;
      readonly sources: readonly string[];
      readonly bake: BakeVerdict | null;
      readonly failure: Failure | null;
    }
  | {
      readonly item: "adhesion";
      readonly result: VerdictResult;
      readonly grade: EvidenceGrade;
      readonly sources: readonly string[];
      readonly iso: number | null;
      readonly astm: string | null;
      readonly worstIso: number;
    }
  | {
      readonly item: "rub";
      readonly result: VerdictResult;
      readonly grade: EvidenceGrade;
      readonly sources: readonly string[];
      readonly rubGrade: number | null;
      readonly doubleRubs: number | null;
      readonly required: false;
    }
  | AppearanceItem
  | {
      readonly item: "pretreatment";
      readonly result: VerdictResult;
      readonly grade: EvidenceGrade;
      readonly sources: readonly string[];
      readonly worst: {
        readonly bath: string;
        readonly parameter: string;
        readonly value: number | null;
        readonly lower: number | null;
        readonly upper: number | null;
      } | null;
    };
/** Appearance is judged by the defects on record: none seen is no item, since nobody said that they looked. */
type AppearanceItem = {
  readonly item: "appearance";
  readonly result: VerdictResult;
  readonly grade: EvidenceGrade;
  readonly sources: readonly string[];
  readonly defect: string;
  readonly affected: number | null;
  readonly seen: number | null;
};

export type RackVerdict = {
  readonly kind: "rack-verdict";
  readonly result: VerdictResult;
  readonly grade: EvidenceGrade;
  readonly items: readonly VerdictItem[];
  readonly limiting: VerdictItem["item"] | null;
  readonly missing: readonly VerdictItem["item"][];
};

/** The whole of a rack judged from its records: film, cure, adhesion and the wash it met; the solvent rub where one was made. */
export function judgeRack(rack: RackFile, conditions: Conditions): RackVerdict {
  const items: VerdictItem[] = [
    filmItem(rack),
    cureItem(rack),
    adhesionItem(rack),
    pretreatmentItem(conditions, rack),
    ...rubItem(rack),
    ...appearanceItem(rack),
  ];
  const missing = items.filter((i) => i.grade === "unknown").map((i) => i.item);
  const worst = worstResult(items.map((i) => i.result));
  // A proof that is missing outweighs a watch: nothing can be said of the whole before it is there.
  const result = worst !== "out" && missing.length > 0 ? "unknown" : worst;
  return {
    kind: "rack-verdict",
    result,
    grade: weakestGrade(items.map((i) => i.grade)),
    items,
    limiting: result === "in" ? null : (items.find((i) => i.result === result)?.item ?? null),
    missing,
  };
}

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
    return { item: "film", result: "unknown", grade: "unknown", sources, film: null, failure: null, base, doubted };
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
      doubted,
    };
  return {
    item: "film",
    result: doubted && judged.value.result === "in" ? "watch" : judged.value.result,
    grade: base.kind === "by-profile" ? "by-procedure" : "measured",
    sources,
    film: judged.value,
    failure: null,
    base,
    doubted,
  };
}

function cureItem(rack: RackFile): VerdictItem {
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
    grade: "measured",
    sources: [bake.base.id],
    bake: verdict.value,
    failure: null,
  };
}

/** The channels of a bake that say how this rack was cured. */
export function channelsOfRack(
  rack: Pick<RackFile, "id" | "number">,
  bake: RackFile["thread"][number],
): readonly BakeChannel[] {
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

function adhesionItem(rack: RackFile): VerdictItem {
  const worstIso = rack.job.requirement.adhesionWorstIso;
  const test = newest(rack, "cross-cut");
  const row = test?.details.cross_cut?.[0];
  if (!test || !row)
    return { item: "adhesion", result: "unknown", grade: "unknown", sources: [], iso: null, astm: null, worstIso };
  return {
    item: "adhesion",
    result: row.iso > worstIso ? "out" : row.iso === worstIso && worstIso > 0 ? "watch" : "in",
    grade: "measured",
    sources: [test.base.id],
    iso: row.iso,
    astm: row.astm,
    worstIso,
  };
}

function rubItem(rack: RackFile): VerdictItem[] {
  const test = newest(rack, "solvent-rub");
  const row = test?.details.solvent_rub?.[0];
  if (!test || !row) return [];
  const judged = judgeSolventRub({
    doubleRubs: row.double_rubs,
    limit: row.rub_limit,
    grade: row.grade,
    knownCuredGrade: row.known_cured_grade,
  });
  return [
    {
      item: "rub",
      result: judged.ok ? judged.value : "unknown",
      grade: "measured",
      sources: [test.base.id],
      rubGrade: row.grade,
      doubleRubs: row.double_rubs,
      required: false,
    },
  ];
}

function appearanceItem(rack: RackFile): AppearanceItem[] {
  const seen = newest(rack, "defect");
  const row = seen?.details.defect?.[0];
  if (!seen || !row || row.pieces_affected === 0) return [];
  return [
    {
      item: "appearance",
      result: "out",
      grade: seen.base.grade,
      sources: [seen.base.id],
      defect: row.defect,
      affected: row.pieces_affected,
      seen: row.pieces_seen,
    },
  ];
}

/** The wash that the metal under this pass met: after a strip, only what came since. */
function pretreatmentItem(all: Conditions, rack: RackFile): VerdictItem {
  const stripped = rack.passes.slice(0, rack.pass + 1).findLast((p) => p.after?.decision === "strip")?.after;
  const since = stripped?.record.base.happened_at;
  const conditions = since ? { ...all, baths: all.baths.filter((b) => b.at > since) } : all;
  if (conditions.baths.length === 0)
    return { item: "pretreatment", result: "unknown", grade: "unknown", sources: [], worst: null };
  const result = worstResult(conditions.baths.map((b) => b.result));
  const limiting = conditions.baths.find((b) => b.result === result) ?? conditions.baths[0];
  return {
    // A bath out of its window is a reason to look, not by itself a failed piece: the tests on the film decide.
    item: "pretreatment",
    result: result === "out" ? "watch" : result,
    grade: weakestGrade(conditions.baths.map((b) => b.found.grade)),
    sources: [...new Set(conditions.baths.flatMap((b) => b.found.sources))],
    worst: limiting
      ? {
          bath: limiting.bath,
          parameter: limiting.parameter,
          value: limiting.found.value,
          lower: limiting.lower,
          upper: limiting.upper,
        }
      : null,
  };
}
