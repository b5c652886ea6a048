import type { UpkeepStage } from "../upkeep";
import type { EquipmentRole } from "./equipment";

type Room = { readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number };
export type TemplateEquipment = {
  readonly code: string;
  readonly name: string;
  readonly role: EquipmentRole;
  readonly insideMm: Room | null;
  readonly mostKg: number | null;
  readonly facts: Readonly<Record<string, string | number>>;
};
export type TemplateOven = {
  readonly code: string;
  readonly name: string;
  readonly type: "batch" | "conveyor";
  readonly heat: "gas-indirect" | "electric";
  readonly insideMm: Room | null;
  readonly places: readonly { readonly id: string; readonly at: readonly [number, number]; readonly note: string }[];
  readonly zones: readonly { readonly name: string; readonly lengthM: number; readonly airC: number }[];
};
export type LineTemplate = {
  readonly id: string;
  readonly name: string;
  /** The usual wash it begins with, by its own template. */
  readonly wash: string;
  readonly equipment: readonly TemplateEquipment[];
  readonly ovens: readonly TemplateOven[];
  /** Of a conveyor: its stages by their distance from its entrance, m. */
  readonly conveyor: readonly { readonly stage: string; readonly fromM: number; readonly lengthM: number }[] | null;
  readonly upkeep: readonly UpkeepStage[];
};

const room = (lengthMm: number, widthMm: number, heightMm: number): Room => ({ lengthMm, widthMm, heightMm });
const thing = (
  code: string,
  name: string,
  role: EquipmentRole,
  insideMm: Room | null = null,
  mostKg: number | null = null,
  facts: TemplateEquipment["facts"] = {},
): TemplateEquipment => ({ code, name, role, insideMm, mostKg, facts });

const six = [
  { id: "A1", at: [20, 30], note: "door side" },
  { id: "A2", at: [50, 30], note: "middle" },
  { id: "A3", at: [80, 30], note: "back" },
  { id: "B1", at: [20, 70], note: "door side" },
  { id: "B2", at: [50, 70], note: "middle" },
  { id: "B3", at: [80, 70], note: "back" },
] as const;
const gun = thing("GUN-1", "Gun 1", "gun", null, null, {
  gunKind: "corona",
  polarity: "negative",
  mostKv: 100,
  mostUa: 80,
});
const batch = (insideMm: Room): TemplateOven => ({
  code: "Oven 1",
  name: "Oven 1",
  type: "batch",
  heat: "gas-indirect",
  insideMm,
  places: six,
  zones: [],
});
const conveyorOven: TemplateOven = {
  code: "Oven 1",
  name: "Oven 1, conveyor",
  type: "conveyor",
  heat: "gas-indirect",
  insideMm: null,
  places: [],
  zones: [
    { name: "heat up", lengthM: 8, airC: 210 },
    { name: "hold", lengthM: 16, airC: 200 },
  ],
};
const carried = (insideMm: Room) => [
  thing("HOOK", "Hook", "hook", null, 25, { stripAfterCycles: 20 }),
  thing("RACK", "Standard rack", "rack", insideMm, 150, { stripAfterCycles: 20 }),
];
const air = [
  thing("COMP-1", "Compressor", "compressor"),
  thing("DRY-1", "Air drier", "drier", null, null, { dewPointC: 3 }),
];
const conveyorHall = [
  thing("WASHER", "Washer opening", "washer", room(3000, 800, 1600)),
  thing("BOOTH-1", "Booth 1", "booth", room(3000, 900, 1700)),
  thing("OVEN-1", "Oven 1", "oven", room(3000, 900, 1700)),
  gun,
  ...air,
  thing("LINE-1", "Conveyor", "line", null, null, { speedMPerMin: 1.2 }),
  ...carried(room(2400, 500, 1500)),
];

/** Lines as shops commonly have them, to begin from: every size is one to be put right. */
export const lineTemplates: readonly LineTemplate[] = [
  {
    id: "job-shop",
    name: "Job shop: blast room, wash of four stages, booth, batch oven",
    wash: "four",
    equipment: [
      thing("BLAST", "Blast room", "blast-room", room(5000, 2400, 2400), null, { media: "steel grit", nozzleMm: 10 }),
      thing("WASHER", "Washer", "washer", room(4000, 1600, 2000)),
      thing("BOOTH-1", "Booth 1", "booth", room(4500, 1800, 2200)),
      thing("OVEN-1", "Oven 1", "oven", room(5000, 1800, 2100)),
      thing("CART", "Cart", "cart", room(4500, 1500, 2000), 800),
      gun,
      ...air,
      ...carried(room(2600, 500, 1600)),
    ],
    ovens: [batch(room(5000, 1800, 2100))],
    conveyor: null,
    upkeep: ["prepare", "pretreat", "coat", "cure"],
  },
  {
    id: "hand-wand",
    name: "Hand wand, hand booth and one oven",
    wash: "hand-wand",
    equipment: [
      thing("BOOTH-1", "Hand booth", "booth", room(2400, 1500, 2100)),
      thing("OVEN-1", "Oven 1", "oven", room(2400, 1500, 2000)),
      gun,
      ...air,
      ...carried(room(2000, 500, 1500)),
    ],
    ovens: [batch(room(2400, 1500, 2000))],
    conveyor: null,
    upkeep: ["pretreat", "coat", "cure"],
  },
  {
    id: "five-stage",
    name: "Conveyor, washer of five stages, iron phosphate",
    wash: "five",
    equipment: conveyorHall,
    ovens: [conveyorOven],
    conveyor: [
      { stage: "clean", fromM: 0, lengthM: 4 },
      { stage: "clean-rinse", fromM: 5, lengthM: 2 },
      { stage: "conversion", fromM: 8, lengthM: 3 },
      { stage: "rinse", fromM: 12, lengthM: 2 },
      { stage: "seal", fromM: 15, lengthM: 2 },
    ],
    upkeep: ["pretreat", "coat", "cure"],
  },
  {
    id: "six-stage",
    name: "Conveyor, washer of six stages, zirconium",
    wash: "six-zirconium",
    equipment: conveyorHall,
    ovens: [conveyorOven],
    conveyor: [
      { stage: "clean", fromM: 0, lengthM: 4 },
      { stage: "clean-rinse", fromM: 5, lengthM: 4 },
      { stage: "conversion", fromM: 10, lengthM: 2 },
      { stage: "rinse", fromM: 13, lengthM: 2 },
      { stage: "final-rinse", fromM: 16, lengthM: 1.5 },
    ],
    upkeep: ["pretreat", "coat", "cure"],
  },
  {
    id: "bench-top",
    name: "Bench top: two basins, a small booth, a small oven",
    wash: "two",
    equipment: [
      thing("BOOTH-1", "Bench booth", "booth", room(900, 600, 700)),
      thing("OVEN-1", "Bench oven", "oven", room(600, 500, 500)),
      gun,
      thing("HOOK", "Hook", "hook", null, 5, { stripAfterCycles: 20 }),
      thing("RACK", "Bar", "rack", room(500, 400, 400), 15, { stripAfterCycles: 20 }),
    ],
    ovens: [{ ...batch(room(600, 500, 500)), heat: "electric", name: "Bench oven", places: six.slice(0, 2) }],
    conveyor: null,
    upkeep: ["pretreat", "coat", "cure"],
  },
];
