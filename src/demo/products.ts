import type { SimulatedProduct } from "@/core/simulated-line";

const five = (face: string) => Array.from({ length: 5 }, (_, i) => `${face}${i + 1}`);

/** What the simulated line makes: the shop's parts with how powder and heat take to them. */
export const products: readonly SimulatedProduct[] = [
  {
    key: "SHELTER-POST",
    cast: false,
    drained: true,
    powder: "GR-210",
    targetUm: 74,
    faces: [
      { face: "A", spots: five("A"), effectUm: [1, 0, 2, -3, -14] },
      { face: "B", spots: five("B"), effectUm: [3, 2, 0, -1, -9] },
    ],
    pieces: 8,
    tauS: [
      { channel: "Post top", tauS: 240 },
      { channel: "Post foot", tauS: 372 },
    ],
    setPointC: 205,
    doorToPullS: 2000,
  },
  {
    key: "LAMP-HEAD",
    cast: true,
    powder: "GR-815",
    targetUm: 88,
    faces: [
      { face: "H", spots: five("H"), effectUm: [4, 1, 1, -3, -3] },
      { face: "R", spots: five("R"), effectUm: [0, 0, -5, -2, -2] },
    ],
    pieces: 20,
    tauS: [
      { channel: "Hood", tauS: 330 },
      { channel: "Rear plate", tauS: 240 },
    ],
    setPointC: 207,
    doorToPullS: 2100,
  },
  {
    key: "FERRY-SEAT",
    cast: false,
    powder: "GR-505",
    targetUm: 73,
    faces: [
      { face: "S", spots: five("S"), effectUm: [-3, 1, 2, 1, -3] },
      { face: "L", spots: five("L"), effectUm: [2, 1, 0, -2, -5] },
    ],
    pieces: 16,
    tauS: [
      { channel: "Seat", tauS: 190 },
      { channel: "Leg", tauS: 318 },
    ],
    setPointC: 205,
    doorToPullS: 1900,
  },
];

/** Work beside the regular one: tube frames, whose ends hold water out of the washer. */
export const tubeFrame: SimulatedProduct = {
  key: "GREENHOUSE-FRAME",
  cast: false,
  hollow: true,
  powder: "GR-340",
  targetUm: 76,
  faces: [
    { face: "F", spots: five("F"), effectUm: [1, 0, 2, -1, -2] },
    { face: "E", spots: five("E"), effectUm: [-2, -3, 0, -2, -4] },
  ],
  pieces: 12,
  tauS: [
    { channel: "Frame rail", tauS: 140 },
    { channel: "Corner node", tauS: 198 },
  ],
  setPointC: 205,
  doorToPullS: 1800,
};
/** Steel enclosures beside it: their inside corners take powder worst. */
export const chargerBox: SimulatedProduct = {
  key: "CHARGER-BOX",
  cast: false,
  powder: "GR-815",
  targetUm: 88,
  faces: [
    { face: "D", spots: five("D"), effectUm: [2, 0, 1, -1, -2] },
    { face: "C", spots: five("C"), effectUm: [-6, -4, -3, -4, -7] },
  ],
  pieces: 6,
  tauS: [
    { channel: "Door", tauS: 112 },
    { channel: "Corner", tauS: 132 },
  ],
  setPointC: 205,
  doorToPullS: 1700,
  cornerFace: "C",
};
export const everyProduct: readonly SimulatedProduct[] = [...products, tubeFrame, chargerBox];
