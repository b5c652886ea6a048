import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  addCorner,
  awayFrom,
  checkSketch,
  crossesItself,
  edgesM,
  type Face,
  facesOf,
  firstSketch,
  inside,
  isInside,
  kindAt,
  moveArea,
  moveCorner,
  moveSpot,
  nextSpotId,
  partFeatures,
  placesMissing,
  presetFor,
  presets,
  removeCorner,
  type SketchPoint,
  sidesOf,
  sizeArea,
  substrates,
  withSpot,
} from "@/core/plan";
import { valueOrThrow } from "@/core/result";

const face = (over: Partial<Face> = {}): Face => ({ ...(facesOf("plate")[0] as Face), ...over });
const fails = (faces: readonly Face[]) => {
  const checked = checkSketch(faces);
  return checked.ok ? "ok" : checked.error.kind;
};
const box = { lengthMm: 400, widthMm: 300, heightMm: 200 };

describe("a part's first sketch", () => {
  test("each preset is a sketch that can be kept", () => {
    for (const preset of presets) expect(valueOrThrow(checkSketch(facesOf(preset))).length).toBeGreaterThan(1);
  });
  test("follows what was said at intake", () => {
    const of = (
      features: (typeof partFeatures)[number][],
      lengthMm: number,
      widthMm: number,
      heightMm: number,
      substrate: (typeof substrates)[number] = "hot-rolled-steel",
    ) => presetFor({ features, substrate, box: { lengthMm, widthMm, heightMm } });
    expect(of(["open-frame"], 900, 600, 40)).toBe("frame");
    expect(of([], 220, 180, 120, "cast-aluminium")).toBe("casting");
    expect(of(["hollow-section"], 2600, 120, 120)).toBe("post");
    expect(of(["hollow-section"], 2600, 240, 60)).toBe("tube");
    expect(of([], 2600, 40, 40)).toBe("tube");
    expect(of([], 400, 300, 20)).toBe("plate");
    expect(of([], 400, 300, 200)).toBe("box");
  });
  test("has places in its recesses and on its edges where it has them, and always holds together", () => {
    fc.assert(
      fc.property(
        fc.subarray([...partFeatures]),
        fc.constantFrom(...substrates),
        fc.tuple(
          fc.integer({ min: 5, max: 6000 }),
          fc.integer({ min: 5, max: 6000 }),
          fc.integer({ min: 1, max: 6000 }),
        ),
        (features, substrate, [lengthMm, widthMm, heightMm]) => {
          const faces = firstSketch({ features, substrate, box: { lengthMm, widthMm, heightMm } });
          expect(fails(faces)).toBe("ok");
          expect(placesMissing(features, faces)).toEqual([]);
        },
      ),
      { numRuns: 200 },
    );
    expect(placesMissing(["deep-recess", "sharp-edges"], facesOf("box"))).toEqual(["recess", "edge"]);
    // A line under which it is a recess is a recess.
    expect(placesMissing(["deep-recess"], [face({ recessFromY: 80 })])).toEqual([]);
  });
});

describe("what cannot be a sketch", () => {
  test("is named", () => {
    expect(fails([])).toBe("no-face");
    expect(fails([face(), face({ id: "X", spots: [] })])).toBe("face-named-twice");
    expect(
      fails([
        face({
          outline: [
            [0, 0],
            [100, 0],
          ],
        }),
      ]),
    ).toBe("bad-outline");
    expect(
      fails([
        face({
          outline: [
            [0, 0],
            [100, 100],
            [100, 0],
            [0, 100],
          ],
        }),
      ]),
    ).toBe("bad-outline");
    expect(
      fails([
        face({
          outline: [
            [0, 0],
            [101, 0],
            [100, 100],
          ],
        }),
      ]),
    ).toBe("outside-the-field");
    expect(
      fails([
        face({
          outline: [
            [0, 0],
            [Number.NaN, 0],
            [100, 100],
          ],
        }),
      ]),
    ).toBe("outside-the-field");
    expect(
      fails([
        face({
          outline: [
            [0, 0],
            [10, 0],
            [10, 10],
            [0, 10],
          ],
        }),
      ]),
    ).toBe("spot-outside");
    expect(fails([face({ spots: [] })])).toBe("no-spot");
    expect(fails([face({ areas: [{ kind: "bare", from: [10, 10], to: [10, 40], note: "" }] })])).toBe("empty-area");
    expect(fails([face({ sizeMm: [0, 100] })])).toBe("bad-size");
    expect(fails([face(), { ...face(), id: "G", name: "Other" }])).toBe("spot-named-twice");
    expect(
      fails([
        face({
          spots: Array.from({ length: 61 }, (_, i) => ({
            id: `F${i}`,
            at: [50, 50] as SketchPoint,
            note: "",
            group: "face" as const,
          })),
        }),
      ]),
    ).toBe("too-many");
  });
});

describe("drawing", () => {
  test("a corner goes into the side it is nearest to, moves within the field, and three stay", () => {
    const five = addCorner(face(), [50, 3]);
    expect(five.outline).toEqual([
      [0, 0],
      [50, 3],
      [100, 0],
      [100, 100],
      [0, 100],
    ]);
    expect(moveCorner(five, 1, [50.4, -20]).outline[1]).toEqual([50, 0]);
    expect(removeCorner(five, 1).outline).toEqual(face().outline);
    const three = face({
      outline: [
        [0, 0],
        [100, 0],
        [50, 100],
      ],
    });
    expect(removeCorner(three, 0)).toBe(three);
  });
  test("a spot keeps its name, and one taken off does not give its name to the next but the last", () => {
    expect(nextSpotId(face())).toBe("F6");
    expect(nextSpotId({ id: "F", spots: face().spots.filter((s) => s.id !== "F2") })).toBe("F6");
    const edge = withSpot(face(), [face()], "edge");
    expect(edge.spots.at(-1)).toMatchObject({ id: "F6", group: "edge" });
    expect(isInside(edge.spots.at(-1)?.at ?? [0, 0], edge.outline)).toBe(true);
    expect(moveSpot(edge, 5, [120, 40]).spots[5]?.at).toEqual([100, 40]);
    // Another face has that name already.
    const other = {
      ...face(),
      id: "G",
      spots: [{ id: "F6", at: [50, 50] as SketchPoint, note: "", group: "face" as const }],
    };
    expect(withSpot(face(), [face(), other], "face").spots.at(-1)?.id).toBe("F-2");
  });
  test("an area moves as a whole and stays on the field; the one drawn last is on top", () => {
    const drawn = face({
      zone: "B",
      areas: [
        { kind: "A", from: [10, 10], to: [60, 60], note: "" },
        { kind: "bare", from: [40, 40], to: [50, 50], note: "thread" },
      ],
    });
    expect(kindAt(drawn, [45, 45])).toBe("bare");
    expect(kindAt(drawn, [20, 20])).toBe("A");
    expect(kindAt(drawn, [80, 80])).toBe("B");
    expect(moveArea(drawn, 0, [70, -70]).areas[0]).toMatchObject({ from: [50, 0], to: [100, 50] });
    expect(sizeArea(drawn, 1, [130, 45.4]).areas[1]).toMatchObject({ from: [40, 40], to: [100, 45] });
  });
  test("within and crossed, held against each other on outlines drawn by chance", () => {
    expect(crossesItself(facesOf("frame")[0]?.outline ?? [])).toBe(false);
    expect(isInside([50, 50], facesOf("frame")[0]?.outline ?? [])).toBe(false);
    expect(isInside([9, 50], facesOf("frame")[0]?.outline ?? [])).toBe(true);
    fc.assert(
      fc.property(fc.array(fc.double({ min: 8, max: 48, noNaN: true }), { minLength: 3, maxLength: 14 }), (radii) => {
        // A star round its middle never crosses itself, and its middle is inside it where no side passes behind it.
        const star = radii.map((r, i): SketchPoint => {
          const angle = (i / radii.length) * 2 * Math.PI;
          return [50 + r * Math.cos(angle), 50 + r * Math.sin(angle)];
        });
        expect(crossesItself(star)).toBe(false);
        if (radii.length > 3) expect(isInside([50, 50], star)).toBe(true);
        expect(isInside(inside(star), star)).toBe(true);
        expect(isInside([99.5, 0.5], star)).toBe(false);
      }),
    );
  });
  test("edges of a shape, by its box", () => {
    expect(edgesM("plate", box)).toBeCloseTo(1.4, 12);
    expect(edgesM("box", box)).toBeCloseTo(3.6, 12);
    expect(edgesM("frame", box)).toBeCloseTo(2.8, 12);
    expect(edgesM("tube", { lengthMm: 2000, widthMm: 60, heightMm: 60 })).toBeCloseTo(2 * Math.PI * 0.06, 12);
    expect(edgesM("post", { lengthMm: 2600, widthMm: 120, heightMm: 120 })).toBeCloseTo(10.4 + 0.96, 12);
    expect(edgesM("casting", box)).toBeNull();
  });
});

describe("places on an outline", () => {
  const square: readonly SketchPoint[] = [
    [20, 20],
    [80, 20],
    [80, 80],
    [20, 80],
  ];
  const bar: readonly SketchPoint[] = [
    [0, 0],
    [100, 0],
    [100, 40],
    [0, 40],
  ];
  /** Round three sides of a hole that is open to the right. */
  const bracket: readonly SketchPoint[] = [
    [0, 0],
    [100, 0],
    [100, 10],
    [30, 10],
    [30, 70],
    [100, 70],
    [100, 100],
    [0, 100],
  ];
  test("within, on it, and a hair outside", () => {
    for (const on of [
      [20, 20],
      [80, 50],
      [50, 80],
      [20, 79],
      [50, 50],
    ] as const)
      expect(isInside(on, square), String(on)).toBe(true);
    for (const off of [
      [19.9, 50],
      [80.1, 50],
      [50, 19.9],
      [50, 80.1],
      // On the line of a side, beyond its ends.
      [10, 20],
      [90, 20],
      [20, 10],
      [20, 90],
    ] as const)
      expect(isInside(off, square), String(off)).toBe(false);
    expect(isInside([60, 40], bracket)).toBe(false);
    expect(isInside([60, 5], bracket)).toBe(true);
  });
  test("its middle where that is inside, else the place farthest in", () => {
    expect(inside(square)).toEqual([50, 50]);
    const place = inside(bracket);
    expect(isInside(place, bracket)).toBe(true);
    // Where its two arms meet its back there is most room: no other point of the field is so far from every side.
    const depth = (p: SketchPoint) => Math.min(...sidesOf(bracket).map((side) => awayFrom(p, side)));
    for (let x = 5; x <= 95; x += 5)
      for (let y = 5; y <= 95; y += 5)
        if (isInside([x, y], bracket)) expect(depth([x, y])).toBeLessThanOrEqual(depth(place));
    expect(depth(place)).toBe(15);
  });
  test("how far from a side: across it, and from its ends beyond them", () => {
    const side = [
      [10, 10],
      [50, 10],
    ] as const;
    expect(awayFrom([30, 25], side)).toBe(15);
    expect(awayFrom([53, 14], side)).toBe(5);
    expect(awayFrom([7, 6], side)).toBe(5);
    expect(awayFrom([13, 14], [side[0], side[0]])).toBe(5);
  });
  test("a spot more stands where such a place is: in the middle, just within the longest side, low in a recess", () => {
    const all = [face({ outline: bar, spots: [] })];
    const first = all[0] as Face;
    const at = (group: "face" | "edge" | "recess", on: Face) => withSpot(on, [on], group).spots.at(-1)?.at;
    expect(at("face", face({ outline: square, spots: [] }))).toEqual([50, 50]);
    // The longest side of a bar is its upper one: six hundredths of the way in from its middle.
    expect(at("edge", first)).toEqual([50, 1]);
    const tall = face({
      outline: [
        [40, 0],
        [60, 0],
        [60, 100],
        [40, 100],
      ],
      spots: [],
    });
    expect(at("edge", tall)).toEqual([59, 50]);
    expect(at("recess", tall)).toEqual([50, 94]);
    // Where that would be off the face, it is inside it all the same.
    expect(at("recess", first)).toEqual([50, 20]);
    expect(withSpot(first, all, "face", [3, 4]).spots.at(-1)?.at).toEqual([3, 4]);
  });
  test("its name is the next on its face, and no other face's", () => {
    const one = (id: string, ids: readonly string[]) =>
      face({ id, spots: ids.map((spot) => ({ id: spot, at: [50, 50], note: "", group: "face" })) });
    expect(nextSpotId(one("F", []))).toBe("F1");
    expect(nextSpotId(one("F", ["F2", "F7", "F3"]))).toBe("F8");
    expect(nextSpotId(one("F", ["left"]))).toBe("F1");
    const [a, b] = [one("F", ["F1"]), one("G", ["F2", "F-2"])];
    expect(withSpot(a, [a, b], "face").spots.at(-1)?.id).toBe("F-3");
  });
  test("what the first sketch adds stands on its first face alone", () => {
    const faces = firstSketch({ features: ["deep-recess", "sharp-edges"], substrate: "hot-rolled-steel", box });
    const groups = faces.map((f) => f.spots.filter((s) => s.group !== "face").map((s) => s.group));
    expect(groups).toEqual([["recess", "edge"], ...faces.slice(1).map(() => [])]);
  });
});

describe("how much a sketch holds, and what shape follows from sizes, at the limit and over it", () => {
  const shape = (lengthMm: number, widthMm: number, heightMm: number, hollow = false) =>
    presetFor({
      features: hollow ? ["hollow-section"] : [],
      substrate: "hot-rolled-steel",
      box: { lengthMm, widthMm, heightMm },
    });
  test("long is over five times the next side, thin under a fifth of it, hollow and near square a post", () => {
    expect(shape(500, 100, 100)).toBe("box");
    expect(shape(501, 100, 100)).toBe("tube");
    expect(shape(400, 100, 20)).toBe("box");
    expect(shape(400, 100, 19.9)).toBe("plate");
    expect(shape(900, 149, 100, true)).toBe("post");
    expect(shape(900, 150, 100, true)).toBe("tube");
    // In whatever order the sides were typed.
    expect(shape(100, 501, 100)).toBe("tube");
    expect(shape(19.9, 400, 100)).toBe("plate");
  });
  const many = <T>(n: number, one: (i: number) => T) => Array.from({ length: n }, (_, i) => one(i));
  test("faces, corners, spots, sizes and areas", () => {
    const faces = (n: number) =>
      many(n, (i) => face({ id: `P${i}`, name: `Face ${i}`, spots: i > 0 ? [] : face().spots }));
    expect(fails(faces(12))).toBe("ok");
    expect(fails(faces(13))).toBe("too-many");
    const round = (n: number) =>
      face({
        outline: many(n, (i): SketchPoint => {
          const angle = (i / n) * 2 * Math.PI;
          return [50 + 50 * Math.cos(angle), 50 + 50 * Math.sin(angle)];
        }),
        spots: [{ id: "F1", at: [50, 50], note: "", group: "face" }],
      });
    expect(fails([round(40)])).toBe("ok");
    expect(fails([round(41)])).toBe("too-many");
    const spotted = (n: number) =>
      face({ spots: many(n, (i) => ({ id: `F${i}`, at: [50, 50], note: "", group: "face" })) });
    expect(fails([spotted(60)])).toBe("ok");
    expect(fails([spotted(61)])).toBe("too-many");
    expect(fails([face({ sizeMm: [30_000, 1] })])).toBe("ok");
    expect(fails([face({ sizeMm: [30_001, 1] })])).toBe("bad-size");
    expect(fails([face({ sizeMm: [10, 0] })])).toBe("bad-size");
    const area = (to: SketchPoint) => face({ areas: [{ kind: "bare", from: [10, 10], to, note: "" }] });
    expect(fails([area([11, 11])])).toBe("ok");
    expect(fails([area([10.9, 40])])).toBe("empty-area");
    expect(fails([area([40, 10.9])])).toBe("empty-area");
    expect(fails([area([101, 40])])).toBe("outside-the-field");
    expect(fails([face(), face({ id: "f", name: "Other", spots: [] })])).toBe("face-named-twice");
    expect(fails([face(), face({ id: "X", name: " front ", spots: [] })])).toBe("face-named-twice");
  });
  test("moves: to whole hundredths on the field; an area keeps its size and stays on it", () => {
    expect(moveSpot(face(), 0, [33.6, 120]).spots[0]?.at).toEqual([34, 100]);
    expect(moveSpot(face(), 0, [-3, 0.4]).spots[0]?.at).toEqual([0, 0]);
    const areas: Face["areas"] = [{ kind: "C", from: [80, 60], to: [40, 90], note: "" }];
    const moved = (by: SketchPoint) => {
      const [a] = moveArea(face({ areas }), 0, by).areas;
      return [a?.from, a?.to];
    };
    expect(moved([5, 5])).toEqual([
      [85, 65],
      [45, 95],
    ]);
    expect(moved([50, 50])).toEqual([
      [100, 70],
      [60, 100],
    ]);
    expect(moved([-90, -90])).toEqual([
      [40, 0],
      [0, 30],
    ]);
    const on = (place: SketchPoint) => kindAt({ zone: "A", areas }, place);
    for (const place of [
      [40, 60],
      [80, 90],
      [60, 75],
    ] as const)
      expect(on(place), String(place)).toBe("C");
    for (const place of [
      [39, 75],
      [81, 75],
      [60, 59],
      [60, 91],
    ] as const)
      expect(on(place), String(place)).toBe("A");
    // The one drawn last lies on top.
    expect(
      kindAt({ zone: "A", areas: [...areas, { kind: "bare", from: [50, 70], to: [60, 80], note: "" }] }, [55, 75]),
    ).toBe("bare");
    // A corner more stands in the side nearest to it, the last one too.
    expect(addCorner(face(), [0, 50]).outline.at(-1)).toEqual([0, 50]);
    expect(addCorner(face(), [100, 50]).outline[2]).toEqual([100, 50]);
    const triangle = face({ outline: face().outline.slice(0, 3) });
    expect(removeCorner(triangle, 0)).toBe(triangle);
    expect(removeCorner(face(), 1).outline).toHaveLength(3);
  });
});
