import { describe, expect, test } from "vitest";
import { type Face, faceFilms } from "@/ui/thickness/face-films";

const square: Face["outline"] = [
  [0, 0],
  [100, 0],
  [100, 100],
  [0, 100],
];
const face = (id: string, recessFromY: number | null, ys: readonly number[]): Face => ({
  id,
  name: `Face ${id}`,
  outline: square,
  recessFromY,
  spots: ys.map((y, i) => ({ id: `${id}${i + 1}`, at: [50, y], note: "" })),
});

describe("film face by face", () => {
  test("mean, lowest and highest of the spots that were read; a face not read has none", () => {
    const means = new Map([
      ["A1", 70],
      ["A2", 80],
    ]);
    const [a, b] = faceFilms([face("A", null, [10, 50, 90]), face("B", null, [10])], means);
    expect(a).toEqual({
      id: "A",
      name: "Face A",
      meanUm: 75,
      lowestUm: 70,
      highestUm: 80,
      spots: 2,
      means: [70, 80],
      whole: true,
    });
    expect(b).toMatchObject({ meanUm: null, lowestUm: null, highestUm: null, spots: 0 });
  });
  test("a recess is a group of its own beside its face: the whole mean hides what it lacks", () => {
    const means = new Map([
      ["A1", 90],
      ["A2", 90],
      ["A3", 30],
    ]);
    const groups = faceFilms([face("A", 85, [10, 50, 90])], means);
    expect(groups.map((g) => g.id)).toEqual(["A", "A-recess"]);
    expect(groups[0]?.meanUm).toBe(70);
    expect(groups[1]).toMatchObject({ name: "Face A: at the recess", meanUm: 30, spots: 1, whole: false });
  });
  test("a spot just above the line counts as in the recess, one well above does not", () => {
    const recess = (y: number) => faceFilms([face("A", 80, [10, y])], new Map()).map((g) => g.id);
    expect(recess(71)).toContain("A-recess");
    expect(recess(69)).not.toContain("A-recess");
  });
  test("a face that is all recess, or has none, stays one group", () => {
    expect(faceFilms([face("A", 0, [40, 60])], new Map())).toHaveLength(1);
    expect(faceFilms([face("A", null, [40, 60])], new Map())).toHaveLength(1);
    expect(faceFilms([face("A", 99, [10, 20])], new Map())).toHaveLength(1);
  });
});
