import type { Kysely } from "kysely";
import type { Failure } from "@/core/result";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { newId } from "../now";
import type { Outcome } from "../outcome";
import { refuse } from "../outcome";
import { canonicalText } from "../record/canonical";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";
import { addVersion, madeBy } from "./add-version";
import { type SetupInput, type SetupItem, type SetupKind, setupAt } from "./setup-data";

export type SetupSaved = Outcome<{ readonly code: string; readonly already: boolean }>;

/**
 * Anything set up, kept as a new version from now on; the versions before stay. Of two people at once one is kept and the
 * other is told whose. Sent again it is there already. Failures: `code-taken`, `unknown-set-up`, `set-up-changed` (by,
 * what), and what `check` finds among all there is of its kind.
 */
export async function saveSetup<K extends SetupKind>(
  db: Kysely<Database>,
  person: Person,
  kind: K,
  input: {
    /** Null where the next free one is given by `nextCode`. */
    readonly code: string | null;
    /** Of what is new, where its caller made one. */
    readonly id?: string;
    /** The version that was on screen; null for what is new. */
    readonly seen: string | null;
    readonly reason: string;
    /** What it is to be, or how that follows from what it is. */
    readonly data: SetupInput<K> | ((now: SetupItem<K>["data"]) => SetupInput<K>);
  },
  clock: Clock,
  more: {
    /** How it is called to a person. */
    readonly what?: string;
    readonly nextCode?: (trx: Kysely<Database>) => Promise<string>;
    readonly check?: (
      trx: Kysely<Database>,
      all: readonly SetupItem<K>[],
      known: SetupItem<K> | undefined,
      at: Date,
    ) => Promise<Failure | null> | Failure | null;
  } = {},
): Promise<SetupSaved> {
  const what = more.what ?? kind.replaceAll("-", " ");
  return write<SetupSaved>(db, [lock.setUp(kind)], clock, async (trx, at) => {
    const all = [...(await setupAt(trx, kind, at)).values()];
    const { code, seen, reason } = input;
    const known = all.find((item) =>
      code === null ? item.id === input.id : item.code.toLowerCase() === code.toLowerCase(),
    );
    // What has its number given to it is never made under one that was typed.
    if (!known && (seen !== null || typeof input.data === "function" || (code !== null && more.nextCode)))
      return refuse({ kind: "unknown-set-up", what, name: code ?? "" });
    const data = typeof input.data === "function" && known ? input.data(known.data) : (input.data as SetupInput<K>);
    if (known && canonicalText(known.data) === canonicalText(data))
      return { ok: true, code: known.code, already: true };
    if (known && seen === null) return refuse({ kind: "code-taken", code: known.code });
    if (known && known.versionId !== seen)
      return refuse({ kind: "set-up-changed", by: await madeBy(trx, known.versionId), what: known.code });
    const wrong = await more.check?.(trx, all, known, at);
    if (wrong) return refuse(wrong);
    if (known) {
      await addVersion<K>(trx, person, { entityId: known.id, at, reason, data });
      return { ok: true, code: known.code, already: false };
    }
    const fresh = code ?? (await more.nextCode?.(trx)) ?? "";
    await addEntity<K>(trx, person, { id: input.id, kind, code: fresh, at, reason, data });
    return { ok: true, code: fresh, already: false };
  });
}

const DAY_MS = 86_400_000;
/** A shop puts on record what it has; so long after it began what is new is new to it. */
const SETTING_UP_DAYS = 30;
/** So long before it began, what it had is taken to have been as it was then put on record: for what it brings along. */
export const BROUGHT_ALONG_DAYS = 366;

/**
 * From when the first version of something holds: now, and in a shop's first month from a year before it began, so that
 * the morning's rounds and the year's files come in. One index probe.
 */
async function holdsFrom(trx: Kysely<Database>, at: Date): Promise<Date> {
  const begun = await trx
    .selectFrom("person_event")
    .select("at")
    .where("what", "=", "made")
    .where("note", "=", "began the shop")
    .executeTakeFirst();
  if (!begun || at.getTime() - begun.at.getTime() > SETTING_UP_DAYS * DAY_MS) return at;
  return new Date(begun.at.getTime() - BROUGHT_ALONG_DAYS * DAY_MS);
}

/** Something new of a kind, under the kind's lock: its entity and first version. Returns its id. */
export async function addEntity<K extends SetupKind>(
  trx: Kysely<Database>,
  person: Person,
  item: {
    readonly id?: string;
    readonly kind: K;
    readonly code: string;
    readonly at: Date;
    readonly reason: string;
    readonly data: SetupInput<K>;
  },
): Promise<string> {
  const id = item.id ?? newId();
  await trx.insertInto("setup_entity").values({ id, kind: item.kind, code: item.code }).execute();
  const since = await holdsFrom(trx, item.at);
  const from = new Date(Math.min(since.getTime(), item.at.getTime()));
  await addVersion<K>(trx, person, { entityId: id, at: from, reason: item.reason, data: item.data });
  return id;
}
