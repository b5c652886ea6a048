import type { Kysely } from "kysely";
import {
  type Creep,
  checkBlisters,
  creepFromChip,
  creepFromScribe,
  flakingGrade,
  rustedLength,
  rustGrade,
} from "@/core/field";
import { ok, type Result } from "@/core/result";
import type { Database } from "@/db/schema";
import { findStructure } from "../field/find-structure";
import { refuse } from "../outcome";
import type { Makes, Of } from "./made";

/** Creep of the zone; null where no width was read. */
const creepOf = ({ from, widthsMm, scribeMm }: Of<"zone-visit">): Result<Creep | null> =>
  widthsMm.length === 0
    ? ok(null)
    : from === "chip"
      ? creepFromChip(widthsMm)
      : creepFromScribe(widthsMm, scribeMm ?? 0);

/** Whether anything at all was looked at. */
const saysSomething = (e: Of<"zone-visit">): boolean =>
  e.sound !== null ||
  [e.widthsMm, e.looseMm, e.filmUm, e.glossGu].some((list) => list.length > 0) ||
  [
    e.rustPercent,
    e.blisterDensity,
    e.flakedPercent,
    e.tapeIso,
    e.seamMm,
    e.deltaE,
    e.chalk,
    e.saltMgPerM2,
    e.profileUm,
  ].some((x) => x !== null) ||
  e.blistersPerDm2 !== null ||
  e.chalkDeltaL !== null ||
  e.flake !== null ||
  e.note !== "";

/** Those of some photos that are not on record as photos of this structure. */
async function notOf(db: Kysely<Database>, photos: readonly string[], structureId: string): Promise<readonly string[]> {
  if (photos.length === 0) return [];
  const there = await db
    .selectFrom("record")
    .select("id")
    .where("id", "in", photos)
    .where("kind", "=", "photo")
    .where("structure_id", "=", structureId)
    .execute();
  return photos.filter((p) => !there.some((r) => r.id === p));
}

export const makes: Makes<"zone-visit"> = {
  /** Failures: `unknown-structure`, `zone-empty`, those of creep, rust, blisters, flaking and seam with their zone. */
  "zone-visit": async ({ db, person }, entry) => {
    const structure = await findStructure(db, person, entry.structure);
    if (!structure) return refuse({ kind: "unknown-structure", name: entry.structure });
    const { zone } = entry;
    if (!saysSomething(entry)) return refuse({ kind: "zone-empty", zone });
    const creep = creepOf(entry);
    if (!creep.ok) return refuse({ ...creep.error, zone });
    const rust = entry.rustPercent === null ? null : rustGrade(entry.rustPercent);
    if (rust && !rust.ok) return refuse({ ...rust.error, zone });
    const flaking = entry.flakedPercent === null ? null : flakingGrade(entry.flakedPercent);
    if (flaking && !flaking.ok) return refuse({ ...flaking.error, zone });
    const blisters =
      entry.blisterDensity === null ? null : checkBlisters({ density: entry.blisterDensity, size: entry.blisterSize });
    if (blisters && !blisters.ok) return refuse({ ...blisters.error, zone });
    if (entry.seamRustedMm !== null && entry.seamMm !== null) {
      const seam = rustedLength(entry.seamRustedMm, entry.seamMm);
      if (!seam.ok) return refuse({ ...seam.error, zone });
    }
    const photos = [
      ...entry.photos.map((p) => p.photo),
      ...[entry.flake?.frontPhoto, entry.flake?.backPhoto].filter((p) => p != null),
    ];
    if ((await notOf(db, photos, structure.id)).length > 0)
      return refuse({ kind: "not-of-this-structure", name: structure.code });
    const list = (values: readonly number[]) => (values.length > 0 ? [...values] : null);
    return {
      ok: true,
      where: { structureId: structure.id },
      details: {
        zone_visit: [
          {
            round_id: entry.round,
            zone,
            sound: entry.sound,
            from_what: creep.value ? entry.from : null,
            scribe_mm: entry.from === "scribe" ? entry.scribeMm : null,
            widths_mm: list(entry.widthsMm),
            creep_mm: creep.value?.creepMm ?? null,
            rating: creep.value?.rating ?? null,
            loose_mm: list(entry.looseMm),
            rust_percent: entry.rustPercent,
            rust_ri: rust?.value ?? null,
            rust_photo: null,
            rust_machine_percent: null,
            blister_density: blisters?.value.density ?? null,
            blister_size: blisters?.value.size ?? null,
            flaked_percent: entry.flakedPercent,
            flaking: flaking?.value ?? null,
            tape_iso: entry.tapeIso,
            seam_rusted_mm: entry.seamRustedMm,
            seam_mm: entry.seamMm,
            film_um: list(entry.filmUm),
            gloss_gu: list(entry.glossGu),
            gloss_deg: entry.glossDeg,
            delta_e: entry.deltaE,
            chalk: entry.chalk,
            salt_mg_m2: entry.saltMgPerM2,
            profile_um: entry.profileUm,
            note: entry.note || null,
            blisters_per_dm2: entry.blistersPerDm2,
            blister_mm: entry.blisterMm,
            chalk_delta_l: entry.chalkDeltaL,
          },
        ],
        zone_photo: entry.photos.map((p, ordinal) => ({
          ordinal,
          of: p.of,
          photo: p.photo,
          machine: p.machine,
          machine_each: list(p.machineEach),
          added_percent: p.addedPercent,
          removed_percent: p.removedPercent,
          scale: p.scale,
          px_per_mm: p.pxPerMm,
        })),
        flake: entry.flake
          ? [
              {
                back: entry.flake.back,
                under: entry.flake.under,
                film_um: entry.flake.filmUm,
                bag: entry.flake.bag || null,
                front_photo: entry.flake.frontPhoto,
                back_photo: entry.flake.backPhoto,
              },
            ]
          : [],
      },
    };
  },
};
