import { type Kysely, sql } from "kysely";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";
import { loadStructure } from "./load-structure";
import { roundOf } from "./round-of";
import { type StructureLine, structuresByDue } from "./structure-facts";
import { type ZoneFile, zonesOf } from "./zones-of";

/** Structures due within so long are taken along without being asked for, days. */
const SOON_DAYS = 60;
/** So many are taken along with all their zones at most; the others are named, and can be asked for. */
export const MOST_TAKEN = 60;

export type TakenStructure = {
  readonly line: StructureLine;
  readonly exposure: readonly string[];
  readonly zones: readonly ZoneFile[];
  /** The newest photo of each zone, by its name in small letters. */
  readonly photos: ReadonlyMap<string, { readonly fileId: string; readonly at: string }>;
  /** The round that this person has begun and not ended; another device may have begun it. */
  readonly round: { readonly id: string; readonly done: readonly string[] };
};

/**
 * What a round needs where there is no network: every structure that a person may see, by when it is due, and of those due
 * soon and those asked for all that was read. Structures left out for their number are among `lines` and not among `taken`.
 * O(structures + captures of those taken).
 */
export async function takeAlong(
  db: Kysely<Database>,
  person: Person,
  asked: readonly string[],
  at: Date,
): Promise<{ readonly lines: readonly StructureLine[]; readonly taken: readonly TakenStructure[] }> {
  const lines = await structuresByDue(db, person);
  const wanted = new Set(asked.map((code) => code.toLowerCase()));
  const until = at.getTime() + SOON_DAYS * 86_400_000;
  const chosen = [
    ...lines.filter((l) => wanted.has(l.code.toLowerCase())),
    ...lines.filter((l) => !wanted.has(l.code.toLowerCase()) && l.due.at.getTime() <= until),
  ].slice(0, MOST_TAKEN);
  const taken: TakenStructure[] = [];
  for (const line of chosen) {
    const file = await loadStructure(db, person, line.code, at);
    if (!file) continue;
    const zones = await zonesOf(db, file.id, file.since);
    const round = roundOf(zones, person, at);
    taken.push({
      line,
      exposure: file.exposure,
      zones,
      photos: await newestPhotos(db, file.id),
      round: { id: round.id, done: [...round.done] },
    });
  }
  return { lines, taken };
}

async function newestPhotos(db: Kysely<Database>, structureId: string): Promise<TakenStructure["photos"]> {
  const { rows } = await sql<{ zone: string; file: string; at: Date }>`
    select distinct on (lower(p.zone)) lower(p.zone) as zone, r.file_id as file, r.happened_at as at
    from record r join photo p on p.record_id = r.id
    where r.structure_id = ${structureId} and r.kind = 'photo' and r.file_id is not null and p.zone is not null and ${stands("r.id")}
    order by lower(p.zone), r.happened_at desc, r.id desc`.execute(db);
  return new Map(rows.map((r) => [r.zone, { fileId: r.file, at: r.at.toISOString() }]));
}
