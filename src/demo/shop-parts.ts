import type { Seed } from "./shop-wash";

const rectangle: [number, number][] = [
  [0, 0],
  [100, 0],
  [100, 100],
  [0, 100],
];
const post = (id: string, name: string, recessFromY: number | null) => ({
  id,
  name,
  outline: rectangle,
  recessFromY,
  spots: [8, 28, 48, 68, 86].map((y, i) => ({
    id: `${id}${i + 1}`,
    at: [50, y] as [number, number],
    note: recessFromY !== null && y > recessFromY - 10 ? "by the foot plate" : "",
  })),
});

/** What the demo's customers bring. */
export const parts: readonly Seed[] = [
  {
    kind: "part",
    code: "SHELTER-POST",
    data: {
      name: "Tram shelter post",
      substrate: "hot-rolled-steel",
      thickestMm: 6,
      features: ["hollow-section", "deep-recess"],
      measures: {
        box: { lengthMm: 2600, widthMm: 120, heightMm: 120 },
        thinnestMm: 4,
        massKg: 38,
        areaM2: 1.3,
        lapM: 0,
        edgeM: 1.2,
      },
      marks: [
        { kind: "hang", face: "A", at: [12, 4], note: "threaded hole, hidden by the cap" },
        { kind: "hang", face: "A", at: [88, 4], note: "threaded hole, hidden by the cap" },
        { kind: "drain", face: "A", at: [50, 98], note: "foot plate hole" },
      ],
      faces: [post("A", "Face A, road side", 92), post("B", "Face B, seat side", 92)],
    },
  },
  ...(
    [
      ["MOORING-BASE", "Mooring base, 25 mm", "hot-rolled-steel", 25, 25, 31, 0.4, "T", [400, 400, 25]],
      ["BOLLARD-COVER", "Bollard cover, 2 mm", "cold-rolled-steel", 2, 2, 2.6, 0.36, "T", [420, 420, 40]],
      ["TEST-PANEL", "Test panel", "cold-rolled-steel", 2, 2, 0.23, 0.03, "P", [150, 100, 2]],
      ["LAMP-COLLAR", "Polished lamp collar", "aluminium", 4, 3, 0.9, 0.18, "C", [240, 240, 90]],
    ] as const
  ).map(
    ([code, name, substrate, thickestMm, thinnestMm, massKg, areaM2, face, box]): Seed => ({
      kind: "part",
      code,
      data: {
        name,
        substrate,
        thickestMm,
        features: [],
        measures: {
          box: { lengthMm: box[0], widthMm: box[1], heightMm: box[2] },
          thinnestMm,
          massKg,
          areaM2,
          lapM: 0,
        },
        faces: [
          {
            id: face,
            name: "Face",
            outline: [
              [0, 0],
              [100, 0],
              [100, 100],
              [0, 100],
            ],
            recessFromY: null,
            spots: [
              [20, 20],
              [80, 20],
              [50, 50],
              [20, 80],
              [80, 80],
            ].map(([x, y], i) => ({ id: `${face}${i + 1}`, at: [x, y] as [number, number], note: "" })),
          },
        ],
      },
    }),
  ),
  {
    kind: "part",
    code: "PIER-GATE",
    data: {
      name: "Pier gate, 7 m",
      substrate: "hot-rolled-steel",
      thickestMm: 5,
      features: [],
      measures: {
        box: { lengthMm: 7200, widthMm: 180, heightMm: 2400 },
        thinnestMm: 4,
        massKg: 310,
        areaM2: 22,
        lapM: 0,
      },
      faces: (["L", "R"] as const).map((id) => ({
        id,
        name: id === "L" ? "Left leaf" : "Right leaf",
        outline: [
          [4, 6],
          [96, 6],
          [96, 94],
          [4, 94],
        ],
        recessFromY: null,
        spots: [
          [15, 20],
          [85, 20],
          [50, 50],
          [15, 80],
          [85, 80],
        ].map(([x, y], i) => ({ id: `${id}${i + 1}`, at: [x, y] as [number, number], note: "" })),
      })),
    },
  },
  {
    kind: "part",
    code: "LAMP-HEAD",
    data: {
      name: "Cast lamp head",
      substrate: "cast-aluminium",
      thickestMm: 8,
      features: ["deep-recess"],
      measures: {
        box: { lengthMm: 420, widthMm: 320, heightMm: 260 },
        thinnestMm: 5,
        massKg: 6.8,
        areaM2: 0.62,
        lapM: 0,
      },
      faces: [
        {
          id: "H",
          name: "Hood",
          outline: [
            [20, 0],
            [80, 0],
            [100, 60],
            [100, 100],
            [0, 100],
            [0, 60],
          ],
          recessFromY: null,
          spots: (
            [
              [50, 14],
              [24, 46],
              [76, 46],
              [26, 84],
              [74, 84],
            ] as [number, number][]
          ).map((at, i) => ({ id: `H${i + 1}`, at, note: "" })),
        },
        {
          id: "R",
          name: "Rear",
          outline: rectangle,
          recessFromY: null,
          spots: (
            [
              [26, 24],
              [74, 24],
              [50, 50],
              [26, 78],
              [74, 78],
            ] as [number, number][]
          ).map((at, i) => ({ id: `R${i + 1}`, at, note: "" })),
        },
      ],
    },
  },
  {
    kind: "part",
    code: "FERRY-SEAT",
    data: {
      name: "Landing-stage seat",
      substrate: "hot-rolled-steel",
      thickestMm: 5,
      features: ["sharp-edges"],
      measures: {
        box: { lengthMm: 1500, widthMm: 480, heightMm: 450 },
        thinnestMm: 4,
        massKg: 27,
        areaM2: 1.9,
        lapM: 0,
        edgeM: 4.5,
      },
      marks: [
        { kind: "hang", face: "L", at: [20, 6], note: "slot under the seat" },
        { kind: "hang", face: "L", at: [80, 6], note: "slot under the seat" },
        { kind: "mask", face: "L", at: [50, 96], note: "foot, 4 bolt holes" },
        { kind: "rest", face: "L", at: [50, 99], note: "touch up after cure" },
      ],
      faces: [
        {
          id: "S",
          name: "Seat",
          outline: [
            [0, 20],
            [100, 20],
            [100, 80],
            [0, 80],
          ],
          recessFromY: null,
          spots: (
            [
              [20, 32],
              [74, 32],
              [48, 50],
              [20, 68],
              [74, 68],
            ] as [number, number][]
          ).map((at, i) => ({ id: `S${i + 1}`, at, note: "" })),
        },
        {
          id: "L",
          name: "Legs",
          outline: [
            [10, 0],
            [90, 0],
            [80, 100],
            [20, 100],
          ],
          recessFromY: null,
          spots: [10, 30, 50, 70, 90].map((y, i) => ({ id: `L${i + 1}`, at: [50, y] as [number, number], note: "" })),
        },
      ],
    },
  },
  {
    kind: "part",
    code: "GREENHOUSE-FRAME",
    data: {
      name: "Greenhouse frame",
      substrate: "cold-rolled-steel",
      thickestMm: 3,
      features: ["hollow-section", "open-frame"],
      measures: {
        box: { lengthMm: 1800, widthMm: 40, heightMm: 900 },
        thinnestMm: 2,
        massKg: 9,
        areaM2: 0.9,
        lapM: 0,
        edgeM: 0.8,
      },
      marks: [
        { kind: "hang", face: "F", at: [20, 4], note: "upper rail" },
        { kind: "hang", face: "F", at: [80, 4], note: "upper rail" },
        { kind: "drain", face: "E", at: [50, 96], note: "open tube end" },
      ],
      faces: [post("F", "Frame", null), post("E", "Tube ends", null)],
    },
  },
  {
    kind: "part",
    code: "CHARGER-BOX",
    data: {
      name: "Charger enclosure",
      substrate: "cold-rolled-steel",
      thickestMm: 2,
      features: ["deep-recess"],
      measures: {
        box: { lengthMm: 620, widthMm: 420, heightMm: 1400 },
        thinnestMm: 2,
        massKg: 36,
        areaM2: 3.9,
        lapM: 2.2,
        edgeM: 2,
      },
      faces: [post("D", "Door", null), post("C", "Inside corner", 4)],
    },
  },
];
