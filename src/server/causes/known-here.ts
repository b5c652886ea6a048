import { type Kysely, sql } from "kysely";
import { type Knowledge, learnedWeights, loadKnowledge, withSite } from "@/core/diagnosis";
import { valueOrThrow } from "@/core/result";
import type { Database } from "@/db/schema";
import { type SetupData, type SetupItem, setupAt } from "../setup/setup-data";

export type SiteKnowledge = SetupData<"knowledge">;
export const noneOfOurOwn: SiteKnowledge = { weights: [], bases: [], learnsFrom: [], watches: [] };
export const KNOWLEDGE_CODE = "knowledge";

export type KnownHere = {
  /** What ships, with the site's own weights laid over it. */
  readonly knowledge: Knowledge;
  readonly own: SiteKnowledge;
  readonly item: SetupItem<"knowledge"> | null;
  /** Defect → cause → cases confirmed here that count. */
  readonly confirmed: ReadonlyMap<string, ReadonlyMap<string, number>>;
};

/** What the site knows at a moment: the knowledge that ships, its own weights, and its confirmed cases. Two small queries. */
export async function knownHere(db: Kysely<Database>, at: Date): Promise<KnownHere> {
  const [items, { rows }] = await Promise.all([
    setupAt(db, "knowledge", at),
    sql<{ defect: string; cause: string; at: Date }>`
      select c.defect, f.cause, f.happened_at as at from root_cause_case c
      join lateral (select x.cause, r.happened_at from record r join confirmation x on x.record_id = r.id where r.case_id = c.id and r.kind = 'confirmation'
        order by r.happened_at desc, r.stored_at desc, r.id desc limit 1) f on true where f.happened_at <= ${at}`.execute(
      db,
    ),
  ]);
  const item = [...items.values()].find((i) => i.code === KNOWLEDGE_CODE) ?? null;
  const own = item?.data ?? noneOfOurOwn;
  const confirmed = new Map<string, Map<string, number>>();
  for (const { defect, cause, at: when } of rows) {
    const from = own.learnsFrom.filter((l) => l.defect === defect).at(-1)?.from;
    if (from && when.getTime() < Date.parse(from)) continue;
    const of = confirmed.get(defect) ?? new Map<string, number>();
    of.set(cause, (of.get(cause) ?? 0) + 1);
    confirmed.set(defect, of);
  }
  return { knowledge: valueOrThrow(withSite(loadKnowledge(), own)), own, item, confirmed };
}

/** How common each cause of a defect is taken to be here, by what was confirmed. */
export function baseWeights(known: KnownHere, defect: string): ReadonlyMap<string, number> {
  return learnedWeights(
    known.knowledge.defects.get(defect)?.causes ?? new Map(),
    known.confirmed.get(defect) ?? new Map(),
  );
}
