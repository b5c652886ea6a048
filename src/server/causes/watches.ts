import { type Kysely, sql } from "kysely";
import { loadKnowledge } from "@/core/diagnosis";
import type { Database } from "@/db/schema";
import { type Person, seesCustomer } from "../sign-in/roles";
import { conditionOf, sharedConditions } from "./containment";
import { racksWith } from "./explore";
import { type Held, heldColumns } from "./held-columns";
import type { SiteKnowledge } from "./known-here";
import { knownHere } from "./known-here";
import type { CaseFile } from "./load-case";

const knowledge = loadKnowledge();
export type Watch = SiteKnowledge["watches"][number];
export type Condition = Watch["when"][number];
/** How often racks that met all of it showed the defect, and how often those that did not. */
export type WatchCounts = {
  readonly met: { readonly racks: number; readonly withIt: number };
  readonly notMet: { readonly racks: number; readonly withIt: number };
};

/** Whether a rack met every condition; null where one was never recorded. */
function meets(held: Held, when: readonly Condition[]): (place: number) => boolean | null {
  const columns = when.map((c) => ({ ...c, column: held.columns.find((x) => x.variable === c.variable) }));
  return (i) => {
    let all: boolean | null = true;
    for (const { column, over, under } of columns) {
      const value = column?.kind === "figure" ? (column.values[i] as number) : Number.NaN;
      if (Number.isNaN(value)) {
        all = null;
        continue;
      }
      const met = (over !== null && value > over) || (under !== null && value < under);
      if (!met) return false;
    }
    return all;
  };
}

/** Racks on record that met a watch's conditions against those that did not, with how many show its defect. O(racks × conditions). */
export async function countsOf(
  db: Kysely<Database>,
  when: readonly Condition[],
  defect: string,
  at: Date,
): Promise<WatchCounts> {
  const [{ held }, shown] = await Promise.all([heldColumns(db, at), racksWith(db, defect)]);
  const met = meets(held, when);
  const counts = { met: { racks: 0, withIt: 0 }, notMet: { racks: 0, withIt: 0 } };
  for (let i = 0; i < held.ids.length; i++) {
    const state = met(i);
    if (state === null) continue;
    const side = state ? counts.met : counts.notMet;
    side.racks++;
    if (shown.has(held.ids[i] as string)) side.withIt++;
  }
  return counts;
}

/** What the record could have foretold a confirmed case by: conditions that its rack met and that speak for the cause; null where there are none. */
export function foretoldBy(file: CaseFile): readonly Condition[] | null {
  if (!file.confirmation) return null;
  const when = sharedConditions(file.established, file.defect, file.confirmation.cause).flatMap((f) => {
    const condition = conditionOf(f);
    return condition ? [condition] : [];
  });
  return when.length > 0 ? when.slice(0, 4) : null;
}

export type OnWatch = {
  readonly watch: Watch;
  readonly defectLabel: string;
  readonly counts: WatchCounts;
  /** Racks in the shop that met it, the newest first. */
  readonly racks: readonly string[];
};

/** Racks still in the shop that met what has led to a defect before, by each watch that was taken up. One query beside what is kept; O(racks × watches). */
export async function onWatch(db: Kysely<Database>, person: Person, at: Date): Promise<readonly OnWatch[]> {
  const { own } = await knownHere(db, at);
  const watches = own.watches.filter((w) => !w.stopped);
  if (watches.length === 0) return [];
  const { held } = await heldColumns(db, at);
  const { rows } = await sql<{ id: string }>`select rack_id as id from rack_standing where gone_at is null`.execute(db);
  const here = new Set(rows.map((r) => r.id));
  const out: OnWatch[] = [];
  for (const watch of watches) {
    const met = meets(held, watch.when);
    const racks: string[] = [];
    for (let i = held.ids.length - 1; i >= 0; i--)
      if (here.has(held.ids[i] as string) && seesCustomer(person, held.customerIds[i]) && met(i) === true)
        racks.push(held.numbers[i] as string);
    if (racks.length > 0)
      out.push({
        watch,
        defectLabel: knowledge.defects.get(watch.defect)?.label ?? watch.defect,
        counts: await countsOf(db, watch.when, watch.defect, at),
        racks,
      });
  }
  return out;
}
