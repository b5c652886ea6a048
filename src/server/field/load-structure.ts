import { type Kysely, sql } from "kysely";
import { creepRateMmPerYear } from "@/core/field";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { planOf } from "../plan/plan-of";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { findStructure } from "./find-structure";

export type StructureOfRack = {
  readonly code: string;
  readonly name: string;
  readonly site: string;
  readonly pieces: number;
  readonly lastVisit: Date | null;
  readonly worstCreepMm: number | null;
  readonly worstRating: number | null;
};

/** Where pieces of a rack stand now, with the newest visit's worst creep. */
export async function structuresOfRack(db: Kysely<Database>, rackId: string): Promise<StructureOfRack[]> {
  const { rows } = await sql<StructureOfRack>`
    select s.code, s.name, s.site, count(*)::int as pieces, v.at as "lastVisit", v.worst as "worstCreepMm", v.rating as "worstRating"
    from piece p join structure_piece sp on sp.piece_id = p.id join structure s on s.id = sp.structure_id
    left join lateral (select max(r.happened_at) as at from record r where r.structure_id = s.id and r.kind in ('visit', 'zone-visit') and ${stands("r.id")}) l on true
    left join lateral (select l.at, max(coalesce(m.creep_mm, z.creep_mm)) as worst, min(coalesce(m.rating, z.rating)) as rating from record r left join creep_measure m on m.record_id = r.id left join zone_visit z on z.record_id = r.id
      where r.structure_id = s.id and r.kind in ('visit', 'zone-visit') and r.happened_at > l.at - interval '36 hours' and ${stands("r.id")}) v on true
    where p.rack_id = ${rackId} group by s.id, s.code, s.name, s.site, v.at, v.worst, v.rating`.execute(db);
  return rows;
}

export type CreepZone = {
  readonly zone: string;
  readonly from: string;
  readonly now: {
    readonly at: Date;
    readonly creepMm: number;
    readonly rating: number | null;
    readonly widthsMm: readonly number[];
    readonly recordId: string;
  };
  readonly before: { readonly at: Date; readonly creepMm: number } | null;
  readonly rateMmPerYear: number | null;
  /** Days that the rate was taken over; under ninety it is too short to say. */
  readonly rateDays: number | null;
};
export type RustZone = {
  readonly zone: string;
  readonly at: Date;
  readonly sharePercent: number;
  /** Degree of rusting, Ri 0 to 5. */
  readonly grade: number;
  /** Share at the visit before, %. */
  readonly before: number | null;
};
export type StructureFile = NonNullable<Awaited<ReturnType<typeof loadStructure>>>;

/** A structure with its pieces, visits, creep by zone and rate since the visit before. Null where it is not this person's to see. */
export async function loadStructure(db: Kysely<Database>, person: Person, code: string, at: Date) {
  const structure = await findStructure(db, person, code);
  if (!structure) return null;
  const customers = await setupAt(db, "customer", at);
  const pieces = await db
    .selectFrom("structure_piece")
    .innerJoin("piece", "piece.id", "structure_piece.piece_id")
    .innerJoin("rack", "rack.id", "piece.rack_id")
    .select(["piece.serial", "structure_piece.place", "rack.number", "rack.hung_at"])
    .where("structure_piece.structure_id", "=", structure.id)
    .orderBy("piece.serial")
    .execute();
  const visits = await db
    .selectFrom("record")
    .innerJoin("visit", "visit.record_id", "record.id")
    .select([
      "record.id",
      "record.happened_at",
      personName("record.by_user").as("by_user"),
      "visit.weather",
      "visit.note",
    ])
    .where("record.structure_id", "=", structure.id)
    .where(stands("record.id"))
    .orderBy("record.happened_at", "desc")
    .limit(50)
    .execute();
  const measures = visits.length
    ? await db
        .selectFrom("creep_measure")
        .selectAll()
        .where(
          "record_id",
          "in",
          visits.map((v) => v.id),
        )
        .orderBy("ordinal")
        .execute()
    : [];
  const defects = await db
    .selectFrom("record")
    .innerJoin("defect", "defect.record_id", "record.id")
    .selectAll("defect")
    .select("record.happened_at")
    .where("record.structure_id", "=", structure.id)
    .where(stands("record.id"))
    .orderBy("record.happened_at", "desc")
    .limit(50)
    .execute();
  const rust = visits.length
    ? await db
        .selectFrom("rust_share")
        .selectAll()
        .where(
          "record_id",
          "in",
          visits.map((v) => v.id),
        )
        .orderBy("ordinal")
        .execute()
    : [];
  const photos = await db
    .selectFrom("record")
    .innerJoin("photo", "photo.record_id", "record.id")
    .select(["record.file_id", "record.happened_at", "photo.caption", "photo.zone"])
    .where("record.structure_id", "=", structure.id)
    .where("record.file_id", "is not", null)
    .orderBy("record.happened_at", "desc")
    .limit(20)
    .execute();
  const cases = await db
    .selectFrom("root_cause_case")
    .select(["number", "defect", "zone"])
    .where("structure_id", "=", structure.id)
    .orderBy("opened_at", "desc")
    .execute();
  const coatedOn = pieces[0]?.hung_at ?? null;
  const putUp = structure.put_up_on ? new Date(`${String(structure.put_up_on).slice(0, 10)}T12:00:00Z`) : null;
  const offered = await offeredFor(db, structure.id, at);
  const zones = [...new Set(measures.map((m) => m.zone))].map((zone): CreepZone | null => {
    const series = visits.flatMap((v) =>
      measures.filter((m) => m.record_id === v.id && m.zone === zone).map((m) => ({ v, m })),
    );
    const [now, before] = series;
    if (!now) return null;
    const since = before?.v.happened_at ?? coatedOn;
    const years = since ? (now.v.happened_at.getTime() - since.getTime()) / (365.25 * 86_400_000) : 0;
    const rate = since ? creepRateMmPerYear({ fromMm: before?.m.creep_mm ?? 0, toMm: now.m.creep_mm, years }) : null;
    return {
      zone,
      from: now.m.from_what,
      now: {
        at: now.v.happened_at,
        creepMm: now.m.creep_mm,
        rating: now.m.rating,
        widthsMm: now.m.widths_mm.filter((w): w is number => w !== null),
        recordId: now.v.id,
      },
      before: before ? { at: before.v.happened_at, creepMm: before.m.creep_mm } : null,
      rateMmPerYear: rate?.ok ? rate.value : null,
      rateDays: rate?.ok ? Math.floor(years * 365.25 + 1e-6) : null,
    };
  });
  return {
    ...structure,
    customer: customers.get(structure.customer_id)?.data.name ?? "",
    exposure: Array.isArray(structure.exposure) ? (structure.exposure as unknown[]).map(String) : [],
    pieces,
    visits,
    zones: zones.filter((z) => z !== null),
    rusting: [...new Set(rust.map((r) => r.zone))].flatMap((zone): RustZone[] => {
      const [now, before] = visits.flatMap((v) =>
        rust.filter((r) => r.record_id === v.id && r.zone === zone).map((r) => ({ v, r })),
      );
      return now
        ? [
            {
              zone,
              at: now.v.happened_at,
              sharePercent: now.r.share_percent,
              grade: now.r.grade,
              before: before ? before.r.share_percent : null,
            },
          ]
        : [];
    }),
    defects,
    photos,
    cases,
    coatedOn,
    putUp,
    /** Coated, else put up; null where neither is known. */
    since: coatedOn ?? putUp,
    offered,
  };
}

/** What was offered with the jobs that this structure's pieces came from, and what became of it: asked for years later. */
async function offeredFor(db: Kysely<Database>, structureId: string, at: Date) {
  const jobs = await db
    .selectFrom("structure_piece")
    .innerJoin("piece", "piece.id", "structure_piece.piece_id")
    .innerJoin("rack", "rack.id", "piece.rack_id")
    .innerJoin("job", "job.id", "rack.job_id")
    .select(["job.id", "job.number", "job.plan"])
    .distinct()
    .where("structure_piece.structure_id", "=", structureId)
    .execute();
  const plans = await Promise.all(jobs.map((job) => planOf(db, job, at)));
  return plans.flatMap((plan, i) => plan.offered.map((o) => ({ ...o, job: jobs[i]?.number ?? "" })));
}
