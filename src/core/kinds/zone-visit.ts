import * as v from "valibot";
import { BEYOND_ANY_FILM_UM } from "../thickness";
import { entry, filled, number, text, uuid, whole } from "./fields";
import { defineKind } from "./kind";

const share = v.optional(v.nullable(number(0, 100)), null);
const widths = v.optional(v.pipe(v.array(number(0, 500)), v.maxLength(200)), []);

/** What a photo of a zone can be read for. */
export const photoReadings = ["rust", "flaking", "creep", "blisters", "chalk"] as const;
/** What came off on a flake’s back, and what is under it. */
export const flakeBacks = ["scale", "rust", "bright", "coat", "mixed"] as const;
export const flakeUnders = ["bright", "rust", "scale", "coat", "pretreated"] as const;
const photoRead = v.object({
  of: v.picklist(photoReadings),
  photo: uuid,
  machine: v.optional(v.nullable(number(-100, 1_000_000)), null),
  machineEach: widths,
  addedPercent: share,
  removedPercent: share,
  scale: v.optional(v.nullable(v.picklist(["card", "two-points"])), null),
  pxPerMm: v.optional(v.nullable(v.pipe(number(0, 10_000), v.gtValue(0, "is not over 0"))), null),
});
const flake = v.object({
  back: v.picklist(flakeBacks),
  under: v.optional(v.nullable(v.picklist(flakeUnders)), null),
  filmUm: v.optional(v.nullable(number(0, BEYOND_ANY_FILM_UM)), null),
  bag: text(40),
  frontPhoto: v.optional(v.nullable(uuid), null),
  backPhoto: v.optional(v.nullable(uuid), null),
});

/** One zone of a structure at one visit: all that was looked at there. Two people’s captures of one zone are both kept. */
export const zoneVisit = defineKind({
  kind: "zone-visit",
  tables: {
    zone_visit: {
      /** The round it belongs to. */
      round_id: "uuid?",
      zone: "text",
      /** Whether it was looked at and sound, or something was found; null where it was only measured. */
      sound: "boolean?",
      from_what: "text?",
      scribe_mm: "float8?",
      widths_mm: "float8[]?",
      creep_mm: "float8?",
      rating: "int?",
      /** Loose beside what is corroded. */
      loose_mm: "float8[]?",
      rust_percent: "float8?",
      rust_ri: "int?",
      /** As it was kept before photos had rows of their own. */
      rust_photo: "uuid?",
      rust_machine_percent: "float8?",
      blister_density: "int?",
      blister_size: "int?",
      flaked_percent: "float8?",
      flaking: "int?",
      tape_iso: "int?",
      seam_rusted_mm: "float8?",
      seam_mm: "float8?",
      film_um: "float8[]?",
      gloss_gu: "float8[]?",
      gloss_deg: "int?",
      delta_e: "float8?",
      chalk: "int?",
      salt_mg_m2: "float8?",
      profile_um: "float8?",
      note: "text?",
      /** Counted on a photo with a scale, and how large they are, median. */
      blisters_per_dm2: "float8?",
      blister_mm: "float8?",
      /** How much lighter a dark cloth was where it had rubbed, ΔL* (CIE 1976). */
      chalk_delta_l: "float8?",
    },
    /** What was read from photos: what the machine read, and how much of it a person changed. The value accepted stands in the visit. */
    zone_photo: {
      ordinal: "int",
      of: "text",
      photo: "uuid",
      machine: "float8?",
      /** Of widths: each of them, mm. */
      machine_each: "float8[]?",
      /** Brushed in and out, % of what was looked at. */
      added_percent: "float8?",
      removed_percent: "float8?",
      /** By what lengths are known, and how many pixels a millimetre has. */
      scale: "text?",
      px_per_mm: "float8?",
    },
    /** A flake that was lifted, looked at on both sides and kept. */
    flake: {
      back: "text",
      under: "text?",
      film_um: "float8?",
      bag: "text?",
      front_photo: "uuid?",
      back_photo: "uuid?",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    "zone-visit": {
      may: "inspect",
      schema: v.pipe(
        entry("zone-visit", {
          structure: filled(40),
          zone: filled(80),
          round: v.optional(v.nullable(uuid), null),
          sound: v.optional(v.nullable(v.boolean()), null),
          from: v.optional(v.nullable(v.picklist(["scribe", "chip"])), null),
          scribeMm: v.optional(v.nullable(number(0, 20)), null),
          widthsMm: widths,
          looseMm: widths,
          rustPercent: share,
          blisterDensity: v.optional(v.nullable(whole(0, 5)), null),
          blisterSize: v.optional(v.nullable(whole(2, 5)), null),
          blistersPerDm2: v.optional(v.nullable(number(0, 1_000_000)), null),
          blisterMm: v.optional(v.nullable(number(0, 500)), null),
          flakedPercent: share,
          tapeIso: v.optional(v.nullable(whole(0, 5)), null),
          seamRustedMm: v.optional(v.nullable(number(0, 10_000_000)), null),
          seamMm: v.optional(v.nullable(number(0, 10_000_000)), null),
          filmUm: v.optional(v.pipe(v.array(number(0, BEYOND_ANY_FILM_UM)), v.maxLength(60)), []),
          glossGu: v.optional(v.pipe(v.array(number(0, 200)), v.maxLength(30)), []),
          glossDeg: v.optional(v.nullable(v.picklist([20, 60, 85])), null),
          deltaE: v.optional(v.nullable(number(0, 200)), null),
          chalk: v.optional(v.nullable(whole(0, 5)), null),
          chalkDeltaL: v.optional(v.nullable(number(-100, 100)), null),
          saltMgPerM2: v.optional(v.nullable(number(0, 10_000)), null),
          profileUm: v.optional(v.nullable(number(0, 500)), null),
          note: text(800),
          photos: v.optional(v.pipe(v.array(photoRead), v.maxLength(20, "are more than 20")), []),
          flake: v.optional(v.nullable(flake), null),
        }),
        v.forward(
          v.check(
            (x) => x.widthsMm.length === 0 || x.from !== null,
            "is missing: were the widths read from a scribe or from a chip",
          ),
          ["from"],
        ),
        v.forward(
          v.check(
            (x) => x.from !== "scribe" || x.scribeMm !== null,
            "is missing: the scribe’s own width, in mm; 0 where it has none",
          ),
          ["scribeMm"],
        ),
        v.forward(
          v.check(
            (x) => (x.seamRustedMm === null) === (x.seamMm === null),
            "goes with its length: how much of how much rusts",
          ),
          ["seamMm"],
        ),
        v.forward(
          v.check(
            (x) => x.glossGu.length === 0 || x.glossDeg !== null,
            "is missing: at which angle the gloss was read",
          ),
          ["glossDeg"],
        ),
      ),
    },
  },
});
