import { describe, expect, test } from "vitest";
import { type LampLook, type OpenFacts, type OrderFacts, openItems, orderFault } from "@/core/line";

const look = (atMs: number, over: Partial<LampLook> = {}): LampLook => ({
  atMs,
  faces: ["S"],
  bumped: false,
  wiped: null,
  plugsIn: null,
  spots: [],
  ...over,
});
const facts = (over: Partial<OpenFacts> = {}): OpenFacts => ({
  lamps: [],
  plugsAsked: 0,
  fitSurface: false,
  sealsAsked: false,
  sealsOut: false,
  flightOffMs: null,
  doubtedMs: null,
  closed: [],
  ...over,
});
const kinds = (over: Partial<OpenFacts>) => openItems(facts(over)).map((o) => o.what);

describe("what is open of a rack", () => {
  test("nothing on record is nothing open", () => {
    expect(openItems(facts())).toEqual([]);
  });
  test("a bump noted after the lamp's look never undoes its count: 3 of 4 plugs stay short", () => {
    const lamps = [look(1, { plugsIn: 3, wiped: true }), look(2, { faces: [], bumped: true })];
    expect(openItems(facts({ lamps, plugsAsked: 4, fitSurface: true }))).toEqual([
      { what: "bump", holds: "oven", sinceMs: 2, places: [], count: null },
      { what: "plug-short", holds: "oven", sinceMs: 1, places: [], count: [3, 4] },
    ]);
  });
  test("counted again and all in, it is closed; more than asked too", () => {
    expect(kinds({ lamps: [look(1, { plugsIn: 3 }), look(2, { plugsIn: 4 })], plugsAsked: 4 })).toEqual([]);
    expect(kinds({ lamps: [look(1, { plugsIn: 5 })], plugsAsked: 4 })).toEqual([]);
    expect(kinds({ lamps: [look(1, { plugsIn: 0 })], plugsAsked: 0 })).toEqual([]);
  });
  test("a bump is a place to look at, closed by who looked after it, not before", () => {
    const lamps = [look(5, { spots: [{ face: "L", x: 10, y: 20, what: "bumped" }] })];
    expect(openItems(facts({ lamps }))[0]).toMatchObject({ what: "bump", places: [{ face: "L", x: 10, y: 20 }] });
    expect(kinds({ lamps, closed: [{ what: "bump", atMs: 6 }] })).toEqual([]);
    expect(kinds({ lamps, closed: [{ what: "bump", atMs: 5 }] })).toEqual(["bump"]);
    expect(kinds({ lamps, closed: [{ what: "light-left", atMs: 6 }] })).toEqual(["bump"]);
  });
  test("a place left light is closed when its face is seen again without one, not by another face", () => {
    const light = look(1, { spots: [{ face: "S", x: 1, y: 2, what: "light-left" }] });
    expect(kinds({ lamps: [light] })).toEqual(["light-left"]);
    expect(kinds({ lamps: [light, look(2, { faces: ["L"] })] })).toEqual(["light-left"]);
    expect(kinds({ lamps: [light, look(2)] })).toEqual([]);
    const still = look(2, { spots: [{ face: "S", x: 5, y: 5, what: "light-left" }] });
    expect(openItems(facts({ lamps: [light, still] }))[0]?.places).toHaveLength(2);
    expect(kinds({ lamps: [light], closed: [{ what: "light-left", atMs: 2 }] })).toEqual([]);
    expect(kinds({ lamps: [look(1, { spots: [{ face: "S", x: 1, y: 2, what: "light-resprayed" }] })] })).toEqual([]);
  });
  test("a fit not wiped counts on parts that have one, until the newest look that says", () => {
    const lamps = [look(1, { wiped: false }), look(2)];
    expect(kinds({ lamps, fitSurface: true })).toEqual(["fit-not-wiped"]);
    expect(kinds({ lamps, fitSurface: false })).toEqual([]);
    expect(kinds({ lamps: [...lamps, look(3, { wiped: true })], fitSurface: true })).toEqual([]);
  });
  test("seals hold the oven, a failed pre-flight and a doubted gauge the release", () => {
    expect(openItems(facts({ sealsAsked: true, flightOffMs: 3, doubtedMs: 4 })).map((o) => [o.what, o.holds])).toEqual([
      ["seal-in", "oven"],
      ["pre-flight-off", "release"],
      ["gauge-doubted", "release"],
    ]);
    expect(kinds({ sealsAsked: true, sealsOut: true })).toEqual([]);
    expect(kinds({ sealsAsked: true, closed: [{ what: "seal-in", atMs: 1 }] })).toEqual([]);
    expect(kinds({ flightOffMs: 3, closed: [{ what: "pre-flight-off", atMs: 4 }] })).toEqual([]);
    expect(kinds({ doubtedMs: 3, closed: [{ what: "gauge-doubted", atMs: 2 }] })).toEqual(["gauge-doubted"]);
  });
});

describe("the order of work", () => {
  const order = (over: Partial<OrderFacts> = {}): OrderFacts => ({
    route: ["blast", "clean", "conversion", "rinse", "dry-off", "booth", "oven"],
    passed: [],
    coatedMs: [],
    baked: [],
    recoat: false,
    ...over,
  });
  const washed = ["clean", "conversion", "rinse"].map((stage, i) => ({ stage, enteredMs: 10 * i, leftMs: 10 * i + 5 }));
  test("no booth without the wash of its route; what is missing is named in the order of the line", () => {
    expect(orderFault("booth", 100, order())).toEqual({
      kind: "not-washed",
      missing: ["clean", "conversion", "rinse"],
    });
    expect(orderFault("booth", 100, order({ passed: washed.slice(0, 2) }))).toEqual({
      kind: "not-washed",
      missing: ["rinse"],
    });
    expect(orderFault("booth", 100, order({ passed: washed }))).toBeNull();
    expect(orderFault("booth", 100, order({ route: ["blast", "booth", "oven"] }))).toBeNull();
  });
  test("over an old film, or a second coat on the first, the wash lies under it", () => {
    expect(orderFault("booth", 100, order({ recoat: true }))).toBeNull();
    expect(orderFault("coat", 100, order({ coatedMs: [50] }))).toBeNull();
  });
  test("no coat on a rack that is by its speed still in the washer", () => {
    const passed = [...washed, { stage: "dry-off", enteredMs: 30, leftMs: 200 }];
    expect(orderFault("booth", 100, order({ passed }))).toEqual({
      kind: "still-in-washer",
      stage: "dry-off",
      untilMs: 200,
    });
    expect(orderFault("booth", 200, order({ passed }))).toBeNull();
    const coming = [...washed, { stage: "dry-off", enteredMs: 300, leftMs: null }];
    expect(orderFault("booth", 100, order({ passed: coming }))).toMatchObject({
      kind: "still-in-washer",
      untilMs: 300,
    });
  });
  test("no oven without a coat at that moment", () => {
    expect(orderFault("oven", 100, order())).toEqual({ kind: "not-coated", coatedLaterMs: null });
    expect(orderFault("oven", 100, order({ coatedMs: [105, 101] }))).toEqual({
      kind: "not-coated",
      coatedLaterMs: 101,
    });
    expect(orderFault("oven", 100, order({ coatedMs: [100] }))).toBeNull();
  });
  test("no wash over loose powder or after the oven", () => {
    expect(orderFault("rinse", 100, order({ coatedMs: [50] }))).toEqual({ kind: "washed-after-coat" });
    expect(orderFault("rinse", 100, order({ coatedMs: [150] }))).toBeNull();
    const baked = [{ closedMs: 60, pulledMs: 80 }];
    expect(orderFault("clean", 100, order({ coatedMs: [50], baked }))).toEqual({ kind: "washed-after-oven" });
    expect(orderFault("clean", 40, order({ baked }))).toBeNull();
  });
  test("out of one oven before anything else but cooling", () => {
    const baked = [{ closedMs: 60, pulledMs: null }];
    expect(orderFault("booth", 100, order({ recoat: true, baked }))).toEqual({ kind: "still-in-oven", closedMs: 60 });
    expect(orderFault("cool", 100, order({ baked }))).toBeNull();
    expect(orderFault("blast", 59, order({ baked }))).toBeNull();
    const pulled = [{ closedMs: 60, pulledMs: 100 }];
    expect(orderFault("blast", 99, order({ baked: pulled }))).toMatchObject({ kind: "still-in-oven" });
    expect(orderFault("blast", 100, order({ baked: pulled }))).toBeNull();
  });
});
