import { describe, expect, test } from "vitest";
import { type NextStep, type RackState, railStages } from "@/core/line";
import type { Line, OpenBake, RackOnLine } from "@/server/line/load-line";
import { railFacts } from "@/server/line/rail-facts";
import { dueList } from "@/ui/shift/due-list";

const at = new Date("2026-05-04T10:00:00Z");
const minutes = (n: number) => new Date(at.getTime() + n * 60_000);
const waitsFor: Partial<Record<RackState, NextStep>> = {
  "film-open": "film",
  "to-release": "release",
  held: "decide",
  "to-recoat": "recoat",
  "to-strip": "strip",
  bare: "wash",
};
const rack = (number: string, what: RackState, over: Partial<RackOnLine> = {}): RackOnLine => ({
  number,
  part: "Bracket",
  customer: "Test customer",
  stage: "coat",
  passage: "booth",
  since: minutes(-30),
  open: true,
  result: "in",
  what,
  job: "J-1",
  next: waitsFor[what] ?? "cure",
  nextSince: minutes(-30),
  readings: 0,
  asked: 30,
  defect: null,
  iso: null,
  testsDue: [],
  sampleDue: [],
  heldBy: null,
  bareSinceMs: null,
  unsealedSinceMs: null,
  wipedAtMs: null,
  ...over,
});
const bake = (over: Partial<OpenBake> = {}): OpenBake => ({
  recordId: "b",
  oven: "Oven 1",
  load: "12",
  racks: ["100"],
  closedAt: minutes(-25),
  index: 60,
  channel: "Thick",
  pullAt: minutes(9),
  lastAt: at,
  stale: false,
  foretold: null,
  overdue: false,
  result: "in",
  cured: (over.index ?? 60) >= 110,
  ...over,
});
const line = (over: Partial<Line> = {}): Line => ({
  at,
  racks: [],
  baths: [],
  bakes: [],
  lookAgain: [],
  structuresDue: [],
  openCases: [],
  upkeep: [],
  instrumentsDue: [],
  panels: [],
  actions: [],
  complaints: [],
  daysWithoutBackup: null,
  jobs: { open: 2, overdue: 0 },
  counts: Object.fromEntries(
    railStages.map((stage) => [stage, (over.racks ?? []).filter((r) => r.stage === stage).length]),
  ) as Line["counts"],
  openCaseCount: (over.openCases ?? []).length,
  bareLimitHours: 4,
  humidityPercent: null,
  dewPointMarginC: 3,
  unsealedLimitHours: 24,
  flashOffMinutes: 10,
  timeZone: "Europe/London",
  siteName: "Test shop",
  shift: { name: "Day shift", previousBegan: minutes(-600) },
  ...over,
});

describe("what needs a hand", () => {
  test("of what is due, metal in the heat comes first, then what is out, then what waits; the future by its time", () => {
    const due = dueList(
      line({
        racks: [
          rack("1", "film-open"),
          rack("2", "to-release"),
          rack("3", "held"),
          rack("4", "bare", { bareSinceMs: minutes(-200).getTime() }),
        ],
        bakes: [bake({ index: 130, pullAt: minutes(-1) }), bake({ load: "13" })],
        openCases: [{ number: "7", defect: "orange-peel", zone: "Face" }],
      }),
      "metric",
    );
    expect(due.map((d) => d.what)).toEqual([
      "Oven 1, load 12",
      // In nine minutes: got ready for.
      "Oven 1, load 13",
      "Rack 3, coat",
      "Rack 1, film",
      "Rack 2, release",
      "Rack 4, bare metal",
      "Case 7",
    ]);
  });
  test("a shop long without a backup, and a complaint that nobody answered, are said", () => {
    const complaint = { id: "a", at: minutes(-3 * 1440), customer: "Harrow", rack: "12", what: "it flakes" };
    const due = dueList(line({ daysWithoutBackup: 9, complaints: [complaint] }), "metric");
    expect(due.map((d) => [d.what, d.word, d.href])).toEqual([
      ["Complaint of Harrow, rack 12", "Unanswered 3 d", "/causes/complaints/a"],
      ["No backup", "None for 9 days", "/shop/backup"],
    ]);
  });
  test("an instrument whose verification is due says so with its day, one never verified too", () => {
    const due = dueList(
      line({
        instrumentsDue: [
          { name: "Film gauge 7", standing: { state: "overdue", dueOn: "2026-05-01", daysLeft: -5 } },
          { name: "Meter 2", standing: { state: "never", dueOn: null, daysLeft: null } },
        ],
      }),
      "metric",
    );
    expect(due.map((d) => [d.what, d.result, d.word])).toEqual([
      ["Film gauge 7", "out", "Verification overdue since 2026-05-01"],
      ["Meter 2", "watch", "Never verified on record"],
    ]);
  });
  test("a missed check and metal past its limit come before racks that have been held for days", () => {
    const bath = {
      bath: { code: "Tank 3", data: { name: "Tank 3 conversion" } },
      series: [],
      nextCheckBy: minutes(-100),
      result: "watch",
    } as unknown as Line["baths"][number];
    const due = dueList(
      line({
        racks: [rack("3", "held"), rack("4", "bare", { bareSinceMs: minutes(-250).getTime() }), rack("1", "film-open")],
        bakes: [bake()],
        baths: [bath],
      }),
      "metric",
    );
    expect(due.map((d) => [d.what, d.word])).toEqual([
      ["Oven 1, load 12", "Pull 11:09"],
      ["Rack 4, bare metal", "Past limit"],
      ["Tank 3 conversion", "Check overdue"],
      ["Rack 3, coat", "Held"],
      ["Rack 1, film", "0 of 30"],
    ]);
  });
  test("what is signed and not as it was asks a lead to look again, by what changed", () => {
    const changed = [
      { item: "test:impact", was: "in", is: "out" },
      { item: "pretreatment", was: "in", is: "watch" },
    ];
    expect(dueList(line({ lookAgain: [{ rack: "0869", since: minutes(-30), changed }] }), "metric")[0]).toMatchObject({
      what: "Rack 0869, look again",
      word: "Look again",
      href: "/racks/0869/release",
      why: "Signed, and not as it was since 10:30: impact without a crack now out, pretreatment now watch",
    });
  });
  test("an old figure never stands as the present one: what is foretold comes first, then what was read and when", () => {
    const said = (over: Partial<OpenBake>) =>
      dueList(line({ bakes: [bake({ stale: true, lastAt: minutes(-100), index: 51, ...over })] }), "metric")[0]?.why;
    const read = "read 09:20, 1 h 40 ago: index 51 then on Thick";
    expect(said({ foretold: { index: 480.4, overbakedSince: minutes(-20) } })).toBe(
      `Foretold over-baked since 10:40; ${read}`,
    );
    expect(said({ foretold: { index: 180, overbakedSince: null }, overdue: true, pullAt: minutes(-87) })).toBe(
      `Foretold cured since 09:33, index 180 by now; ${read}`,
    );
    expect(said({ foretold: { index: 80, overbakedSince: null } })).toBe(`Foretold at index 80 by now; ${read}`);
    expect(said({ foretold: null })).toBe(`What it is by now nobody knows; ${read}`);
    const rail = (over: Partial<OpenBake>) =>
      railFacts(line({ bakes: [bake({ stale: true, ...over })] }), (d) => d.toISOString().slice(11, 16)).stages.find(
        (s) => s.id === "cure",
      );
    expect(JSON.stringify(rail({ overdue: true, pullAt: minutes(-87) }))).toContain("Oven 1 overdue");
    expect(JSON.stringify(rail({ foretold: { index: 480, overbakedSince: minutes(-20) } }))).toContain(
      "Oven 1 over-baked",
    );
  });
  test("a quiet line needs none", () => {
    expect(dueList(line(), "metric")).toEqual([]);
  });
  test.each([
    ["still heating", { pullAt: null, index: 12 }, "Heating", "in", null],
    ["to be pulled in nine minutes", {}, "Pull 11:09", "in", minutes(9).getTime()],
    ["past the minute", { pullAt: minutes(-4), overdue: true }, "Pull overdue 4 min", "watch", minutes(-4).getTime()],
    [
      "past it, and foretold over-baked",
      {
        pullAt: minutes(-87),
        overdue: true,
        stale: true,
        lastAt: minutes(-100),
        result: "out",
        foretold: { index: 480, overbakedSince: minutes(-20) },
      },
      "Over-baked?",
      "out",
      minutes(-87).getTime(),
    ],
    ["cured", { index: 130, pullAt: minutes(-1), result: "watch" }, "Pull now", "watch", minutes(-1).getTime()],
    ["over-baked", { index: 300, pullAt: minutes(-1), result: "out" }, "Pull now", "out", minutes(-1).getTime()],
    [
      "without a trace",
      { index: null, channel: "", pullAt: null, result: "unknown" },
      "25 min in",
      "unknown",
      minutes(-25).getTime(),
    ],
  ] as const)("a load %s", (_, over, word, result, atMs) => {
    expect(dueList(line({ bakes: [bake(over as Partial<OpenBake>)] }), "metric")).toMatchObject([
      { word, result, atMs },
    ]);
  });
  test.each([
    ["held", "Held", "out", "/racks/100/release"],
    ["adhesion-out", "Look", "out", "/racks/100/release"],
    ["defect", "Look", "out", "/racks/100/release"],
    ["film-open", "27 of 30", "unknown", "/racks/100/thickness"],
    ["to-release", "To release", "in", "/racks/100/release"],
    ["to-recoat", "To recoat", "watch", "/racks/100/prepare"],
    ["to-strip", "To strip", "watch", "/racks/100/prepare"],
  ] as const)("a rack that is %s leads where it is dealt with", (what, word, result, href) => {
    const item = dueList(
      line({ racks: [rack("100", what, { readings: 27, iso: what === "adhesion-out" ? 3 : null })] }),
      "metric",
    );
    expect(item).toMatchObject([{ word, result, href }]);
  });
  test("a held rack says what it is held for by its own job's limit, or nothing where only a decision holds it", () => {
    const whyOf = (over: Partial<RackOnLine>) =>
      dueList(line({ racks: [rack("100", "held", { stage: "release", result: "out", ...over })] }), "metric")[0]?.why;
    expect(whyOf({ iso: 1, heldBy: "adhesion" })).toMatch(/cross-cut grade 1, held for a lead/);
    expect(whyOf({ iso: 2, defect: "soft-film", heldBy: "defect" })).toMatch(/: soft film, held for a lead/);
    expect(whyOf({ iso: 2, heldBy: "decision" })).toMatch(/Bracket: held for a lead/);
  });
  test("a running rack is told last, with what comes next and since when, and is due at no hour", () => {
    const due = dueList(line({ racks: [rack("100", "running")], bakes: [bake()] }), "metric");
    expect(due.at(-1)).toEqual({
      atMs: null,
      what: "Rack 100, into the oven",
      why: "Bracket: in booth 30 min ago",
      result: "in",
      word: "Running",
      href: "/racks/100/cure",
      stage: "coat",
    });
  });
  test("what is due after a pull stays until it is done: the trace, the film, the tests", () => {
    const due = dueList(
      line({
        racks: [
          rack("1", "running", { stage: "test", next: "trace" }),
          rack("2", "running", { stage: "test", next: "film" }),
          rack("3", "running", { stage: "test", next: "tests", readings: 30, iso: 0 }),
          rack("4", "running", { stage: "test", next: "tests", readings: 30 }),
        ],
      }),
      "metric",
    );
    expect(due.map((d) => [d.what, d.why, d.word, d.href])).toEqual([
      [
        "Rack 1, trace",
        "Bracket: out of the oven 30 min ago with no metal temperature on record, so its cure is not known",
        "No trace",
        "/racks/1/cure",
      ],
      ["Rack 2, film", "Bracket: out of the oven 30 min ago, no reading yet", "0 of 30", "/racks/2/thickness"],
      ["Rack 3, tests", "Bracket: film is read; the rub is to come", "To test", "/racks/3/bench"],
      ["Rack 4, tests", "Bracket: film is read; cross-cut and rub are to come", "To test", "/racks/4/bench"],
    ]);
    for (const item of due) expect(item).toMatchObject({ result: "unknown", atMs: at.getTime() });
  });
  test("racks and cases that are not named are counted, with where they are", () => {
    const racks = [rack("1", "held", { stage: "release" })];
    const counts = { ...line({ racks }).counts, release: 41 };
    const due = dueList(line({ racks, counts, openCaseCount: 3 }), "metric");
    expect(due.find((d) => d.href === "/racks?stage=release")).toMatchObject({
      what: "40 more racks",
      stage: "release",
    });
    expect(due.find((d) => d.href === "/causes")).toMatchObject({ what: "3 more cases" });
  });
  test("bare metal is due at the shop's limit, and out past it", () => {
    const bare = (ago: number) =>
      dueList(line({ racks: [rack("100", "bare", { bareSinceMs: minutes(-ago).getTime() })] }), "metric")[0];
    expect(bare(60)).toMatchObject({ result: "in", word: "60 min bare", atMs: minutes(180).getTime() });
    expect(bare(241)).toMatchObject({ result: "out", word: "Past limit" });
  });
  test("pulls within half an hour first, the soonest before; what has no time comes last", () => {
    const due = dueList(
      line({
        bakes: [bake({ pullAt: minutes(20) }), bake({ load: "13", pullAt: minutes(2) })],
        racks: [rack("100", "held")],
        openCases: [{ number: "7", defect: "rust-creep", zone: "Legs" }],
      }),
      "metric",
    );
    expect(due.map((d) => d.what)).toEqual(["Oven 1, load 13", "Oven 1, load 12", "Rack 100, coat", "Case 7"]);
  });
});

describe("the rail", () => {
  const fact = (id: string, over: Partial<Line>) => {
    const stage = railFacts(line(over), (d) => d.toISOString().slice(11, 16)).stages.find((s) => s.id === id);
    return stage?.fact.text ?? stage?.fact.prefix;
  };
  test.each([
    ["cure", { bakes: [bake()] }, "Oven 1 pull 10:09"],
    ["cure", { bakes: [bake({ index: 130 })] }, "Oven 1 pull now"],
    ["cure", { bakes: [bake({ index: 10, pullAt: null })] }, "Oven 1 heating"],
    ["cure", { bakes: [bake({ index: null, pullAt: null })] }, "Oven 1 load 12"],
    ["cure", {}, ""],
    ["plan", { jobs: { open: 1, overdue: 0 } }, "1 job open"],
    ["plan", {}, "2 jobs open"],
    ["coat", { racks: [rack("100", "running")] }, "100 in booth"],
    ["prepare", { racks: [rack("100", "to-recoat", { stage: "prepare" })] }, "1 in hand"],
    ["prepare", { racks: [rack("100", "bare", { stage: "prepare", bareSinceMs: minutes(-5).getTime() })] }, "100 bare"],
    ["test", { racks: [rack("100", "film-open", { stage: "test" })] }, "100 in hand"],
    [
      "release",
      { racks: [rack("100", "held", { stage: "release" }), rack("101", "held", { stage: "release" })] },
      "2 held",
    ],
    ["release", { racks: [rack("100", "to-release", { stage: "release" })] }, "1 to release"],
    ["field", { structuresDue: [{ code: "Q", name: "Quay gate", lastVisit: null }] }, "Quay gate"],
  ] as const)("%s says %s", (id, over, said) => {
    expect(fact(id, over as Partial<Line>)).toBe(said);
  });
  test("each rack hangs at its stage, with its state in a word", () => {
    const states: RackState[] = [
      "held",
      "adhesion-out",
      "defect",
      "film-open",
      "to-release",
      "running",
      "bare",
      "to-recoat",
      "to-strip",
    ];
    const rail = railFacts(line({ racks: states.map((what, i) => rack(String(i), what)) }), () => "");
    const coat = rail.stages.find((s) => s.id === "coat");
    expect(coat?.tags).toHaveLength(states.length);
    expect(new Set(coat?.tags.map((tag) => tag.word)).size).toBe(states.length);
    expect(rail.stages.filter((s) => s.id !== "coat").every((s) => s.tags.length === 0)).toBe(true);
  });
});

describe("clocks that start by themselves", () => {
  const of = (over: Partial<RackOnLine>) =>
    dueList(line({ racks: [rack("100", "running", { stage: "prepare", ...over })] }), "metric");
  test("solvent: wait while it flashes off, nothing after", () => {
    expect(of({ wipedAtMs: minutes(-4).getTime() })[0]).toMatchObject({
      what: "Rack 100, solvent",
      word: "Wait 6 min",
      result: "watch",
      atMs: minutes(6).getTime(),
    });
    expect(of({ wipedAtMs: minutes(-10).getTime() }).filter((d) => d.atMs !== null)).toEqual([]);
  });
  test("an unsealed coat: said with a quarter of its time left, and out past it", () => {
    expect(of({ unsealedSinceMs: minutes(-17 * 60).getTime() }).filter((d) => d.atMs !== null)).toEqual([]);
    expect(of({ unsealedSinceMs: minutes(-19 * 60).getTime() })[0]).toMatchObject({
      what: "Rack 100, unsealed coat",
      word: "Coat by 16:00",
      result: "watch",
    });
    expect(of({ unsealedSinceMs: minutes(-25 * 60).getTime() })[0]).toMatchObject({
      word: "Wash again",
      result: "out",
    });
  });
  test("the rail says when the wiped rack is dry", () => {
    const facts = railFacts(
      line({ racks: [rack("100", "running", { stage: "prepare", wipedAtMs: minutes(-4).getTime() })] }),
      (d) => d.toISOString().slice(11, 16),
    );
    expect(facts.stages.find((s) => s.id === "prepare")?.fact.text).toBe("100 dry 10:06");
  });
});
