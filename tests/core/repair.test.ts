import { describe, expect, it } from "vitest";
import { designFor, repairFor } from "@/core/field";

const zone = (over: object) =>
  repairFor({ what: "face", protection: "in", appearance: "in", worst: [], rustPercent: null, ...over }).map(
    (a) => `${a.repair} ${a.cost}`,
  );

describe("what a zone asks for", () => {
  it("is nothing where it is good, or nobody looked", () => {
    expect(zone({})).toEqual([]);
    expect(zone({ protection: "unknown", appearance: "unknown" })).toEqual([]);
  });
  it("goes by what the zone is", () => {
    expect(zone({ protection: "watch" })).toEqual(["wash-and-watch small"]);
    expect(zone({ what: "edge", protection: "out", worst: ["creep"] })).toEqual(["edge-repair middle"]);
    expect(zone({ what: "seam", protection: "out", worst: ["seam"] })).toEqual(["open-and-seal middle"]);
    expect(zone({ what: "foot", protection: "out", worst: ["rust"], rustPercent: 4 })).toEqual(["foot-repair middle"]);
    expect(zone({ what: "chip", protection: "out", worst: ["creep"] })).toEqual(["spot-repair small"]);
  });
  it("is coated anew where it is more than spots, or the film lets go", () => {
    expect(zone({ what: "foot", protection: "out", worst: ["rust"], rustPercent: 9 })).toEqual(["recoat large"]);
    expect(zone({ what: "edge", protection: "out", worst: ["tape"], rustPercent: 1 })).toEqual(["recoat large"]);
  });
  it("of a look is polished while it is gloss alone", () => {
    expect(zone({ appearance: "out", worst: ["gloss"] })).toEqual(["wash-and-polish small"]);
    expect(zone({ appearance: "out", worst: ["gloss", "chalk"] })).toEqual(["coat-over-faded large"]);
  });
});

it("the next one is designed by what did not last", () => {
  const zones = [
    { what: "edge", protection: "out", appearance: "in" },
    { what: "seam", protection: "watch", appearance: "in" },
    { what: "face", protection: "in", appearance: "out" },
  ] as const;
  expect(designFor(zones)).toEqual(["break-edges", "better-grade"]);
  expect(designFor([])).toEqual([]);
});
