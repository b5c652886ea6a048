/** What a shop has: places a part must fit and what carries it, and what powder is put on with. */
export const placeRoles = ["booth", "oven", "washer", "blast-room", "cart", "hook", "rack"] as const;
export const equipmentRoles = [...placeRoles, "gun", "compressor", "drier", "line"] as const;
export type EquipmentRole = (typeof equipmentRoles)[number];
export type PlaceRole = (typeof placeRoles)[number];
export const isPlace = (role: EquipmentRole): role is PlaceRole => (placeRoles as readonly string[]).includes(role);

/** What is noted of equipment of a kind beside its room: a number within what can be, or words. */
export type EquipmentFact<N extends string = string> = {
  readonly name: N;
  readonly label: string;
  readonly unit: string;
  readonly bounds: readonly [least: number, most: number] | null;
};
const number = <const N extends string>(
  name: N,
  label: string,
  unit: string,
  least: number,
  most: number,
): EquipmentFact<N> => ({
  name,
  label,
  unit,
  bounds: [least, most],
});
const words = <const N extends string>(name: N, label: string): EquipmentFact<N> => ({
  name,
  label,
  unit: "",
  bounds: null,
});

const carrier = [
  number("stripAfterCycles", "Stripped after", "cycles", 1, 1000),
  number("cyclesSinceStripped", "Cycles since it was stripped", "cycles", 0, 10_000),
  number("earthMostMohm", "Earth, at most", "MΩ", 0, 1000),
  words("acceptance", "Scrapped when"),
] as const;
const facts = {
  booth: [
    number("draughtMPerS", "Draught at its opening", "m/s", 0, 5),
    words("filter", "Filters, and how they are cleaned"),
    words("recovery", "Powder: to waste, reclaimed"),
    number("lightLux", "Light on the part", "lx", 0, 10_000),
  ],
  oven: [words("burner", "Burner or heaters"), words("exhaust", "Exhaust and make-up air")],
  washer: [
    number("stages", "Stages", "", 1, 12),
    words("spray", "Spray or dip, its nozzles"),
    number("pumpKPa", "Pump, at the header", "kPa", 0, 1000),
  ],
  "blast-room": [
    words("media", "Media and its size"),
    number("nozzleMm", "Nozzle bore", "mm", 2, 25),
    number("airKPa", "Air at the nozzle", "kPa", 0, 1200),
  ],
  cart: [words("wheels", "Wheels and brakes")],
  hook: carrier,
  rack: carrier,
  gun: [
    words("gunKind", "Kind: corona, friction"),
    words("polarity", "Polarity"),
    number("mostKv", "Voltage, at most", "kV", 0, 150),
    number("mostUa", "Current, at most", "µA", 0, 300),
    words("tips", "Tips it has"),
    words("deflector", "Deflector"),
    words("hoses", "Hoses: bore, length, changed"),
  ],
  compressor: [
    number("flowM3PerMin", "Delivers", "m³/min", 0, 200),
    number("pressureKPa", "At", "kPa", 0, 1500),
    words("receiver", "Receiver and drains"),
  ],
  drier: [
    words("drierKind", "Kind: refrigerated, desiccant"),
    number("dewPointC", "Dew point it gives", "°C", -80, 20),
  ],
  line: [
    words("stagesInOrder", "Stages, in order"),
    number("speedMPerMin", "Conveyor speed", "m/min", 0, 30),
    words("stops", "Where it stops and who may start it"),
  ],
} satisfies Record<EquipmentRole, readonly EquipmentFact[]>;
export type FactName = (typeof facts)[EquipmentRole][number]["name"];
/** What is noted of each kind, in the order it is asked. */
export const equipmentFacts: Readonly<Record<EquipmentRole, readonly EquipmentFact<FactName>[]>> = facts;

/**
 * Facts of equipment as they can be: only those of its kind, numbers within what can be. Gives the name of the first that
 * cannot, and why; null where all can.
 */
export function wrongFact(
  role: EquipmentRole,
  noted: Readonly<Record<string, string | number>>,
): { readonly name: string; readonly label: string; readonly value: string; readonly why: string } | null {
  for (const [name, value] of Object.entries(noted)) {
    const known = equipmentFacts[role].find((f) => f.name === name);
    const wrong = (why: string) => ({ name, label: known?.label ?? name, value: String(value), why });
    if (!known) return wrong(`is not noted of a ${role.replace("-", " ")}`);
    if (known.bounds === null) {
      if (typeof value !== "string") return wrong("is not words");
    } else {
      if (typeof value !== "number" || !Number.isFinite(value)) return wrong("is not a number");
      const [least, most] = known.bounds;
      const bound = (limit: number) => `${limit} ${known.unit}`.trim();
      if (value < least) return wrong(`is under ${bound(least)}`);
      if (value > most) return wrong(`is over ${bound(most)}`);
    }
  }
  return null;
}
/** A carrier that has run as many cycles as it may is stripped before it hangs again. */
export const wantsStripping = (facts: Readonly<Record<string, string | number>>): boolean =>
  typeof facts.stripAfterCycles === "number" &&
  typeof facts.cyclesSinceStripped === "number" &&
  facts.cyclesSinceStripped >= facts.stripAfterCycles;
