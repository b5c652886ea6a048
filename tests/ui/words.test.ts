import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { describe, expect, test } from "vitest";
import { earthChain } from "@/core/coating";
import { kinds, tablesOf } from "@/core/kinds";
import { decisions } from "@/core/line";
import { valueOrThrow } from "@/core/result";
import { countOf, figure, span, when, withUnit } from "@/ui/format";
import { recordSentence } from "@/ui/kinds";
import type { SaidDetails } from "@/ui/kinds/said";
import { pullOffSaid } from "@/ui/words/bench";
import { earthSaid } from "@/ui/words/coating";
import { decisionWords } from "@/ui/words/decisions";
import { failureText } from "@/ui/words/failures";
import { bakeReason, filmReason, foundText } from "@/ui/words/reasons";

const filesBelow = (directory: string): string[] =>
  readdirSync(directory, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? filesBelow(path.join(directory, e.name)) : [path.join(directory, e.name)],
  );

const saying = { units: "metric" as const, name: () => "", count: () => 0 };

describe("words", () => {
  test("a failure becomes a sentence with its value and what to do", () => {
    expect(failureText({ kind: "beyond-any-film", valueUm: 12000, mostUm: 10000 })).toBe(
      "12000 µm is more than any film (10000). Check the unit and the decimal mark.",
    );
    expect(failureText({ kind: "unknown-rack", number: "77" })).toContain("77");
    expect(failureText({ kind: "something-new" })).toBe("Refused: something new.");
  });
  test("whatever the core or the server can refuse has a sentence of its own", () => {
    const kinds = new Set<string>();
    for (const file of [...filesBelow("src/server"), ...filesBelow("src/core")])
      for (const match of readFileSync(file, "utf8").matchAll(
        /(?:refuse|err|failure:)\s*\(?\{\s*kind:\s*"([a-z0-9-]+)"/g,
      ))
        kinds.add(match[1] as string);
    expect(kinds.size).toBeGreaterThan(90);
    for (const kind of kinds) expect(failureText({ kind }), kind).not.toMatch(/^Refused:/);
  });
  test("every reason of a film or a bake says something whole, in either unit", () => {
    const film = [
      "area-mean-low",
      "area-mean-high",
      "spot-too-thin",
      "spot-too-thick",
      "spot-thin",
      "spot-thick",
      "spot-unread",
      "few-readings",
      "mean-below-nominal",
      "reading-below-80-percent",
      "reading-above-max",
      "too-many-between-80-and-100-percent",
      "some-between-80-and-100-percent",
      "areas-mean-low",
      "areas-mean-high",
      "area-below-80-percent",
      "area-thin",
      "too-few-read",
    ];
    const bake = [
      "index-short",
      "index-met",
      "hold-short",
      "hold-met",
      "only-index-met",
      "only-hold-met",
      "overbaked",
      "overbake-unknown-in-gap",
      "channel-dead",
      "gap",
      "extrapolated",
      "assumed-activation-energy",
    ];
    const numbers = {
      area: "a",
      spot: 1,
      meanUm: 50,
      limitUm: 60,
      nominalUm: 60,
      valueUm: 50,
      what: "readings",
      read: 6,
      asked: 45,
      got: 2,
      need: 3,
      count: 2,
      of: 10,
      channel: "Plate",
      index: 90,
      atC: 200,
      longestS: 300,
      neededS: 600,
      fromS: 10,
      toS: 60,
      share: 0.2,
    };
    for (const units of ["metric", "us"] as const) {
      for (const kind of film)
        expect(Object.values(filmReason({ kind, ...numbers } as never, units)).join(" "), kind).not.toMatch(
          /undefined|NaN/,
        );
      for (const kind of bake)
        expect(Object.values(bakeReason({ kind, ...numbers } as never, units)).join(" "), kind).not.toMatch(
          /undefined|NaN/,
        );
    }
  });
  test("a pull-off says its stress and how the film gave way, the largest share first; the earth what is unread", () => {
    const row = { stress_mpa: 6.04, adhesive_percent: 10, cohesive_percent: 90, glue_percent: 0 };
    expect(pullOffSaid(row)).toBe("6.0 MPa, 90 % within the film, 10 % off the metal");
    const earth = (links: Parameters<typeof earthChain>[0]) => earthSaid(valueOrThrow(earthChain(links)), 1);
    expect(earth({ "lead-rack": 0.2, "rack-hook": 0.2, "hook-part": 0.3 })).toBe("earth 0.7 of 1 MΩ");
    expect(earth({ "lead-rack": 0.2, "hook-part": 0.3 })).toBe("earth at least 0.5 of 1 MΩ, rack to hook not read");
    expect(earth({ "rack-hook": 1.2 })).toBe("earth 1.2 MΩ, over 1: most of it rack to hook");
  });
  test("every decision and record kind has its word", () => {
    for (const decision of decisions) expect(decisionWords[decision]).toBeTruthy();
    for (const { kind } of kinds())
      for (const empty of [{}, Object.fromEntries(tablesOf(kind).map((table) => [table, []]))])
        expect(recordSentence(kind, empty, saying), kind).toMatch(/^(?!.*(undefined|null|NaN)).*[a-z]{3}/);
  });
  test("what the record holds about a finding reads as a fact with its limits", () => {
    expect(
      foundText({
        kind: "value",
        quantity: "gun voltage",
        value: 78,
        unit: "kV",
        lower: 60,
        upper: 80,
        where: "booth 1",
      }),
    ).toBe("gun voltage 78.0 kV on 60–80, booth 1");
    expect(foundText({ kind: "never-recorded" })).toBe("never recorded");
    expect(foundText({ kind: "option-declined", what: "Primer", by: "the customer", on: "2024-09-02" })).toContain(
      "declined by the customer on 2024-09-02",
    );
  });
});

describe("figures", () => {
  test("carry their unit, in the person's own", () => {
    expect(withUnit(76.2, "thickness", "metric")).toBe("76.2 µm");
    expect(withUnit(76.2, "thickness", "us")).toBe("3.00 mil");
    expect(figure(200, "temperature", "us")).toEqual({ text: "392", unit: "°F" });
  });
  test("one is one, and more are many", () => {
    expect(countOf(1, "piece")).toBe("1 piece");
    expect(countOf(8, "piece")).toBe("8 pieces");
    expect(countOf(0, "piece")).toBe("0 pieces");
    expect(countOf(2, "box", "boxes")).toBe("2 boxes");
  });
  test("what is noted of a load is told by its event, and its section where it has one", () => {
    const said = (event: string, more: object = {}, units: "metric" | "us" = "metric") =>
      recordSentence("bake-event", { bake_event: [{ event, ...more }] } as unknown as SaidDetails, {
        ...saying,
        units,
      });
    expect(said("melted")).toBe("film melted");
    expect(said("infrared", { section: "Left leaf, top", value_c: 187 })).toBe(
      "metal read by infrared, 187 °C, Left leaf, top",
    );
    expect(said("infrared", { value_c: 187 }, "us")).toBe("metal read by infrared, 369 °F");
    expect(said("cooling")).toBe("set to cool");
    expect(said("something-new")).toBe("something new");
  });
  test("spans are said in the units that matter", () => {
    expect([4 * 60_000, 125 * 60_000, 3 * 86_400_000, 761 * 86_400_000].map(span)).toEqual([
      "4 min",
      "2 h 05",
      "3 d",
      "2 y 1 m",
    ]);
  });
  test("today is a time, another day says its day, in the site's zone", () => {
    const now = new Date("2026-06-10T12:00:00Z");
    expect(when(new Date("2026-06-10T05:15:00Z"), now, "Europe/London")).toBe("06:15");
    expect(when(new Date("2026-06-08T05:15:00Z"), now, "Europe/London")).toBe("8 Jun 06:15");
    expect(when(new Date("2026-06-09T23:30:00Z"), now, "Europe/London")).toBe("00:30");
    expect(when(new Date("2025-06-10T05:15:00Z"), now, "Europe/London")).toBe("10 Jun 2025");
  });
});
