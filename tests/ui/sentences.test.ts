import { describe, expect, test } from "vitest";
import { bathParameters } from "@/core/bath";
import { judgeBake } from "@/core/cure";
import { conditionQuantities, prepMeasures, prepSteps } from "@/core/preparation";
import { valueOrThrow } from "@/core/result";
import { judgeFilm } from "@/core/thickness";
import type { VerdictItem } from "@/server/rack/judge-rack";
import { itemKey } from "@/server/release/changed-since";
import { minutesSeconds } from "@/ui/format";
import { recordSentence } from "@/ui/kinds";
import type { SaidDetails } from "@/ui/kinds/said";
import { bathFigure, bathValue, bathWindow, inUnits, parameterName } from "@/ui/words/baths";
import { conditionFigure, prepFigure, prepStepName } from "@/ui/words/preparation";
import { foundText } from "@/ui/words/reasons";
import { itemName, itemOut, itemSentence, namesOf } from "@/ui/words/verdict";

type Of<K extends VerdictItem["item"]> = Extract<VerdictItem, { item: K }>;
const common = { grade: "measured" as const, sources: [] };
const spots = (...means: number[]) =>
  means.map((m, i) => ({ id: `a${i + 1}`, readings: [{ valueUm: m }, { valueUm: m }, { valueUm: m }] }));
const filmOf = (...means: number[]) =>
  valueOrThrow(judgeFilm(spots(...means), { rule: "spot-area", minUm: 60, maxUm: 90, level: 3 }));
const film = (result: VerdictItem["result"], over: Partial<Of<"film">> = {}) =>
  ({
    ...common,
    item: "film",
    result,
    film: null,
    failure: null,
    base: { kind: "none", um: 0 },
    over: null,
    doubted: false,
    ...over,
  }) as Of<"film">;
const trace = (tempC: number, minutes: number) => {
  const timeS = Array.from({ length: minutes * 6 }, (_, i) => i * 10);
  return { timeS, tempC: timeS.map((_, i) => tempC + (i % 2) / 10) };
};
const cure = (tempC: number, minutes: number) => {
  const bake = valueOrThrow(
    judgeBake([{ name: "Leaf", medium: "metal", trace: trace(tempC, minutes) }], {
      points: [{ metalC: 200, minutes: 10 }],
      overbake: [{ metalC: 200, minutes: 30 }],
    }),
  );
  return { ...common, item: "cure", result: bake.result, bake, failure: null } as Of<"cure">;
};

describe("what a rack's verdict says of each of its items", () => {
  test("film: in, thin, never read, and not to be judged", () => {
    expect(itemSentence(film("in", { film: filmOf(70, 72, 74, 76, 78) }), "metric")).toEqual({
      word: "In",
      text: "Mean 74.0 µm, every spot in",
    });
    const thin = itemSentence(film("out", { film: filmOf(40, 42, 44, 46, 48) }), "metric");
    expect(thin.text).toMatch(/^Mean 44\.0 µm; .+\(.*60\.0 µm.*\)$/);
    expect(thin.word).not.toBe("In");
    expect(itemSentence(film("out", { film: filmOf(40, 42, 44, 46, 48) }), "us").text).toContain("Mean 1.73 mil");
    expect(itemSentence(film("unknown"), "metric")).toEqual({
      word: "Not measured",
      text: "No film reading is on record since the newest coat",
    });
    expect(itemSentence(film("unknown", { failure: { kind: "no-areas" } }), "metric").text).toContain(
      "Place its spots",
    );
  });
  test("cure: cured, short and over-baked are three words, each with its figure", () => {
    expect(itemSentence(cure(200, 12), "metric")).toEqual({
      word: "Cured",
      text: "Index 119 on Leaf, the lowest live metal channel",
    });
    expect(itemSentence(cure(200, 6), "metric")).toMatchObject({
      word: "Short",
      text: expect.stringMatching(/; Leaf /),
    });
    const over = itemSentence(cure(200, 40), "metric");
    expect(over.word).toBe("Over-baked");
    expect(over.text).toMatch(/Leaf is past the over-bake limit \(1\d\d\)/);
    expect(itemSentence({ ...cure(200, 12), bake: null, result: "unknown" }, "metric").word).toBe("Not recorded");
  });
  test("adhesion, rub and defects carry their grade or their count", () => {
    const adhesion = (iso: number | null, result: VerdictItem["result"]) =>
      itemSentence(
        { ...common, item: "adhesion", result, iso, astm: iso === null ? null : "3B", worstIso: 1 },
        "metric",
      );
    expect(adhesion(0, "in")).toEqual({ word: "Holds", text: "Cross-cut grade 0 (3B); 1 or better asked for" });
    expect(adhesion(2, "out").word).toBe("Lifts");
    expect(adhesion(null, "unknown").text).toContain("grade 1 or better");
    const rub = (rubGrade: number, result: VerdictItem["result"]) =>
      itemSentence({ ...common, item: "rub", result, rubGrade, doubleRubs: 50, leastGrade: null }, "metric");
    expect([rub(5, "in"), rub(2, "out"), rub(4, "watch")].map((s) => s.word)).toEqual(["Stands", "Softens", "Look"]);
    expect(rub(2, "out").text).toBe("Grade 2 of 5 after 50 double rubs");
    const defect = (affected: number | null, seen: number | null) =>
      itemSentence(
        {
          ...common,
          item: "appearance",
          result: "out",
          defect: "orange-peel",
          affected,
          seen,
          look: null,
          asked: true,
        },
        "metric",
      ).text;
    expect([defect(3, 20), defect(3, null), defect(null, null)]).toEqual([
      "orange peel on 3 of 20 pieces",
      "orange peel on 3 of ? pieces",
      "orange peel",
    ]);
  });
  test("the wash it met: value and window in the person's own units, and one-sided windows whole", () => {
    const wash = (worst: Of<"pretreatment">["worst"], units: "metric" | "us" = "metric") =>
      itemSentence({ ...common, item: "pretreatment", result: "out", notPassed: [], bathOut: true, worst }, units).text;
    const at = { bath: "Tank 3", value: 6.08, lower: 4.8, upper: 5.8 };
    expect(wash({ ...at, parameter: "ph" })).toBe("Tank 3 pH 6.08 on 4.80–5.80 when it passed");
    const heat = { bath: "Tank 1", parameter: "temperature", value: 45, lower: 50, upper: 60 };
    expect(wash(heat)).toBe("Tank 1 temperature 45 °C on 50–60 °C when it passed");
    expect(wash(heat, "us")).toBe("Tank 1 temperature 113 °F on 122–140 °F when it passed");
    expect(wash({ bath: "Rinse", parameter: "conductivity", value: 95, lower: null, upper: 80 })).toBe(
      "Rinse conductivity 95 µS/cm on at most 80 µS/cm when it passed",
    );
    const near = {
      ...common,
      item: "pretreatment" as const,
      notPassed: [],
      bathOut: false,
      worst: { ...at, parameter: "ph" },
    };
    expect(itemSentence({ ...near, result: "watch" }, "metric").word).toBe("Near its limit");
    expect(itemSentence({ ...near, result: "watch", bathOut: true }, "metric").word).toBe("Bath out");
    expect(wash(null)).toBe("No bath check lies near the minute it passed");
    expect(wash({ ...at, parameter: "ph", value: null })).toBe("No bath check lies near the minute it passed");
  });
  test("what was not looked at, not read or not passed says so", () => {
    const look = { faces: 1, of: 2, distanceM: 1, lightLux: 900, by: "Tomasz Reed" };
    const seen = { ...common, item: "appearance" as const, defect: null, affected: null, seen: null, asked: true };
    expect(itemSentence({ ...seen, result: "unknown", look: null }, "metric").word).toBe("Not looked at");
    expect(itemSentence({ ...seen, result: "unknown", look }, "metric").text).toBe(
      "1 of 2 faces looked at as asked; Tomasz Reed, from 1 m, in 900 lux",
    );
    expect(itemSentence({ ...seen, result: "in", look: { ...look, faces: 2 } }, "metric")).toEqual({
      word: "Nothing found",
      text: "Looked at by Tomasz Reed, from 1 m, in 900 lux",
    });
    const test = { ...common, item: "test" as const, test: "impact" as const, lower: 25, upper: null, noResult: false };
    expect(itemSentence({ ...test, result: "unknown", value: null }, "metric")).toEqual({
      word: "Not tested",
      text: "25 kg·cm or more asked for",
    });
    expect(itemSentence({ ...test, result: "out", value: 5 }, "metric")).toEqual({
      word: "Out",
      text: "5 kg·cm; 25 kg·cm or more asked for",
    });
    expect(itemSentence({ ...test, result: "unknown", value: 5, noResult: true }, "metric").word).toBe("No result");
    const steps = { ...common, item: "steps" as const, asked: 3, missing: [], leftOut: [], off: [] };
    expect(itemSentence({ ...steps, result: "in" }, "metric").text).toBe("3 steps asked for, each on record");
    expect(
      itemSentence(
        { ...steps, result: "unknown", missing: ["blast"], leftOut: [{ step: "solvent-wipe", why: "no cloth" }] },
        "metric",
      ).text,
    ).toBe("not on record: blast; solvent wipe left out: no cloth");
    const contact = { ...common, item: "contact" as const, stage: "conversion", window: [60, 120] as const };
    expect(itemSentence({ ...contact, result: "out", seconds: 2 }, "metric")).toEqual({
      word: "Too short",
      text: "0 min 02 s; 1 min 00 s to 2 min 00 s asked for",
    });
    expect(itemSentence({ ...contact, result: "unknown", seconds: null }, "metric").text).toContain(
      "Nobody saw it leave",
    );
    const wash = {
      ...common,
      item: "pretreatment" as const,
      worst: null,
      bathOut: false,
      notPassed: ["rinse", "conversion"],
    };
    expect(itemSentence({ ...wash, result: "unknown" }, "metric").text).toBe(
      "On its route and not on record: rinse, conversion",
    );
    const dry = { ...common, item: "dry-off" as const, minutes: 12, leastMinutes: 10, reasons: [] };
    expect(itemSentence({ ...dry, result: "unknown" }, "metric").text).toContain(
      "nobody looked whether the parts are dry",
    );
    expect(itemSentence({ ...dry, grade: "by-procedure", result: "in" }, "metric").word).toBe("Long enough");
    expect(itemSentence({ ...dry, result: "in" }, "metric").word).toBe("Dry");
    const gas = { ...common, item: "outgassing" as const, heldC: 190, cureMetalC: 200 };
    expect(itemSentence({ ...gas, result: "out" }, "metric")).toEqual({
      word: "Too cool",
      text: "Held at 190 °C for 30 min; the cure that follows is at 200 °C",
    });
    const open = [
      { what: "plug-short" as const, holds: "oven" as const, sinceMs: 0, places: [], count: [3, 4] as const },
    ];
    expect(itemSentence({ ...common, item: "open", result: "unknown", open }, "metric").text).toBe(
      "Plug missing, 3 of 4 in",
    );
  });
  test("each item has its name, and what it is when it holds a rack back", () => {
    const named = (item: object) => ({ ...common, result: "out", ...item }) as unknown as VerdictItem;
    const items = [
      ...[
        "film",
        "cure",
        "adhesion",
        "rub",
        "pretreatment",
        "appearance",
        "fits",
        "steps",
        "outgassing",
        "dry-off",
        "open",
      ].map((item) => named({ item })),
      named({ item: "test", test: "impact" }),
      named({ item: "test", test: "pull-off" }),
      named({ item: "contact", stage: "conversion" }),
      named({ item: "contact", stage: "rinse" }),
    ];
    expect(new Set(items.map(itemName)).size).toBe(items.length);
    expect(new Set(items.map(itemKey)).size).toBe(items.length);
    for (const item of items) expect(itemOut(item)).toMatch(/is out$|on record$/);
    expect(namesOf(items.slice(0, 3))).toBe("Film, Cure and Adhesion");
  });
});

describe("bath values", () => {
  test("each parameter has a name, and its decimals", () => {
    for (const p of bathParameters) expect(parameterName[p], p).toBeTruthy();
    const shown = Object.fromEntries(bathParameters.map((p) => [p, bathFigure(p, 5.256, "metric")]));
    expect(shown).toMatchObject({ ph: "5.26", concentration: "5.26", "free-acid": "5.3", temperature: "5" });
  });
  test("only temperature and pressure differ between the two ways of reading", () => {
    for (const p of bathParameters)
      expect(inUnits(p, 50, "us"), p).toBeCloseTo(p === "temperature" ? 122 : p === "pressure" ? 7.2519 : 50, 3);
    expect(bathValue("ph", 5.2, "us")).toBe("5.20");
  });
  test("windows with both ends, one, and none", () => {
    expect(bathWindow("concentration", { lower: 1.8, upper: 2.4 }, "metric")).toBe("1.80–2.40 %");
    expect(bathWindow("conductivity", { lower: null, upper: 80 }, "us")).toBe("at most 80 µS/cm");
    expect(bathWindow("temperature", { lower: 45, upper: null }, "us")).toBe("at least 113 °F");
    expect(bathWindow("ph", { lower: null, upper: null }, "metric")).toBe("no window");
  });
});

describe("preparation", () => {
  test("every step has its name, and what is measured at it its unit", () => {
    for (const step of prepSteps) expect(prepStepName[step], step).toMatch(/^[A-Z]/);
    expect(prepFigure("blast", 46, "metric")).toBe("46.0 µm");
    expect(prepFigure("blast", 50.8, "us")).toBe("2.00 mil");
    expect(prepFigure("prebake", 230, "us")).toBe("446 °F");
    expect(prepFigure("dust-tape", 2, "metric")).toBe("grade 2");
    expect(prepFigure("soluble-salt", 18.04, "metric")).toBe("18 mg/m²");
    for (const step of Object.keys(prepMeasures) as (keyof typeof prepMeasures)[])
      expect(prepFigure(step, 3, "metric"), step).toMatch(/^(grade \d|\d+(\.\d+)? \S+)$/);
  });
  test("conditions of the hall carry theirs", () => {
    for (const quantity of Object.keys(conditionQuantities) as (keyof typeof conditionQuantities)[]) {
      const said = conditionFigure(quantity, 20, "us");
      expect(said, quantity).toMatch(/^-?\d+(\.\d+)? \S+$/);
      if (conditionQuantities[quantity].unit === "°C") expect(said).toBe("68 °F");
    }
  });
});

describe("what the record holds about a finding", () => {
  const value = {
    kind: "value",
    quantity: "film",
    value: 42,
    unit: "µm",
    lower: null,
    upper: null,
    where: "",
  } as const;
  test("limits on both sides, one, or none", () => {
    expect(foundText({ ...value, lower: 60, upper: 90 })).toBe("film 42.0 µm on 60–90");
    expect(foundText({ ...value, lower: 60 })).toBe("film 42.0 µm (at least 60)");
    expect(foundText({ ...value, upper: 40 })).toBe("film 42.0 µm (limit 40)");
    expect(foundText(value)).toBe("film 42.0 µm");
    expect(foundText({ ...value, value: 5.256, unit: "", where: "Tank 3" })).toBe("film 5.26, Tank 3");
    expect(foundText({ ...value, value: 1233.4 })).toBe("film 1233 µm");
  });
  test("steps done, left out, not called for; what the job says", () => {
    expect(foundText({ kind: "done", step: "solvent-wipe" } as never)).toBe("solvent wipe done");
    expect(foundText({ kind: "not-done", step: "solvent-wipe" } as never)).toBe("solvent wipe: none");
    expect(foundText({ kind: "not-called-for" })).toContain("not called for");
    expect(foundText({ kind: "job-says", substrate: "cast-aluminium", feature: null } as never)).toBe("cast aluminium");
    expect(foundText({ kind: "job-says", substrate: "steel", feature: "sharp-edges" } as never)).toContain(
      "by the part's description",
    );
    expect(foundText({ kind: "exposure", exposure: ["weather", "near-salt"] } as never)).toBe("weather, near salt");
    expect(foundText({ kind: "exposure", exposure: [] } as never)).toBe("none named");
  });
});

describe("a record in a few words", () => {
  const said = (
    kind: string,
    details: object,
    units: "metric" | "us" = "metric",
    counts: Record<string, number> = {},
  ) =>
    recordSentence(kind, details as SaidDetails, {
      units,
      name: (id) => ({ o: "Oven 1", l: "GR-505/4471", u: "Nozzles" })[id ?? ""] ?? "",
      count: (table) => counts[table] ?? 0,
    });
  test("each says what it is about, with its values in the reader's units", () => {
    expect([
      said("passage", { passage: [{ stage: "dry-off" }] }),
      said("bath-check", {
        bath_check: [
          { parameter: "ph", value: 5.2 },
          { parameter: "temperature", value: 48 },
        ],
      }),
      said("bath-check", { bath_check: [{ parameter: "temperature", value: 48 }] }, "us"),
      said("bath-event", { bath_event: [{ event: "addition", amount_l: 2, product: "Zinaphos 20" }] }),
      said("bath-event", {}),
      said("thickness", {}, "metric", { thickness_reading: 15 }),
      said("bake", { bake: [{ oven_id: "o", load_no: "417", pulled_at: null }] }),
      said("bake", { bake: [{ oven_id: "o", load_no: "417", pulled_at: new Date() }] }),
      said("prep-step", { prep_step: [{ step: "blast", done: true, value: 46 }] }),
      said("prep-step", { prep_step: [{ step: "blast", done: true, value: 50.8 }] }, "us"),
      said("prep-step", { prep_step: [{ step: "solvent-wipe", done: false, value: null, note: "no oil" }] }),
      said("cross-cut", { cross_cut: [{ iso: 2 }] }),
      said("defect", { defect: [{ defect: "orange-peel", pieces_affected: 2, face: "F" }] }),
      said("defect", { defect: [{ defect: "orange-peel", pieces_affected: 0 }] }),
      said("disposition", { disposition: [{ decision: "scuff-and-recoat" }] }),
      said("upkeep", { upkeep_done: [{ item_id: "u", result: "put-right" }] }),
      said("coat", { coat: [{ layer: "top", lot_id: "l" }] }),
      said("line-stop", { line_stop: [{ from_at: new Date(0), to_at: new Date(1_500_000), cause: "chain" }] }),
      said("line-stop", {}),
      said("something-new", {}),
    ]).toEqual([
      "into dry off",
      "read pH 5.20, temperature 48 °C",
      "read temperature 118 °F",
      "addition 2.0 L Zinaphos 20",
      "addition or change",
      "film, 15 readings",
      "in Oven 1, load 417",
      "out of Oven 1, load 417",
      "blast, 46.0 µm",
      "blast, 2.00 mil",
      "solvent wipe left out: no oil",
      "cross-cut grade 2",
      "orange peel seen on F",
      "looked for orange peel, none seen",
      "scuff and recoat",
      "Nozzles: put right",
      "coated, top, lot GR-505/4471",
      "the line stood 25 min, chain",
      "stop of the line taken back",
      "something new",
    ]);
  });
});

describe("minutes and seconds", () => {
  test("never sixty seconds, however it rounds", () => {
    expect([0, 59.4, 59.7, 119.6, 600, 3661.2].map(minutesSeconds)).toEqual([
      "0 min 00 s",
      "0 min 59 s",
      "1 min 00 s",
      "2 min 00 s",
      "10 min 00 s",
      "61 min 01 s",
    ]);
  });
});
