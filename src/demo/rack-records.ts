import { crossCutGrade } from "@/core/bench";
import { valueOrThrow } from "@/core/result";
import type { SimulatedRack } from "@/core/simulated-line";
import type { Json } from "@/db/detail-tables";
import type { NewRecord } from "@/server/record/store-record";
import { demoId, type Made, MINUTE, record } from "./demo-record";
import { everyProduct } from "./products";

export const rackId = (rack: SimulatedRack) => demoId(rack.hungMs, `rack:${rack.number}`);

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
              distance_mm: null,
              earth_mohm: rack.coat.earthMohm,
              hook_cycles: rack.coat.hookCycles,
              sprayed_hot: false,
              colour_change_before: false,
              reclaim_percent: 20,
            },
          ],
        },
      }),
    );
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
          bake_place: [{ rack_id: rackId(rack), place: rack.bake.place, channel: null }],
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
