import * as v from "valibot";
import { bathParameterBounds, bathParameters, panelLooks, usualColours } from "@/core/bath";
import { cureTests } from "@/core/bench";
import { coatSituations, coatSystems, preFlightItems, preFlightMeasures } from "@/core/coating";
import { bakeEvents, coolingMethods, infraredAims } from "@/core/cure";
import { loadKnowledge } from "@/core/diagnosis";
import { FASTEST_LINE_M_PER_MIN } from "@/core/line";
import {
  conditionQuantities,
  conditionQuantityNames,
  metalDecisions,
  metalFaults,
  prepMeasures,
  prepSteps,
} from "@/core/preparation";
import { passageStages } from "@/core/shorthand";
import { BEYOND_ANY_FILM_UM } from "@/core/thickness";
import { upkeepResults } from "@/core/upkeep";
import { filled, said, text } from "../input";

const knowledge = loadKnowledge();
const uuid = v.pipe(v.string(), v.uuid("not an id"));
const number = (least: number, most: number) =>
  v.pipe(
    v.number("is not a number"),
    v.finite("is not a number"),
    v.minValue(least, `is under ${least}`),
    v.maxValue(most, `is over ${most}`),
  );
const whole = (least: number, most: number) => v.pipe(number(least, most), v.integer("is not a whole number"));
const moment = v.pipe(
  v.string(),
  v.isoTimestamp("is not a moment"),
  v.transform((s) => new Date(s)),
);

/** What every entry carries: its own id and key, made where it was caught, and when it happened. */
const base = {
  id: uuid,
  idempotencyKey: filled(120),
  happenedAt: moment,
  supersedes: v.optional(v.nullable(v.object({ recordId: uuid, reason: filled(400) })), null),
};
const entry = <K extends string, T extends v.ObjectEntries>(kind: K, rest: T) =>
  v.object({ kind: v.literal(kind), ...base, ...rest });

/** Schools of timing a cure: all are recorded, and graded differently. */
export const bakeTimings = [
  "metal-at-temperature",
  "flow-out",
  "door-close",
  "hot-then-down",
  "section-by-section",
] as const;

const bathValue = v.pipe(
  v.object({
    parameter: v.picklist(bathParameters),
    value: v.pipe(v.number(), v.finite()),
    typed: filled(40),
    typedUnit: text(12),
    titrantMl: v.optional(v.nullable(number(0, 200)), null),
    blankMl: v.optional(v.nullable(number(0, 200)), null),
  }),
  v.check(
    (x) => x.value >= bathParameterBounds[x.parameter][0] && x.value <= bathParameterBounds[x.parameter][1],
    "is beyond what the instrument can read",
  ),
);

const prepStep = v.pipe(
  entry("prep-step", {
    rack: filled(20),
    step: v.picklist(prepSteps),
    done: v.boolean(),
    value: v.nullable(number(-1e6, 1e6)),
    note: text(400),
    /** How it was done: media, solvent, wipe. */
    how: v.optional(v.nullable(v.record(text(40), v.union([v.pipe(v.number(), v.finite()), text(80)]))), null),
  }),
  v.forward(
    v.check((x) => x.done || x.note !== "", "is empty: a step left out needs its reason"),
    ["note"],
  ),
  v.forward(
    v.check(
      (x) => x.value === null || prepMeasures[x.step] !== undefined,
      "has no place here: this step is done or not done",
    ),
    ["value"],
  ),
  v.forward(
    v.check((x) => {
      const bounds = prepMeasures[x.step]?.bounds;
      return x.value === null || !bounds || (x.value >= bounds[0] && x.value <= bounds[1]);
    }, "is beyond what the instrument can read"),
    ["value"],
  ),
);

const conditionValue = v.pipe(
  v.object({ quantity: v.picklist(conditionQuantityNames), value: v.pipe(v.number(), v.finite()) }),
  v.check(
    (x) => x.value >= conditionQuantities[x.quantity].bounds[0] && x.value <= conditionQuantities[x.quantity].bounds[1],
    "is beyond what the instrument can read",
  ),
);

const preFlightEntry = v.pipe(
  v.object({
    item: v.picklist(preFlightItems),
    how: v.picklist(["measured", "by-procedure", "skipped"]),
    value: v.nullable(v.pipe(v.number(), v.finite())),
    good: v.nullable(v.boolean()),
    note: text(300),
  }),
  v.forward(
    v.check((x) => x.how !== "skipped" || x.note !== "", "is empty: what is skipped needs its reason"),
    ["note"],
  ),
  v.forward(
    v.check((x) => x.how !== "measured" || x.value !== null, "is missing: a measured item has its reading"),
    ["value"],
  ),
  v.forward(
    v.check((x) => x.how !== "by-procedure" || x.good !== null, "is missing: say whether it is in order"),
    ["good"],
  ),
  v.forward(
    v.check((x) => {
      const bounds = preFlightMeasures[x.item]?.bounds;
      return x.value === null || (bounds !== undefined && x.value >= bounds[0] && x.value <= bounds[1]);
    }, "is beyond what the instrument can read"),
    ["value"],
  ),
);
const kg = number(0, 5000);

/** Samples of one channel; a day at one a second is the most that is taken. */
const samples = 86_400;
const traceChannel = v.object({
  name: filled(40),
  medium: v.picklist(["air", "metal"]),
  timeS: v.pipe(v.array(v.pipe(v.number(), v.finite())), v.minLength(2, "are fewer than two"), v.maxLength(samples)),
  tempC: v.pipe(v.array(v.nullable(v.pipe(v.number(), v.finite()))), v.maxLength(samples)),
});

/** Forms, the entry line, imports and instrument streams all make these; one schema checks them all. */
export const entrySchema = v.variant("kind", [
  entry("bath-check", {
    bath: filled(60),
    values: v.pipe(v.array(bathValue), v.minLength(1, "has no value"), v.maxLength(8)),
    /** What was asked about was looked at, and stands as it is typed. */
    sure: v.optional(v.boolean(), false),
  }),
  entry("bath-event", {
    bath: filled(60),
    event: v.picklist(["addition", "dump", "recharge"]),
    product: text(80),
    amountL: v.nullable(number(0, 100_000)),
    note: text(400),
    /** The drum it came from, by its lot. */
    lot: v.optional(v.nullable(filled(130)), null),
    /** What was asked about stands all the same; the note says why. */
    sure: v.optional(v.boolean(), false),
  }),
  /** A round of a bath that is left out, with its reason. */
  entry("round-skip", { bath: filled(60), reason: said(400, "is too short: name the reason") }),
  /** A panel of the conversion coat: stripped and weighed, or judged by its colour. */
  v.pipe(
    entry("wash-panel", {
      bath: filled(60),
      beforeG: v.nullable(number(0, 100_000)),
      afterG: v.nullable(number(0, 100_000)),
      areaM2: v.nullable(number(0, 100)),
      colour: v.nullable(v.picklist(usualColours.map((c) => c.colour))),
      look: v.picklist(panelLooks),
      note: text(400),
    }),
    v.forward(
      v.check(
        (x) => x.colour !== null || (x.beforeG !== null && x.afterG !== null && x.areaM2 !== null),
        "is missing: weigh the panel before and after, with its area, or name its colour",
      ),
      ["beforeG"],
    ),
  ),
  /** Sludge measured or dug out, a filter changed. */
  v.pipe(
    entry("sludge", {
      bath: filled(60),
      what: v.picklist(["measured", "desludged", "filter-changed"]),
      depthMm: v.nullable(number(0, 3000)),
      note: text(400),
    }),
    v.forward(
      v.check((x) => x.what !== "measured" || x.depthMm !== null, "is missing: measure how deep it lies"),
      ["depthMm"],
    ),
  ),
  /** How a rack came out of the dry-off: parts looked at, tubes and laps blown out. */
  entry("dry-off", {
    rack: filled(20),
    airC: v.nullable(number(-20, 400)),
    metalC: v.nullable(number(-20, 400)),
    partsDry: v.boolean("is neither dry nor damp: look at the parts"),
    hollowBlown: v.nullable(v.boolean()),
    note: text(400),
  }),
  /** An outgassing bake, by the trace of its metal. */
  entry("outgas", { rack: filled(20), channels: v.pipe(v.array(traceChannel), v.minLength(1), v.maxLength(12)) }),
  /** Pits, scale or old coating left on the metal, where it is, and what is decided. */
  entry("metal-mark", {
    rack: filled(20),
    what: v.picklist(metalFaults),
    face: filled(20),
    x: number(0, 100),
    y: number(0, 100),
    decision: v.picklist(metalDecisions),
    reason: said(400, "is too short: name why it goes on, or what is done"),
  }),
  /** A coated panel of an hour's wash, tested. */
  v.pipe(
    entry("panel-test", {
      bath: filled(60),
      test: v.picklist(["adhesion", "salt-spray"]),
      washedAt: moment,
      squaresLost: v.nullable(whole(0, 100)),
      squares: v.nullable(v.picklist([25, 100], "is neither 25 nor 100")),
      hours: v.nullable(number(1, 20_000)),
      creepMm: v.nullable(number(0, 200)),
      coating: filled(120),
      note: text(400),
    }),
    v.forward(
      v.check((x) => x.test !== "adhesion" || x.squaresLost !== null, "are missing: count the squares that came off"),
      ["squaresLost"],
    ),
    v.forward(
      v.check((x) => x.test !== "salt-spray" || x.hours !== null, "are missing: how long it was in the cabinet"),
      ["hours"],
    ),
    v.forward(
      v.check((x) => x.test !== "salt-spray" || x.creepMm !== null, "is missing: creep from the scribe"),
      ["creepMm"],
    ),
  ),
  /** Upkeep that was done: what was found, the value where one is measured, who where it is not the line's own. */
  v.pipe(
    entry("upkeep", {
      item: filled(20),
      result: v.picklist(upkeepResults),
      value: v.nullable(number(-1e6, 1e6)),
      who: text(80),
      note: text(800),
    }),
    v.forward(
      v.check(
        (x) => x.result === "in-order" || x.note !== "",
        "is empty: say what was found and what was done, or is to be done",
      ),
      ["note"],
    ),
  ),
  /** The line stood still from `happenedAt` to `until`, with what was in it. */
  entry("line-stop", { line: filled(60), until: moment, cause: said(200, "is too short: name the cause") }),
  /** A stop that was noted and never was. */
  entry("line-stop-back", { stop: uuid, reason: said(300, "is too short: name why it is taken back") }),
  entry("passage", { rack: filled(20), stage: v.picklist(passageStages) }),
  /** A rack into the washer at a line speed: its passages follow from the stages' lengths. */
  entry("line-run", {
    rack: filled(20),
    line: filled(60),
    speedMPerMin: v.pipe(number(0, FASTEST_LINE_M_PER_MIN), v.gtValue(0, "is not over 0")),
  }),
  prepStep,
  entry("conditions", {
    place: filled(60),
    values: v.pipe(v.array(conditionValue), v.minLength(1, "has no value"), v.maxLength(conditionQuantityNames.length)),
  }),
  entry("coat", {
    rack: filled(20),
    coatNo: whole(1, 9),
    layer: v.picklist(["primer", "top", "clear"]),
    lot: filled(60),
    booth: filled(40),
    kv: v.nullable(number(0, 150)),
    currentUa: v.nullable(number(0, 300)),
    gunAirKPa: v.nullable(number(0, 1000)),
    distanceMm: v.nullable(number(0, 1500)),
    earthMohm: v.nullable(number(0, 1_000_000)),
    hookCycles: v.nullable(whole(0, 10_000)),
    sprayedHot: v.nullable(v.boolean()),
    /** Heat of the metal as it was sprayed. */
    metalC: v.optional(v.nullable(number(-20, 400)), null),
    colourChangeBefore: v.nullable(v.boolean()),
    reclaimPercent: v.nullable(number(0, 100)),
    gun: v.optional(text(40), ""),
    /** The set-up sheet it was set by. */
    sheet: v.optional(v.nullable(filled(60)), null),
    situation: v.optional(v.nullable(v.picklist(coatSituations)), null),
    system: v.optional(v.nullable(v.picklist(coatSystems)), null),
    gunAirRestKPa: v.optional(v.nullable(number(0, 1000)), null),
    boothAirMPerS: v.optional(v.nullable(number(0, 5)), null),
    passes: v.optional(v.nullable(whole(1, 20)), null),
    hopperBeforeKg: v.optional(v.nullable(kg), null),
    hopperAfterKg: v.optional(v.nullable(kg), null),
    hopperAddedKg: v.optional(v.nullable(kg), null),
  }),
  /** What was looked at before powder goes on. */
  entry("pre-flight", {
    rack: filled(20),
    situation: v.picklist(coatSituations),
    sheet: v.nullable(filled(60)),
    lot: v.nullable(filled(60)),
    items: v.pipe(
      v.array(preFlightEntry),
      v.minLength(1, "has no item"),
      v.maxLength(preFlightItems.length),
      v.check((list) => new Set(list.map((x) => x.item)).size === list.length, "with one of them twice"),
    ),
  }),
  /** Loose powder under the lamp: light spots, what was wiped, plugs in. */
  v.pipe(
    entry("lamp-check", {
      rack: filled(20),
      coatNo: whole(1, 9),
      faces: v.pipe(
        v.array(filled(20)),
        v.maxLength(40),
        v.check((list) => new Set(list).size === list.length, "with one of them twice"),
      ),
      spots: v.pipe(
        v.array(
          v.object({
            face: filled(20),
            x: number(0, 100),
            y: number(0, 100),
            what: v.picklist(["light-resprayed", "light-left", "bumped", "wiped"]),
          }),
        ),
        v.maxLength(60),
      ),
      wiped: v.nullable(v.boolean()),
      plugsIn: v.nullable(whole(0, 10_000)),
      bumped: v.boolean(),
      note: text(400),
    }),
    v.forward(
      v.check((x) => x.faces.length > 0 || x.bumped || x.spots.length > 0, "are empty: tick the faces that were seen"),
      ["faces"],
    ),
  ),
  /** Height of the loose powder, before the bake. */
  entry("powder-height", {
    rack: filled(20),
    readings: v.pipe(
      v.array(v.object({ face: filled(20), spot: filled(20), heightUm: v.pipe(number(0, 2000), v.gtValue(0)) })),
      v.minLength(1, "has no reading"),
      v.maxLength(200),
    ),
  }),
  /** The first panel of a lot against the standard swatch. */
  entry("first-panel", {
    lot: filled(60),
    result: v.picklist(["matches", "off"]),
    gloss: v.nullable(number(0, 200)),
    deltaE: v.nullable(number(0, 100)),
    filmUm: v.nullable(number(0, BEYOND_ANY_FILM_UM)),
    note: text(400),
  }),
  /** A film gauge against its shims. */
  entry("gauge-check", {
    instrument: filled(40),
    shims: v.pipe(
      v.array(
        v.object({
          certifiedUm: number(0, BEYOND_ANY_FILM_UM),
          toleranceUm: number(0, 100),
          readingsUm: v.pipe(v.array(number(-100, BEYOND_ANY_FILM_UM)), v.minLength(1), v.maxLength(50)),
        }),
      ),
      v.minLength(1, "has no shim"),
      v.maxLength(12),
    ),
    note: text(400),
  }),
  /** What is to be read on a rack: places by rule and area, pieces by risk, both from a seed that is kept. */
  entry("film-plan", {
    rack: filled(20),
    rule: v.picklist(["spot-area", "nominal"]),
    areaM2: v.pipe(number(0, 1_000_000), v.gtValue(0, "is not over 0")),
    inFt2: v.boolean(),
    seed: whole(0, 2_147_483_000),
    risks: v.nullable(
      v.object({
        lot: whole(1, 1_000_000),
        aql: number(0, 0.99),
        rql: number(0, 0.99),
        producerRisk: number(0.0001, 0.5),
        consumerRisk: number(0.0001, 0.5),
      }),
    ),
  }),
  /** The gauge on the bare metal of a rack, to be taken off its film. */
  entry("base-metal", {
    rack: filled(20),
    readingsUm: v.pipe(v.array(number(-100, 400)), v.minLength(1, "has no reading"), v.maxLength(200)),
    note: text(400),
  }),
  /** A load into an oven: the door closes at `happenedAt`. */
  entry("load", {
    oven: filled(60),
    loadNo: filled(40),
    timing: v.picklist(bakeTimings),
    setPointC: v.nullable(number(50, 400)),
    /** What the oven read as the door closed. */
    airC: v.optional(v.nullable(number(-20, 400)), null),
    places: v.pipe(
      v.array(
        v.object({
          rack: filled(20),
          place: text(20),
          /** The recorder's channel whose probe is on this rack. */
          channel: v.optional(v.nullable(text(40)), null),
        }),
      ),
      v.minLength(1, "has no rack"),
      v.maxLength(40),
    ),
    /** Under lamps: the sections the piece is cured in, in order. */
    sections: v.optional(
      v.nullable(
        v.pipe(
          v.array(filled(40)),
          v.minLength(1, "has no section"),
          v.maxLength(24, "are more than 24"),
          v.check((list) => new Set(list.map((s) => s.toLowerCase())).size === list.length, "with one of them twice"),
        ),
      ),
      null,
    ),
  }),
  /** What happens to a load in the oven and as it cools: each in one tap. */
  entry("bake-event", {
    oven: filled(60),
    loadNo: filled(40),
    event: v.picklist(bakeEvents),
    valueC: v.optional(v.nullable(number(-40, 600)), null),
    emissivity: v.optional(v.nullable(v.pipe(number(0, 1), v.gtValue(0, "is not over 0"))), null),
    aim: v.optional(v.nullable(v.picklist(infraredAims)), null),
    /** Plugs and masks out, of so many that went in. */
    count: v.optional(v.nullable(whole(0, 10_000)), null),
    asked: v.optional(v.nullable(whole(0, 10_000)), null),
    /** By the clock of the recorder that is followed, s since the door; null where the wall's clock says it. */
    sinceDoorS: v.optional(v.nullable(number(0, 86_400)), null),
    /** What part of a large piece was read, where it is cured section by section. */
    section: v.optional(v.nullable(filled(40)), null),
    /** Which of several racks was read as it cools; null says all of the load. */
    rack: v.optional(v.nullable(filled(20)), null),
    /** Of cooling: how. */
    method: v.optional(v.nullable(v.picklist(coolingMethods)), null),
    note: text(400),
  }),
  /** A survey of an oven: a probe at each place, over a hold. */
  entry("oven-survey", {
    oven: filled(60),
    setPointC: number(50, 400),
    holdFromS: number(0, 1e6),
    holdToS: number(0, 1e6),
    doorAtS: v.nullable(number(0, 1e6)),
    places: v.pipe(
      v.array(
        v.object({
          place: filled(40),
          timeS: v.pipe(v.array(v.pipe(v.number(), v.finite())), v.maxLength(200_000)),
          tempC: v.pipe(v.array(v.nullable(v.pipe(v.number(), v.finite()))), v.maxLength(200_000)),
        }),
      ),
      v.minLength(2, "has fewer than two places"),
      v.maxLength(24),
    ),
    note: text(400),
  }),
  /** A test beside the rub, with what was asked. */
  entry("cure-test", {
    rack: filled(20),
    test: v.picklist(cureTests),
    readings: v.pipe(v.array(number(0, 1000)), v.minLength(1, "has no reading"), v.maxLength(50)),
    lower: v.nullable(number(0, 1000)),
    upper: v.nullable(number(0, 1000)),
    onPanel: v.boolean(),
  }),
  /** Two programs on the same panels, the same test. */
  entry("cure-trial", {
    question: filled(200),
    test: filled(80),
    unit: text(20),
    programA: filled(120),
    programB: filled(120),
    valuesA: v.pipe(v.array(number(-1e6, 1e6)), v.minLength(2, "has fewer than two results"), v.maxLength(200)),
    valuesB: v.pipe(v.array(number(-1e6, 1e6)), v.minLength(2, "has fewer than two results"), v.maxLength(200)),
    note: text(400),
  }),
  entry("thickness", {
    rack: filled(20),
    source: v.picklist(["typed", "gauge", "import"]),
    typedUnit: v.picklist(["um", "mil"]),
    /** The gauge it was read with. */
    instrument: v.optional(v.nullable(filled(40)), null),
    coatNo: whole(1, 9),
    readings: v.pipe(
      v.array(
        v.object({
          face: filled(20),
          spot: filled(20),
          valueUm: number(0, BEYOND_ANY_FILM_UM),
          typed: filled(40),
          rejectedReason: v.optional(v.nullable(filled(200)), null),
        }),
      ),
      v.minLength(1, "has no reading"),
      v.maxLength(200_000),
    ),
  }),
  entry("cross-cut", {
    rack: filled(20),
    squaresLost: whole(0, 100),
    squares: v.picklist([25, 100], "is neither 25 nor 100"),
    spacingMm: v.nullable(number(0.5, 5)),
    onPanel: v.boolean(),
  }),
  entry("solvent-rub", {
    rack: filled(20),
    doubleRubs: whole(1, 1000),
    limit: whole(1, 1000),
    grade: whole(0, 5),
    onPanel: v.boolean(),
  }),
  entry("defect", {
    rack: v.nullable(filled(20)),
    structure: v.nullable(filled(40)),
    defect: v.picklist([...knowledge.defects.keys()]),
    face: v.nullable(text(20)),
    x: v.nullable(number(0, 100)),
    y: v.nullable(number(0, 100)),
    extentPercent: v.nullable(number(0, 100)),
    piecesAffected: v.nullable(whole(0, 10_000)),
    piecesSeen: v.nullable(whole(0, 10_000)),
    note: text(400),
  }),
  entry("finding", {
    caseNumber: filled(20),
    finding: v.picklist([...knowledge.findings.keys()]),
    state: v.picklist(["present", "absent", "unknown"]),
    note: text(400),
  }),
  entry("visit", {
    structure: filled(40),
    weather: text(80),
    note: text(800),
    creep: v.pipe(
      v.array(
        v.object({
          zone: filled(80),
          from: v.picklist(["scribe", "chip"]),
          scribeMm: v.nullable(number(0, 20)),
          widthsMm: v.pipe(v.array(number(0, 500)), v.minLength(1, "has no width"), v.maxLength(200)),
        }),
      ),
      v.maxLength(50),
    ),
  }),
]);
export type Entry = v.InferOutput<typeof entrySchema>;
export type EntryInput = v.InferInput<typeof entrySchema>;
