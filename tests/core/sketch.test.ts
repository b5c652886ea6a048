import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  addCorner,
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
