import "server-only";
import { type Kysely, type RawBuilder, sql } from "kysely";
import * as v from "valibot";
import {
  columnRoles,
  dateOrders,
  nearestTimeOfDay,
  shapeOf,
  type TraceFile,
  type TraceLayout,
  timeForms,
  traceTable,
} from "@/core/instrument-files";
import { localMs, momentOf } from "@/core/shifts";
import { lock } from "@/db/queries/locks";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { sha256 } from "../record/canonical";
import { addVersion } from "../setup/add-version";
import { addEntity } from "../setup/save-setup";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";

const short = v.pipe(v.string(), v.trim(), v.maxLength(80));
/** A layout as a browser sends it back, or as it was remembered. */
export const layoutSchema = v.strictObject({
  columns: v.pipe(
    v.array(
      v.strictObject({
        heading: v.pipe(v.string(), v.maxLength(200)),
        is: v.picklist(columnRoles),
        name: v.pipe(short, v.minLength(1, "is missing")),
        rack: v.nullable(short),
      }),
    ),
    v.maxLength(60, "are more than 60"),
  ),
  form: v.nullable(v.picklist(timeForms)),
  order: v.nullable(v.picklist(dateOrders)),
  unit: v.nullable(v.picklist(["degC", "degF"])),
  mark: v.picklist([".", ","]),
  zone: v.picklist(["shop", "utc"]),
});

/** A load that a trace can be of. Times are the shop's, as YYYY-MM-DDTHH:MM:SS. */
export type TraceLoad = {
  readonly recordId: string;
  readonly oven: string;
  readonly loadNo: string;
  readonly doorLocal: string;
  readonly pulledLocal: string | null;
  readonly racks: readonly { readonly number: string; readonly place: string }[];
};
/** Loads shown to choose from; of an older one its rack is typed. */
const LOADS_SHOWN = 20;
const LOADS_DAYS = 31;
/** A door this near to a file's start is its load's. */
const NEAR_MS = 60 * 60_000;
const localText = (ms: number, timeZone: string) => new Date(localMs(ms, timeZone)).toISOString().slice(0, 19);

/** Loads of the month that have no trace yet, the one pulled last first. One query by the doors' index; O(loads without a trace). */
export const loadsWithoutTrace = (db: Kysely<Database>, timeZone: string, at: Date): Promise<TraceLoad[]> =>
  loads(
    db,
    timeZone,
    sql<boolean>`b.door_closed_at > ${new Date(at.getTime() - LOADS_DAYS * 86_400_000)} and b.door_closed_at <= ${at}
      and b.sections is null and ${stands("b.record_id")}
      and not exists (select 1 from bake_channel c where c.record_id = b.record_id)`,
  );
/** The load chosen, as it stood then: a file sent again is of a load that has its trace by now. */
export const loadChosen = async (db: Kysely<Database>, timeZone: string, recordId: string): Promise<TraceLoad | null> =>
  (await loads(db, timeZone, sql<boolean>`b.record_id = ${recordId}`))[0] ?? null;

async function loads(db: Kysely<Database>, timeZone: string, which: RawBuilder<boolean>): Promise<TraceLoad[]> {
  const { rows } = await sql<{
    id: string;
    oven: string;
    load_no: string;
    door: Date;
    pulled: Date | null;
    racks: TraceLoad["racks"];
  }>`
    select b.record_id as id, e.code as oven, b.load_no, b.door_closed_at as door, b.pulled_at as pulled,
      (select json_agg(json_build_object('number', k.number, 'place', p.place) order by k.number)
        from bake_place p join rack k on k.id = p.rack_id where p.record_id = b.record_id) as racks
    from bake b join setup_entity e on e.id = b.oven_id
    where ${which}
    order by b.pulled_at desc nulls last, b.door_closed_at desc limit ${LOADS_SHOWN}`.execute(db);
  return rows.map((r) => ({
    recordId: r.id,
    oven: r.oven,
    loadNo: r.load_no,
    doorLocal: localText(r.door.getTime(), timeZone),
    pulledLocal: r.pulled === null ? null : localText(r.pulled.getTime(), timeZone),
    racks: r.racks ?? [],
  }));
}

/**
 * The load a trace is taken to be of, and when it began: the load whose door closed about when the file begins, or the one
 * pulled last; a file that has only the time of day takes its load's day, one without a clock its load's door.
 */
export function proposeLoad(
  among: readonly TraceLoad[],
  file: TraceFile,
  startLocalS: number | null,
  timeZone: string,
): { readonly load: string | null; readonly startLocal: string | null; readonly startFrom: "file" | "load" | null } {
  const ms = (local: string) => momentOf(Date.parse(`${local}Z`), timeZone);
  const start =
    file.startEpochS !== null
      ? file.startEpochS * 1000
      : startLocalS !== null
        ? momentOf(startLocalS * 1000, timeZone)
        : null;
  if (start !== null) {
    const near = among
      .map((load) => ({ load, off: Math.abs(ms(load.doorLocal) - start) }))
      .filter(({ off }) => off <= NEAR_MS)
      .sort((a, b) => a.off - b.off)[0];
    return { load: near?.load.recordId ?? null, startLocal: localText(start, timeZone), startFrom: "file" };
  }
  const [last] = among;
  if (!last) return { load: null, startLocal: null, startFrom: null };
  return { load: last.recordId, startLocal: startIn(last, file.startTimeOfDayS), startFrom: "load" };
}
const startIn = ({ doorLocal }: TraceLoad, timeOfDayS: number | null): string =>
  timeOfDayS === null
    ? doorLocal
    : new Date(nearestTimeOfDay(Date.parse(`${doorLocal}Z`), timeOfDayS)).toISOString().slice(0, 19);

const shapeCode = (text: string): string => sha256(Buffer.from(shapeOf(traceTable(text)))).slice(0, 16);

/** How files of this shape were read last, and by whom; null for a shape never stored. */
export async function layoutRemembered(
  db: Kysely<Database>,
  text: string,
  at: Date,
): Promise<{ readonly layout: TraceLayout; readonly by: string; readonly at: Date } | null> {
  const row = await db
    .selectFrom("setup_version")
    .innerJoin("setup_entity", "setup_entity.id", "setup_version.entity_id")
    .select(["data", "recorded_at", personName("by_user").as("by")])
    .where("setup_entity.kind", "=", "trace-layout")
    .where("setup_entity.code", "=", shapeCode(text))
    .where("valid_from", "<=", at)
    .orderBy("valid_from", "desc")
    .limit(1)
    .executeTakeFirst();
  const parsed = row ? v.safeParse(layoutSchema, row.data) : null;
  return row && parsed?.success ? { layout: parsed.output, by: row.by ?? "", at: row.recorded_at } : null;
}

/** Keeps how a file of this shape was read, without its racks, which are of one load. In the import's own transaction. */
export async function rememberLayout(
  trx: Kysely<Database>,
  person: Person,
  text: string,
  layout: TraceLayout,
  at: Date,
): Promise<void> {
  const code = shapeCode(text);
  const data = { ...layout, columns: layout.columns.map((c) => ({ ...c, rack: null })) };
  const known = [...(await setupAt(trx, "trace-layout", at)).values()].find((item) => item.code === code);
  if (known && JSON.stringify(known.data) === JSON.stringify(data)) return;
  const reason = `As a file was read: ${layout.columns
    .map((c) => c.heading || c.name)
    .join(", ")
    .slice(0, 200)}`;
  if (known) await addVersion<"trace-layout">(trx, person, { entityId: known.id, at, reason, data });
  else await addEntity<"trace-layout">(trx, person, { kind: "trace-layout", code, at, reason, data });
}
export const layoutLock = lock.setUp("trace-layout");
