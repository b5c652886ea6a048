import type { SetupItem } from "../setup/setup-data";

/**
 * The set-up sheet for a powder on a part, with a gun where one is named: the one that names most of what is asked goes
 * first; one that names another part or gun does not fit. Null where none fits. O(sheets).
 */
export function sheetFor(
  sheets: Iterable<SetupItem<"setup-sheet">>,
  asked: { readonly powder: string; readonly part: string; readonly gun?: string | null },
): SetupItem<"setup-sheet"> | null {
  const fits = [...sheets].filter(
    ({ data }) =>
      data.powderCode === asked.powder &&
      (data.partCode === null || data.partCode === asked.part) &&
      (data.gun === null || !asked.gun || data.gun === asked.gun),
  );
  const closeness = ({ data }: SetupItem<"setup-sheet">) =>
    (data.partCode === asked.part ? 2 : 0) + (data.gun !== null && data.gun === asked.gun ? 1 : 0);
  return fits.sort((a, b) => closeness(b) - closeness(a) || a.code.localeCompare(b.code))[0] ?? null;
}
