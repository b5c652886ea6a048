import { crossCutGrade } from "@/core/bench";
import { type PrepStep, stepsAskedFor } from "@/core/preparation";
import { valueOrThrow } from "@/core/result";
import type { SimulatedRack } from "@/core/simulated-line";
import type { Json, NewDetail } from "@/db/detail-tables";
import type { NewRecord } from "@/server/record/store-record";
import type { SetupInput } from "@/server/setup/setup-data";
import { demoId, type Made, MINUTE, record } from "./demo-record";
import { everyProduct } from "./products";
import { shop } from "./shop";

export const rackId = (rack: SimulatedRack) => demoId(rack.hungMs, `rack:${rack.number}`);

const productOf = (rack: SimulatedRack) => {
  const product = everyProduct.find((p) => p.key === rack.product);
  if (!product) throw new RangeError(`no product ${rack.product} in the demo shop`);
  return product;
};

/** The probe on the heaviest place of a part. */
const slowestChannel = (key: string): string | null =>
  [...(everyProduct.find((p) => p.key === key)?.tauS ?? [])].sort((a, b) => b.tauS - a.tauS)[0]?.channel ?? null;

/** The hopper is weighed at every third rack: what left it, by the film that came of it and a transfer near 62 %. */
function hopperOf(rack: SimulatedRack): Partial<NewDetail<"coat">> {
  const number = Number(rack.number);
  const readings = rack.film?.readings ?? [];
  if (number % 3 !== 0 || readings.length === 0) return {};
  const meanUm = readings.reduce((sum, r) => sum + r.valueUm, 0) / readings.length;
  const product = productOf(rack);
  const part = shop.find((s) => s.kind === "part" && s.code === product.key)?.data as SetupInput<"part">;
  const powder = shop.find((s) => s.kind === "powder" && s.code === product.powder)?.data as SetupInput<"powder">;
  const onPartsKg = ((part.measures?.areaM2 ?? 1) * product.pieces * meanUm * powder.specificGravity) / 1000;
  const usedKg = Math.round((onPartsKg / (0.58 + (number % 9) / 100)) * 100) / 100;
  return { hopper_before_kg: 14, hopper_after_kg: Math.round((14 - usedKg + 10) * 100) / 100, hopper_added_kg: 10 };
}

/** Shelter posts are looked at under the lamp before the oven: the programme leaves their foot light, on every other rack or so. */
function lampLook(rack: SimulatedRack, base: Pick<NewRecord, "jobId" | "rackId">): NewRecord | null {
  if (rack.product !== "SHELTER-POST" || !rack.coat || !rack.bake) return null;
  const number = Number(rack.number);
  const spot = (face: string, x: number, y: number) => ({ face, x, y, what: "light-resprayed" });
  const spots = [
    ...(number % 5 < 2 ? [spot("A", 26 + (number % 9), 88 + (number % 7))] : []),
    ...(number % 11 === 3 ? [spot("B", 60 + (number % 8), 15 + (number % 9))] : []),
  ];
  return record("lamp-check", rack.coat.atMs + 4 * MINUTE, rack.number, {
    ...base,
    by: "maren",
    grade: "measured",
    details: {
      lamp_check: [{ coat_no: 1, faces: ["A", "B"], wiped: true, plugs_in: null, bumped: false, note: null }],
      light_spot: spots.map((s, i) => ({ ordinal: i + 1, ...s })),
    },
  });
}

/** Steps done by hand on every rack, that the line itself does not show: edges broken, looked over bare, blown off, wiped, masked. */
function handSteps(rack: SimulatedRack): { readonly step: PrepStep; readonly atMs: number }[] {
  const part = shop.find((s) => s.kind === "part" && s.code === productOf(rack).key)?.data as SetupInput<"part">;
  const asked = stepsAskedFor({
    substrate: part.substrate,
    features: part.features ?? [],
    stages: rack.passages.map((p) => p.stage),
    recoat: false,
  });
  const masked = part.marks?.some((m) => m.kind === "mask" || m.kind === "plug") ?? false;
  const blastMs = rack.passages.find((p) => p.stage === "blast")?.enteredMs ?? rack.hungMs;
  const boothMs = rack.passages.find((p) => p.stage === "booth")?.enteredMs ?? null;
  const when: Partial<Record<PrepStep, number | null>> = {
    degrease: blastMs - 12 * MINUTE,
    "break-edges": blastMs - 8 * MINUTE,
    "look-over": blastMs + 23 * MINUTE,
    "blow-off": boothMs && boothMs - 9 * MINUTE,
    "solvent-wipe": boothMs && boothMs - 5 * MINUTE,
    "masks-in": boothMs && boothMs - 3 * MINUTE,
  };
  return [...asked, ...(masked ? (["masks-in"] as const) : [])].flatMap((step) => {
    const atMs = when[step];
    return atMs == null ? [] : [{ step, atMs: Math.max(rack.hungMs, atMs) }];
  });
}

/** How this shop does its steps. */
const howOf: Record<string, Json> = {
  blast: { media: "steel grit", pressure: 650, cleanliness: "Sa 2½", "media lot": "G-40/7" },
};

/** Everything one simulated rack left on record. */
export function rackRecords(made: Made, rack: SimulatedRack, jobId: string, anchorMs: number): NewRecord[] {
  const base = { jobId, rackId: rackId(rack), by: rack.night ? "bea" : "tomasz" };
  const name = rack.number;
  const out: NewRecord[] = [];
  for (const p of rack.passages)
    out.push(
      record("passage", p.enteredMs, `${name}:${p.stage}`, {
        ...base,
        by: "maren",
        grade: "measured",
        details: {
          passage: [
            {
              stage: p.stage,
              entered_at: new Date(p.enteredMs),
              left_at: p.leftMs === null ? null : new Date(p.leftMs),
              source: "scan",
            },
          ],
        },
      }),
    );
  for (const p of rack.prep)
    out.push(
      record("prep-step", p.atMs, `${name}:${p.step}`, {
        ...base,
        by: "maren",
        grade: p.value === null ? "by-procedure" : "measured",
        details: {
          prep_step: [
            { step: p.step, done: p.done, value: p.value, unit: p.unit, note: null, how: howOf[p.step] ?? null },
          ],
        },
      }),
    );
  for (const { step, atMs } of handSteps(rack))
    if (atMs <= anchorMs)
      out.push(
        record("prep-step", atMs, `${name}:${step}`, {
          ...base,
          by: "maren",
          grade: step === "look-over" ? "measured" : "by-procedure",
          details: {
            prep_step: [
              step === "look-over"
                ? { step, done: true, value: 0, unit: "places", note: null, how: null }
                : { step, done: true, value: null, unit: null, note: null, how: null },
            ],
          },
        }),
      );
  if (rack.dryOff)
    out.push(
      record("dry-off", rack.dryOff.atMs, name, {
        ...base,
        by: "rufus",
        grade: "measured",
        details: {
          dry_off: [
            {
              air_c: rack.dryOff.airC,
              metal_c: rack.dryOff.metalC,
              parts_dry: true,
              hollow_blown: rack.dryOff.hollowBlown,
              note: null,
            },
          ],
        },
      }),
    );
  if (rack.coat)
    out.push(
      record("coat", rack.coat.atMs, name, {
        ...base,
        by: "maren",
        grade: "measured",
        details: {
          coat: [
            {
              coat_no: 1,
              layer: "top",
              lot_id: made.entity("lot", rack.coat.lot),
              booth: "booth 1",
              kv: rack.coat.kv,
              current_ua: rack.coat.currentUa,
              gun_air_kpa: rack.coat.gunAirKPa,
              distance_mm: 220,
              earth_mohm: rack.coat.earthMohm,
              hook_cycles: rack.coat.hookCycles,
              sprayed_hot: false,
              colour_change_before: false,
              reclaim_percent: 20,
              gun: "gun 2",
              sheet_id: made.entity("setup-sheet", `${productOf(rack).powder} booth 1`),
              situation: "first-coat",
              system: "single",
              gun_air_rest_kpa: Math.round(rack.coat.gunAirKPa * 1.28),
              booth_air_m_per_s: Math.round(rack.coat.boothAirMPerS * 100) / 100,
              passes: 2,
              ...hopperOf(rack),
            },
          ],
        },
      }),
    );
  const lamp = lampLook(rack, base);
  if (lamp) out.push(lamp);
  if (rack.bake) {
    const powder = everyProduct.find((p) => p.key === rack.product)?.powder as string;
    const pulled = rack.bake.pulledMs <= anchorMs;
    out.push(
      record("bake", rack.bake.closedMs, name, {
        ...base,
        rackId: null,
        jobId: null,
        grade: "measured",
        instrumentId: made.entity("instrument", "R6"),
        details: {
          bake: [
            {
              oven_id: made.entity("oven", "Oven 1"),
              load_no: rack.bake.load,
              powder_id: made.entity("powder", powder),
              door_closed_at: new Date(rack.bake.closedMs),
              pulled_at: pulled ? new Date(rack.bake.pulledMs) : null,
              timing: "metal-at-temperature",
              set_point_c: rack.bake.setPointC,
            },
          ],
          bake_place: [{ rack_id: rackId(rack), place: rack.bake.place, channel: slowestChannel(rack.product) }],
          bake_channel: rack.bake.channels.map((c, i) => ({
            ordinal: i + 1,
            name: c.name,
            medium: c.medium,
            time_s: [...c.trace.timeS],
            temp_c: [...c.trace.tempC],
          })),
        },
      }),
    );
  }
  const atHand = anchorMs - (rack.film?.atMs ?? 0) < 2 * 3_600_000;
  if (rack.film) {
    const readings = atHand ? rack.film.readings.slice(0, -3) : rack.film.readings;
    out.push(
      record("thickness", rack.film.atMs, name, {
        ...base,
        grade: "measured",
        instrumentId: made.entity("instrument", "731"),
        details: {
          thickness_set: [{ coat_no: 1, source: "gauge", typed_unit: "um" }],
          thickness_reading: readings.map((r, i) => ({
            ordinal: i + 1,
            face: r.face,
            spot: r.spot,
            value_um: r.valueUm,
            typed: String(r.valueUm),
            rejected_reason: null,
          })),
        },
      }),
    );
  }
  if (rack.crossCut) {
    const grade = valueOrThrow(crossCutGrade((100 * rack.crossCut.squaresLost) / 25));
    out.push(
      record("cross-cut", rack.crossCut.atMs, name, {
        ...base,
        grade: "measured",
        details: {
          cross_cut: [
            {
              removed_percent: grade.removedPercent,
              squares_lost: rack.crossCut.squaresLost,
              squares: 25,
              spacing_mm: 2,
              iso: grade.iso,
              astm: grade.astmB,
              on_panel: true,
            },
          ],
        },
      }),
    );
    if (grade.iso >= 2)
      out.push(
        record("defect", rack.crossCut.atMs + MINUTE, `${name}:adhesion`, {
          ...base,
          grade: "measured",
          details: {
            defect: [
              {
                defect: "adhesion-loss",
                face: null,
                x: null,
                y: null,
                extent_percent: grade.removedPercent,
                pieces_affected: 1,
                pieces_seen: 1,
                note: "On the panel that travelled with the rack",
              },
            ],
          },
        }),
      );
  }
  if (rack.rub)
    out.push(
      record("solvent-rub", rack.rub.atMs, name, {
        ...base,
        grade: "measured",
        details: {
          solvent_rub: [
            { double_rubs: 50, rub_limit: 50, grade: rack.rub.grade, known_cured_grade: 5, on_panel: true },
          ],
        },
      }),
    );
  const pieces = everyProduct.find((p) => p.key === rack.product)?.pieces ?? 1;
  const seen = (
    [
      [
        "light-coverage",
        rack.lightCorners,
        "C",
        50,
        30,
        12,
        "Metal shines through in the inside corners; doors are even",
      ],
      ["pinholes", rack.pinholes, "H", 50, 40, 8, "On the cast hood; the rolled brackets beside it are clean"],
      ["flash-rust", rack.flashRust, null, null, null, 15, "Bloom on the metal out of the washer, after the stop"],
      ["blistering", rack.blisters, "E", 50, 8, 6, "At the tube ends only; the rails between are sound"],
    ] as const
  ).flatMap(([defect, found, face, x, y, extent, note]) =>
    found ? [{ defect, ...found, face, x, y, extent, note }] : [],
  );
  for (const d of seen)
    out.push(
      record("defect", d.atMs, `${name}:${d.defect}`, {
        ...base,
        grade: "measured",
        details: {
          defect: [
            {
              defect: d.defect,
              face: d.face,
              x: d.x,
              y: d.y,
              extent_percent: d.extent,
              pieces_affected: d.pieces,
              pieces_seen: pieces,
              note: d.note,
            },
          ],
        },
      }),
    );
  const bad = seen.filter((d) => d.defect !== "pinholes" || d.pieces >= 2);
  const doneMs = (rack.rub?.atMs ?? 0) + 40 * MINUTE;
  const clean = rack.rub && rack.film && !atHand && (rack.crossCut?.squaresLost ?? 0) < 2 && bad.length === 0;
  if (rack.rub && doneMs < anchorMs - 3_600_000) {
    const decision = clean ? "accept" : "hold";
    const verdict: Json = { decidedOn: "demo", filmFails: false };
    const held: Record<string, string> = {
      pinholes: "Pinholes on the hood",
      "light-coverage": "Light in the inside corners",
      "flash-rust": "Rust bloom under the film",
      blistering: "Blisters at the tube ends",
    };
    const notes = {
      accept: "Film, cure and adhesion in",
      hold: held[bad[0]?.defect ?? ""] ?? "Cross-cut on panel outside the requirement",
    };
    out.push(
      record("disposition", doneMs, name, {
        ...base,
        by: "ines",
        grade: "measured",
        details: { disposition: [{ decision, note: notes[decision], verdict, signed_name: "Ines Calder" }] },
      }),
    );
  }
  return out;
}
