import type { FindingState } from "@/core/diagnosis";
import type { ZoneFile } from "../../field/zones-of";
import type { EstablishedFinding } from "./established";

/** Salt on a surface: under the first it is clean, from the second on it is salted, mg/m² (trade practice after ISO 8502-6). */
const CLEAN_MG_M2 = 20;
const SALTED_MG_M2 = 50;
/** A zone up to this height is low, from the other on it is high, m. */
const LOW_M = 0.5;
const HIGH_M = 1;
/** A bare patch smoother than this was never blasted, µm (Rz by replica). */
const SMOOTH_UM = 20;
/** A cloth lighter by so much took chalk off, ΔL*. */
const CHALKED_DELTA_L = 8;
/** The sunny side has kept so much less of its gloss, %, that the sun did it. */
const SUNNIER_PERCENT = 10;
/** So many years in the sun are several. */
const SUN_YEARS = 3;

/**
 * What the zones of a structure say of a cause, as they were read last: a flake's back first of all, then where it fails and
 * where it does not. Only what was looked at on both sides of a comparison speaks; else nothing is said. O(captures).
 */
export function fieldFindings(
  zones: readonly ZoneFile[],
  about: { readonly zone: string; readonly exposure: readonly string[]; readonly years: number | null },
): EstablishedFinding[] {
  const out: EstablishedFinding[] = [];
  const add = (finding: string, present: boolean, what: string, sources: readonly string[]) =>
    out.push({
      finding,
      state: (present ? "present" : "absent") satisfies FindingState,
      grade: "measured",
      what: { kind: "seen", what },
      sources,
    });
  flake(zones, about.zone, add);
  where(zones, add);
  const own = zones.find((z) => z.name.toLowerCase() === about.zone.toLowerCase());
  // On an edge or a seam it may as well come out of the edge or the seam.
  const broken =
    own?.what === "face" || own?.what === "chip" ? own.captures.find((c) => c.row.from_what !== null) : undefined;
  if (own && (own.what === "chip" || broken))
    add(
      "near-damage",
      true,
      `${own.name}: ${broken ? `creep read from a ${broken.row.from_what}` : "a chip, as it was put on record"}`,
      (broken ? [broken] : own.captures.slice(0, 1)).map((c) => c.recordId),
    );
  const read = (z: ZoneFile) => z.captures.map((c) => c.recordId).slice(0, 1);
  const salts = zones.flatMap((z) =>
    z.captures.flatMap((c) => (c.row.salt_mg_m2 === null ? [] : [{ z: z.name, mg: c.row.salt_mg_m2, id: c.recordId }])),
  );
  const saltiest = [...salts].sort((a, b) => b.mg - a.mg)[0];
  if (saltiest && (saltiest.mg >= SALTED_MG_M2 || saltiest.mg < CLEAN_MG_M2))
    add("salt-exposure", saltiest.mg >= SALTED_MG_M2, `${saltiest.mg} mg/m² of salt on ${saltiest.z}`, [saltiest.id]);
  const smooth = zones
    .flatMap((z) =>
      z.captures.flatMap((c) =>
        c.row.profile_um === null ? [] : [{ z: z.name, um: c.row.profile_um, id: c.recordId }],
      ),
    )
    .sort((a, b) => a.um - b.um)[0];
  if (smooth)
    add("profile-low", smooth.um < SMOOTH_UM, `profile of a bare patch at ${smooth.z}: ${smooth.um} µm`, [smooth.id]);
  for (const z of zones) {
    const [cloth] = z.captures.filter((c) => c.row.chalk_delta_l !== null);
    if (z.found.chalk !== null || cloth) {
      const lighter = cloth?.row.chalk_delta_l ?? 0;
      const chalks = (z.found.chalk ?? 0) >= 1 || lighter >= CHALKED_DELTA_L;
      if (chalks || z.found.chalk === 0)
        add(
          "chalk-rubs-off",
          chalks,
          `${z.name}: ${z.found.chalk === null ? `cloth lighter by ${lighter} ΔL*` : `chalk ${z.found.chalk}`}`,
          read(z),
        );
    }
  }
  if (about.years !== null && about.exposure.includes("sun"))
    add("years-in-sun", about.years >= SUN_YEARS, `${about.years.toFixed(1)} years in the sun`, []);
  return newestOf(out);
}

/** Of several that say the same finding, one that it is there stands before one that it is not. */
function newestOf(found: readonly EstablishedFinding[]): EstablishedFinding[] {
  const by = new Map<string, EstablishedFinding>();
  for (const f of found) if (by.get(f.finding)?.state !== "present") by.set(f.finding, f);
  return [...by.values()];
}

type Say = (finding: string, present: boolean, what: string, sources: readonly string[]) => void;

/** The newest flake, from the case's own zone where there is one. */
function flake(zones: readonly ZoneFile[], zone: string, add: Say): void {
  const all = zones.flatMap((z) => z.captures.flatMap((c) => (c.flake ? [{ z, c, flake: c.flake }] : [])));
  const own = all.filter((f) => f.z.name.toLowerCase() === zone.toLowerCase());
  const [newest] = [...(own.length > 0 ? own : all)].sort((a, b) => b.c.at.getTime() - a.c.at.getTime());
  if (!newest) return;
  const { back, under, bag } = newest.flake;
  const what = `flake from ${newest.z.name}${bag ? `, bag ${bag}` : ""}: ${back === "coat" ? "another coat" : back === "bright" ? "nothing" : back} on its back${under ? `, ${under} under it` : ""}`;
  const sources = [newest.c.recordId];
  const scale = back === "scale" || back === "mixed" || under === "scale";
  const rust = back === "rust" || under === "rust";
  add("flake-back-scale", scale, what, sources);
  add("flake-back-rust", rust, what, sources);
  if (under !== null || scale || rust) add("flake-back-clean", !scale && !rust && under === "bright", what, sources);
  add("breaks-between-coats", back === "coat" || under === "coat", what, sources);
}

/** Where it fails and where it does not. */
function where(zones: readonly ZoneFile[], add: Say): void {
  const failing = zones.filter((z) => z.verdict.protection === "out");
  const sound = zones.filter((z) => z.verdict.protection === "in" || z.verdict.protection === "watch");
  const named = (list: readonly ZoneFile[]) => list.map((z) => z.name).join(", ");
  const sources = [...failing, ...sound].flatMap((z) => z.captures.slice(0, 1).map((c) => c.recordId));
  if (failing.length > 0 && sound.length > 0) {
    const what = `fails at ${named(failing)}; not at ${named(sound)}`;
    const only = (finding: string, kinds: readonly ZoneFile["what"][]) => {
      if (failing.every((z) => kinds.includes(z.what))) add(finding, true, what, sources);
      // What else fails speaks against it only where it was put on record as what it is.
      else if (failing.some((z) => z.registered && !kinds.includes(z.what))) add(finding, false, what, sources);
    };
    only("only-edges", ["edge"]);
    only("only-seams", ["seam"]);
    if (failing.every((z) => z.what === "chip")) add("near-damage", true, what, sources);
  }
  const tall = zones.filter((z) => z.heightM !== null);
  const low = tall.filter((z) => (z.heightM ?? 0) <= LOW_M);
  const high = tall.filter((z) => (z.heightM ?? 0) >= HIGH_M);
  if (high.some((z) => z.verdict.protection === "out"))
    add(
      "low-on-structure",
      false,
      `fails high up as well: ${named(high.filter((z) => z.verdict.protection === "out"))}`,
      sources,
    );
  else if (low.some((z) => z.verdict.protection === "out") && high.some((z) => sound.includes(z)))
    add(
      "low-on-structure",
      true,
      `fails at ${named(low.filter((z) => z.verdict.protection === "out"))}; not at ${named(high.filter((z) => sound.includes(z)))}`,
      sources,
    );
  const faces = zones.filter((z) => z.bearingDeg !== null && z.found.glossRetentionPercent !== null);
  const side = (sunny: boolean) =>
    faces.filter(
      (z) =>
        Math.cos((((z.bearingDeg ?? 0) - 180) * Math.PI) / 180) > 0.3 === sunny &&
        Math.abs(Math.cos((((z.bearingDeg ?? 0) - 180) * Math.PI) / 180)) > 0.3,
    );
  const [south, north] = [side(true)[0], side(false)[0]];
  if (south && north) {
    const less = (north.found.glossRetentionPercent ?? 0) - (south.found.glossRetentionPercent ?? 0);
    add(
      "sun-side",
      less >= SUNNIER_PERCENT,
      `${south.name} kept ${south.found.glossRetentionPercent?.toFixed(0)} % of its gloss, ${north.name} ${north.found.glossRetentionPercent?.toFixed(0)} %`,
      [...south.captures.slice(0, 1), ...north.captures.slice(0, 1)].map((c) => c.recordId),
    );
  }
}
