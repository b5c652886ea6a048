import { type Kysely, sql } from "kysely";
import {
  creepStandardError,
  type FieldRate,
  type Forecast,
  type FoundName,
  fieldRate,
  forecastTo,
  glossRetention,
  inRound,
  judgeZone,
  lastRead,
  ONE_VISIT_MS,
  type Standing,
  type ZoneFound,
  type ZoneKind,
  type ZoneVerdict,
  zoneKinds,
} from "@/core/field";
import type { Result } from "@/core/result";
import { mean } from "@/core/statistics";
import type { DetailRow } from "@/db/detail-tables";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { readDetails } from "../record/read-details";

type Row = Omit<DetailRow<"zone_visit">, "record_id">;
/** What one person read in a zone at one visit. */
export type Capture = {
  readonly recordId: string;
  readonly at: Date;
  readonly by: string;
  /** Their user name: two people may be called the same. */
  readonly user: string;
  readonly row: Row;
  /** What was read from photos, and a flake that was lifted. */
  readonly photos: readonly DetailRow<"zone_photo">[];
  readonly flake: DetailRow<"flake"> | null;
};
export type ZoneFile = {
  readonly name: string;
  readonly what: ZoneKind;
  /** Put on record as a zone; others are known by what was read there alone. */
  readonly registered: boolean;
  readonly order: number | null;
  readonly heightM: number | null;
  readonly bearingDeg: number | null;
  readonly lengthMm: number | null;
  readonly note: string;
  /** All captures, newest first. */
  readonly captures: readonly Capture[];
  /** Those of the newest visit, of whoever made them. */
  readonly newest: readonly Capture[];
  /** Each reading as it was read last, whenever that was: a later visit that read something else takes nothing away. */
  readonly found: ZoneFound;
  /** When each of them was read; what is missing never was. */
  readonly readAt: Readonly<Partial<Record<FoundName | "film", Date>>>;
  /** Film left as it was read last, µm. */
  readonly filmUm: readonly number[];
  readonly verdict: ZoneVerdict;
  /** Gloss kept of that at release, and of that of the sheltered zone now, %; null where either is not on record. */
  readonly glossOfRelease: number | null;
  readonly glossOfSheltered: number | null;
  /** How creep grows since the visit before, or since it was coated; and when it comes to the rating at which the system has failed. */
  readonly creepRate: Result<FieldRate> | null;
  /** The day that rate is taken from, and whether it is the visit before (else it is when it was coated). */
  readonly creepFrom: { readonly at: Date; readonly visit: boolean } | null;
  /** Since it was coated, where the other is since a visit. */
  readonly creepRateOfAll: Result<FieldRate> | null;
  readonly forecast: Result<Forecast> | null;
};

/** Mean creep at which a rating falls under 6, mm: there the system has failed. */
export const CREEP_LIMIT_MM = 3;
const empty: Row = {
  round_id: null,
  zone: "",
  sound: null,
  from_what: null,
  scribe_mm: null,
  widths_mm: null,
  creep_mm: null,
  rating: null,
  loose_mm: null,
  rust_percent: null,
  rust_ri: null,
  rust_photo: null,
  rust_machine_percent: null,
  blister_density: null,
  blister_size: null,
  flaked_percent: null,
  flaking: null,
  tape_iso: null,
  seam_rusted_mm: null,
  seam_mm: null,
  film_um: null,
  gloss_gu: null,
  gloss_deg: null,
  delta_e: null,
  chalk: null,
  salt_mg_m2: null,
  profile_um: null,
  note: null,
  blisters_per_dm2: null,
  blister_mm: null,
  chalk_delta_l: null,
};

/** Zones of a structure in the order of a round, each with all that was read there. Three queries; O(captures). */
export async function zonesOf(
  db: Kysely<Database>,
  structureId: string,
  /** When it was coated, else put up: it had no creep then. */
  since: Date | null,
): Promise<readonly ZoneFile[]> {
  const records = await db
    .selectFrom("record")
    .select(["id", "kind", "happened_at", "by_user", personName("record.by_user").as("by")])
    .where("structure_id", "=", structureId)
    .where("kind", "in", ["structure-zone", "zone-visit", "visit"])
    .where(stands("record.id"))
    .orderBy("happened_at", "desc")
    .orderBy("id", "desc")
    .execute();
  const details = await readDetails(
    db,
    records.map((r) => r.id),
    ["structure_zone", "zone_visit", "zone_photo", "flake", "creep_measure", "rust_share"],
  );
  const registered = new Map<string, DetailRow<"structure_zone">>();
  const captures = new Map<string, Capture[]>();
  const take = (capture: Capture) => {
    const key = capture.row.zone.toLowerCase();
    captures.set(key, [...(captures.get(key) ?? []), capture]);
  };
  for (const r of records) {
    const d = details.get(r.id);
    const of = {
      recordId: r.id,
      at: r.happened_at,
      by: r.by,
      user: r.by_user,
      photos: d?.zone_photo ?? [],
      flake: d?.flake?.[0] ?? null,
    };
    const [zone] = d?.structure_zone ?? [];
    // What was said last stands.
    if (zone && !registered.has(zone.zone.toLowerCase())) registered.set(zone.zone.toLowerCase(), zone);
    for (const row of d?.zone_visit ?? []) take({ ...of, row });
    for (const row of asRows(d?.creep_measure ?? [], d?.rust_share ?? [])) take({ ...of, row });
  }
  const release = await glossAtRelease(db, structureId);
  const keys = [...new Set([...registered.keys(), ...captures.keys()])].filter((k) => !registered.get(k)?.gone);
  const made = keys.map((key) => {
    const zone = registered.get(key);
    const all = captures.get(key) ?? [];
    const [first] = all;
    const newest = first ? all.filter((c) => first.at.getTime() - c.at.getTime() <= ONE_VISIT_MS) : [];
    return {
      name: zone?.zone ?? first?.row.zone ?? key,
      what: zoneKinds.find((k) => k === zone?.what) ?? ("face" as const),
      registered: zone !== undefined,
      order: zone?.place ?? null,
      heightM: zone?.height_m ?? null,
      bearingDeg: zone?.bearing_deg ?? null,
      lengthMm: zone?.length_mm ?? null,
      note: zone?.note ?? "",
      captures: all,
      newest,
    };
  });
  const sheltered = made.filter((z) => z.what === "sheltered").flatMap((z) => z.captures);
  return inRound(made).map((zone) => judged(zone, { release, sheltered, since }));
}

/** A visit that was noted zone by zone in one record, as captures. */
function asRows(
  creep: readonly DetailRow<"creep_measure">[],
  rust: readonly DetailRow<"rust_share">[],
): readonly Row[] {
  const rows = new Map<string, Row>();
  const put = (zone: string, over: Partial<Row>) =>
    rows.set(zone.toLowerCase(), { ...(rows.get(zone.toLowerCase()) ?? { ...empty, zone }), ...over });
  for (const c of creep)
    put(c.zone, {
      from_what: c.from_what,
      scribe_mm: c.scribe_mm,
      widths_mm: c.widths_mm,
      creep_mm: c.creep_mm,
      rating: c.rating,
    });
  for (const r of rust) put(r.zone, { rust_percent: r.share_percent, rust_ri: r.grade });
  return [...rows.values()];
}

type Gloss = ReadonlyMap<number, number>;
/** Mean gloss by angle that the racks of its pieces had when they were tested; none where nobody read it. */
async function glossAtRelease(db: Kysely<Database>, structureId: string): Promise<Gloss> {
  const { rows } = await sql<{ test: string; value: number }>`
    select t.test, avg(t.value) as value from (select distinct p.rack_id from structure_piece sp join piece p on p.id = sp.piece_id where sp.structure_id = ${structureId}) k
    join record r on r.rack_id = k.rack_id and r.kind = 'cure-test' join cure_test t on t.record_id = r.id
    where t.test in ('gloss-20', 'gloss-60', 'gloss-85') and ${stands("r.id")} group by 1`.execute(db);
  return new Map(rows.map((r) => [Number(r.test.slice("gloss-".length)), Number(r.value)]));
}

type GlossRead = { readonly deg: number; readonly gu: number };
/** Gloss that a capture read; null where it read none. */
const glossOf = ({ row }: Capture): GlossRead | null =>
  row.gloss_deg && row.gloss_gu && row.gloss_gu.length > 0
    ? { deg: row.gloss_deg, gu: mean(row.gloss_gu as readonly number[]) }
    : null;
const most = (values: readonly (number | null)[]): number | null => {
  const known = values.filter((v) => v !== null);
  return known.length > 0 ? Math.max(...known) : null;
};

/** Which reading of a capture is which; one is there where it is not null. */
const readings = {
  eye: (r) => r.sound,
  creep: (r) => r.creep_mm,
  rust: (r) => r.rust_percent,
  blisters: (r) => r.blister_density,
  flaking: (r) => r.flaked_percent,
  tape: (r) => r.tape_iso,
  seam: (r) => (r.seam_mm === null ? null : r.seam_rusted_mm),
  gloss: (r) => (r.gloss_gu && r.gloss_gu.length > 0 ? r.gloss_deg : null),
  colour: (r) => r.delta_e,
  chalk: (r) => r.chalk,
  film: (r) => (r.film_um && r.film_um.length > 0 ? mean(r.film_um as readonly number[]) : null),
} as const satisfies Record<FoundName | "film", (row: Row) => number | boolean | null>;
type ReadingName = keyof typeof readings;
const readingNames = Object.keys(readings) as readonly ReadingName[];

type Begun = Omit<
  ZoneFile,
  | "found"
  | "readAt"
  | "verdict"
  | "glossOfRelease"
  | "glossOfSheltered"
  | "filmUm"
  | "creepRate"
  | "creepFrom"
  | "creepRateOfAll"
  | "forecast"
>;
/** Gloss of a zone as it was read last, and what is kept of it; sheltered is held against only where it was read at the same visit. */
function glossKept(
  zone: Begun,
  last: Standing<Capture> | null,
  beside: { readonly release: Gloss; readonly sheltered: readonly Capture[] },
): Pick<ZoneFile, "glossOfRelease" | "glossOfSheltered"> {
  const [now] = last?.of ?? [];
  const gloss = now ? glossOf(now) : null;
  if (!now || !gloss) return { glossOfRelease: null, glossOfSheltered: null };
  const kept = (before: number | undefined) => {
    const retention = before ? glossRetention(gloss.gu, before) : null;
    return retention?.ok ? retention.value : null;
  };
  const sheltered =
    zone.what === "sheltered"
      ? undefined
      : beside.sheltered.find(
          (c) => Math.abs(c.at.getTime() - now.at.getTime()) <= ONE_VISIT_MS && glossOf(c)?.deg === gloss.deg,
        );
  return {
    glossOfRelease: kept(beside.release.get(gloss.deg)),
    glossOfSheltered: kept(sheltered && glossOf(sheltered)?.gu),
  };
}

function judged(
  zone: Begun,
  beside: { readonly release: Gloss; readonly sheltered: readonly Capture[]; readonly since: Date | null },
): ZoneFile {
  const last = new Map(
    readingNames.flatMap((name) => {
      const read = lastRead(zone.captures, (c) => readings[name](c.row) !== null);
      return read ? [[name, read] as const] : [];
    }),
  );
  const rows = (name: ReadingName) => (last.get(name)?.of ?? []).map((c) => c.row);
  // Of two who read the same zone the worse stands.
  const worst = (name: Exclude<ReadingName, "eye">) => most(rows(name).map((r) => readings[name](r)));
  const blisters = rows("blisters").sort((a, b) => (b.blister_density ?? 0) - (a.blister_density ?? 0))[0];
  const seam = rows("seam").sort((a, b) => (b.seam_rusted_mm ?? 0) - (a.seam_rusted_mm ?? 0))[0];
  const gloss = glossKept(zone, last.get("gloss") ?? null, beside);
  const found: ZoneFound = {
    soundByEye: last.has("eye") ? rows("eye").every((r) => r.sound) : null,
    creepMm: worst("creep"),
    rustPercent: worst("rust"),
    blisters: blisters ? { density: blisters.blister_density ?? 0, size: blisters.blister_size } : null,
    flakedPercent: worst("flaking"),
    tapeIso: worst("tape"),
    seam: seam ? { rustedMm: seam.seam_rusted_mm ?? 0, ofMm: seam.seam_mm ?? 1 } : null,
    glossRetentionPercent: gloss.glossOfRelease ?? gloss.glossOfSheltered,
    deltaE: worst("colour"),
    chalk: worst("chalk"),
  };
  return {
    ...zone,
    found,
    readAt: Object.fromEntries([...last].map(([name, read]) => [name, read.at])),
    filmUm: rows("film").flatMap((r) => (r.film_um ?? []) as readonly number[]),
    verdict: judgeZone(found),
    ...gloss,
    ...growth(zone, beside.since),
  };
}

/** How creep grows: from the visit before where it was read then, else from none when it was coated. */
function growth(
  zone: Begun,
  since: Date | null,
): Pick<ZoneFile, "creepRate" | "creepFrom" | "creepRateOfAll" | "forecast"> {
  const none = { creepRate: null, creepFrom: null, creepRateOfAll: null, forecast: null };
  const read = zone.captures.filter((c) => c.row.creep_mm !== null);
  const [now] = read;
  if (!now) return none;
  const before = read.find((c) => now.at.getTime() - c.at.getTime() > ONE_VISIT_MS);
  const asReading = (c: Capture) => ({
    at: c.at,
    value: c.row.creep_mm ?? 0,
    standardError: creepStandardError((c.row.widths_mm ?? []) as readonly number[], c.row.from_what === "scribe"),
  });
  const coated = since ? { at: since, value: 0, standardError: 0 } : null;
  const from = before ? asReading(before) : coated;
  if (!from) return none;
  return {
    creepRate: fieldRate(from, asReading(now)),
    creepFrom: { at: from.at, visit: before !== undefined },
    creepRateOfAll: before && coated ? fieldRate(coated, asReading(now)) : null,
    forecast: forecastTo(CREEP_LIMIT_MM, from, asReading(now)),
  };
}
