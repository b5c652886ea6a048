import { group } from "d3";
import { type Kysely, sql } from "kysely";
import {
  fitTimeConstant,
  type HeatSeen,
  type HeatSetting,
  heatThrough,
  heatTransferOf,
  type LearntHeatTransfer,
  learnHeatTransfer,
  type Metal,
  metals,
  type OvenAir,
  plateTimeConstant,
  rememberHeat,
  sectionClasses,
  sectionClassOf,
  shiftedAir,
  type Trace,
  timeConstantReached,
} from "@/core/cure";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { type SetupItem, setupAt } from "../setup/setup-data";
import { heatsAs, metalOf } from "./metal-of";

/** Bakes looked back on: an oven changes, and older ones say less. */
const BAKES_LEARNT_FROM = 60;
/** How a plan's air is sampled, s. */
const STEP_S = 10;

export type LearntBake = {
  readonly at: Date;
  readonly load: string;
  readonly rack: string;
  readonly metal: Metal;
  readonly sectionMm: number;
  readonly section: string;
  readonly hWPerM2K: number;
  /** Time from the door to the sheet's lowest temperature: foretold from the bakes before it, and as it was, s. */
  readonly toC: number;
  readonly foretoldS: number | null;
  readonly measuredS: number | null;
};
export type LearntOven = {
  readonly bakes: readonly LearntBake[];
  readonly sections: readonly { readonly section: string; readonly learnt: LearntHeatTransfer }[];
  /** Shares of foretold times within 5 % of the measured ones; null where none could be compared. */
  readonly within5Percent: { readonly of: number; readonly within: number } | null;
  /** What is learnt for a section, or the usual figure. */
  readonly forSection: (plateMm: number, hollow: boolean) => LearntHeatTransfer;
  /** What is learnt for a part in a load: by its section, the load, the set point and its place, once enough bakes tell; else by its section. */
  readonly forPart: (part: PartInLoad) => LearntHeatTransfer;
};
export type PartInLoad = {
  readonly metal: Metal;
  readonly plateMm: number;
  readonly hollow: boolean;
  /** The temperature wanted: the lowest of its sheet. */
  readonly toC: number;
  readonly setPointC: number;
  readonly airAtDoorC: number;
  /** All that hangs in the load; null where not all of it was weighed. */
  readonly loadKg: number | null;
  readonly place: string;
  readonly placeOffC: number;
};

type Row = {
  record_id: string;
  at: Date;
  load_no: string;
  set_point_c: number | null;
  rack: string;
  part_id: string;
  powder_id: string;
  place: string;
  pieces: number;
  channel: string | null;
  racks: number;
  air_c: number | null;
};

/**
 * What an oven's bakes with traces taught: the heat transfer of each, by class of section, from the channel whose probe was
 * on a rack (of a load of one rack, the slowest), and how well each bake's time to temperature would have been foretold
 * from those before it. Two queries; O(bakes · channels · samples) over the newest sixty.
 */
export async function learnOven(db: Kysely<Database>, oven: SetupItem<"oven">, at: Date): Promise<LearntOven> {
  const [parts, powders, { rows }] = await Promise.all([
    setupAt(db, "part", at),
    setupAt(db, "powder", at),
    sql<Row>`
      select b.record_id, b.door_closed_at as at, b.load_no, b.set_point_c, b.air_c, k.number as rack, j.part_id, j.powder_id, p.channel, p.place, (select count(*)::int from piece x where x.rack_id = k.id) as pieces,
        (select count(*)::int from bake_place x where x.record_id = b.record_id) as racks
      from (select * from bake c where c.oven_id = ${oven.id} and c.door_closed_at <= ${at} and c.pulled_at is not null
          and exists (select 1 from bake_channel h where h.record_id = c.record_id)
          and ${stands("c.record_id")} order by c.door_closed_at desc limit ${BAKES_LEARNT_FROM}) b
      join bake_place p on p.record_id = b.record_id join rack k on k.id = p.rack_id join job j on j.id = k.job_id
      order by b.door_closed_at, k.number`.execute(db),
  ]);
  const ids = [...new Set(rows.map((r) => r.record_id))];
  const channels =
    ids.length === 0
      ? []
      : await db.selectFrom("bake_channel").selectAll().where("record_id", "in", ids).orderBy("ordinal").execute();
  const byBake = group(channels, (c) => c.record_id);
  const bakes: LearntBake[] = [];
  /** What each bake was known by and came to: three runs of the model each, made only where a part is foretold. */
  const asSeen: (() => HeatSeen | null)[] = [];
  const kgOf = (of: readonly Row[]): number | null =>
    of.reduce<number | null>((kg, r) => {
      const own = parts.get(r.part_id)?.data.measures?.massKg;
      return kg === null || own === undefined ? null : kg + own * r.pieces;
    }, 0);
  const inLoad = group(rows, (r) => r.record_id);
  for (const row of rows) {
    const mine = byBake.get(row.record_id) ?? [];
    const air = mine.find((c) => c.medium === "air");
    const part = parts.get(row.part_id)?.data;
    const powder = powders.get(row.powder_id)?.data;
    const named = row.channel ?? mine.find((c) => c.name === row.rack)?.name ?? null;
    if (!air || !part || !powder || (named === null && row.racks > 1)) continue;
    const traceOf = (c: (typeof mine)[number]): Trace => ({ timeS: c.time_s as number[], tempC: c.temp_c });
    const pulledS = mine[0]?.time_s.at(-1) ?? 0;
    const fits = mine.flatMap((c) => {
      if (c.medium !== "metal" || (named !== null && c.name !== named)) return [];
      const fit = fitTimeConstant(traceOf(air), traceOf(c), upToPull(c.temp_c, c.time_s as number[], pulledS));
      return fit.ok && fit.value.longEnough && fit.value.converged ? [{ c, tauS: fit.value.tauS }] : [];
    });
    const slowest = fits.reduce<(typeof fits)[number] | null>((a, b) => (!a || b.tauS > a.tauS ? b : a), null);
    if (!slowest) continue;
    const metal = metalOf[part.substrate];
    const { plateMm, hollow } = heatsAs(part);
    const toC = powder.schedule.reduce((least, p) => Math.min(least, p.metalC), Number.POSITIVE_INFINITY);
    const measuredS = crossing(traceOf(slowest.c), toC);
    // As it would have had to be for this bake to be foretold right; by the curve alone where it never got so hot.
    const reached =
      measuredS === null
        ? null
        : timeConstantReached(airOf(oven, row.set_point_c), { startC: START_C, toC, atS: measuredS });
    const h = heatTransferOf(reached?.ok ? reached.value : slowest.tauS, metal, plateMm);
    if (!h.ok) continue;
    if (measuredS !== null)
      asSeen.push(() => {
        const setting = settingOf(oven, {
          metal,
          plateMm,
          hollow,
          toC,
          setPointC: row.set_point_c ?? oven.data.usualSetPointC,
          airAtDoorC: row.air_c ?? oven.data.airAtDoorC,
          loadKg: kgOf(inLoad.get(row.record_id) ?? []),
          place: row.place === "–" ? "" : row.place,
          placeOffC: 0,
        });
        return setting && { ...setting, measuredS };
      });
    const section = sectionClassOf(plateMm, hollow);
    const before = learnHeatTransfer(bakes.filter((b) => b.section === section).map((b) => b.hWPerM2K));
    bakes.push({
      at: row.at,
      load: row.load_no,
      rack: row.rack,
      metal,
      sectionMm: plateMm,
      section,
      hWPerM2K: h.value,
      toC,
      foretoldS: before.ok ? foretold(oven, row.set_point_c, metal, plateMm, before.value.hWPerM2K, toC) : null,
      measuredS,
    });
  }
  let memory: ReturnType<typeof rememberHeat> | null = null;
  const learntOf = (section: string): LearntHeatTransfer => {
    const learnt = learnHeatTransfer(bakes.filter((b) => b.section === section).map((b) => b.hWPerM2K));
    if (!learnt.ok) throw new RangeError(JSON.stringify(learnt.error));
    return learnt.value;
  };
  const compared = bakes.flatMap((b) =>
    b.foretoldS !== null && b.measuredS !== null ? [Math.abs(b.foretoldS / b.measuredS - 1)] : [],
  );
  return {
    bakes,
    // Classes of hollow sections stand where a bake of one is on record.
    sections: [false, true]
      .flatMap((hollow) => sectionClasses.map((c) => sectionClassOf(Math.min(c.mostMm, 1e6), hollow)))
      .filter((name, i) => i < sectionClasses.length || bakes.some((b) => b.section === name))
      .map((section) => ({ section, learnt: learntOf(section) })),
    within5Percent:
      compared.length > 0 ? { of: compared.length, within: compared.filter((e) => e <= 0.05).length } : null,
    forSection: (mm, hollow) => learntOf(sectionClassOf(mm, hollow)),
    forPart: (part) => {
      const bySection = learntOf(sectionClassOf(part.plateMm, part.hollow));
      memory ??= rememberHeat(asSeen.flatMap((see) => see() ?? []));
      // Bakes are remembered by the oven's own air: what a place differs by is in what they came to.
      const setting = memory.ok && memory.value ? settingOf(oven, { ...part, placeOffC: 0 }) : null;
      if (!memory.ok || !memory.value || !setting) return bySection;
      const { seconds, band, bakes: from } = memory.value.foretell(setting);
      const h = (atS: number): number | null => {
        const tau = timeConstantReached(placedAir(oven, part), { startC: START_C, toC: part.toC, atS });
        const found = tau.ok ? heatTransferOf(tau.value, part.metal, part.plateMm) : null;
        return found?.ok ? found.value : null;
      };
      const [middle, quick, slow] = [h(seconds), h(band[0]), h(band[1])];
      // A time that no metal could meet in this air says nothing of the metal.
      if (middle === null || quick === null || slow === null) return bySection;
      return {
        kind: "learnt-heat-transfer",
        hWPerM2K: middle,
        interval: null,
        band: [slow, quick],
        bakes: from,
        grade: "measured",
      };
    },
  };
}

/** The moment the metal is hottest, s: after it, it cools. */
function upToPull(tempC: readonly (number | null)[], timeS: readonly number[], lastS: number): number {
  let at = -1;
  for (let i = 0; i < tempC.length; i++) if ((tempC[i] ?? -1e9) > (at < 0 ? -1e9 : (tempC[at] ?? -1e9))) at = i;
  return at < 0 ? lastS : (timeS[at] as number);
}

function crossing(trace: Trace, atC: number): number | null {
  for (let i = 1; i < trace.tempC.length; i++) {
    const [a, b] = [trace.tempC[i - 1], trace.tempC[i]];
    if (typeof a !== "number" || typeof b !== "number" || a >= atC || b < atC) continue;
    const [from, to] = [trace.timeS[i - 1] as number, trace.timeS[i] as number];
    return from + ((atC - a) / (b - a)) * (to - from);
  }
  return null;
}

/** The air of a bake as it is foretold: from what the oven reads as its door closes, to what it is set to. */
const airOf = (oven: SetupItem<"oven">, setPointC: number | null): OvenAir => ({
  startC: oven.data.airAtDoorC,
  tauS: oven.data.emptyTauS,
  program: [{ fromS: 0, airC: setPointC ?? oven.data.usualSetPointC }],
});
/** Metal as it goes in, where nobody read it, °C. */
const START_C = 21;

function foretold(
  oven: SetupItem<"oven">,
  setPointC: number | null,
  metal: Metal,
  sectionMm: number,
  hWPerM2K: number,
  toC: number,
): number | null {
  const constant = plateTimeConstant({ material: metal, plateMm: sectionMm, hWPerM2K });
  if (!constant.ok) return null;
  const heated = heatThrough(airOf(oven, setPointC), { tauS: constant.value.tauS, startC: START_C }, 4 * 3600, STEP_S);
  return heated.ok ? crossing(heated.value.metal, toC) : null;
}

/** The air a part meets: the oven's as it is set, at the place it hangs. */
const placedAir = (oven: SetupItem<"oven">, part: PartInLoad): OvenAir =>
  shiftedAir({ ...airOf(oven, part.setPointC), startC: part.airAtDoorC }, part.placeOffC);

/** What is known of a part's bake as its door closes; null where the plain model never reaches the temperature. */
function settingOf(oven: SetupItem<"oven">, part: PartInLoad): HeatSetting | null {
  const constant = plateTimeConstant({ material: part.metal, plateMm: part.plateMm });
  if (!constant.ok) return null;
  const at = (moreC: number): number | null => {
    const run = heatThrough(
      shiftedAir(placedAir(oven, part), moreC),
      { tauS: constant.value.tauS, startC: START_C },
      6 * 3600,
      STEP_S,
    );
    return run.ok ? crossing(run.value.metal, part.toC) : null;
  };
  const [modelS, hotter, colder] = [at(0), at(0.5), at(-0.5)];
  if (modelS === null || hotter === null || colder === null) return null;
  return {
    // By how it heats: a metal of another heat is a plate of steel so much thicker.
    plateMm: (part.plateMm * heatPerMm(part.metal)) / heatPerMm("steel"),
    loadShare: part.loadKg === null ? null : part.loadKg / oven.data.fullKgSteel,
    overC: part.setPointC + part.placeOffC - part.toC,
    airAtDoorC: part.airAtDoorC,
    place: part.place,
    modelS,
    perC: Math.log(colder / hotter),
  };
}
const heatPerMm = (metal: Metal): number => metals[metal].densityKgPerM3 * metals[metal].heatJPerKgK;
