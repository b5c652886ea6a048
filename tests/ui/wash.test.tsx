import { describe, expect, test } from "vitest";
import { bathSlug, codeOfSlug, readinessResult } from "@/core/bath";
import { advise, asNew, fitPart, nothingDone, notSized, parseIntakeLine, refusals, usualSchools } from "@/core/plan";
import { err, ok, valueOrThrow } from "@/core/result";
import type { ExposedRack, Exposure, HowFar } from "@/server/baths/exposure";
import type { PanelSeen, PanelTestSeen, SludgeSeen } from "@/server/baths/wash-proofs";
import type { StopSeen } from "@/server/line/line-stops";
import { AskedAgain } from "@/ui/bath/asked-again";
import { ExposureList } from "@/ui/bath/exposure-list";
import { LineStops } from "@/ui/bath/line-stops";
import { readBathValue } from "@/ui/bath/read-value";
import { ReadinessChart } from "@/ui/bath/readiness-chart";
import { WashProofs } from "@/ui/bath/wash-proofs";
import { describer, type More } from "@/ui/plan/described-part";
import { PartPlan } from "@/ui/plan/part-plan";
import { AirNow } from "@/ui/prepare/air-now";
import { FilmFigures, RuleStanding } from "@/ui/thickness/film-readout";
import { RejectList } from "@/ui/thickness/reject-list";
import { failureText } from "@/ui/words/failures";
import { fitAtSaid, fitSaid, keptOut } from "@/ui/words/plan";
import { html, words } from "../support/markup";

const at = new Date("2026-05-04T10:00:00Z");
const minutes = (n: number) => new Date(at.getTime() + n * 60_000);
const zone = { now: at, timeZone: "Europe/London" };

describe("stops of the line", () => {
  const stop = (racks: StopSeen["racks"]): StopSeen => ({
    recordId: "s1",
    line: "Washer 1",
    from: minutes(-40),
    to: minutes(-30),
    cause: "a hook caught",
    by: "rufus",
    racks,
  });
  test("each rack with where it stood, how long, what was allowed, and what that means", () => {
    const said = words(
      <LineStops
        {...zone}
        stops={[
          stop([
            {
              number: "1042",
              at: { where: "in-stage", stage: "conversion" },
              seconds: 690,
              limitS: [60, 120],
              result: "out",
            },
            {
              number: "1043",
              at: { where: "between", after: "conversion", before: "rinse" },
              seconds: 660,
              limitS: [null, 180],
              result: "out",
            },
            {
              number: "1044",
              at: { where: "between", after: "clean", before: "conversion" },
              seconds: 160,
              limitS: [null, 180],
              result: "watch",
            },
            { number: "1045", at: { where: "in-stage", stage: "dry-off" }, seconds: 1200, limitS: null, result: "in" },
            { number: "1046", at: { where: "in-stage", stage: "rinse" }, seconds: 90, limitS: null, result: "unknown" },
          ]),
        ]}
      />,
    );
    expect(said).toContain("10:20–10:30 a hook caught rufus");
    expect(said).toContain("1042 in conversion 11.5 min 1–2 asked Contact out");
    expect(said).toContain("1043 wet between conversion and rinse 11.0 min 3 at most Watch for flash rust");
    expect(said).toContain("1044 wet between clean and conversion 2.7 min 3 at most Look for flash rust");
    expect(said).toContain("1045 in dry-off 20.0 min No harm");
    expect(said).toContain("1046 in rinse 1.5 min No window set");
  });
  test("without a rack in the line, and without a stop, it says so", () => {
    expect(words(<LineStops {...zone} stops={[stop([])]} />)).toContain(
      "No rack was in the line by what is on record.",
    );
    expect(words(<LineStops {...zone} stops={[]} />)).toBe("No stop in the last two days.");
  });
});

describe("racks exposed", () => {
  const rack = (number: string, howFar: HowFar, stage = "oven"): ExposedRack => ({
    number,
    part: "Bracket",
    job: "J-1",
    enteredAt: minutes(-600),
    howFar,
    stage,
    parted: false,
  });
  const exposure = (racks: readonly ExposedRack[], total = racks.length): Exposure => ({
    racks,
    total,
    byHowFar: {
      "still-here": racks.filter((r) => r.howFar === "still-here").length,
      released: racks.filter((r) => r.howFar === "released").length,
      "in-the-field": racks.filter((r) => r.howFar === "in-the-field").length,
      scrapped: racks.filter((r) => r.howFar === "scrapped").length,
    },
  });
  const stretch = {
    fromMs: minutes(-900).getTime(),
    firstOutMs: minutes(-700).getTime(),
    toMs: minutes(-200).getTime(),
    worst: 6.12,
    checksOut: 3,
  };
  const said = (found: Exposure, over: object = {}, units: "metric" | "us" = "metric", parameter = "ph") =>
    words(
      <ExposureList {...zone} parameter={parameter} stretch={{ ...stretch, ...over }} exposure={found} units={units} />,
    );
  test("of a rack that is still here some pieces may have left: that is said first of all", () => {
    const parted = { ...rack("1042", "still-here"), parted: true };
    expect(said(exposure([parted]))).toContain("Last at oven; some pieces released");
    expect(said(exposure([{ ...rack("1043", "scrapped"), parted: true }]))).toContain("Scrapped; some pieces released");
    expect(said(exposure([{ ...rack("1044", "released"), parted: true }]))).not.toContain("some pieces");
  });
  test("when, how far out, how many and how far each has got; what can still be stopped comes first", () => {
    const out = said(exposure([rack("7", "released"), rack("8", "in-the-field"), rack("9", "still-here")]));
    expect(out).toContain("up to 6.12, 3 checks");
    expect(out).toContain("1 still here");
    expect(out).toContain("1 released");
    expect(out).toContain("1 in the field");
    expect(out).toContain("Last at oven");
    expect(out.indexOf("9 Bracket")).toBeLessThan(out.indexOf("7 Bracket"));
    expect(out).toContain("Counted from the last good check");
  });
  test("still out, no rack passed, one check, more than are listed", () => {
    const open = said(exposure([]), { toMs: null, checksOut: 1 });
    expect(open).toContain("to now");
    expect(open).toContain("1 check No rack passed");
    expect(said(exposure([rack("7", "released")], 512))).toContain("The newest 1 of 512 are listed.");
  });
  test("a temperature is said in one's own unit", () => {
    expect(said(exposure([]), { worst: 60 }, "us", "temperature")).toContain("up to 140 °F");
    expect(said(exposure([]), { worst: 60 }, "metric", "temperature")).toContain("up to 60 °C");
  });
});

describe("readiness", () => {
  const hours = (indexes: readonly (number | null)[]) =>
    indexes.map((index, i) => ({
      at: minutes(i * 60),
      index,
      grade: i === 1 ? ("assumed" as const) : ("measured" as const),
    }));
  test("a bar an hour, hatched where assumed, none where nothing is known; the lowest is read out", () => {
    const out = html(<ReadinessChart hours={hours([90, 80, null, 42])} timeZone="Europe/London" />);
    expect(out.match(/<rect[^>]*stroke="/g)).toHaveLength(3);
    expect(out.match(/fill="url\(#[^)]*-hatch\)"/g)).toHaveLength(1);
    expect(out).toContain("lowest 42");
    expect(out).toContain("50: at a limit");
  });
  test("nothing known, and no hour at all", () => {
    expect(html(<ReadinessChart hours={hours([null, null])} timeZone="Europe/London" />)).toContain("lowest not known");
    expect(html(<ReadinessChart hours={[]} timeZone="Europe/London" />)).toBe("");
  });
  test.each([
    [null, "unknown"],
    [0, "out"],
    [49, "out"],
    [50, "watch"],
    [64, "watch"],
    [65, "in"],
    [100, "in"],
  ] as const)("%s is %s", (index, result) => {
    expect(readinessResult(index)).toBe(result);
  });
});

describe("proofs of the wash", () => {
  const panel = (over: Partial<PanelSeen>): PanelSeen => ({
    recordId: String(over.gPerM2 ?? over.colour),
    at: minutes(-60),
    by: "rufus",
    grade: "measured",
    gPerM2: null,
    colour: null,
    look: "uniform-dull",
    note: "",
    ...over,
  });
  const sludge: SludgeSeen[] = [
    { recordId: "a", at: minutes(-30), by: "rufus", what: "measured", depthMm: 45, note: "" },
    { recordId: "b", at: minutes(-20), by: "rufus", what: "desludged", depthMm: null, note: "to the press, 2 h" },
  ];
  test("weights in one's own unit, a colour as a band, a bad look out whatever it weighs", () => {
    const proofs = (units: "metric" | "us") =>
      words(
        <WashProofs
          {...zone}
          tests={[]}
          worstIso={1}
          asked={[0.2, 0.9]}
          units={units}
          sludge={sludge}
          panels={[
            panel({ gPerM2: 0.5 }),
            panel({ colour: "gold", grade: "by-procedure" }),
            panel({ gPerM2: 0.6, look: "powdery" }),
          ]}
        />,
      );
    expect(proofs("metric")).toContain("0.20 g/m² to 0.90 g/m² asked");
    expect(proofs("metric")).toContain("0.50 g/m²");
    expect(proofs("metric")).toContain("gold");
    expect(proofs("metric")).toContain("by colour");
    expect(proofs("metric")).toContain("powdery, comes off");
    expect(proofs("us")).toContain("46 mg/ft²");
    expect(proofs("metric")).toContain("dug out to the press, 2 h");
    expect(proofs("metric")).toContain("45 mm");
  });
  test("a tested panel stands with what the bath read at its hour", () => {
    const tested = (over: Partial<PanelTestSeen>): PanelTestSeen => ({
      recordId: String(over.iso ?? over.hours),
      at: minutes(-60),
      by: "tomasz",
      test: "adhesion",
      washedAt: minutes(-900),
      iso: null,
      hours: null,
      creepMm: null,
      coating: "GR-505, 76 µm",
      baths: [
        { parameter: "ph", value: 6.04, grade: "measured", result: "out" },
        { parameter: "inhibitor", value: null, grade: "unknown", result: "unknown" },
      ],
      ...over,
    });
    const out = words(
      <WashProofs
        {...zone}
        asked={null}
        units="metric"
        sludge={[]}
        panels={null}
        worstIso={1}
        tests={[tested({ iso: 3 }), tested({ test: "salt-spray", hours: 480, creepMm: 1.6 })]}
      />,
    );
    expect(out).toContain("GR-505, 76 µm");
    expect(out).toContain("pH 6.04");
    expect(out).toContain("inhibitor not known");
    expect(out).toContain("grade 3");
    expect(out).toContain("1.6 mm creep 480 h salt spray");
  });
  test("a bath that makes no coat shows no panels; nothing on record is said", () => {
    const rinse = words(
      <WashProofs {...zone} tests={[]} worstIso={1} asked={null} units="metric" sludge={[]} panels={null} />,
    );
    expect(rinse).toBe("Sludge and filters Nothing on record.");
    const none = words(
      <WashProofs {...zone} tests={[]} worstIso={1} asked={null} units="metric" sludge={[]} panels={[]} />,
    );
    expect(none).toContain("None on record: the wash is known by its figures alone.");
  });
});

describe("what is asked again", () => {
  const asked = (refused: { kind: string; [k: string]: unknown } | null, units: "metric" | "us" = "metric") =>
    words(<AskedAgain refused={refused} units={units} busy={false} use={() => {}} sure={() => {}} />);
  test("a slip offers what was meant, in one's own unit, and the value as typed", () => {
    const slip = { kind: "value-in-question", parameter: "temperature", suggested: 47.78 };
    expect(asked(slip)).toBe("Use 48 °C It stands as typed");
    expect(asked(slip, "us")).toBe("Use 118 °F It stands as typed");
  });
  test("another tank offers only to let it stand; any other refusal offers nothing", () => {
    expect(asked({ kind: "tank-in-question", other: "Tank 1" })).toBe("It stands as typed");
    expect(asked({ kind: "not-saved" })).toBe("");
    expect(asked(null)).toBe("");
  });
  test.each([
    [
      {
        kind: "value-in-question",
        bath: "Tank 3",
        parameter: "temperature",
        value: 118,
        usual: 47,
        suggested: 47.78,
        slip: "fahrenheit-as-celsius",
      },
      /118 °C in Tank 3, which usually reads 47 °C: as if °F were typed as °C\. 48 °C was meant/,
    ],
    [{ kind: "tank-in-question", bath: "Tank 3", other: "Tank 1" }, /read like Tank 1, not like Tank 3/],
    [
      {
        kind: "addition-in-question",
        question: "wrong-product",
        bath: "Tank 3",
        product: "Alkaline cleaner",
        belongsTo: "Tank 1",
        known: ["concentrate", "acid"],
      },
      /“Alkaline cleaner” is not a product of Tank 3 \(concentrate, acid\); it belongs to Tank 1/,
    ],
    [{ kind: "addition-in-question", question: "tenfold", litres: 165, advisedL: 16.5 }, /165 L is 10 times .*16\.5 L/],
    [
      { kind: "addition-in-question", question: "wrong-direction", parameter: "ph", value: 4.9, target: 5.2 },
      /pH is at 4\.9, under its target of 5\.2/,
    ],
    [
      {
        kind: "addition-in-question",
        question: "wrong-direction",
        parameter: "concentration",
        value: 2.4,
        target: 2.1,
      },
      /at 2\.4 %, over its target of 2\.1 %/,
    ],
    [{ kind: "addition-in-question", question: "over-freeboard", litres: 200, freeboardL: 160 }, /room for \(160 L\)/],
    [{ kind: "addition-in-question", question: "over-single", litres: 30, mostL: 25 }, /at once \(25 L\). Split it/],
    [{ kind: "bath-empty", bath: "Tank 4", since: "2026-05-04T09:00:00.000Z" }, /dumped at 2026-05-04 09:00 UTC/],
    [{ kind: "bad-stop", minutes: -10 }, /-10 min cannot be/],
    [{ kind: "stop-in-a-stop", from: "2026-05-04T09:00:00.000Z" }, /stood then, from 2026-05-04 09:00 UTC/],
    [{ kind: "bad-bath", field: "volume, L", value: 0, why: "is not over 0" }, /volume, L: 0 is not over 0/],
    [{ kind: "set-up-changed", by: "dagny", what: "Tank 4" }, /dagny changed Tank 4 meanwhile/],
  ])("%j is a sentence with its values", (failure, sentence) => {
    expect(failureText(failure)).toMatch(sentence);
  });
});

describe("what was typed for a bath", () => {
  const typed = (text: string, over: object = {}, parameter: "ph" | "temperature" | "concentration" = "temperature") =>
    readBathValue(parameter, text, "0.2", { units: "metric", titrationFactor: null, ...over });
  test("nothing, a number, one with a comma, one in °F", () => {
    expect(typed("  ")).toBeNull();
    expect(typed("47")).toMatchObject({ value: 47, titrantMl: null });
    expect(typed("47,5")).toMatchObject({ value: 47.5 });
    expect(typed("117", { units: "us" })).toMatchObject({ value: ((117 - 32) * 5) / 9 });
  });
  test("titrant with its blank is a strength; a bath without a factor takes the strength itself", () => {
    const strength = typed("8.4", { titrationFactor: 0.25 }, "concentration");
    expect(strength).toMatchObject({ titrantMl: 8.4, blankMl: 0.2 });
    expect(strength && "value" in strength && strength.value).toBeCloseTo(2.05, 12);
    expect(typed("2.05", {}, "concentration")).toMatchObject({ value: 2.05, titrantMl: null });
  });
  test("no number, beyond the meter, less titrant than blank: refused with why", () => {
    expect(typed("warm")).toMatchObject({ failure: { kind: "not-a-number" } });
    expect(typed("15", {}, "ph")).toMatchObject({ failure: { kind: "beyond-instrument" } });
    expect(typed("0.1", { titrationFactor: 0.25 }, "concentration")).toHaveProperty("failure.kind");
  });
});

describe("a bath's name in an address", () => {
  test.each(["Tank 3", "Tank 12 b", "RINSE", "old tank by the door"])("%s goes there and back", (code) => {
    expect(bathSlug(code)).toMatch(/^[a-z0-9-]+$/);
    expect(codeOfSlug(bathSlug(code))).toBe(code.toLowerCase());
  });
});

describe("a part of a delivery", () => {
  const part = { ...valueOrThrow(parseIntakeLine("Rail,steel,900x100x100,4,6,0.6,2")), line: 1 };
  const own: More = { condition: asNew, features: null, choice: "recommended", overrule: {} };
  const service = { exposure: ["weather" as const], lifeYears: null, finish: "standard" as const, serviceC: null };
  const powder = { family: "polyester" as const, um: [60, 90] as const };
  const describePart = describer(service, usualSchools, powder);
  const has = { blast: true, conversion: "iron-phosphate" as const, washes: true };
  test("what the shop cannot do itself is said of each system", () => {
    const plan = (over: object) =>
      words(
        <PartPlan
          has={{ ...has, ...over }}
          described={describer({ ...service, lifeYears: 8 }, usualSchools, powder)(part, own)}
          fit={undefined}
          set={() => {}}
        />,
      );
    expect(plan({ blast: false, conversion: null })).toContain(
      "Not done here, to be had outside: blasting, iron phosphate",
    );
    expect(plan({})).not.toContain("to be had outside");
  });
  test("the same words give the same answer back, other words another", () => {
    expect(describePart(part, own)).toBe(describePart({ ...part }, { ...own }));
    expect(describePart(part, { ...own, choice: "cheaper" })).not.toBe(describePart(part, own));
    expect(describePart(part, own).advice).toEqual(advise(part, asNew, service, usualSchools));
  });
  test("a powder that cannot work there is refused under the part, by its name", () => {
    const indoor = describer(service, usualSchools, { family: "hybrid", um: [60, 90] });
    const found = indoor(part, own);
    expect(found.against.map((r) => r.kind)).toContain("hybrid-outdoors");
    expect(found.against).toEqual(refusals(part, service, { ...(found.system ?? nothingDone) }));
    expect(words(<PartPlan has={has} described={found} fit={undefined} set={() => {}} />)).toContain("Cannot work");
  });
  test("its fit is said as found: room and counts, what keeps it out, nothing while it is looked for", () => {
    const plan = (fit: Parameters<typeof PartPlan>[0]["fit"]) =>
      words(<PartPlan has={has} described={describePart(part, own)} fit={fit} set={() => {}} />);
    const fits = {
      fits: true as const,
      said: fitSaid(700, { names: [], nothing: false }, "metric"),
      turned: "height up, length along",
    };
    expect(plan({ ...fits, perRack: 16, perOven: 288 })).toContain(
      "Fits, 700 mm to spare : height up, length along ; 16 on a rack, 288 in an oven load",
    );
    expect(plan({ ...fits, perRack: null, perOven: null })).not.toContain("on a rack");
    const out = plan({ fits: false, keptOutBy: [{ place: "Oven 1", by: "3100 mm too long" }] });
    expect(out).toContain("Does not fit Oven 1: 3100 mm too long");
    expect(out).toContain("before it is quoted");
    expect(plan(undefined)).not.toMatch(/Fits|Does not fit/);
    expect(plan({ fits: null })).not.toMatch(/Fits|Does not fit/);
  });
  test("what keeps it out is said by side and by mass, with by how much", () => {
    const places = [
      {
        code: "O",
        name: "Oven",
        role: "oven" as const,
        inside: { lengthMm: 800, widthMm: 900, heightMm: 900 },
        mostKg: null,
      },
      { code: "H", name: "Hook", role: "hook" as const, inside: null, mostKg: 5 },
    ];
    const fit = valueOrThrow(fitPart({ box: { lengthMm: 900, widthMm: 900, heightMm: 900 }, massKg: 12 }, places, 0));
    const outBy = (units: "metric" | "us") => fit.keptOutBy.map((at) => keptOut(at, units));
    expect(outBy("metric")).toEqual(["100 mm too long", "7 kg too heavy"]);
    expect(outBy("us")).toEqual(["3.9 in too long", "15.4 lb too heavy"]);
  });
  test("it fits only where a size is set up to fit into", () => {
    const oven = { code: "O", name: "Oven", role: "oven" as const, inside: null, mostKg: null };
    const booth = {
      ...oven,
      name: "Booth",
      role: "booth" as const,
      inside: { lengthMm: 800, widthMm: 900, heightMm: 900 },
    };
    const hook = { ...oven, name: "Hook", role: "hook" as const };
    const said = (places: Parameters<typeof notSized>[0]) => fitSaid(50, notSized(places), "metric");
    expect(said([booth, hook])).toEqual({ result: "in", words: "Fits, 50 mm to spare", why: null });
    expect(said([booth, oven])).toEqual({
      result: "unknown",
      words: "Fit not known",
      why: "50 mm to spare where a size is set up; it is not for Oven",
    });
    for (const none of [[], [hook], [oven, hook]])
      expect(said(none)).toEqual({ result: "unknown", words: "Fit not known", why: "no room’s size is set up" });
    // Too heavy for the one hook is out, whatever the rooms are.
    expect(fitSaid(null, notSized([hook]), "metric").result).toBe("out");
    const at = { equipment: "", role: "oven" as const, fits: true, clearanceMm: null, tight: null, overKg: null };
    expect(fitAtSaid(at, oven, "metric")).toEqual({ result: "unknown", words: "size not set up" });
    expect(fitAtSaid(at, hook, "metric")).toEqual({ result: "unknown", words: "load not set up" });
    expect(fitAtSaid(at, { ...hook, mostKg: 5 }, "metric")).toEqual({ result: "in", words: "carries it" });
    expect(fitAtSaid({ ...at, clearanceMm: 50 }, booth, "metric")).toEqual({ result: "in", words: "50 mm" });
    expect(fitAtSaid({ ...at, fits: false, clearanceMm: -50 }, booth, "metric")).toEqual({
      result: "out",
      words: "-50 mm",
    });
    expect(fitAtSaid({ ...at, clearanceMm: 50 }, booth, "us").words).toBe("2 in");
  });
});

describe("the film as it is read", () => {
  const figures = (over: object, units: "metric" | "us" = "metric") =>
    words(
      <FilmFigures
        meanUm={74.2}
        sdUm={3.46}
        lowestUm={61}
        limits={{ minUm: 60, lowestUm: 48 }}
        read={12}
        asked={30}
        units={units}
        {...over}
      />,
    );
  test("mean, spread and lowest spot each carry their unit", () => {
    expect(figures({})).toBe("mean spots differ by lowest spot readings 74.2 µm 3.5 µm 61.0 µm 12 of 30");
    expect(figures({}, "us")).toMatch(/2\.92 mil 0\.14 mil 2\.40 mil 12 of 30/);
    expect(figures({ meanUm: null, sdUm: null, lowestUm: null, read: 0 })).toContain("– µm – µm – µm 0 of 30");
  });
  test("a lowest spot under its limit is out, one under the mean's least is to watch", () => {
    const drawn = (lowestUm: number) =>
      html(
        <FilmFigures
          meanUm={70}
          sdUm={1}
          lowestUm={lowestUm}
          limits={{ minUm: 60, lowestUm: 48 }}
          read={3}
          asked={3}
          units="metric"
        />,
      );
    expect(drawn(47.9)).toContain("text-out");
    expect(drawn(55)).toContain("text-watch");
    expect(drawn(60)).not.toMatch(/text-out|text-watch/);
  });
  test("what cannot be judged yet says why; without a reason against it, it is in", () => {
    expect(words(<RuleStanding judged={err({ kind: "no-values" })} units="metric" />)).toContain("Record one first");
    const fine = ok({ kind: "film-verdict", result: "in", reasons: [] }) as unknown as Parameters<
      typeof RuleStanding
    >[0]["judged"];
    expect(words(<RuleStanding judged={fine} units="metric" />)).toContain("Mean and every spot inside the range");
  });
  test("readings not yet recorded can each be left out, with a reason", () => {
    const list = html(
      <RejectList
        units="metric"
        onReject={() => {}}
        draft={[
          { key: "a", spot: "A1", valueUm: 72, rejectedReason: null },
          { key: "b", spot: "A2", valueUm: 12, rejectedReason: "probe off the part" },
        ]}
      />,
    );
    expect(list).toContain("72.0 µm");
    expect(list).toContain("Reading 2: keep or leave out");
    expect(list).toMatch(/role="combobox"[^>]*>.*?probe off the part/);
  });
});

describe("the air", () => {
  const air = {
    readings: [
      { quantity: "air-temperature" as const, value: 19, unit: "°C", place: "hall", at: minutes(-20), by: "tomasz" },
      { quantity: "humidity" as const, value: 62, unit: "%", place: "hall", at: minutes(-20), by: "tomasz" },
    ],
    dewPointC: 11.6,
    marginC: 6.4,
    lasts: { hours: 2.3, fallCPerHour: 1.5, grade: "measured" as const },
  };
  const said = (over: object = {}, units: "metric" | "us" = "metric") =>
    words(<AirNow air={{ ...air, ...over }} units={units} marginC={3} {...zone} mayLog={false} />);
  test("dew point, the metal's margin over it and how long that lasts, in one's own unit", () => {
    expect(said()).toMatch(/Dew point 12 °C/);
    expect(said()).toContain("metal 6.4 °C over");
    expect(said()).toMatch(/an hour .*the margin lasts 2\.3 h/);
    expect(said({}, "us")).toMatch(/66 °F .*Dew point 53 °F.*metal 11\.5 °F over/);
  });
  test("a margin that is gone says what to do; without a metal temperature it is not known", () => {
    expect(said({ lasts: { hours: 0, fallCPerHour: 1, grade: "assumed" } })).toContain("warm the metal or dry the air");
    const unread = said({ marginC: null, lasts: null });
    expect(unread).toContain("metal not read");
    expect(unread).not.toContain("the margin lasts");
    expect(said({ readings: [], dewPointC: null, marginC: null, lasts: null })).toContain(
      "No reading in the last twelve hours.",
    );
  });
});
