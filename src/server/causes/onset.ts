import type { Kysely } from "kysely";
import { type ChangePoint, changePoint } from "@/core/comparison";
import type { Database } from "@/db/schema";
import { dayIn } from "../day";
import { type RecordLine, recentRecords } from "../search/recent";
import { siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";

export type Onset = {
  readonly day: string;
  /** When its first rack was hung. */
  readonly from: Date;
  readonly change: ChangePoint;
  /** Changes recorded from the day before to the day's end. */
  readonly near: readonly RecordLine[];
};
const DAY_MS = 86_400_000;
/** Changes shown beside an onset. */
const NEAR = 12;
const LOOKED_AT = 200;
/** What was found and decided follows from a change; it is none. */
const outcomes: ReadonlySet<string> = new Set([
  "defect",
  "disposition",
  "certificate",
  "confirmation",
  "visit",
  "metal-mark",
]);

/** Racks of one day, and how many of them show it. */
export type Day = { readonly day: string; readonly from: Date; readonly defective: number; readonly inspected: number };

/** Racks by the shop's days, in order. O(racks). */
export async function daysOf(
  db: Kysely<Database>,
  racks: readonly { readonly hung_at: Date; readonly affected: boolean }[],
): Promise<readonly Day[]> {
  const [first] = racks;
  if (!first) return [];
  const { timeZone } = await siteAt(db, first.hung_at);
  const days = new Map<string, Day>();
  // A day begins on a quarter of an hour wherever: so each quarter is looked up once.
  const quarters = new Map<number, string>();
  for (const r of racks) {
    const quarter = Math.floor(r.hung_at.getTime() / 900_000);
    const day = quarters.get(quarter) ?? dayIn(r.hung_at, timeZone);
    quarters.set(quarter, day);
    const one = days.get(day) ?? { day, from: r.hung_at, defective: 0, inspected: 0 };
    days.set(day, { ...one, inspected: one.inspected + 1, defective: one.defective + Number(r.affected) });
  }
  return [...days.values()];
}

/** The day from which more racks show it than chance would have, with what was changed about then. */
export async function onsetOf(db: Kysely<Database>, person: Person, days: readonly Day[]): Promise<Onset | null> {
  const change = changePoint(days);
  const at = change.ok && change.value.onset ? days[change.value.firstAffectedPeriod] : undefined;
  if (!change.ok || !at) return null;
  const until = new Date(at.from.getTime() + DAY_MS);
  const near = await recentRecords(db, person, until, LOOKED_AT, {
    changesSince: new Date(at.from.getTime() - DAY_MS),
  });
  return {
    day: at.day,
    from: at.from,
    change: change.value,
    near: near.filter((r) => !outcomes.has(r.kind)).slice(0, NEAR),
  };
}
