import { newest, type RackFile } from "../rack/load-rack";
import type { SetupItem } from "../setup/setup-data";

type Sheet = SetupItem<"setup-sheet">;
type Asked = {
  readonly powder: string;
  readonly part: string;
  readonly gun?: string | null;
  readonly tip?: string | null;
};

/**
 * The set-up sheets for a powder on a part, with gun and tip where they are named: the one that names most of what is
 * asked goes first; one that names another part, gun or tip does not fit. O(sheets).
 */
export function sheetsFor(sheets: Iterable<Sheet>, asked: Asked): readonly Sheet[] {
  const { gun = null, tip = null } = asked;
  const fits = [...sheets].filter(
    ({ data }) =>
      data.powderCode === asked.powder &&
      (data.partCode === null || data.partCode === asked.part) &&
      (data.gun === null || !gun || data.gun === gun) &&
      (data.tip === "" || !tip || data.tip === tip),
  );
  const closeness = ({ data }: Sheet) =>
    (data.partCode === asked.part ? 4 : 0) +
    (data.gun !== null && data.gun === gun ? 2 : 0) +
    (data.tip !== "" && data.tip === tip ? 1 : 0);
  return fits.sort((a, b) => closeness(b) - closeness(a) || a.code.localeCompare(b.code));
}
/** The one that fits best; null where none does. */
export const sheetFor = (sheets: Iterable<Sheet>, asked: Asked): Sheet | null => sheetsFor(sheets, asked)[0] ?? null;

/** The sheet a rack was coated by: the one its newest coat names, else the one that fits its powder, part and gun. */
export function sheetOfRack(sheets: ReadonlyMap<string, Sheet>, rack: RackFile): Sheet | null {
  const coat = newest(rack, "coat")?.details.coat?.[0];
  const named = coat?.sheet_id ? sheets.get(coat.sheet_id) : undefined;
  return named ?? sheetFor(sheets.values(), { powder: rack.powder.code, part: rack.part.code, gun: coat?.gun ?? null });
}
