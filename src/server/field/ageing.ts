import { type Kysely, sql } from "kysely";
import { type Followed, type SurvivalCurve, survival } from "@/core/field";
import { type CoatingSystem, type Protection, protectionOf, protections } from "@/core/plan";
import { stands } from "@/db/queries/stands";
import { zoneReadings } from "@/db/queries/zone-readings";
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

/**
 * How long coatings keep the metal, by system and by what wears them: of every structure until the visit at which a zone had
 * failed, or until its protection was looked at last. A failure is dated to the visit that found it, so that a curve stands a little late.
 * Whoever was never looked at so, or of whom nobody knows since when, is not followed. Two queries, of which one goes over all readings in
 * the database; O(structures) come out of it.
 */
export async function ageingGroups(db: Kysely<Database>): Promise<readonly AgeingGroup[]> {
  const groups = new Map<string, { system: AgeingGroup["system"]; wear: Wear; members: Member[] }>();
  for (const m of await followed(db)) {
    if (!m.system) continue;
    const key = `${JSON.stringify(m.system)} ${m.wear}`;
    const group = groups.get(key) ?? { system: m.system, wear: m.wear, members: [] };
    group.members.push(m);
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
          structures: members
            .map(({ code, name, years, failed }) => ({ code, name, years, failed }))
            .sort((a, b) => a.years - b.years),
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

type Member = AgeingGroup["structures"][number] & {
  readonly system: AgeingGroup["system"] | null;
  readonly protection: Protection | null;
  readonly wear: Wear;
  readonly promisedYears: number | null;
};

/** The site's own evidence of how long stands what has the same under its film and is worn by the same; null where nothing of the kind was followed. */
export async function ownEvidence(
  db: Kysely<Database>,
  system: CoatingSystem,
  exposure: readonly string[],
): Promise<{ readonly curve: SurvivalCurve; readonly protection: Protection; readonly wear: Wear } | null> {
  const [protection, wear] = [protectionOf(system), wearOf(exposure)];
  const like = (await followed(db)).filter((m) => m.protection === protection && m.wear === wear);
  const curve = survival(like.map((m): Followed => ({ years: m.years, failed: m.failed })));
  return curve.ok ? { curve: curve.value, protection, wear } : null;
}

/** Every structure that is followed, with how long and whether it failed. */
async function followed(db: Kysely<Database>): Promise<readonly Member[]> {
  const [structures, seen] = await Promise.all([
    sql<{
      id: string;
      code: string;
      name: string;
      exposure: unknown;
      since: Date | null;
      told: string | null;
      told_protection: string | null;
      planned: CoatingSystem | null;
      promised: number | null;
    }>`
      select s.id, s.code, s.name, s.exposure, coalesce(s.put_up_on::timestamptz, k.coated, make_timestamptz(f.told_year, 7, 1, 12, 0, 0, 'UTC')) as since, f.told_system as told, f.told_protection, k.system as planned, f.promised_years as promised
      from structure s
      left join lateral (select q.told_year, q.told_system, q.told_protection, q.promised_years from record r join structure_fact q on q.record_id = r.id where r.structure_id = s.id and r.kind = 'structure-fact' and ${stands("r.id")} order by r.happened_at desc, r.id desc limit 1) f on true
      left join lateral (select r.hung_at as coated, coalesce((select q.document->'system' from record x join job_plan q on q.record_id = x.id where x.job_id = j.id and x.kind = 'plan' order by x.happened_at desc, x.id desc limit 1), j.plan->'system') as system
        from structure_piece sp join piece p on p.id = sp.piece_id join rack r on r.id = p.rack_id join job j on j.id = r.job_id where sp.structure_id = s.id order by r.hung_at limit 1) k on true`.execute(
      db,
    ),
    sql<{ structure_id: string; failed_at: Date | null; last: Date }>`
      select structure_id, min(happened_at) filter (where out) as failed_at, max(happened_at) as last from (${zoneReadings(sql`true`)}) x group by structure_id`.execute(
      db,
    ),
  ]);
  const seenOf = new Map(seen.rows.map((s) => [s.structure_id, s]));
  return structures.rows.flatMap((s): Member[] => {
    const own = seenOf.get(s.id);
    if (!s.since || !own) return [];
    const years = ((own.failed_at ?? own.last).getTime() - s.since.getTime()) / YEAR_MS;
    if (!(years >= 0)) return [];
    return [
      {
        code: s.code,
        name: s.name,
        years,
        failed: own.failed_at !== null,
        system: s.told !== null ? { told: s.told } : s.planned ? { planned: s.planned } : null,
        protection: protections.find((p) => p === s.told_protection) ?? (s.planned ? protectionOf(s.planned) : null),
        wear: wearOf(Array.isArray(s.exposure) ? (s.exposure as unknown[]).map(String) : []),
        promisedYears: s.promised,
      },
    ];
  });
}
