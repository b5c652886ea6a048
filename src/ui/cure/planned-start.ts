/** What a plan hands over to the load form: its racks, in its oven, at its set point. */
export type PlannedStart = {
  readonly racks: readonly string[];
  readonly oven: string | null;
  readonly setPointC: number | null;
};
type Search = Readonly<Record<string, string | string[] | undefined>>;

const MOST_RACKS = 40;
const LEAST_SET_C = 50;
const MOST_SET_C = 400;

/** The address a plan leads to. */
export const plannedHref = ({ racks, oven, setPointC }: PlannedStart): string => {
  const query = new URLSearchParams({ racks: racks.join(",") });
  if (oven !== null) query.set("oven", oven);
  if (setPointC !== null) query.set("set", String(Math.round(setPointC)));
  return `/cure?${query}`;
};

/** What a plan handed over in the address; anything odd in it is left out. */
export function plannedStart({ racks, oven, set }: Search, ovens: readonly string[]): PlannedStart {
  const setPointC = typeof set === "string" && set.trim() !== "" ? Number(set) : Number.NaN;
  return {
    racks:
      typeof racks === "string"
        ? [
            ...new Set(
              racks
                .split(",")
                .map((r) => r.trim())
                .filter((r) => r !== ""),
            ),
          ].slice(0, MOST_RACKS)
        : [],
    oven: ovens.find((o) => o === oven) ?? null,
    setPointC: setPointC >= LEAST_SET_C && setPointC <= MOST_SET_C ? setPointC : null,
  };
}
