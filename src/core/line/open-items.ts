/** What somebody has to look at before a rack goes on, each until it is closed. */
export const openKinds = [
  "bump",
  "light-left",
  "plug-short",
  "fit-not-wiped",
  "seal-in",
  "pre-flight-off",
  "gauge-doubted",
] as const;
export type OpenKind = (typeof openKinds)[number];
/** What is closed by having been looked at: what is open of a rack, and what came after its decision. */
export const closedKinds = [...openKinds, "look-again"] as const;
/** What each holds: nothing that burns, fuses or hides in the cure goes into the oven; the rest is not released. */
export const heldAt: Readonly<Record<OpenKind, "oven" | "release">> = {
  bump: "oven",
  "light-left": "oven",
  "plug-short": "oven",
  "fit-not-wiped": "oven",
  "seal-in": "oven",
  "pre-flight-off": "release",
  "gauge-doubted": "release",
};

export type LampLook = {
  readonly atMs: number;
  readonly faces: readonly string[];
  readonly bumped: boolean;
  /** Null where it was not looked at: an earlier look stands. */
  readonly wiped: boolean | null;
  readonly plugsIn: number | null;
  readonly spots: readonly { readonly face: string; readonly x: number; readonly y: number; readonly what: string }[];
};
export type OpenFacts = {
  /** Under the lamp since the newest coat, in order of time. */
  readonly lamps: readonly LampLook[];
  /** Plugs and masks that the part has. */
  readonly plugsAsked: number;
  readonly fitSurface: boolean;
  /** Seals are to come out, and are on record as out. */
  readonly sealsAsked: boolean;
  readonly sealsOut: boolean;
  /** The newest pre-flight before the coat that has something off: when. */
  readonly flightOffMs: number | null;
  /** The newest set of readings whose gauge failed its shims since: when it was read. */
  readonly doubtedMs: number | null;
  /** What was looked at and closed, in words on record. */
  readonly closed: readonly { readonly what: OpenKind; readonly atMs: number }[];
};
export type OpenItem = {
  readonly what: OpenKind;
  readonly holds: "oven" | "release";
  readonly sinceMs: number | null;
  /** Where to look, on the part's sketch. */
  readonly places: readonly { readonly face: string; readonly x: number; readonly y: number }[];
  /** Counted and asked, of plugs. */
  readonly count: readonly [counted: number, asked: number] | null;
};

/**
 * What is still open of a rack. A later look that leaves something out never undoes an earlier count: each is closed by a
 * look that saw it right, or by somebody who looked and said so. O(looks²) of one rack.
 */
export function openItems(facts: OpenFacts): OpenItem[] {
  const { lamps } = facts;
  const closedAfter = (what: OpenKind, ms: number) => facts.closed.some((c) => c.what === what && c.atMs > ms);
  const out: OpenItem[] = [];
  const add = (what: OpenKind, sinceMs: number | null, more: Partial<OpenItem> = {}) =>
    out.push({ what, holds: heldAt[what], sinceMs, places: [], count: null, ...more });
  const bumps = lamps.filter(
    (l) => (l.bumped || l.spots.some((s) => s.what === "bumped")) && !closedAfter("bump", l.atMs),
  );
  if (bumps[0])
    add("bump", bumps[0].atMs, { places: bumps.flatMap((l) => l.spots.filter((s) => s.what === "bumped")) });
  const left = lamps.flatMap((l, i) =>
    l.spots
      .filter((s) => s.what === "light-left" && !closedAfter("light-left", l.atMs))
      // Seen again and no longer left light: it was sprayed.
      .filter(
        (s) =>
          !lamps
            .slice(i + 1)
            .some(
              (later) =>
                later.faces.includes(s.face) && !later.spots.some((x) => x.face === s.face && x.what === "light-left"),
            ),
      )
      .map((s) => ({ ...s, atMs: l.atMs })),
  );
  if (left[0]) add("light-left", left[0].atMs, { places: left });
  const plugs = lamps.findLast((l) => l.plugsIn !== null);
  if (
    plugs &&
    facts.plugsAsked > 0 &&
    (plugs.plugsIn as number) < facts.plugsAsked &&
    !closedAfter("plug-short", plugs.atMs)
  )
    add("plug-short", plugs.atMs, { count: [plugs.plugsIn as number, facts.plugsAsked] });
  const wiped = lamps.findLast((l) => l.wiped !== null);
  if (facts.fitSurface && wiped?.wiped === false && !closedAfter("fit-not-wiped", wiped.atMs))
    add("fit-not-wiped", wiped.atMs);
  if (facts.sealsAsked && !facts.sealsOut && !facts.closed.some((c) => c.what === "seal-in")) add("seal-in", null);
  if (facts.flightOffMs !== null && !closedAfter("pre-flight-off", facts.flightOffMs))
    add("pre-flight-off", facts.flightOffMs);
  if (facts.doubtedMs !== null && !closedAfter("gauge-doubted", facts.doubtedMs)) add("gauge-doubted", facts.doubtedMs);
  return out;
}
