import { type Kysely, sql } from "kysely";
import {
  type Adjusted,
  adjusted,
  type Column,
  type Columns,
  type Contrast,
  contrastColumns,
  type Difference,
  movedTogether,
  orderOf,
  strataOf,
} from "@/core/comparison";
import type { Failure } from "@/core/result";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { type Person, seesCustomer } from "../sign-in/roles";
import { type Held, heldColumns, LONG_WAIT_MS } from "./held-columns";
import { type Day, daysOf, type Onset, onsetOf } from "./onset";

/** What is compared: the defect, the part, the line's people and places by one variable's value, and the time. */
export type Asked = {
  readonly defect: string;
  readonly partId: string | null;
  readonly from: Date;
  readonly to: Date;
  /** Only racks of which a variable has this value; of a figure a value or a range, both ends in it, as `rangeOf` reads them. */
  readonly where: { readonly variable: string; readonly value: string } | null;
  /** The variable that is held still. */
  readonly by: string | null;
};

/** A difference beside those that moved with it, and what is left of it with another variable held still. */
export type Told = {
  readonly difference: Difference;
  readonly adjusted: Adjusted | null;
  readonly spread: Spread;
};
/** How the values lie on both sides: quantiles of a figure, shares of a category's values. */
export type Spread =
  | {
      readonly kind: "figure";
      readonly affected: readonly number[];
      readonly others: readonly number[];
      /** The least and the greatest of those that show it. */
      readonly range: readonly [number, number];
    }
  | {
      readonly kind: "category";
      readonly shares: readonly { readonly value: string; readonly affected: number; readonly others: number }[];
    };
export type Explored = {
  readonly contrast: Contrast;
  /** What stands out, in groups that moved together: within one the record cannot separate them. */
  readonly groups: readonly (readonly Told[])[];
  readonly rest: readonly Difference[];
  readonly days: readonly Day[];
  readonly onset: Onset | null;
  /** Racks of the time that were compared, and whether some are not read yet. */
  readonly compared: number;
  readonly left: boolean;
  /** Variables by which racks can be picked or held still. */
  readonly variables: readonly string[];
  readonly values: readonly string[];
};

/** From here on a difference is as likely a false find as not worth a walk to the line. */
const STANDS_OUT = 0.1;
const MOST_TOLD = 30;
const QUANTILES = [0.05, 0.25, 0.5, 0.75, 0.95];

/**
 * Racks that show a defect, on the line or in a structure of theirs, against those that do not, over everything recorded.
 * Null where none shows it, or all do. O(racks · variables · log racks): 100,000 racks in under a second once read.
 */
export async function explore(
  db: Kysely<Database>,
  person: Person,
  asked: Asked,
  at: Date,
): Promise<Explored | { readonly failure: Failure } | null> {
  const [{ held, left }, shown] = await Promise.all([heldColumns(db, at, LONG_WAIT_MS), racksWith(db, asked.defect)]);
  const picked = pick(held, person, asked);
  const affected = Uint8Array.from(held.ids, (id) => Number(shown.has(id)));
  const columns: Columns = { affected, columns: held.columns, keep: picked };
  const racks = held.ids.flatMap((_, i) =>
    picked[i] ? [{ hung_at: new Date(held.hungMs[i] as number), affected: affected[i] === 1 }] : [],
  );
  const mine = racks.filter((r) => r.affected).length;
  if (mine === 0 || mine === racks.length) return null;
  const found = contrastColumns(columns);
  if (!found.ok) return { failure: found.error };
  const out = found.value.differences.filter((d) => d.q <= STANDS_OUT).slice(0, MOST_TOLD);
  const by = columns.columns.find((c) => c.variable === asked.by);
  const strata = by ? strataOf(by) : null;
  const columnOf = (d: Difference) => columns.columns.find((c) => c.variable === d.variable) as Column;
  const told = out.map(
    (difference): Told => ({
      difference,
      adjusted:
        strata && difference.variable !== asked.by
          ? adjusted(columns, columnOf(difference), difference.kind === "category" ? difference.value : null, strata)
          : null,
      spread: spreadOf(columns, columnOf(difference)),
    }),
  );
  const groups = movedTogether(columns, out)
    .map((group) => group.map((i) => told[i] as Told))
    .sort((a, b) => (a[0]?.difference.p ?? 1) - (b[0]?.difference.p ?? 1));
  const where = held.columns.find((c) => c.variable === asked.where?.variable);
  const days = await daysOf(db, racks);
  return {
    contrast: found.value,
    groups,
    rest: found.value.differences.filter((d) => !out.includes(d)),
    days,
    onset: await onsetOf(db, person, days),
    compared: racks.length,
    left,
    variables: columns.columns.map((c) => c.variable),
    values: where?.kind === "category" ? [...where.labels].sort() : [],
  };
}

/** Racks on which, or on a structure of whose pieces, a defect is on record. One index scan of the defect's records. */
export async function racksWith(db: Kysely<Database>, defect: string): Promise<ReadonlySet<string>> {
  const { rows } = await sql<{ id: string }>`
    select distinct coalesce(r.rack_id, p.rack_id) as id from defect d join record r on r.id = d.record_id
    left join structure_piece s on s.structure_id = r.structure_id left join piece p on p.id = s.piece_id
    where d.defect = ${defect} and coalesce(d.pieces_affected, 1) > 0 and coalesce(r.rack_id, p.rack_id) is not null and ${stands("r.id")}`.execute(
    db,
  );
  return new Set(rows.map((r) => r.id));
}

/** A figure's range as an address has it: “70..76”, or “70” for that alone; null where it is none. */
export function rangeOf(text: string): readonly [number, number] | null {
  const ends = text.split("..").map((end) => (end.trim() === "" ? Number.NaN : Number(end)));
  const [low, high = low] = ends;
  return ends.length > 2 || low === undefined || high === undefined || !(low <= high) ? null : [low, high];
}

/** Which racks are asked for, of those the person may see. */
export function pick(held: Held, person: Person, asked: Omit<Asked, "defect" | "by">): Uint8Array {
  const where = asked.where ? held.columns.find((c) => c.variable === asked.where?.variable) : null;
  const code = where?.kind === "category" ? where.labels.indexOf(asked.where?.value ?? "") : -1;
  const range = where?.kind === "figure" ? rangeOf(asked.where?.value ?? "") : null;
  return Uint8Array.from(held.ids, (_, i) => {
    const hung = held.hungMs[i] as number;
    return Number(
      hung >= asked.from.getTime() &&
        hung <= asked.to.getTime() &&
        seesCustomer(person, held.customerIds[i]) &&
        (asked.partId === null || held.partIds[i] === asked.partId) &&
        (!asked.where ||
          (where?.kind === "category"
            ? code >= 0 && where.codes[i] === code
            : where?.kind === "figure" &&
              range !== null &&
              (where.values[i] as number) >= range[0] &&
              (where.values[i] as number) <= range[1])),
    );
  });
}

function spreadOf({ affected, keep }: Columns, column: Column): Spread {
  if (column.kind === "figure") {
    const sides: [number[], number[]] = [[], []];
    for (const i of orderOf(column.values))
      if (!keep || keep[i]) sides[affected[i] ? 0 : 1].push(column.values[i] as number);
    const [mine, rest] = sides.map((sorted) => QUANTILES.map((q) => quantileOf(sorted, q))) as [number[], number[]];
    const range = [sides[0][0] ?? Number.NaN, sides[0].at(-1) ?? Number.NaN] as const;
    return { kind: "figure", affected: mine, others: rest, range };
  }
  const counts = column.labels.map((value) => ({ value, affected: 0, others: 0 }));
  const known = { affected: 0, others: 0 };
  for (let i = 0; i < column.codes.length; i++) {
    const one = counts[column.codes[i] as number];
    if (!one || (keep && !keep[i])) continue;
    const side = affected[i] ? "affected" : "others";
    one[side]++;
    known[side]++;
  }
  return {
    kind: "category",
    shares: counts.map((c) => ({
      value: c.value,
      affected: c.affected / known.affected,
      others: c.others / known.others,
    })),
  };
}

/** Quantile of sorted values, type 7. */
function quantileOf(sorted: readonly number[], q: number): number {
  const place = (sorted.length - 1) * q;
  const [low, high] = [sorted[Math.floor(place)] as number, sorted[Math.ceil(place)] as number];
  return low + (high - low) * (place - Math.floor(place));
}

/** The racks behind one value: numbers with what they show, the newest first. O(racks picked). */
export async function racksBehind(
  db: Kysely<Database>,
  person: Person,
  asked: Asked,
  at: Date,
  most: number,
): Promise<{
  readonly racks: readonly { number: string; hungAt: Date; affected: boolean }[];
  readonly all: number;
  /** What was gone into where it is a figure. */
  readonly range: readonly [number, number] | null;
}> {
  const [{ held }, shown] = await Promise.all([heldColumns(db, at), racksWith(db, asked.defect)]);
  const picked = pick(held, person, asked);
  const places = held.ids.flatMap((_, i) => (picked[i] ? [i] : [])).reverse();
  return {
    all: places.length,
    range:
      held.columns.find((c) => c.variable === asked.where?.variable)?.kind === "figure"
        ? rangeOf(asked.where?.value ?? "")
        : null,
    racks: places.slice(0, most).map((i) => ({
      number: held.numbers[i] as string,
      hungAt: new Date(held.hungMs[i] as number),
      affected: shown.has(held.ids[i] as string),
    })),
  };
}
