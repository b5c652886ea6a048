import type { Trace } from "../cure";
import { type Random, seededRandom } from "../statistics/random";
import { isMonday, type SimulatedBathCheck, type SimulatedBathEvent, simulateConversionBath } from "./bath-model";
import { simulateBake } from "./oven-model";

export type SimulatedProduct = {
  readonly key: string;
  readonly cast: boolean;
  readonly powder: string;
  readonly targetUm: number;
  readonly faces: readonly {
    readonly face: string;
    readonly spots: readonly string[];
    readonly effectUm: readonly number[];
  }[];
  readonly pieces: number;
  readonly tauS: readonly { readonly channel: string; readonly tauS: number }[];
  readonly setPointC: number;
  readonly doorToPullS: number;
  /** Tubes and laps that hold water out of the washer. */
  readonly hollow?: boolean;
  /** Holds water too, and has drain holes that are blown out by habit. */
  readonly drained?: boolean;
  /** A face inside a corner, where a strong draught carries powder off. */
  readonly cornerFace?: string;
};
export type SimulatedRack = {
  readonly number: string;
  readonly product: string;
  readonly hungMs: number;
  readonly night: boolean;
  readonly passages: readonly { readonly stage: string; readonly enteredMs: number; readonly leftMs: number | null }[];
  readonly prep: readonly {
    readonly step: string;
    readonly atMs: number;
    readonly done: boolean;
    readonly value: number | null;
    readonly unit: string | null;
  }[];
  readonly coat: {
    readonly atMs: number;
    readonly lot: string;
    readonly kv: number;
    readonly currentUa: number;
    readonly gunAirKPa: number;
    readonly earthMohm: number;
    readonly hookCycles: number;
    readonly boothAirMPerS: number;
  } | null;
  readonly bake: {
    readonly load: string;
    readonly closedMs: number;
    readonly pulledMs: number;
    readonly channels: readonly { readonly name: string; readonly medium: "air" | "metal"; readonly trace: Trace }[];
    readonly place: string;
    readonly setPointC: number;
  } | null;
  readonly film: {
    readonly atMs: number;
    readonly readings: readonly { readonly face: string; readonly spot: string; readonly valueUm: number }[];
  } | null;
  readonly crossCut: { readonly atMs: number; readonly squaresLost: number } | null;
  readonly rub: { readonly atMs: number; readonly grade: number } | null;
  readonly dryOff: {
    readonly atMs: number;
    readonly airC: number;
    readonly metalC: number;
    readonly hollowBlown: boolean | null;
  } | null;
  /** Pieces with rust bloom out of the washer, or with blisters at their tube ends. */
  readonly flashRust: { readonly atMs: number; readonly pieces: number } | null;
  readonly blisters: { readonly atMs: number; readonly pieces: number } | null;
  readonly pinholes: { readonly atMs: number; readonly pieces: number } | null;
  /** Pieces whose inside corners came out light. */
  readonly lightCorners: { readonly atMs: number; readonly pieces: number } | null;
  /** What the simulation knows to be true: only tests and practice may look. */
  readonly truth: { readonly causes: readonly string[]; readonly conversionPh: number };
};
export type SimulatedLine = {
  readonly kind: "simulated-line";
  readonly conversion: {
    readonly checks: readonly SimulatedBathCheck[];
    readonly events: readonly SimulatedBathEvent[];
  };
  readonly rinse: readonly { readonly atMs: number; readonly microSiemensPerCm: number }[];
  readonly air: readonly {
    readonly atMs: number;
    readonly humidityPercent: number;
    readonly airC: number;
    readonly compressedAirDewPointC: number;
    readonly boothAirMPerS: number;
  }[];
  readonly racks: readonly SimulatedRack[];
  readonly stops: readonly { readonly fromMs: number; readonly toMs: number; readonly cause: string }[];
};

/** Days of wet weather, counted back from the end, and what the air holds then, %. */
const WET_DAYS_BACK: readonly number[] = [19, 18, 17, 12, 11, 5, 4];
const WET_RISE_PERCENT = 21;
/** Under this the inhibitor no longer holds, mg/L. */
const INHIBITOR_HOLDS_MG_PER_L = 180;

/** The booth's draught before its fan was turned up and after, m/s; and what it takes from an inside corner, µm. */
const BOOTH_AIR_M_PER_S = [0.5, 0.86] as const;
const CORNER_LOSS_UM = 27;

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

/**
 * Runs the line from `fromMs` to `toMs` (milliseconds since 1970, both at a local midnight or later). Racks at hand at
 * `toMs` are left where they stand. Same seed, same data.
 */
export function simulateLine(input: {
  readonly seed: number;
  readonly fromMs: number;
  readonly toMs: number;
  readonly racksPerDay: number;
  readonly firstRackNumber: number;
  readonly products: readonly SimulatedProduct[];
  readonly wrongAdditionMs: number;
  readonly putRightMs: number;
  readonly gassyDeliveryMs: number;
  /** The booth's filters are changed and its fan turned up; never where it is left out. */
  readonly fanUpMs?: number;
  /** Racks hung this many minutes before the end, so that each stage has one in hand. */
  readonly inHand?: readonly { readonly minutes: number; readonly product: string }[];
  /** Work beside the regular one: a rack every so many days, numbered from its own first. */
  readonly beside?: readonly {
    readonly product: SimulatedProduct;
    readonly everyDays: number;
    readonly firstRackNumber: number;
  }[];
}): SimulatedLine {
  // Streams of their own, so that neither the hour the line ends at nor one rack's fate shifts any other.
  const bath = simulateConversionBath(seededRandom(input.seed), input);
  const random = seededRandom(input.seed + 3);
  const airRandom = seededRandom(input.seed + 4);
  const ownRandom = (rack: number) => seededRandom(input.seed * 31 + rack * 7919);
  const rinse: SimulatedLine["rinse"][number][] = [];
  const air: SimulatedLine["air"][number][] = [];
  const racks: SimulatedRack[] = [];
  const stops: SimulatedLine["stops"][number][] = [];
  const lastDay = Math.floor(input.toMs / DAY);
  const fanUp = (ms: number): boolean => ms >= (input.fanUpMs ?? Number.POSITIVE_INFINITY);
  const wet = (ms: number): boolean => WET_DAYS_BACK.includes(lastDay - Math.floor(ms / DAY));
  let number = input.firstRackNumber;
  let load = 380;
  const world = {
    toMs: input.toMs,
    phAt: bath.phAt,
    inhibitorAt: bath.inhibitorAt,
    wet,
    fanUp,
    gassyDeliveryMs: input.gassyDeliveryMs,
    stops,
  };
  for (let day = input.fromMs; day < input.toMs; day += DAY) {
    for (const hour of [6, 14]) {
      if (day + hour * HOUR >= input.toMs) continue;
      rinse.push({ atMs: day + hour * HOUR + 12 * MINUTE, microSiemensPerCm: Math.round(62 + airRandom.normal(0, 9)) });
      air.push({
        atMs: day + hour * HOUR + 3 * MINUTE,
        humidityPercent: Math.min(97, Math.round(62 + airRandom.normal(0, 7)) + (wet(day) ? WET_RISE_PERCENT : 0)),
        airC: Math.round(17 + airRandom.normal(0, 2)),
        compressedAirDewPointC: Math.round(-30 + airRandom.normal(0, 2)),
        // Stepped with the day rather than drawn: no other stream may move for it.
        boothAirMPerS: BOOTH_AIR_M_PER_S[fanUp(day + hour * HOUR) ? 1 : 0] + ((day / DAY + hour) % 5) / 100 - 0.02,
      });
    }
    for (let i = 0; i < input.racksPerDay; i++) {
      const night = i === input.racksPerDay - 1;
      const hungMs =
        day +
        (night ? 19.2 : 5.6 + (i * 9.5) / Math.max(1, input.racksPerDay - 1)) * HOUR +
        Math.round(random.uniform() * 20) * MINUTE;
      if (hungMs >= input.toMs - (input.inHand ? 6 * HOUR : 0)) continue;
      const picked = random.pick(input.products);
      // One of a kind goes through at night every third day, castings among them.
      const cast = input.products.find((p) => p.cast);
      const castNight = night && Math.floor(day / DAY) % 3 === 0;
      // The week begins with steel: aluminium does not bloom.
      const firstOfWeek = i === 0 && isMonday(day) && Math.floor(day / DAY) !== lastDay;
      const steel = input.products.find((p) => !p.cast);
      racks.push(
        simulateRack(ownRandom(number), {
          product: (firstOfWeek && steel) || (castNight && cast) || picked,
          number: String(number++).padStart(4, "0"),
          load: String(load++),
          hungMs,
          night,
          ...world,
          firstOfWeek,
          day: Math.floor((day - input.fromMs) / DAY),
        }),
      );
    }
  }
  const inHandRandom = seededRandom(input.seed + 1);
  for (const { minutes, product } of input.inHand ?? []) {
    const hungMs = input.toMs - minutes * MINUTE;
    const day = Math.floor((hungMs - input.fromMs) / DAY);
    racks.push(
      simulateRack(ownRandom(number), {
        product: input.products.find((p) => p.key === product) ?? inHandRandom.pick(input.products),
        number: String(number++).padStart(4, "0"),
        load: String(load++),
        hungMs,
        night: false,
        ...world,
        firstOfWeek: false,
        day,
      }),
    );
  }
  // Work that comes beside the regular one has a stream of its own, so that it shifts nothing of the rest.
  const besideRandom = seededRandom(input.seed + 2);
  for (const [i, { product, everyDays, firstRackNumber }] of (input.beside ?? []).entries()) {
    let own = firstRackNumber;
    for (let day = input.fromMs + i * DAY; day < input.toMs; day += everyDays * DAY) {
      const hungMs = day + Math.round((9.2 + besideRandom.uniform()) * 60) * MINUTE;
      if (hungMs >= input.toMs - 8 * HOUR) continue;
      racks.push(
        simulateRack(ownRandom(own), {
          product,
          number: String(own++).padStart(4, "0"),
          load: String(load++),
          hungMs,
          night: false,
          ...world,
          firstOfWeek: false,
          day: Math.floor((day - input.fromMs) / DAY),
        }),
      );
    }
  }
  return {
    kind: "simulated-line",
    conversion: { checks: bath.checks, events: bath.events },
    rinse,
    air,
    racks,
    stops: stops.filter((s) => s.toMs < input.toMs),
  };
}

function simulateRack(
  random: Random,
  r: {
    product: SimulatedProduct;
    number: string;
    load: string;
    hungMs: number;
    night: boolean;
    toMs: number;
    phAt: (ms: number) => number;
    inhibitorAt: (ms: number) => number;
    wet: (ms: number) => boolean;
    fanUp: (ms: number) => boolean;
    stops: { fromMs: number; toMs: number; cause: string }[];
    /** The first rack of a week: the line stands once it is in the washer. */
    firstOfWeek: boolean;
    gassyDeliveryMs: number;
    day: number;
  },
): SimulatedRack {
  const { product } = r;
  let at = r.hungMs;
  const go = (minutes: number) => {
    at += Math.round(minutes * MINUTE);
    return at;
  };
  const passages: { stage: string; enteredMs: number; leftMs: number | null }[] = [];
  const stage = (name: string, minutes: number) => {
    const enteredMs = at;
    passages.push({ stage: name, enteredMs, leftMs: go(minutes) });
    return enteredMs;
  };
  const prep: SimulatedRack["prep"][number][] = [];
  const blastMs = stage("blast", 22);
  prep.push({
    step: "blast",
    atMs: blastMs + 20 * MINUTE,
    done: true,
    value: Math.min(60, Math.max(36, Math.round(46 + random.normal(0, 4)))),
    unit: "µm",
  });
  prep.push({ step: "dust-tape", atMs: blastMs + 21 * MINUTE, done: true, value: 1, unit: "grade" });
  go(28 + random.uniform() * 15);
  stage("clean", 2);
  const conversionMs = stage("conversion", 1.5);
  if (r.firstOfWeek) {
    // Out of the conversion bath and not yet in the rinse: wet, acid and in the open.
    const fromMs = at + 20_000;
    go(9 + (r.day % 4));
    r.stops.push({ fromMs, toMs: at, cause: "Chain would not start after the weekend" });
  }
  stage("rinse", 1);
  const bare = r.firstOfWeek && !product.cast && r.inhibitorAt(conversionMs) < INHIBITOR_HOLDS_MG_PER_L;
  const rusty = bare ? Math.ceil(product.pieces * 0.6) : 0;
  const dryMs = stage("dry-off", 11) + 11 * MINUTE;
  // Eleven minutes dry a flat face; in wet weather water stays in the tube ends, and nobody blew them out.
  const damp = product.hollow === true && r.wet(dryMs);
  const blown = product.hollow ? !damp : product.drained ? true : null;
  const conversionPh = r.phAt(conversionMs);
  const gassy = product.cast && r.hungMs >= r.gassyDeliveryMs;
  const skipped = product.cast && r.night && random.chance(0.85);
  if (product.cast) {
    if (skipped) prep.push({ step: "prebake", atMs: at, done: false, value: null, unit: null });
    else prep.push({ step: "prebake", atMs: stage("prebake", 42), done: true, value: 228, unit: "°C" });
  }
  go(8);
  const boothMs = stage("booth", 16);
  const kv = Math.round(70 + random.normal(0, 3));
  const earthMohm = Math.round(Math.abs(0.35 + random.normal(0, 0.12)) * 100) / 100;
  go(6);
  const closedMs = stage("oven", product.doorToPullS / 60);
  const pulledMs = at;
  // No two loads heat alike: the thermostat hunts, and what hangs beside takes heat too.
  const draught = seededRandom(Number(r.load) || 1);
  const slower = 1 + draught.normal(0, 0.02);
  const shift = random.normal(0, 3.2);
  go(35);
  const filmMs = at;
  const readings = product.faces.flatMap((face) =>
    face.spots.flatMap((spot, i) => {
      const carriedOff = face.face === product.cornerFace && r.fanUp(boothMs) ? CORNER_LOSS_UM : 0;
      const spotUm = product.targetUm + shift + (face.effectUm[i] ?? 0) - carriedOff + random.normal(0, 3);
      return Array.from({ length: 3 }, () => ({
        face: face.face,
        spot,
        valueUm: Math.round(Math.max(8, spotUm + random.normal(0, 1.6)) * 10) / 10,
      }));
    }),
  );
  go(12);
  // A bath too far up its pH lays down little conversion coat, and the film has less to hold to.
  const weak = Math.max(0, Math.min(1, (conversionPh - 5.75) / 0.3));
  const squaresLost = random.chance(0.85 * weak) ? 2 + Math.floor(random.uniform() * 9) : random.chance(0.03) ? 1 : 0;
  const pinholed =
    gassy && skipped ? 3 + Math.floor(random.uniform() * (product.pieces / 3)) : gassy && random.chance(0.12) ? 1 : 0;
  const light = product.cornerFace !== undefined && r.fanUp(boothMs) ? Math.max(2, product.pieces - (r.day % 3)) : 0;
  const blistered = damp ? 2 + (r.day % 5) : 0;
  const causes = [
    ...(rusty > 0 ? ["flash-rust-before-coat"] : []),
    ...(blistered > 0 ? ["trapped-moisture"] : []),
    ...(squaresLost > 1 ? ["conversion-thin"] : []),
    ...(light > 0 ? ["booth-draught"] : []),
    ...(pinholed > 1 ? ["casting-gas"] : []),
  ];
  const past = (ms: number) => ms < r.toMs;
  return {
    number: r.number,
    product: product.key,
    hungMs: r.hungMs,
    night: r.night,
    passages: passages
      .filter((p) => past(p.enteredMs))
      .map((p) => (p.leftMs !== null && past(p.leftMs) ? p : { ...p, leftMs: null })),
    prep: prep.filter((p) => past(p.atMs)),
    coat: past(boothMs)
      ? {
          atMs: boothMs,
          lot: `${product.powder}/${r.day < 14 ? "2610-2" : "2611-4"}`,
          kv,
          currentUa: 22,
          gunAirKPa: 62,
          earthMohm,
          hookCycles: 1 + (r.day % 6),
          boothAirMPerS: BOOTH_AIR_M_PER_S[r.fanUp(boothMs) ? 1 : 0] + (r.day % 4) / 100,
        }
      : null,
    bake: past(closedMs)
      ? {
          load: r.load,
          closedMs,
          pulledMs,
          channels: cutTo(
            simulateBake(random, {
              setPointC: product.setPointC + draught.normal(0, 0.8),
              pieces: product.tauS.map(({ channel, tauS }) => ({ channel, tauS: tauS * slower })),
              doorToPullS: product.doorToPullS,
              intervalS: 20,
              coolS: 400,
              startC: 21,
            }),
            (r.toMs - closedMs) / 1000,
          ),
          place: random.pick(["A1", "B2", "C3"]),
          setPointC: product.setPointC,
        }
      : null,
    film: past(filmMs) ? { atMs: filmMs, readings } : null,
    crossCut: past(at) ? { atMs: at, squaresLost } : null,
    rub: past(at + 5 * MINUTE) ? { atMs: at + 5 * MINUTE, grade: 5 } : null,
    dryOff: past(dryMs) ? { atMs: dryMs, airC: 128 + (r.day % 5), metalC: 34 + (r.day % 4), hollowBlown: blown } : null,
    flashRust: rusty > 0 && past(dryMs) ? { atMs: dryMs + MINUTE, pieces: rusty } : null,
    blisters: blistered > 0 && past(filmMs) ? { atMs: filmMs - 4 * MINUTE, pieces: blistered } : null,
    pinholes: pinholed > 0 && past(filmMs) ? { atMs: filmMs - 5 * MINUTE, pieces: pinholed } : null,
    lightCorners: light > 0 && past(filmMs) ? { atMs: filmMs - 3 * MINUTE, pieces: light } : null,
    truth: { causes, conversionPh },
  };
}

/** A recorder knows nothing of samples still to come. */
function cutTo(
  channels: { name: string; medium: "air" | "metal"; trace: Trace }[],
  seconds: number,
): { name: string; medium: "air" | "metal"; trace: Trace }[] {
  const first = channels[0]?.trace.timeS ?? [];
  const keep = Math.max(2, first.filter((s) => s <= seconds).length);
  return channels.map((c) => ({
    ...c,
    trace: { timeS: c.trace.timeS.slice(0, keep), tempC: c.trace.tempC.slice(0, keep) },
  }));
}
