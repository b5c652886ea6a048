import { type Kysely, sql } from "kysely";
import { type HeldBy, type NextStep, type RackState, type RailStage, rackStates, railStages } from "@/core/line";
import type { VerdictResult } from "@/core/verdict";
import { forPerson } from "@/db/queries/for-person";
import type { Database, RackStandingTable } from "@/db/schema";
import type { SetupItem } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";

export type RackOnLine = {
  readonly number: string;
  readonly part: string;
  readonly customer: string;
  readonly job: string;
  readonly stage: RailStage;
  readonly passage: string;
  readonly since: Date;
  readonly open: boolean;
  readonly result: VerdictResult;
  readonly what: RackState;
  readonly heldBy: HeldBy | null;
  /** What it waits for, and since when. */
  readonly next: NextStep | null;
  readonly nextSince: Date;
  readonly readings: number;
  readonly asked: number;
  readonly defect: string | null;
  readonly iso: number | null;
  /** Tests that a plan asks of it and that are open, and those for which it waits for another rack. */
  readonly testsDue: readonly string[];
  readonly sampleDue: readonly string[];
  readonly bareSinceMs: number | null;
  /** Out of the conversion bath and not coated: an unsealed coat protects for a day or so. */
  readonly unsealedSinceMs: number | null;
  /** Wiped with solvent and not coated: it must be gone before powder or heat. */
  readonly wipedAtMs: number | null;
};
type Row = Pick<
  RackStandingTable,
  | "number"
  | "customer_id"
  | "part_id"
  | "passage"
  | "since"
  | "open"
  | "next_since"
  | "readings"
  | "asked"
  | "defect"
  | "iso"
  | "tests_due"
  | "sample_due"
  | "bare_since"
  | "unsealed_since"
  | "wiped_at"
> & {
  job: string;
  stage: RailStage;
  state: RackState;
  result: VerdictResult;
  next: NextStep | null;
  held_by: HeldBy | null;
};
type Names = {
  readonly parts: ReadonlyMap<string, SetupItem<"part">>;
  readonly customers: ReadonlyMap<string, SetupItem<"customer">>;
};
const columns = sql.raw(
  "s.number, j.number as job, s.customer_id, s.part_id, s.stage, s.passage, s.since, s.open, s.state, s.result, s.next, s.next_since, s.held_by, s.readings, s.asked, s.defect, s.iso, s.tests_due, s.sample_due, s.bare_since, s.unsealed_since, s.wiped_at",
);
/** What is out or held first, then what has waited longest. */
const urgency = sql.raw(
  "case s.result when 'out' then 0 when 'watch' then 1 when 'unknown' then 2 else 3 end, s.next_since, s.number",
);

const rackOf = (row: Row, { parts, customers }: Names): RackOnLine => ({
  number: row.number,
  part: parts.get(row.part_id)?.data.name ?? "",
  customer: customers.get(row.customer_id)?.data.name ?? "",
  job: row.job,
  stage: row.stage,
  passage: row.passage,
  since: row.since,
  open: row.open,
  result: row.result,
  what: row.state,
  heldBy: row.held_by,
  next: row.next,
  nextSince: row.next_since,
  readings: row.readings,
  asked: row.asked,
  defect: row.defect,
  iso: row.iso,
  testsDue: row.tests_due,
  sampleDue: row.sample_due,
  bareSinceMs: row.bare_since?.getTime() ?? null,
  unsealedSinceMs: row.unsealed_since?.getTime() ?? null,
  wipedAtMs: row.wiped_at?.getTime() ?? null,
});

/** Of each stage so many are carried with every page: the most urgent. */
export const CARRIED_PER_STAGE = 12;
export type StageCounts = Readonly<Record<RailStage, number>>;

/**
 * The racks on the line: of each stage the most urgent, and how many there are of all. Everything not decided is on it,
 * whatever its age or number. One pass over the index of open racks; O(open racks) in the database, a fixed number out.
 */
export async function racksOnLine(
  db: Kysely<Database>,
  person: Person,
  at: Date,
  names: Names,
): Promise<{ readonly racks: readonly RackOnLine[]; readonly counts: StageCounts }> {
  const { rows } = await sql<Row & { of_stage: number }>`
    select ${columns}, s.of_stage from (
      select s.*, row_number() over (partition by s.stage order by ${urgency})::int as rank, count(*) over (partition by s.stage)::int as of_stage
      from rack_standing s where s.gone_at is null and s.hung_at <= ${at} and ${forPerson(person, "s.customer_id")}) s
    join job j on j.id = s.job_id where s.rank <= ${CARRIED_PER_STAGE} order by s.hung_at, s.number`.execute(db);
  const counts = Object.fromEntries(
    railStages.map((stage) => [stage, rows.find((r) => r.stage === stage)?.of_stage ?? 0]),
  ) as Record<RailStage, number>;
  return { racks: rows.map((row) => rackOf(row, names)), counts };
}

/** The open loads there are racks in, whenever their doors closed. */
export async function openLoadIds(db: Kysely<Database>, person: Person): Promise<readonly string[]> {
  const { rows } = await sql<{ id: string }>`
    select distinct s.bake_id as id from rack_standing s where s.bake_id is not null and ${forPerson(person, "s.customer_id")}`.execute(
    db,
  );
  return rows.map((row) => row.id);
}

export const RACKS_PER_PAGE = 50;
export type RackFilter = {
  readonly stage?: RailStage | null;
  readonly next?: NextStep | null;
  readonly state?: RackState | null;
  readonly customer?: string | null;
  readonly job?: string | null;
  /** Waiting for longer than so many hours. */
  readonly olderThanHours?: number | null;
};

/** Racks on the line that fit a filter, the most urgent first, a page at a time, with how many there are. O(open racks). */
export async function listRacks(
  db: Kysely<Database>,
  person: Person,
  filter: RackFilter,
  { at, page = 1, perPage = RACKS_PER_PAGE }: { readonly at: Date; readonly page?: number; readonly perPage?: number },
  names: Names,
): Promise<{ readonly racks: readonly RackOnLine[]; readonly total: number }> {
  const only = [
    sql`s.gone_at is null`,
    sql`s.hung_at <= ${at}`,
    forPerson(person, "s.customer_id"),
    ...(filter.stage ? [sql`s.stage = ${filter.stage}`] : []),
    ...(filter.next ? [sql`s.next = ${filter.next}`] : []),
    ...(filter.state ? [sql`s.state = ${filter.state}`] : []),
    ...(filter.customer ? [sql`s.customer_id = ${filter.customer}::uuid`] : []),
    ...(filter.job ? [sql`j.number = ${filter.job}`] : []),
    ...(filter.olderThanHours
      ? [sql`s.next_since < ${new Date(at.getTime() - filter.olderThanHours * 3_600_000)}`]
      : []),
  ];
  const { rows } = await sql<Row & { total: number }>`
    select ${columns}, count(*) over ()::int as total from rack_standing s join job j on j.id = s.job_id
    where ${sql.join(only, sql` and `)} order by ${urgency} limit ${perPage} offset ${(page - 1) * perPage}`.execute(
    db,
  );
  return { racks: rows.map((row) => rackOf(row, names)), total: rows[0]?.total ?? 0 };
}

const one = (value: string | string[] | undefined): string | null =>
  (Array.isArray(value) ? value[0] : value)?.trim() || null;
/** A filter from an address; what is none there is left out. */
export function rackFilterFrom(search: Readonly<Record<string, string | string[] | undefined>>): {
  readonly filter: RackFilter;
  readonly page: number;
} {
  const [stage, state, customer, older] = [
    one(search.stage),
    one(search.state),
    one(search.customer),
    one(search.older),
  ];
  const hours = Number(older);
  const page = Number(one(search.page) ?? 1);
  return {
    filter: {
      stage: railStages.find((s) => s === stage) ?? null,
      state: rackStates.find((s) => s === state) ?? null,
      customer: customer && /^[0-9a-f-]{36}$/i.test(customer) ? customer : null,
      job: one(search.job),
      olderThanHours: Number.isFinite(hours) && hours > 0 ? hours : null,
    },
    page: Number.isInteger(page) && page > 0 && page < 100_000 ? page : 1,
  };
}
