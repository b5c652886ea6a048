/** What a zone of a structure is, in the order they are walked: what fails first is looked at first. */
export const zoneKinds = ["edge", "seam", "weld", "foot", "splash", "contact", "chip", "face", "sheltered"] as const;
export type ZoneKind = (typeof zoneKinds)[number];

/** Zones in the order of a round: as they were numbered, else what fails first. */
export const inRound = <Z extends { readonly order: number | null; readonly what: ZoneKind; readonly name: string }>(
  zones: readonly Z[],
): readonly Z[] =>
  [...zones].sort(
    (a, b) =>
      (a.order ?? Number.POSITIVE_INFINITY) - (b.order ?? Number.POSITIVE_INFINITY) ||
      zoneKinds.indexOf(a.what) - zoneKinds.indexOf(b.what) ||
      a.name.localeCompare(b.name, "en", { numeric: true }),
  );
