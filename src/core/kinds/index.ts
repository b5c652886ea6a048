import * as v from "valibot";
import { allKinds } from "./all";
import type { Ability, Columns, Kind } from "./kind";

export { type ActionState, actionStates } from "./action-check";
export { bakeTimings } from "./bake";
export { complaintWants } from "./complaint";
export { answeredBy } from "./complaint-answer";
export type { Ability, Columns, ColumnType, Kind } from "./kind";
export { type SitePlanDocument, sitePlanDocument } from "./site-plan";

type Known = (typeof allKinds)[number];
export type RecordKind = Known["kind"];
type Union<T> = T extends T ? T : never;
type Merged<U> = (U extends U ? (x: U) => void : never) extends (x: infer I) => void ? I : never;
/** Detail columns by table, of every kind. */
export type DetailTables = Merged<Known["tables"]>;
type Entries = Merged<Known["entries"]>;
export type EntryKind = keyof Entries & string;
/** What people and instruments enter, checked. */
export type Entry = { [K in EntryKind]: v.InferOutput<Entries[K]["schema"]> }[EntryKind];
export type EntryOf<K extends EntryKind> = Union<Extract<Entry, { kind: K }>>;
/** What they enter, before it is checked. */
export type EntryInput = { [K in EntryKind]: v.InferInput<Entries[K]["schema"]> }[EntryKind];

const registry = new Map<string, Kind>(allKinds.map((kind) => [kind.kind, kind]));
const entrySchemas = new Map<string, { readonly may: Ability; readonly schema: v.GenericSchema }>();
/** Columns by table of every kind there is. */
export const detailTables: Record<string, Columns> = {};
const takeIn = (kind: Kind): void => {
  registry.set(kind.kind, kind);
  Object.assign(detailTables, kind.tables);
  for (const [name, entry] of Object.entries(kind.entries)) entrySchemas.set(name, entry);
};
for (const kind of allKinds) takeIn(kind);

/** Takes in a kind from outside this list, at start: all that follows from a kind follows for it as well. */
export const addKind = takeIn;
export const kinds = (): readonly Kind[] => [...registry.values()];
/** Undefined for what is no kind here. */
export const kindOf = (kind: string): Kind | undefined => registry.get(kind);
/** The detail tables a kind's records write to. */
export const tablesOf = (kind: string): readonly string[] => {
  const known = registry.get(kind);
  return known ? [...Object.keys(known.tables), ...(known.also ?? [])] : [];
};
/** Kinds that change how things stand. */
export const changes = (): readonly string[] => kinds().flatMap((k) => (k.change ? [k.kind] : []));
/** Everything that is entered, by name. */
export const entryKinds = (): readonly string[] => [...entrySchemas.keys()];
/** Who may enter it; undefined for what is no entry. */
export const mayEnter = (entry: string): Ability | undefined => entrySchemas.get(entry)?.may;

/** Checks an entry against the schema of its own kind; an unknown kind is refused with those there are. */
export function parseEntry(input: unknown): v.SafeParseResult<v.GenericSchema<unknown, Entry>> {
  const name = (input as { kind?: unknown } | null)?.kind;
  const known = typeof name === "string" ? entrySchemas.get(name) : undefined;
  return v.safeParse(
    (known?.schema ?? v.object({ kind: v.picklist([...entrySchemas.keys()]) })) as v.GenericSchema<unknown, Entry>,
    input,
  );
}
export { type TiedTo, tiedTo } from "./confirmation";
export { type TrialArm, trialArms } from "./trial-result";
