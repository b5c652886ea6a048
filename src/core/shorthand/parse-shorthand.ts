import type { BathParameter } from "../bath/bath-window";
import { checkBathValue } from "../bath/bath-window";
import { type ConditionQuantity, conditionQuantities, type PrepStep, prepMeasures } from "../preparation";
import { err, ok, type Result } from "../result";
import { checkThicknessUm } from "../thickness/readings";
import { parseNumber, parseUnit, type UnitSystem } from "../units";

/** What a line of shop shorthand means, before names are looked up. */
export type Understood =
  | { readonly kind: "go-to"; readonly word: string }
  | {
      readonly kind: "thickness";
      readonly rack: string | null;
      readonly spot: string | null;
      readonly readings: readonly { readonly valueUm: number; readonly typed: string }[];
    }
  | {
      readonly kind: "bath-check";
      readonly tank: string;
      readonly values: readonly {
        readonly parameter: BathParameter | "titrant";
        readonly value: number;
        readonly typed: string;
        readonly typedUnit: string;
      }[];
    }
  /** The load where it is named; else the only one in that oven. */
  | { readonly kind: "oven-pull"; readonly oven: string; readonly loadNo?: string }
  | { readonly kind: "oven-load"; readonly oven: string; readonly loadNo: string; readonly racks: readonly string[] }
  | {
      readonly kind: "oven-event";
      readonly oven: string;
      readonly loadNo?: string;
      readonly event: OvenWord;
      /** Of a set point or a reading of the metal, °C. */
      readonly valueC: number | null;
    }
  | { readonly kind: "prep-step"; readonly rack: string; readonly step: PrepStep; readonly value: number | null }
  | { readonly kind: "line-run"; readonly rack: string; readonly speedMPerMin: number | null }
  | {
      readonly kind: "conditions";
      readonly values: readonly { readonly quantity: ConditionQuantity; readonly value: number }[];
    }
  | { readonly kind: "passage"; readonly rack: string; readonly stage: string }
  | { readonly kind: "cross-cut"; readonly rack: string; readonly squaresLost: number; readonly squares: number }
  | { readonly kind: "solvent-rub"; readonly rack: string; readonly grade: number; readonly doubleRubs: number };

/** What may be said of the load in an oven on the entry line. */
export type OvenWord = "door-opened" | "door-shut" | "melted" | "touched-up" | "heat-off" | "set-point" | "infrared";
const ovenWords: Record<string, OvenWord> = {
  open: "door-opened",
  opened: "door-opened",
  shut: "door-shut",
  closed: "door-shut",
  melted: "melted",
  melt: "melted",
  glossy: "melted",
  touched: "touched-up",
  off: "heat-off",
};

export const passageStages = [
  "blast",
  "clean",
  "clean-rinse",
  "conversion",
  "rinse",
  "seal",
  "final-rinse",
  "dry-off",
  "prebake",
  "booth",
  "oven",
  "cool",
] as const;
const stageWords: Record<string, string> = {
  ...Object.fromEntries(passageStages.map((s) => [s, s])),
  wash: "clean",
  washer: "clean",
  dry: "dry-off",
  bake: "prebake",
  coat: "booth",
  cure: "oven",
};
const parameterWords: Record<string, BathParameter | "titrant"> = {
  ph: "ph",
  temp: "temperature",
  temperature: "temperature",
  at: "temperature",
  cond: "conductivity",
  conductivity: "conductivity",
  conc: "concentration",
  concentration: "concentration",
  strength: "concentration",
  titr: "titrant",
  ml: "titrant",
  fa: "free-acid",
  "free-acid": "free-acid",
  ta: "total-acid",
  "total-acid": "total-acid",
  inhibitor: "inhibitor",
  nitrite: "inhibitor",
  pressure: "pressure",
};

/** Steps that follow the rack's number directly, with what is measured at them. */
const prepWords: Record<string, PrepStep> = {
  blast: "blast",
  profile: "blast",
  sand: "sand",
  strip: "strip",
  seals: "seals-out",
  grease: "degrease",
  degrease: "degrease",
  grind: "grind",
  edges: "break-edges",
  scuff: "scuff",
  blow: "blow-off",
  damage: "look-over",
  wipe: "solvent-wipe",
  dust: "dust-tape",
  salt: "soluble-salt",
  water: "water-break",
  prebake: "prebake",
  masks: "masks-in",
};
const airWords: Record<string, ConditionQuantity> = { metal: "metal-temperature", dew: "compressed-air-dew-point" };

/**
 * Reads one line of shop shorthand or of what a gauge types: `rack 1042 dft a3 72 75 71`, `tank 3 ph 5.1 at 48C`,
 * `oven 2 pull`, `oven 1 load 412 1046 1047`, `rack 1042 in booth`,
 * `oven 1 melted`, `oven 1 door open`, `oven 1 set 200C`, `oven 1 metal 187C`, `rack 1042 blast 52`, `rack 1042 wash 1.2`, `rack 1042 cut 2/25`, `rack 1042 rub 5`, `air 18C 62% metal 17C`, bare readings, or a name to go to.
 * A number without its unit is in `units`. Failures: `empty`, `not-understood` with the word and its place,
 * `expected` with what was, and those of the values themselves.
 */
export function parseShorthand(text: string, units: UnitSystem = "metric"): Result<Understood> {
  // The key that leads to the line, pressed again while it is there already.
  const words = text.trim().replace(/^\/+/, "").split(/\s+/).filter(Boolean);
  const [first = "", second = "", third = ""] = words.map((w) => w.toLowerCase());
  if (first === "") return err({ kind: "empty" });
  if ((first === "tank" || first === "t" || /^t\d+$/.test(first)) && words.length > (/^t\d+$/.test(first) ? 1 : 2))
    return parseBath(words, units);
  if (first === "oven" && third === "pull")
    return ok({ kind: "oven-pull", oven: second, ...(words[3] ? { loadNo: words[3] } : {}) });
  if (first === "oven" && third === "load" && !saysOfLoad(words[4])) return parseLoad(second, words.slice(3));
  if (first === "oven" && words.length > 2)
    return parseOven(second, third === "load" ? words.slice(3) : words.slice(2), units);
  if (first === "air" && words.length > 1) return parseAir(words.slice(1), units);
  if (first === "rack" && words.length > 2) return parseRack(words, units);
  if (first === "dft") return parseThickness(null, words.slice(1), units);
  if (
    /^[-+]?\d/.test(first) &&
    words.every((w) => /^[-+]?\d/.test(w) || parseUnit(w).ok) &&
    !/^\d{4}$/.test(words.join(" "))
  )
    return parseThickness(null, words, units);
  return ok({ kind: "go-to", word: first === "rack" ? second : words.join(" ") });
}

function parseRack(words: readonly string[], units: UnitSystem): Result<Understood> {
  const rack = words[1] as string;
  const verb = (words[2] as string).toLowerCase();
  const rest = words.slice(3);
  if (verb === "dft" || verb === "film") return parseThickness(rack, rest, units);
  if (verb === "in" || verb === "at") {
    const stage = stageWords[(rest[0] ?? "").toLowerCase()];
    return stage
      ? ok({ kind: "passage", rack, stage })
      : err({ kind: "expected", what: "stage", got: rest[0] ?? "", of: passageStages });
  }
  if (verb === "cut") {
    const share = /^(\d+)\/(\d+)$/.exec(rest[0] ?? "");
    return share
      ? ok({ kind: "cross-cut", rack, squaresLost: Number(share[1]), squares: Number(share[2]) })
      : err({ kind: "expected", what: "squares", got: rest[0] ?? "", of: ["2/25"] });
  }
  if (verb === "rub") {
    const grade = Number(rest[0]);
    const doubleRubs = rest[1] === undefined ? 50 : Number(rest[1]);
    return Number.isInteger(grade) && grade >= 0 && grade <= 5 && Number.isInteger(doubleRubs)
      ? ok({ kind: "solvent-rub", rack, grade, doubleRubs })
      : err({ kind: "expected", what: "rub-grade", got: rest[0] ?? "", of: ["0–5"] });
  }
  if (verb === "wash") {
    const speed = /^([\d.,]+)(m\/min|ft\/min)?$/i.exec(rest[0] ?? "");
    if (rest.length === 0) return ok({ kind: "line-run", rack, speedMPerMin: null });
    const number = speed ? parseNumber(speed[1] as string) : null;
    if (!number?.ok)
      return number ?? err({ kind: "expected", what: "the line's speed", got: rest[0] ?? "", of: ["1.2", "4ft/min"] });
    const feet = speed?.[2] ? speed[2].toLowerCase() === "ft/min" : units === "us";
    return ok({ kind: "line-run", rack, speedMPerMin: feet ? number.value * METRES_PER_FOOT : number.value });
  }
  const step = prepWords[verb];
  if (step) return parsePrepStep(rack, step, rest, units);
  return err({ kind: "not-understood", word: words[2] as string, at: 3 });
}

const METRES_PER_FOOT = 0.3048;

/** A step done, with its value where one was measured: profile in µm or mil, prebake in °C or °F, the others as they are. */
function parsePrepStep(rack: string, step: PrepStep, rest: readonly string[], units: UnitSystem): Result<Understood> {
  const measure = prepMeasures[step];
  const word = rest.join("");
  if (word === "") return ok({ kind: "prep-step", rack, step, value: null });
  if (!measure) return err({ kind: "not-understood", word: rest[0] as string, at: 4 });
  const parts = /^([-+]?[\d.,]+)([a-zµ°²/]*)$/i.exec(word);
  if (!parts) return err({ kind: "expected", what: measure.quantity, got: word, of: ["a number"] });
  const number = parseNumber(parts[1] as string);
  if (!number.ok) return number;
  const quantity = step === "blast" ? "thickness" : step === "prebake" ? "temperature" : null;
  let value = number.value;
  if (quantity) {
    const usual = quantity === "thickness" ? (units === "us" ? "mil" : "um") : units === "us" ? "F" : "C";
    const unit = parseUnit(parts[2] || usual);
    if (!unit.ok) return unit;
    if (unit.value.quantity !== quantity)
      return err({ kind: "expected", what: measure.quantity, got: word, of: ["a fitting unit"] });
    value = unit.value.toCanonical(number.value);
  }
  if (value < measure.bounds[0] || value > measure.bounds[1])
    return err({
      kind: "beyond-instrument",
      parameter: measure.quantity,
      value,
      least: measure.bounds[0],
      most: measure.bounds[1],
    });
  return ok({ kind: "prep-step", rack, step, value });
}

function parseLoad(oven: string, words: readonly string[]): Result<Understood> {
  const [loadNo, ...racks] = words.filter((w) => w.toLowerCase() !== "rack" && w.toLowerCase() !== "racks");
  return loadNo && racks.length > 0
    ? ok({ kind: "oven-load", oven, loadNo, racks })
    : err({
        kind: "expected",
        what: "a load number and its racks",
        got: words.join(" "),
        of: ["oven 1 load 412 1046 1047"],
      });
}

/** Whether a word says what happens to a load, and is no rack in it. */
const saysOfLoad = (word: string | undefined): boolean =>
  word !== undefined && (word.toLowerCase() in ovenWords || /^(door|set|metal|pull)$/i.test(word));

/** What happens to a load of an oven, its number first where there are several: a word, or its set point or metal with a temperature. */
function parseOven(oven: string, words: readonly string[], units: UnitSystem): Result<Understood> {
  const [loadNo, second] = words;
  if (loadNo && second && !saysOfLoad(loadNo) && saysOfLoad(second)) {
    if (second.toLowerCase() === "pull") return ok({ kind: "oven-pull", oven, loadNo });
    const said = parseOven(oven, words.slice(1), units);
    return said.ok && said.value.kind === "oven-event" ? ok({ ...said.value, loadNo }) : said;
  }
  const said = words.map((w) => w.toLowerCase()).filter((w) => w !== "door" && w !== "to" && w !== "at");
  const [word = "", ...rest] = said;
  const known = ovenWords[word];
  if (known && said.length === 1) return ok({ kind: "oven-event", oven, event: known, valueC: null });
  if (word === "set" || word === "metal") {
    const typed = rest.join("");
    const parts = /^([-+]?[\d.,]+)([a-z°]*)$/i.exec(typed);
    if (!parts) return err({ kind: "expected", what: "a temperature", got: typed, of: [`oven ${oven} ${word} 187C`] });
    const number = parseNumber(parts[1] as string);
    if (!number.ok) return number;
    const unit = parseUnit(parts[2] || (units === "us" ? "F" : "C"));
    if (!unit.ok) return unit;
    if (unit.value.quantity !== "temperature")
      return err({ kind: "expected", what: "a temperature", got: typed, of: [`oven ${oven} ${word} 187C`] });
    const valueC = unit.value.toCanonical(number.value);
    if (!(valueC >= COLDEST_OVEN_C && valueC <= HOTTEST_OVEN_C))
      return err({
        kind: "beyond-instrument",
        parameter: word === "set" ? "set point" : "metal temperature",
        value: valueC,
        least: COLDEST_OVEN_C,
        most: HOTTEST_OVEN_C,
      });
    return ok({ kind: "oven-event", oven, event: word === "set" ? "set-point" : "infrared", valueC });
  }
  return err({
    kind: "expected",
    what: "what happens in the oven",
    got: words.join(" "),
    of: ["pull", "load 412 1046", "melted", "door open", "door shut", "touched", "off", "set 200C", "metal 187C"],
  });
}
const COLDEST_OVEN_C = -40;
const HOTTEST_OVEN_C = 600;

/** Air of the hall: a temperature, a humidity with %, `metal 17C`, `dew -24C`. */
function parseAir(words: readonly string[], units: UnitSystem): Result<Understood> {
  const values: { quantity: ConditionQuantity; value: number }[] = [];
  for (let i = 0; i < words.length; i++) {
    const named = airWords[(words[i] as string).toLowerCase()];
    const word = named ? (words[++i] ?? "") : (words[i] as string);
    const parts = /^([-+]?[\d.,]+)([%a-z°]*)$/i.exec(word);
    if (!parts) return err({ kind: "expected", what: "air values", got: word, of: ["air 18C 62% metal 17C dew -24C"] });
    const number = parseNumber(parts[1] as string);
    if (!number.ok) return number;
    const percent = parts[2] === "%" && !named;
    const unit = percent ? null : parseUnit(parts[2] || (units === "us" ? "F" : "C"));
    if (unit && !unit.ok) return unit;
    if (unit?.ok && unit.value.quantity !== "temperature")
      return err({ kind: "expected", what: "a temperature", got: word, of: ["18C"] });
    const quantity = percent ? "humidity" : (named ?? "air-temperature");
    const value = unit?.ok ? unit.value.toCanonical(number.value) : number.value;
    const [least, most] = conditionQuantities[quantity].bounds;
    if (value < least || value > most)
      return err({ kind: "beyond-instrument", parameter: quantity.replaceAll("-", " "), value, least, most });
    values.push({ quantity, value });
  }
  return ok({ kind: "conditions", values });
}

function parseThickness(rack: string | null, words: readonly string[], units: UnitSystem): Result<Understood> {
  const named = /^[a-z]+\d*$/i.test(words[0] ?? "") && !/^(um|mil)s?$/i.test(words[0] ?? "");
  const spot = named ? (words[0] as string).toUpperCase() : null;
  const readings: { valueUm: number; typed: string }[] = [];
  for (const word of words.slice(named ? 1 : 0)) {
    const parts = /^([-+]?[\d.,]+(?:e\d+)?)\s*([a-zµμ]*)$/i.exec(word);
    const bareUnit = parts ? null : parseUnit(word);
    if (bareUnit?.ok && bareUnit.value.quantity === "thickness") continue;
    if (!parts) return err({ kind: "not-understood", word, at: words.indexOf(word) + 1 });
    const number = parseNumber(parts[1] as string);
    if (!number.ok) return number;
    const unit = parseUnit(parts[2] || (units === "us" ? "mil" : "um"));
    if (!unit.ok) return unit;
    if (unit.value.quantity !== "thickness")
      return err({ kind: "expected", what: "thickness", got: word, of: ["µm", "mil"] });
    const checked = checkThicknessUm(Number(unit.value.toCanonical(number.value).toPrecision(14)));
    if (!checked.ok) return checked;
    readings.push({ valueUm: checked.value, typed: word });
  }
  return readings.length === 0
    ? err({ kind: "expected", what: "readings", got: words.join(" "), of: ["72 75 71"] })
    : ok({ kind: "thickness", rack, spot, readings });
}

function parseBath(words: readonly string[], units: UnitSystem): Result<Understood> {
  const joined = /^t(\d+)$/i.exec(words[0] as string);
  const tank = `Tank ${joined?.[1] ?? words[1]}`;
  const rest = words.slice(joined ? 1 : 2);
  const values: { parameter: BathParameter | "titrant"; value: number; typed: string; typedUnit: string }[] = [];
  for (let i = 0; i < rest.length; i += 2) {
    const word = (rest[i] as string).toLowerCase();
    const parameter = parameterWords[word];
    if (!parameter) return err({ kind: "not-understood", word: rest[i] as string, at: i + 2 });
    const parts = /^([-+]?[\d.,]+)([a-zµ°%/]*)$/i.exec(rest[i + 1] ?? "");
    if (!parts) return err({ kind: "expected", what: parameter, got: rest[i + 1] ?? "", of: ["a number"] });
    const number = parseNumber(parts[1] as string);
    if (!number.ok) return number;
    const typedUnit = parts[2] || (parameter === "temperature" && units === "us" ? "F" : "");
    const unit = typedUnit && typedUnit !== "%" && parameter !== "titrant" ? parseUnit(typedUnit) : null;
    if (unit && !unit.ok) return unit;
    if (unit?.ok && unit.value.quantity !== parameter)
      return err({ kind: "expected", what: parameter, got: rest[i + 1] as string, of: ["a fitting unit"] });
    const value = unit?.ok ? unit.value.toCanonical(number.value) : number.value;
    if (parameter !== "titrant") {
      const checked = checkBathValue(parameter, value);
      if (!checked.ok) return checked;
    } else if (value < 0 || value > 100)
      return err({ kind: "beyond-instrument", parameter, value, least: 0, most: 100 });
    values.push({ parameter, value, typed: rest[i + 1] as string, typedUnit });
  }
  return values.length === 0
    ? err({ kind: "expected", what: "bath values", got: "", of: ["ph 5.1 at 48C"] })
    : ok({ kind: "bath-check", tank, values });
}
