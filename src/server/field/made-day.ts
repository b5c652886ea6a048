import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { judgeRack, type VerdictItem } from "../rack/judge-rack";
import { loadRack } from "../rack/load-rack";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type BathCondition, conditionsWhenPassed } from "../trace/conditions";

/** How one rack of a structure's pieces was coated, as the record holds it; what is null was not recorded. */
export type MadeDay = {
  readonly number: string;
  readonly hungAt: Date;
  readonly coats: readonly {
    readonly at: Date;
    readonly by: string;
    readonly layer: string;
    readonly lot: string | null;
    readonly booth: string;
    readonly gun: string | null;
  }[];
  readonly bakes: readonly {
    readonly at: Date;
    readonly loadNo: string;
    readonly oven: string;
    readonly place: string | null;
  }[];
  readonly baths: readonly BathCondition[];
  /** What the record comes to now, item by item: with what is missing in it. */
  readonly items: readonly VerdictItem[];
  readonly decidedBy: string | null;
};

/** Racks that are told of at once; a structure has its pieces from one or two as a rule. */
const MOST = 4;

/** What the record holds of the day the pieces of a structure were coated. O(racks × their records). */
export async function madeDays(
  db: Kysely<Database>,
  person: Person,
  racks: readonly string[],
  at: Date,
): Promise<readonly MadeDay[]> {
  if (racks.length === 0) return [];
  const [lots, ovens] = await Promise.all([setupAt(db, "lot", at), setupAt(db, "oven", at)]);
  const people = await db.selectFrom("user").select(["username", "name"]).execute();
  const names = new Map(people.map((p) => [p.username, p.name]));
  const nameOf = (user: string) => names.get(user) ?? user;
  const out: MadeDay[] = [];
  for (const number of racks.slice(0, MOST)) {
    const rack = await loadRack(db, person, number);
    if (!rack) continue;
    const conditions = await conditionsWhenPassed(db, [rack.id], rack.hungAt);
    const judged = judgeRack(rack, conditions, at);
    const decision = rack.latest.findLast((r) => r.base.kind === "disposition");
    out.push({
      number,
      hungAt: rack.hungAt,
      coats: rack.latest.flatMap((r) =>
        (r.details.coat ?? []).map((row) => ({
          at: r.base.happened_at,
          by: nameOf(r.base.by_user),
          layer: row.layer,
          lot: lots.get(row.lot_id)?.code ?? null,
          booth: row.booth,
          gun: row.gun,
        })),
      ),
      bakes: rack.latest.flatMap((r) =>
        (r.details.bake ?? []).map((row) => ({
          at: row.door_closed_at,
          loadNo: row.load_no,
          oven: ovens.get(row.oven_id)?.data.name ?? "",
          place: r.details.bake_place?.find((p) => p.rack_id === rack.id)?.place ?? null,
        })),
      ),
      baths: conditions.baths,
      items: judged.items,
      decidedBy: decision ? nameOf(decision.base.by_user) : null,
    });
  }
  return out;
}
