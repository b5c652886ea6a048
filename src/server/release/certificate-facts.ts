import { type Kysely, sql } from "kysely";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { filmSets } from "../rack/film-layers";
import { newest, type RackFile } from "../rack/load-rack";
import { setupAt, siteAt } from "../setup/setup-data";

/** What a certificate names beside the verdict, as it was when the decision was signed. Moments as ISO text. */
export type CertificateFacts = {
  readonly shop: string;
  readonly timeZone: string;
  readonly customer: string;
  /** The customer's own words, and the file of their mark; absent in decisions from before there were any. */
  readonly wording?: string;
  readonly logo?: string | null;
  readonly job: string;
  readonly customerOrder: string | null;
  readonly deliveryNote: string | null;
  readonly part: string;
  readonly serials: readonly string[];
  readonly powder: string;
  readonly hungAt: string;
  readonly lots: readonly string[];
  readonly gauges: readonly {
    readonly code: string;
    readonly checkedAt: string | null;
    readonly holds: boolean | null;
  }[];
  readonly bakes: readonly {
    readonly oven: string;
    readonly load: string;
    readonly closedAt: string;
    readonly pulledAt: string | null;
    /** Channels of its trace; none where it was timed by hand. */
    readonly channels: readonly string[];
    readonly leftOut: string | null;
  }[];
  readonly coats: readonly {
    readonly no: number;
    readonly layer: string;
    readonly booth: string;
    readonly kv: number | null;
    readonly earthMohm: number | null;
    readonly grade: string;
    readonly leftOut: string | null;
  }[];
  readonly steps: readonly {
    readonly step: string;
    readonly done: boolean;
    readonly value: number | null;
    readonly note: string | null;
    readonly grade: string;
  }[];
  readonly film: readonly {
    readonly face: string;
    readonly spot: string;
    readonly readings: readonly { readonly um: number; readonly rejected: string | null }[];
  }[];
  /** What was taken off each reading for the metal under it, µm. */
  readonly baseUm: number;
};

/** Gathers it at the moment of decision. A query each for gauges, lots, ovens, site; O(records of the rack). */
export async function certificateFacts(db: Kysely<Database>, rack: RackFile, at: Date): Promise<CertificateFacts> {
  const sets = filmSets(rack);
  const instruments = [...new Set(sets.flatMap((s) => s.base.instrument_id ?? []))];
  const [site, job, lots, ovens, gauges] = await Promise.all([
    siteAt(db, at),
    db
      .selectFrom("job")
      .select(["customer_order", "delivery_note"])
      .where("id", "=", rack.job.id)
      .executeTakeFirstOrThrow(),
    setupAt(db, "lot", at),
    setupAt(db, "oven", at),
    lastChecks(db, instruments, newest({ latest: sets }, "thickness")?.base.happened_at ?? at),
  ]);
  const paper = [...(await setupAt(db, "customer", at)).values()].find((c) => c.code === rack.customerCode)?.data.paper;
  const coats = rack.evidence.flatMap((r) => (r.details.coat ?? []).map((row) => ({ base: r.base, row })));
  return {
    shop: site.name,
    timeZone: site.timeZone,
    customer: rack.customer,
    wording: paper?.wording ?? "",
    logo: paper?.logo ?? null,
    job: rack.job.number,
    customerOrder: job.customer_order,
    deliveryNote: job.delivery_note,
    part: rack.part.data.name,
    serials: rack.pieces.map((p) => p.serial),
    powder: `${rack.powder.code} ${rack.powder.data.name}`,
    hungAt: rack.hungAt.toISOString(),
    lots: [...new Set(coats.map((c) => lots.get(c.row.lot_id)?.code ?? "").filter(Boolean))],
    gauges,
    bakes: rack.latest.flatMap((r) => {
      const row = r.details.bake?.[0];
      if (!row) return [];
      return [
        {
          oven: ovens.get(row.oven_id)?.data.name ?? "",
          load: row.load_no,
          closedAt: row.door_closed_at.toISOString(),
          pulledAt: row.pulled_at?.toISOString() ?? null,
          channels: (r.details.bake_channel ?? []).map((c) => c.name),
          leftOut: row.left_out,
        },
      ];
    }),
    coats: coats.map(({ base, row }) => ({
      no: row.coat_no,
      layer: row.layer,
      booth: row.booth,
      kv: row.kv,
      earthMohm: row.earth_mohm,
      grade: base.grade,
      leftOut: row.left_out,
    })),
    steps: rack.evidence.flatMap((r) =>
      (r.details.prep_step ?? []).map((s) => ({
        step: s.step,
        done: s.done,
        value: s.value,
        note: s.note,
        grade: r.base.grade,
      })),
    ),
    film: rack.part.data.faces.flatMap((face) =>
      face.spots.map((spot) => ({
        face: face.name,
        spot: spot.id,
        readings: sets
          .flatMap((s) => s.details.thickness_reading ?? [])
          .filter((r) => r.face === face.id && r.spot === spot.id)
          .map((r) => ({ um: r.value_um, rejected: r.rejected_reason })),
      })),
    ),
    baseUm: rack.base.um,
  };
}

/** The last shim check of each gauge up to a moment. */
async function lastChecks(
  db: Kysely<Database>,
  instrumentIds: readonly string[],
  before: Date,
): Promise<CertificateFacts["gauges"]> {
  if (instrumentIds.length === 0) return [];
  const { rows } = await sql<{ code: string; at: Date | null; holds: boolean | null }>`
    select e.code, c.at, c.holds from setup_entity e left join lateral (
      select r.happened_at as at, g.holds from record r join gauge_check g on g.record_id = r.id
      where r.instrument_id = e.id and r.kind = 'gauge-check' and r.happened_at <= ${before} and ${stands("r.id")} order by r.happened_at desc limit 1) c on true
    where e.id = any(${[...instrumentIds]}::uuid[]) order by e.code`.execute(db);
  return rows.map((r) => ({ code: r.code, checkedAt: r.at?.toISOString() ?? null, holds: r.holds }));
}
