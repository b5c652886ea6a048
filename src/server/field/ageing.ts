import { type Kysely, sql } from "kysely";
import { type Followed, judgeZone, rustedLength, type SurvivalCurve, survival } from "@/core/field";
import type { CoatingSystem } from "@/core/plan";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

/** What wears a structure, the worst of it. */
export const wearers = ["salt", "weather", "indoor"] as const;
export type Wear = (typeof wearers)[number];
export type AgeingGroup = {
  /** As it was told, or as this shop planned it. */
  readonly system: { readonly told: string } | { readonly planned: CoatingSystem };
  readonly wear: Wear;
  readonly curve: SurvivalCurve;
  readonly structures: readonly {
    readonly code: string;
    readonly name: string;
    readonly years: number;
    readonly failed: boolean;
  }[];
  /** Promises on record that reach further than anything of the group was followed, or than half of it stood. */
  readonly beyond: readonly { readonly code: string; readonly promisedYears: number }[];
};

const YEAR_MS = 365.25 * 86_400_000;
const wearOf = (exposure: readonly string[]): Wear =>
  exposure.some((e) => e === "salt" || e === "standing-water")
    ? "salt"
    : exposure.includes("indoor")
      ? "indoor"
      : "weather";

/** A look at whether it keeps the metal. */
type Look = { readonly at: Date; readonly failed: boolean };
type Seen = {
  structure_id: string;
  at: Date;
  sound: boolean | null;
  creep: number | null;
  rust: number | null;
  density: number | null;
  flaked: number | null;
  tape: number | null;
  seam_rusted: number | null;
  seam: number | null;
};
/** What a reading of a zone says of whether the coating still keeps the metal there; unknown where only its look was read. */
const protectionIn = (s: Seen) =>
  judgeZone({
    soundByEye: s.sound,
    creepMm: s.creep,
    rustPercent: s.rust,
    blisters: s.density === null ? null : { density: s.density, size: null },
    flakedPercent: s.flaked,
    tapeIso: s.tape,
    seam:
      s.seam !== null && s.seam_rusted !== null && rustedLength(s.seam_rusted, s.seam).ok
        ? { rustedMm: s.seam_rusted, ofMm: s.seam }
        : null,
    glossRetentionPercent: null,
    deltaE: null,
    chalk: null,
  }).protection;

/**
 * How long coatings keep the metal, by system and by what wears them: of every structure until the visit at which a zone had
 * failed, or until its protection was looked at last. A failure is dated to the visit that found it, so that a curve stands a little late.
 * Whoever was never looked at so, or of whom nobody knows since when, is not followed. Two queries; O(captures).
 */
export async function ageingGroups(db: Kysely<Database>): Promise<readonly AgeingGroup[]> {
  const [structures, seen] = await Promise.all([
    sql<{
      id: string;
      code: string;
      name: string;
      exposure: unknown;
      since: Date | null;
      told: string | null;
      planned: CoatingSystem | null;
      promised: number | null;
    }>`
      select s.id, s.code, s.name, s.exposure, coalesce(s.put_up_on::timestamptz, k.coated, make_timestamptz(f.told_year, 7, 1, 12, 0, 0, 'UTC')) as since, f.told_system as told, k.system as planned, f.promised_years as promised
      from structure s
      left join lateral (select q.told_year, q.told_system, q.promised_years from record r join structure_fact q on q.record_id = r.id where r.structure_id = s.id and r.kind = 'structure-fact' and ${stands("r.id")} order by r.happened_at desc, r.id desc limit 1) f on true
      left join lateral (select r.hung_at as coated, coalesce((select q.document->'system' from record x join job_plan q on q.record_id = x.id where x.job_id = j.id and x.kind = 'plan' order by x.happened_at desc, x.id desc limit 1), j.plan->'system') as system
        from structure_piece sp join piece p on p.id = sp.piece_id join rack r on r.id = p.rack_id join job j on j.id = r.job_id where sp.structure_id = s.id order by r.hung_at limit 1) k on true`.execute(
      db,
    ),
    sql<Seen>`
      select r.structure_id, r.happened_at as at, z.sound, z.creep_mm as creep, z.rust_percent as rust, z.blister_density as density, z.flaked_percent as flaked, z.tape_iso as tape, z.seam_rusted_mm as seam_rusted, z.seam_mm as seam
        from record r join zone_visit z on z.record_id = r.id where r.kind = 'zone-visit' and ${stands("r.id")}
      union all select r.structure_id, r.happened_at, null, m.creep_mm, null, null, null, null, null, null from record r join creep_measure m on m.record_id = r.id where r.kind = 'visit' and ${stands("r.id")}
      union all select r.structure_id, r.happened_at, null, null, h.share_percent, null, null, null, null, null from record r join rust_share h on h.record_id = r.id where r.kind = 'visit' and ${stands("r.id")}`.execute(
      db,
    ),
  ]);
  const visits = new Map<string, Look[]>();
  for (const s of seen.rows) {
    const protection = protectionIn(s);
    if (protection === "unknown") continue;
    const looks = visits.get(s.structure_id) ?? [];
    looks.push({ at: s.at, failed: protection === "out" });
    visits.set(s.structure_id, looks);
  }
  type Member = AgeingGroup["structures"][number] & { readonly promisedYears: number | null };
  const groups = new Map<string, { system: AgeingGroup["system"]; wear: Wear; members: Member[] }>();
  for (const s of structures.rows) {
    const own = [...(visits.get(s.id) ?? [])].sort((a, b) => a.at.getTime() - b.at.getTime());
    const system = s.told !== null ? { told: s.told } : s.planned ? { planned: s.planned } : null;
    if (!s.since || own.length === 0 || !system) continue;
    const failedAt = own.find((look) => look.failed)?.at;
    const years = ((failedAt ?? (own.at(-1) as Look).at).getTime() - s.since.getTime()) / YEAR_MS;
    if (!(years >= 0)) continue;
    const wear = wearOf(Array.isArray(s.exposure) ? (s.exposure as unknown[]).map(String) : []);
    const key = `${JSON.stringify(system)} ${wear}`;
    const group = groups.get(key) ?? { system, wear, members: [] };
    group.members.push({
      code: s.code,
      name: s.name,
      years,
      failed: failedAt !== undefined,
      promisedYears: s.promised,
    });
    groups.set(key, group);
  }
  return [...groups.values()]
    .flatMap(({ system, wear, members }): AgeingGroup[] => {
      const curve = survival(members.map((m): Followed => ({ years: m.years, failed: m.failed })));
      if (!curve.ok) return [];
      const least = curve.value.medianYears ?? curve.value.longestYears;
      return [
        {
          system,
          wear,
          curve: curve.value,
          structures: members.map(({ promisedYears: _, ...m }) => m).sort((a, b) => a.years - b.years),
          beyond: members.flatMap((m) =>
            m.promisedYears !== null && m.promisedYears > least
              ? [{ code: m.code, promisedYears: m.promisedYears }]
              : [],
          ),
        },
      ];
    })
    .sort((a, b) => wearers.indexOf(a.wear) - wearers.indexOf(b.wear) || b.curve.n - a.curve.n);
}
