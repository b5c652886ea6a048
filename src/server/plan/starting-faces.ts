import type { SetupInput } from "../setup/setup-data";

/** The sketch a part starts with: front, back and the underside that is easily forgotten, five spots each; a better one can follow as a new version. */
export const startingFaces = (): SetupInput<"part">["faces"] =>
  [
    ["F", "Front"],
    ["B", "Back"],
    ["U", "Underside"],
  ].map(([id, name]) => ({
    id: id as string,
    name: name as string,
    outline: [
      [0, 0],
      [100, 0],
      [100, 100],
      [0, 100],
    ],
    recessFromY: null,
    spots: (
      [
        [50, 50],
        [14, 14],
        [86, 14],
        [14, 86],
        [86, 86],
      ] as [number, number][]
    ).map((at, i) => ({ id: `${id}${i + 1}`, at })),
  }));
