import { type Kysely, sql } from "kysely";
import { err, ok, type Result } from "@/core/result";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

/** A load is in its oven for a day at the most before it is taken to be out. */
const IN_FOR_HOURS = 24;

/**
 * The load in an oven that is meant: the one named, or the only one there. Of several nobody guesses. Failures:
 * `nothing-in-oven`, `unknown-load`, `which-load` with those that are in. One query on an index.
 */
export async function openLoadOf(
  db: Kysely<Database>,
  oven: { readonly id: string; readonly code: string },
  named: string | null,
  at: Date,
): Promise<Result<{ readonly recordId: string; readonly loadNo: string }>> {
  const open = await db
    .selectFrom("bake")
    .select(["record_id as recordId", "load_no as loadNo"])
    .where("oven_id", "=", oven.id)
    .where("pulled_at", "is", null)
    .where("door_closed_at", "<=", at)
    .where("door_closed_at", ">", new Date(at.getTime() - IN_FOR_HOURS * 3_600_000))
    .where(sql<boolean>`${stands("bake.record_id")}`)
    .orderBy("door_closed_at")
    .orderBy("load_no")
    .execute();
  const [only, ...others] = open;
  if (!only) return err({ kind: "nothing-in-oven", name: oven.code });
  if (named !== null) {
    const meant = open.find((b) => b.loadNo.toLowerCase() === named.toLowerCase());
    return meant ? ok(meant) : err({ kind: "unknown-load", load: named, oven: oven.code });
  }
  return others.length === 0
    ? ok(only)
    : err({ kind: "which-load", oven: oven.code, loads: open.map((b) => b.loadNo) });
}
