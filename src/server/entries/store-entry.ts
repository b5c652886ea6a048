import type { Kysely } from "kysely";
import { type Entry, mayEnter, parseEntry } from "@/core/kinds";
import type { Failure } from "@/core/result";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { badEntry } from "../input";
import { makerOf } from "../kinds";
import type { Part } from "../kinds/made";
import { type EntryOutcome, refuse } from "../outcome";
import { derivedId } from "../record/derived-id";
import { type NewRecord, storeOne } from "../record/store-record";
import { storeTogether } from "../record/store-together";
import { noteLookAgain } from "../release/look-again";
import { may, type Person } from "../sign-in/roles";
import { callTests } from "../test-plan/call-tests";
import { noteOutcomes } from "../test-plan/outcomes";
import { CLOCK_SLACK_MS, type Clock, write } from "../write";

/**
 * Checks and stores one entry: schema, role, time, names, arithmetic, then its records, in one transaction or not at all,
 * under the locks of the nouns it names. Failures (values, with what was wrong): `bad-entry`, `role-refused`,
 * `in-the-future`, `too-long-ago`, `unknown-…`, the core's own, and the store's `key-conflict`, `already-superseded`,
 * `unknown-superseded`. `fileId` names the file it was read from.
 */
export async function storeEntry(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
  { fileId = null }: { readonly fileId?: string | null } = {},
): Promise<EntryOutcome> {
  const parsed = parseEntry(input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const entry = parsed.output;
  const needs = mayEnter(entry.kind) ?? "administer";
  if (!may(person.role, needs)) return refuse({ kind: "role-refused", role: person.role, needs });
  return write(db, locksOf(entry), clock, async (trx, at) => {
    const mistimed = timeOf(entry, at);
    if (mistimed) return refuse(mistimed);
    const make = makerOf(entry.kind);
    if (!make) throw new RangeError(`nothing makes ${entry.kind}`);
    const made = await make({ db: trx, person, at }, entry);
    if (!made.ok) return made;
    const base = { by: person.username, idempotencyKey: entry.idempotencyKey, supersedes: entry.supersedes, fileId };
    if ("several" in made) {
      if (entry.supersedes) return refuse({ kind: "correct-one-by-one" });
      const several = made.several.map(({ name, ...part }: Part) => ({
        ...base,
        ...part,
        id: derivedId(entry.id, name),
        idempotencyKey: `${base.idempotencyKey}:${name}`,
      }));
      const stored = await storeTogether(trx, several, at);
      if (stored.ok && !stored.already) await noteWhatFollows(trx, several, at);
      return stored;
    }
    const record = {
      ...base,
      id: entry.id,
      kind: made.kind ?? entry.kind,
      happenedAt: entry.happenedAt,
      grade: made.grade ?? ("measured" as const),
      ...made.where,
      details: made.details,
    };
    const stored = await storeOne(trx, record, at);
    if (stored.ok && !stored.already) await noteWhatFollows(trx, [record], at);
    return stored;
  });
}

/** What the test plans ask of what came, how their tests came out, and what is signed that wants another look. */
async function noteWhatFollows(trx: Kysely<Database>, records: readonly NewRecord[], at: Date): Promise<void> {
  await callTests(trx, records, at);
  await noteOutcomes(trx, records);
  await noteLookAgain(trx, records, at);
}

function timeOf(entry: Entry, at: Date): Failure | null {
  const latest = entry.kind === "line-stop" && entry.until > entry.happenedAt ? entry.until : entry.happenedAt;
  if (latest.getTime() > at.getTime() + CLOCK_SLACK_MS)
    return { kind: "in-the-future", happenedAt: latest.toISOString() };
  if (entry.happenedAt.getFullYear() < 1990)
    return { kind: "too-long-ago", happenedAt: entry.happenedAt.toISOString() };
  return null;
}

/** Entries by which racks come to where test plans ask of them. */
const asksTests: ReadonlySet<string> = new Set(["coat", "load", "trace"]);
/** The nouns an entry names: whoever writes of one of them at the same time goes first or after. */
function locksOf(entry: Entry): string[] {
  const named = entry as unknown as { readonly [field: string]: unknown };
  const of = (field: string, name: (value: string) => string): string[] =>
    typeof named[field] === "string" && named[field] !== "" ? [name(named[field] as string)] : [];
  return [
    lock.key(entry.idempotencyKey),
    ...(entry.supersedes ? [lock.record(entry.supersedes.recordId)] : []),
    ...of("rack", lock.rack),
    ...of("bath", lock.bath),
    ...of("oven", lock.oven),
    ...of("line", lock.line),
    ...of("structure", lock.structure),
    ...of("caseNumber", lock.case),
    ...(entry.kind === "load" ? entry.places.map((place) => lock.rack(place.rack)) : []),
    // What a plan asks of a rack hangs on who came before it; held from the start, so that nobody waits in a ring.
    ...(asksTests.has(entry.kind) ? [lock.testPlans] : []),
  ];
}
