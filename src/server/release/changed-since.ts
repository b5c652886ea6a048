import { isReleased } from "@/core/line";
import type { VerdictItem } from "../rack/judge-rack";

export type ChangedItem = { readonly was: VerdictItem | null; readonly is: VerdictItem };

/** One item among those of a rack. */
export const itemKey = (item: VerdictItem): string =>
  item.item === "test" ? `test:${item.test}` : item.item === "contact" ? `contact:${item.stage}` : item.item;

/**
 * What stands otherwise now than when it was signed, by what came since: a later bath check, a gauge that failed its shims,
 * a defect. What was signed stays as it was; this asks for another look. Of a decision from before its items were kept
 * whole (null) it is not known how they stood: what is out now is worth the look. O(items).
 */
export function changedSince(signed: readonly VerdictItem[] | null, now: readonly VerdictItem[]): ChangedItem[] {
  if (!signed) return now.filter((is) => is.result === "out" || bathOut(is)).map((is) => ({ was: null, is }));
  const before = new Map(signed.map((item) => [itemKey(item), item]));
  return now.flatMap((is) => {
    const was = before.get(itemKey(is)) ?? null;
    const alike = was ? was.result === is.result && bathOut(was) === bathOut(is) : is.result === "in";
    return alike ? [] : [{ was, is }];
  });
}

/** A bath that was near its limit and is found to have been out is another thing, though both are a watch. */
const bathOut = (item: VerdictItem): boolean => item.item === "pretreatment" && item.bathOut;

/**
 * What stands otherwise than when a rack was let go, by its decision; nothing of a rack that is not. A concession from
 * before its items were kept whole does not say which of them were conceded: it is left alone.
 */
export function changedSinceDecision(
  row: { readonly decision: string; readonly verdict: unknown } | undefined,
  now: readonly VerdictItem[],
): ChangedItem[] {
  const signed = signedItems(row?.verdict);
  const comparable = row?.decision === "accept" || (isReleased(row?.decision) && signed !== null);
  return comparable ? changedSince(signed, now) : [];
}

/** The items a decision was signed on; null for one from before they were kept whole. */
export function signedItems(verdict: unknown): readonly VerdictItem[] | null {
  const kept = verdict as { readonly items?: readonly VerdictItem[]; readonly facts?: unknown } | null;
  return kept?.facts && kept.items ? kept.items : null;
}
